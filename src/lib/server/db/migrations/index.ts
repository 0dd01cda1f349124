import type { Knex } from 'knex';
import * as ground from './0001-ground';
import * as capture from './0002-capture';
import * as citing from './0003-citing';
import * as ownStyleFields from './0004-own-style-fields';
import * as searchCopies from './0005-search-copies';
import * as leavingFiles from './0006-leaving-files';
import * as jobsInBrief from './0007-jobs-in-brief';
import * as plans from './0008-plans';
import * as shared from './0009-shared';
import * as likeness from './0010-likeness';
import * as tallies from './0011-tallies';
import * as jobsGoOn from './0012-jobs-go-on';
import * as projectsPutAway from './0013-projects-put-away';
import * as works from './0014-works';
import * as spellings from './0015-spellings';
import * as passages from './0016-passages';
import * as figures from './0017-figures';
import * as proof from './0018-proof';
import * as search from './0019-search';
import * as queries from './0020-queries';
import * as sections from './0021-sections';
import * as reading from './0022-reading';
import * as facets from './0023-facets';
import * as printedAnew from './0024-printed-anew';
import * as outline from './0025-outline';
import * as draft from './0026-draft';
import * as accounts from './0027-accounts';
import * as replies from './0028-replies';
import * as crossing from './0029-crossing';
import * as choosing from './0030-choosing';
import * as forSome from './0031-for-some';
import * as passkeys from './0032-passkeys';
import * as sentOnce from './0033-sent-once';
import * as repliesSought from './0034-replies-sought';
import * as pointsAtSource from './0035-points-at-source';
import * as textsSought from './0036-texts-sought';
import * as template from './0037-template';
import * as draftPictures from './0038-draft-pictures';
import * as byKind from './0039-by-kind';
import * as tagLooks from './0040-tag-looks';
import * as orcids from './0041-orcids';
import * as published from './0042-published';
import * as notes from './0043-notes';
import * as covering from './0044-covering';
import * as traits from './0045-traits';
import * as printedAgain from './0046-printed-again';
import * as listsApart from './0047-lists-apart';
import * as namesPrinted from './0048-names-printed';
import * as ownStyleLanguage from './0049-own-style-language';
import * as firstMentions from './0050-first-mentions';

interface Migration {
  name: string;
  up: (db: Knex) => Promise<void>;
  /** Whether it runs in a transaction of the migrator; where it is left out, it does. */
  config?: { transaction: boolean };
}

export const MIGRATIONS: Migration[] = [
  { name: '0001-ground', up: ground.up },
  { name: '0002-capture', up: capture.up },
  { name: '0003-citing', up: citing.up },
  { name: '0004-own-style-fields', up: ownStyleFields.up },
  { name: '0005-search-copies', up: searchCopies.up },
  { name: '0006-leaving-files', up: leavingFiles.up },
  { name: '0007-jobs-in-brief', up: jobsInBrief.up },
  { name: '0008-plans', up: plans.up },
  { name: '0009-shared', up: shared.up },
  { name: '0010-likeness', up: likeness.up },
  { name: '0011-tallies', up: tallies.up },
  { name: '0012-jobs-go-on', up: jobsGoOn.up },
  { name: '0013-projects-put-away', up: projectsPutAway.up },
  { name: '0014-works', up: works.up },
  { name: '0015-spellings', up: spellings.up },
  { name: '0016-passages', up: passages.up },
  { name: '0017-figures', up: figures.up },
  { name: '0018-proof', up: proof.up },
  { name: '0019-search', up: search.up },
  { name: '0020-queries', up: queries.up },
  { name: '0021-sections', up: sections.up },
  { name: '0022-reading', up: reading.up },
  { name: '0023-facets', up: facets.up },
  { name: '0024-printed-anew', up: printedAnew.up },
  { name: '0025-outline', up: outline.up },
  { name: '0026-draft', up: draft.up },
  { name: '0027-accounts', up: accounts.up },
  { name: '0028-replies', up: replies.up },
  { name: '0029-crossing', up: crossing.up },
  { name: '0030-choosing', up: choosing.up },
  { name: '0031-for-some', up: forSome.up },
  { name: '0032-passkeys', up: passkeys.up },
  { name: '0033-sent-once', up: sentOnce.up },
  { name: '0034-replies-sought', up: repliesSought.up },
  { name: '0035-points-at-source', up: pointsAtSource.up },
  { name: '0036-texts-sought', up: textsSought.up },
  { name: '0037-template', up: template.up },
  { name: '0038-draft-pictures', up: draftPictures.up },
  { name: '0039-by-kind', up: byKind.up },
  { name: '0040-tag-looks', up: tagLooks.up },
  { name: '0041-orcids', up: orcids.up },
  { name: '0042-published', up: published.up },
  { name: '0043-notes', up: notes.up },
  { name: '0044-covering', up: covering.up },
  { name: '0045-traits', ...traits },
  { name: '0046-printed-again', up: printedAgain.up },
  { name: '0047-lists-apart', up: listsApart.up },
  { name: '0048-names-printed', up: namesPrinted.up },
  { name: '0049-own-style-language', up: ownStyleLanguage.up },
  { name: '0050-first-mentions', up: firstMentions.up },
];

/** Gives the migrator the migrations, in order. They only go forward; a new one is added at the end. */
export const migrationSource: Knex.MigrationSource<Migration> = {
  getMigrations: () => Promise.resolve(MIGRATIONS),
  getMigrationName: (m) => m.name,
  getMigration: (m) =>
    Promise.resolve({ ...m, down: () => Promise.reject(new Error('migrations only go forward')) }),
};

import type { z } from 'zod';
import { formOfName, nameOfForm, respelled, type Spelled } from '../../core/duplicates';
import type { renameWords } from '../../core/forms';
import { creatorsOf, nameText, parseName, shortLabel, type SourceRecord } from '../../core/source';
import { foldWords, nfc, plain, squash } from '../../core/text';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { editSource, revisionsOfMade, type MadeOf } from '../sources/editing';
import { getSources } from '../sources/repository';
import { inTurn } from '../turns';
import { carryOrcid, orcidsSaid } from './orcids';
import { idsNaming, namesOf } from './repository';

export { setOrcid } from './orcids';

/** A person, an institution or a container, as records name it, and in how many sources. */
export interface NamedItem {
  name: string;
  n: number;
  /** Of a person, where it was said. */
  orcid?: string;
  /** Other names of the library that the same ORCID was said of. */
  also?: string[];
}

/** How many names are shown at once. */
const SHOWN = 300;
/** How many of the sources that would change are named. */
const LABELLED = 50;

/** The people, or what sources appeared in: those in most sources first, and of words only those that have each of them. */
export async function namesIn(
  ctx: Context,
  kind: Spelled,
  words: string,
  projectId: string | undefined,
): Promise<{ total: number; items: NamedItem[] }> {
  const rows = await namesOf(ctx, kind, projectId);
  const sought = foldWords(words);
  const fit = sought.length
    ? rows.filter(({ name }) => {
        const own = foldWords(name);
        return sought.every((word) => own.some((one) => one.startsWith(word)));
      })
    : rows;
  const items: NamedItem[] = fit.slice(0, SHOWN);
  if (kind !== 'person') return { total: fit.length, items };
  const orcids = await orcidsSaid(ctx);
  const named = new Set(rows.map(({ name }) => name));
  const whose = new Map<string, string[]>();
  for (const [name, orcid] of orcids)
    if (named.has(name)) whose.set(orcid, [...(whose.get(orcid) ?? []), name]);
  return {
    total: fit.length,
    items: items.map((item) => {
      const orcid = orcids.get(item.name);
      if (!orcid) return item;
      const also = (whose.get(orcid) ?? []).filter((name) => name !== item.name);
      return { ...item, orcid, ...(also.length ? { also } : {}) };
    }),
  };
}

/** The forms in a record of a name as it is shown: people of any role, or what it appeared in. */
function formsOf(record: SourceRecord, kind: Spelled, name: string): string[] {
  if (kind === 'container') {
    const title = record['container-title'];
    return title !== undefined && plain(title) === name ? [title] : [];
  }
  return creatorsOf(record)
    .flatMap((creator) => creator.names)
    .filter((one) => nameText(one) === name)
    .map(formOfName);
}

/** What stands in place of a form: an institution stays one, a person is read as names are typed. */
function typedForm(kind: Spelled, form: string, typed: string): string {
  const text = squash(nfc(typed));
  if (kind === 'container') return text;
  if (nameOfForm(form).literal !== undefined) return formOfName({ literal: text });
  const name = parseName(text);
  if (!name) throw new Refusal(422, 'Nothing was changed:', [`name: “${text}” is no name`]);
  return formOfName(name);
}

/** The sources a name stands in, for seeing them before it is called otherwise. */
export async function namedIn(
  ctx: Context,
  kind: Spelled,
  name: string,
): Promise<{ id: string; label: string; title: string }[]> {
  const ids = await idsNaming(ctx, kind, name);
  return (await getSources(ctx, ids.slice(0, LABELLED))).map(({ id, record }) => ({
    id,
    label: shortLabel(record),
    title: plain(record.title ?? ''),
  }));
}

/** A name, and what it is called from now on. */
export type Renamed = z.infer<typeof renameWords>;

/** The sources a name stands in, which are those it is called otherwise in; refuses a name that stands in none. */
export async function sourcesToRename(ctx: Context, { kind, name }: Renamed): Promise<string[]> {
  const ids = await idsNaming(ctx, kind, name);
  if (ids.length === 0) throw notHere('name');
  return ids;
}

/** Calls a name otherwise in sources it stands in, in every role; all or none. Gives the revisions made, for undoing. */
export const renameIn = (
  ctx: Context,
  said: Renamed,
  ids: readonly string[],
): Promise<{ revisions: string[] }> =>
  change(ctx, { right: 'edit', of: ['sources', 'duplicates'] }, async (inner) => ({
    revisions: revisionsOfMade(await renameEach(inner, said, ids)),
  }));

/** The same in a transaction that is under way, of which nobody is told. */
export async function renameEach(
  inner: Context,
  { kind, name, to }: Renamed,
  ids: readonly string[],
): Promise<MadeOf[]> {
  const made: MadeOf[] = [];
  let called: string | undefined;
  for await (const { id, revision, record } of inTurn(await getSources(inner, ids))) {
    const forms = formsOf(record, kind, name);
    if (forms.length === 0) continue;
    const form = typedForm(kind, forms[0]!, to);
    called ??= form;
    const fields = respelled(record, kind, new Set(forms), form);
    if (Object.keys(fields).length === 0) continue;
    const why = `${name} called ${to}`.slice(0, 200);
    const { revisionId } = await editSource(inner, id, revision, { fields }, why);
    if (revisionId) made.push({ sourceId: id, revisionId });
  }
  if (kind === 'person' && called) await carryOrcid(inner, name, nameText(nameOfForm(called)));
  return made;
}

import { picturesIn, type PagePicture } from '../../core/figures';
import { describe, findWords, locatorIn } from '../../core/passages';
import { shortLabel } from '../../core/source';
import { nfc, squash } from '../../core/text';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { readKept } from '../files/store';
import { copyOfAddress } from '../copies/repository';
import { getSource } from '../sources/repository';
import { insertPassage, passagesWhere, type Passage } from './repository';

/** A page that is in the library, with the pictures it is kept with. */
export interface PageHere {
  copyId: string;
  sourceId: string;
  sourceLabel: string;
  captured: string;
  pictures: PagePicture[];
}

/** What came of words selected on a page that is here: kept, kept before, or not in its copy. */
export interface FromPage {
  here: PageHere;
  passage: Pick<Passage, 'id' | 'exact' | 'locator'> | undefined;
  already: boolean;
}

/** A page that is here with its copy and the reading page of that. */
async function opened(ctx: Context, address: string) {
  const copy = await copyOfAddress(ctx, address);
  if (!copy) return undefined;
  const { record } = await getSource(ctx, copy.source_id);
  const html = (await readKept(copy.reading_sha256)).toString('utf8');
  const here: PageHere = {
    copyId: copy.id,
    sourceId: copy.source_id,
    sourceLabel: shortLabel(record),
    captured: copy.captured,
    pictures: picturesIn(html),
  };
  return { copy, html, here };
}

/** The page at an address as it is here; nothing where it is not. */
export const pageHere = async (ctx: Context, address: string): Promise<PageHere | undefined> =>
  (await opened(ctx, address))?.here;

/**
 * Keeps words selected on a page that is in the library as a quotation of its latest copy, where they stand in it. The same
 * words are not kept twice; words that copy does not have are not kept. Nothing where the page is not here.
 */
export async function keepFromPage(
  ctx: Context,
  given: { address: string; selection: string },
): Promise<FromPage | undefined> {
  const found = await opened(ctx, given.address);
  if (!found) return undefined;
  const { copy, html, here } = found;
  const words = squash(nfc(given.selection)).slice(0, 20_000);
  const at = words ? findWords(copy.text, words) : undefined;
  if (!at) return { here, passage: undefined, already: false };
  const selectors = describe(copy.text, at.start, at.end);
  return change(ctx, { right: 'annotate', of: ['passages'] }, async (inner) => {
    const there = (await passagesWhere(inner, { copy_id: copy.id })).find(
      (p) => p.exact === selectors.quote.exact && p.selectors?.position.start === selectors.position.start,
    );
    const passage =
      there ??
      (await insertPassage(inner, {
        sourceId: copy.source_id,
        copyId: copy.id,
        kind: 'quotation',
        tint: 'claim',
        selectors,
        exact: selectors.quote.exact,
        locator: locatorIn(html, selectors.quote.exact),
        gist: '',
        ownWords: '',
        visibility: 'library',
        anchor: 'found',
      }));
    const { id, exact, locator } = passage;
    return { here, passage: { id, exact, locator }, already: there !== undefined };
  });
}

import { findDoi, findIsbn, type CslName, type CslType } from '../../source';
import { collector, pageRange, textOnly, type Candidate } from '../candidate';
import { personName } from '../people';

/** Genres of the book and journal formats to CSL types. Source: ANSI/NISO Z39.88, Key/Encoded-Value formats. */
const GENRES: Record<string, CslType> = {
  article: 'article-journal',
  preprint: 'article',
  proceeding: 'paper-conference',
  bookitem: 'chapter',
  book: 'book',
  report: 'report',
  document: 'document',
};
const FORMATS: [RegExp, CslType][] = [
  [/mtx:dissertation/, 'thesis'],
  [/mtx:journal/, 'article-journal'],
  [/mtx:patent/, 'patent'],
  [/mtx:book/, 'book'],
];
/** Dublin Core types, as COinS in the `dc` format carry them. */
const DC_TYPES: [RegExp, CslType][] = [
  [/journalarticle/i, 'article-journal'],
  [/newspaperarticle/i, 'article-newspaper'],
  [/magazinearticle/i, 'article-magazine'],
  [/conferencepaper/i, 'paper-conference'],
  [/blogpost/i, 'post-weblog'],
  [/webpage/i, 'webpage'],
  [/thesis|dissertation/i, 'thesis'],
  [/report/i, 'report'],
  [/book/i, 'book'],
  [/film|video|movingimage/i, 'motion_picture'],
  [/dataset/i, 'dataset'],
  [/map/i, 'map'],
];

/** Reads one ContextObject, the `title` of a COinS span. Source: OpenURL COinS and ANSI/NISO Z39.88-2004. */
export function fromContextObject(kev: string): Candidate[] {
  const c = collector('coins');
  const p = new URLSearchParams(kev.replace(/&amp;/g, '&'));
  if (!/^Z39\.88/.test(p.get('ctx_ver') ?? '') && !p.get('rft_val_fmt')) return c.found;
  const one = (...names: string[]) => names.map((n) => p.get(`rft.${n}`)?.trim()).find(Boolean);
  const all = (name: string) => p.getAll(`rft.${name}`).filter((v) => v.trim());
  const format = p.get('rft_val_fmt') ?? '';
  const dc = /mtx:dc/.test(format);
  const type = dc
    ? DC_TYPES.find(([pattern]) => pattern.test(one('type') ?? ''))?.[1]
    : /mtx:dissertation|mtx:patent/.test(format)
      ? FORMATS.find(([pattern]) => pattern.test(format))?.[1]
      : (GENRES[one('genre') ?? ''] ?? FORMATS.find(([pattern]) => pattern.test(format))?.[1]);
  c.type(type, 'rft.genre');
  const part = type === 'article-journal' || type === 'chapter' || type === 'paper-conference';
  c.text(
    'title',
    textOnly(one('atitle') ?? (part && !dc ? '' : (one('btitle', 'title') ?? '')) ?? ''),
    one('atitle') ? 'rft.atitle' : 'rft.title',
  );
  if (part || dc)
    c.text(
      'container-title',
      one('jtitle') ??
        (one('atitle') ? one('btitle', 'title') : undefined) ??
        one('stitle') ??
        (dc ? one('source') : undefined),
      'rft.jtitle',
    );
  const [last, first] = [one('aulast'), one('aufirst') ?? one('auinit') ?? one('auinit1')];
  const lead = last ? personName(first ? `${last}, ${first}` : last) : undefined;
  const others = [...all('au'), ...(dc ? all('creator') : [])]
    .map(personName)
    .filter((n): n is CslName => n !== undefined);
  const corporation = one('aucorp');
  const same = (a: CslName, b: CslName) =>
    a.family?.toLowerCase() === b.family?.toLowerCase() && (a.given ?? '')[0] === (b.given ?? '')[0];
  const rest = lead ? others.filter((o) => !same(o, lead)) : others;
  const full =
    lead && (others.find((o) => same(o, lead) && (o.given?.length ?? 0) > (lead.given?.length ?? 0)) ?? lead);
  c.names(
    'author',
    [...(full ? [full] : []), ...rest, ...(corporation ? [{ literal: corporation }] : [])],
    'rft.au',
  );
  c.date('issued', one('date'), 'rft.date');
  c.text('volume', one('volume'), 'rft.volume');
  c.text('issue', one('issue'), 'rft.issue');
  c.text(
    'page',
    pageRange(one('pages')) ?? pageRange(one('spage'), one('epage')) ?? pageRange(one('artnum')),
    'rft.pages',
  );
  c.text('publisher', one('pub', 'inst', 'publisher'), 'rft.pub');
  c.text('publisher-place', one('place'), 'rft.place');
  c.text('edition', one('edition'), 'rft.edition');
  c.text('collection-title', one('series'), 'rft.series');
  c.text('ISSN', one('issn', 'eissn'), 'rft.issn');
  c.text('ISBN', findIsbn(one('isbn') ?? ''), 'rft.isbn');
  c.text('language', one('language'), 'rft.language');
  const ids = p.getAll('rft_id').concat(dc ? all('identifier') : []);
  c.text('DOI', ids.map(findDoi).find(Boolean), 'rft_id');
  const pmid = ids.map((i) => /^info:pmid\/(\d+)/.exec(i)?.[1]).find(Boolean);
  c.text('PMID', pmid, 'rft_id');
  c.text(
    'URL',
    ids.find((i) => /^https?:/.test(i) && !findDoi(i)),
    'rft_id',
  );
  return c.found;
}

/** The ContextObjects of a page. */
export function contextObjects(doc: Document): string[] {
  return [...doc.querySelectorAll('span.Z3988[title]')].map((s) => s.getAttribute('title')!).slice(0, 500);
}

/** Reads COinS of the page's own work: only when the page carries just one. */
export function coins(doc: Document): Candidate[] {
  const found = contextObjects(doc);
  return found.length === 1 ? fromContextObject(found[0]!) : [];
}

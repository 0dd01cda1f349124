import { collector, pageRange, personName, reconcile, type Candidate } from '../capture';
import {
  findDoi,
  findIsbn,
  type CslName,
  type CslType,
  type NameVariable,
  type SourceRecord,
} from '../source';
import { all, children, textIn, unpunctuated } from './xml';

/** `typeOfResource` and genre words to CSL types. Source: MODS User Guidelines, typeOfResource and genre. */
const GENRES: [RegExp, CslType][] = [
  [/thesis|dissertation/i, 'thesis'],
  [/conference/i, 'paper-conference'],
  [/newspaper/i, 'article-newspaper'],
  [/\barticle|journal article/i, 'article-journal'],
  [/book chapter|chapter/i, 'chapter'],
  [/report/i, 'report'],
  [/\bmap\b|cartographic/i, 'map'],
  [/film|moving image|video/i, 'motion_picture'],
  [/dataset/i, 'dataset'],
  [/software/i, 'software'],
  [/still image|photograph|picture/i, 'graphic'],
  [/manuscript/i, 'manuscript'],
  [/periodical/i, 'periodical'],
];
const ROLES: [RegExp, NameVariable][] = [
  [/^(?:edt|editor)/i, 'editor'],
  [/^(?:trl|translator)/i, 'translator'],
  [/^(?:ill|illustrator)/i, 'illustrator'],
  [/^(?:drt|director)/i, 'director'],
  [/^(?:cmp|composer)/i, 'composer'],
  [/^(?:aut|cre|author|creator)/i, 'author'],
];

const titleIn = (root: Element): string => {
  const info =
    children(root, 'titleInfo').find((t) => !t.hasAttribute('type')) ?? children(root, 'titleInfo')[0];
  if (!info) return '';
  const part = (name: string) => unpunctuated(textIn(children(info, name)[0]));
  const lead = textIn(children(info, 'nonSort')[0]);
  const main = [lead, part('title')].filter(Boolean).join(/[’']$/.test(lead) ? '' : ' ');
  const rest = [part('partNumber'), part('partName')].filter(Boolean);
  return [[main, part('subTitle')].filter(Boolean).join(': '), ...rest].join('. ');
};

function nameIn(name: Element): CslName | undefined {
  const parts = children(name, 'namePart');
  const typed = (type: string) => textIn(parts.find((p) => p.getAttribute('type') === type));
  const plain = textIn(parts.find((p) => !p.hasAttribute('type')));
  if (name.getAttribute('type') === 'corporate' || name.getAttribute('type') === 'conference')
    return plain
      ? {
          literal: parts
            .filter((p) => !p.hasAttribute('type'))
            .map((p) => unpunctuated(textIn(p)))
            .join(', '),
        }
      : undefined;
  const [family, given, suffix] = [typed('family'), typed('given'), typed('termsOfAddress')];
  const made = personName(family ? (given ? `${family}, ${given}` : family) : unpunctuated(plain));
  return made && /^(?:jr|sr|i{1,3}|iv)\.?$/i.test(suffix) ? { ...made, suffix } : made;
}

function names(c: ReturnType<typeof collector>, root: Element, only?: NameVariable) {
  const by = new Map<NameVariable, CslName[]>();
  for (const element of children(root, 'name')) {
    const said = all(element, 'roleTerm').map(textIn);
    const role =
      said.map((s) => ROLES.find(([pattern]) => pattern.test(s))?.[1]).find(Boolean) ??
      (said.length ? undefined : 'author');
    const name = nameIn(element);
    if (role && name && (!only || role === only)) by.set(role, [...(by.get(role) ?? []), name]);
  }
  for (const [role, list] of by) c.names(role, list, 'name');
}

function candidatesIn(record: Element): Candidate[] {
  const c = collector('registry');
  const words = [...children(record, 'genre'), ...children(record, 'typeOfResource')].map(textIn);
  const host = children(record, 'relatedItem').find((r) => r.getAttribute('type') === 'host');
  const series = children(record, 'relatedItem').find((r) => r.getAttribute('type') === 'series');
  const known = words.map((w) => GENRES.find(([pattern]) => pattern.test(w))?.[1]).find(Boolean);
  c.type(known ?? (host ? 'chapter' : 'book'), 'genre');
  c.text('title', titleIn(record), 'titleInfo');
  names(c, record);
  const origin = children(record, 'originInfo')[0] ?? (host && children(host, 'originInfo')[0]);
  if (origin) {
    const place = all(origin, 'placeTerm').find((p) => p.getAttribute('type') !== 'code');
    c.text('publisher-place', unpunctuated(textIn(place)), 'placeTerm');
    c.text('publisher', unpunctuated(textIn(children(origin, 'publisher')[0])), 'publisher');
    const dates = children(origin, 'dateIssued');
    const date =
      dates.find((d) => d.hasAttribute('keyDate')) ??
      dates.find((d) => d.getAttribute('encoding') === 'w3cdtf') ??
      dates[0];
    c.date('issued', textIn(date).replace(/^[[c©]+|\]$/g, ''), 'dateIssued');
    c.text('edition', unpunctuated(textIn(children(origin, 'edition')[0])), 'edition');
  }
  const language =
    all(record, 'languageTerm').find((l) => l.getAttribute('type') === 'code') ??
    all(record, 'languageTerm')[0];
  c.text('language', textIn(language), 'languageTerm');
  c.text(
    'number-of-pages',
    /(\d{1,5})\s*(?:p\b|pages|s\.)/i.exec(textIn(all(record, 'extent')[0]))?.[1],
    'extent',
  );
  if (series) {
    const m = /^(.*?)\s*[;,]\s*(?:vol|no|bd|nr)?\.?\s*(\d+)$/i.exec(titleIn(series));
    c.text('collection-title', m?.[1] ?? titleIn(series), 'relatedItem series');
    c.text('collection-number', m?.[2], 'relatedItem series');
  }
  if (host) {
    c.text('container-title', titleIn(host), 'relatedItem host');
    names(c, host, 'editor');
  }
  const part = children(record, 'part')[0] ?? (host && children(host, 'part')[0]);
  if (part) {
    const detail = (type: string) =>
      textIn(
        children(children(part, 'detail').find((d) => d.getAttribute('type') === type) ?? part, 'number')[0],
      );
    c.text('volume', detail('volume'), 'part');
    c.text('issue', detail('issue') || detail('number'), 'part');
    const extent = children(part, 'extent').find((e) => /^pages?$/.test(e.getAttribute('unit') ?? ''));
    if (extent)
      c.text(
        'page',
        pageRange(textIn(children(extent, 'start')[0]), textIn(children(extent, 'end')[0])),
        'part',
      );
  }
  const identifiers = (root: Element | undefined, type: string) =>
    (root ? children(root, 'identifier') : [])
      .filter((i) => i.getAttribute('type') === type && !i.hasAttribute('invalid'))
      .map(textIn);
  c.text(
    'ISBN',
    [...identifiers(record, 'isbn'), ...identifiers(host, 'isbn')].map(findIsbn).find(Boolean),
    'identifier',
  );
  c.text('ISSN', [...identifiers(record, 'issn'), ...identifiers(host, 'issn')][0], 'identifier');
  c.text(
    'DOI',
    [...identifiers(record, 'doi'), ...identifiers(record, 'uri')].map(findDoi).find(Boolean),
    'identifier',
  );
  c.text('abstract', textIn(children(record, 'abstract')[0]), 'abstract');
  c.text(
    'URL',
    all(record, 'url')
      .map(textIn)
      .find((u) => /^https?:/.test(u) && !findDoi(u)),
    'location',
  );
  return c.found;
}

/** The records of a MODS document. Source: MODS 3.8 schema and user guidelines. */
export function modsRecords(doc: Document, at: string): SourceRecord[] {
  return all(doc, 'mods').map((r) => reconcile(candidatesIn(r), undefined, at));
}

/** The candidates of the first MODS record of a document. */
export function modsCandidates(doc: Document): Candidate[] {
  const record = all(doc, 'mods')[0];
  return record ? candidatesIn(record) : [];
}

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

/** Relator codes and terms to the names CSL has. Source: MARC Code List for Relators. */
const ROLES: [RegExp, NameVariable][] = [
  [/^(?:edt|edc|edm)$|editor|herausgeber|hrsg/i, 'editor'],
  [/^trl$|translator|übersetz/i, 'translator'],
  [/^ill$|illustrat/i, 'illustrator'],
  [/^(?:drt|fmd)$|director|regie/i, 'director'],
  [/^cmp$|composer/i, 'composer'],
  [/^com$|compiler/i, 'compiler'],
  [/^(?:aui|win)$|introduction/i, 'contributor'],
  [/^(?:aut|cre|dis)$|author|verfasser|creator/i, 'author'],
];

/** Type of record (leader 06) to CSL types. Source: MARC 21 Format for Bibliographic Data, Leader. */
const TYPES: Record<string, CslType> = {
  e: 'map',
  f: 'map',
  g: 'motion_picture',
  i: 'song',
  j: 'song',
  c: 'musical_score',
  d: 'musical_score',
  k: 'graphic',
  m: 'software',
  p: 'collection',
  t: 'manuscript',
};

interface Field {
  tag: string;
  second: string;
  get: (code: string) => string;
  every: (code: string) => string[];
}

function nameIn(field: Field): CslName | undefined {
  const a = unpunctuated(field.get('a'));
  if (!a) return undefined;
  if (/^[17]1[01]$/.test(field.tag)) {
    const parts = [a, ...field.every('b').map(unpunctuated)];
    return { literal: parts.join(', ') };
  }
  const suffix = /^(?:jr|sr|i{1,3}|iv)\.?$/i.exec(unpunctuated(field.get('c')))?.[0];
  const name = personName(a);
  return name && suffix ? { ...name, suffix } : name;
}

function candidatesIn(record: Element): Candidate[] {
  const c = collector('registry');
  const fields: Field[] = children(record, 'datafield').map((f) => {
    const every = (code: string) =>
      children(f, 'subfield')
        .filter((s) => s.getAttribute('code') === code)
        .map(textIn);
    return {
      tag: f.getAttribute('tag') ?? '',
      second: f.getAttribute('ind2') ?? '',
      get: (code) => every(code)[0] ?? '',
      every,
    };
  });
  const of = (...tags: string[]) => fields.filter((f) => tags.includes(f.tag));
  const leader = textIn(children(record, 'leader')[0]);
  const raw = children(record, 'leader')[0]?.textContent ?? leader;
  const fixed =
    children(record, 'controlfield').find((f) => f.getAttribute('tag') === '008')?.textContent ?? '';
  const host = of('773')[0];
  const thesis = of('502')[0];
  const level = raw[7];
  const type: CslType = thesis
    ? 'thesis'
    : (TYPES[raw[6] ?? ''] ??
      (level === 's'
        ? 'periodical'
        : level === 'a' || level === 'b'
          ? /\bvol|\bno\b|\(\d{4}\)/i.test(host?.get('g') ?? '')
            ? 'article-journal'
            : 'chapter'
          : 'book'));
  c.type(type, 'leader');
  const title = of('245')[0];
  if (title) {
    const main = unpunctuated(title.get('a'));
    const rest = title.every('b').map(unpunctuated).filter(Boolean);
    const part = [...title.every('n'), ...title.every('p')].map(unpunctuated).filter(Boolean);
    c.text('title', [[main, ...rest].join(': '), ...part].join('. '), '245');
  }
  const names = new Map<NameVariable, CslName[]>();
  for (const field of of('100', '110', '111', '700', '710')) {
    if (field.get('t')) continue;
    const said = [...field.every('4'), ...field.every('e')].map((r) => unpunctuated(r).replace(/^.*\//, ''));
    const role =
      said.map((r) => ROLES.find(([pattern]) => pattern.test(r))?.[1]).find(Boolean) ??
      (field.tag.startsWith('1') || said.length === 0 ? 'author' : undefined);
    const name = nameIn(field);
    if (role && name) names.set(role, [...(names.get(role) ?? []), name]);
  }
  for (const [role, list] of names) c.names(role, list, '100, 700');
  const edition = of('250')[0]?.get('a');
  c.text('edition', edition && unpunctuated(edition), '250');
  const imprint = of('264').find((f) => f.second === '1') ?? of('264', '260')[0];
  if (imprint) {
    const place = unpunctuated(imprint.get('a')).replace(/^\[|\]$/g, '');
    if (!/^s\.?\s?l\b/i.test(place)) c.text('publisher-place', place, imprint.tag);
    const publisher = unpunctuated(imprint.get('b')).replace(/^\[|\]$/g, '');
    if (!/^s\.?\s?n\b/i.test(publisher)) c.text('publisher', publisher, imprint.tag);
  }
  const year = /^[\d]{4}$/.exec(fixed.slice(7, 11))?.[0];
  const printed = /\d{4}/.exec(imprint?.get('c') ?? '')?.[0];
  c.date('issued', printed ?? year, imprint ? `${imprint.tag} $c` : '008');
  c.text('language', fixed.length > 37 ? fixed.slice(35, 38) : of('041')[0]?.get('a'), '008');
  c.text(
    'number-of-pages',
    /(\d{1,5})\s*(?:p\b|pages|s\.|seiten|bl\.)/i.exec(of('300')[0]?.get('a') ?? '')?.[1],
    '300',
  );
  const series = of('490')[0] ?? of('830')[0];
  if (series) {
    c.text('collection-title', unpunctuated(series.get('a')), series.tag);
    c.text(
      'collection-number',
      unpunctuated(series.get('v')).replace(/^(?:vol|no|bd|nr)\.?\s*/i, ''),
      series.tag,
    );
  }
  if (thesis) {
    c.text(
      'genre',
      unpunctuated(thesis.get('b')) ||
        /\b(?:Ph\.?\s?D\.?|M\.?A\.?|M\.?Sc\.?|Dissertation|doctoral|master’?s?)/i.exec(thesis.get('a'))?.[0],
      '502',
    );
    c.text('publisher', unpunctuated(thesis.get('c')), '502');
  }
  if (host) {
    c.text('container-title', unpunctuated(host.get('t')), '773');
    const where = host.get('g');
    c.text('volume', /\b(?:vol|bd|volume)\.?\s*(\d+)/i.exec(where)?.[1], '773');
    c.text('issue', /\b(?:no|nr|h|issue)\.?\s*(\d+)/i.exec(where)?.[1], '773');
    c.text('page', pageRange(/\b(?:pp?|s|pages?)\.?\s*(\w+\s*[-–]\s*\w+|\d+)/i.exec(where)?.[1]), '773');
    c.text('ISSN', host.get('x'), '773');
  }
  c.text('abstract', of('520')[0]?.get('a'), '520');
  c.text(
    'ISBN',
    of('020')
      .map((f) => findIsbn(f.get('a')))
      .find(Boolean),
    '020',
  );
  c.text('ISSN', of('022')[0]?.get('a'), '022');
  c.text(
    'DOI',
    of('024')
      .map((f) => findDoi(f.get('a')))
      .find(Boolean),
    '024',
  );
  c.text(
    'URL',
    of('856')
      .map((f) => f.get('u'))
      .find((u) => /^https?:/.test(u) && !findDoi(u)),
    '856',
  );
  return c.found;
}

/** The records of a MARCXML document. Source: MARC 21 Format for Bibliographic Data; MARCXML schema. */
export function marcRecords(doc: Document, at: string): SourceRecord[] {
  return all(doc, 'record')
    .filter((r) => children(r, 'datafield').length > 0)
    .map((r) => reconcile(candidatesIn(r), undefined, at));
}

/** The candidates of the first MARC record of a document. */
export function marcCandidates(doc: Document): Candidate[] {
  const record = all(doc, 'record').find((r) => children(r, 'datafield').length > 0);
  return record ? candidatesIn(record) : [];
}

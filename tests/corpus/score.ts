import { JSDOM } from 'jsdom';
import { joinRegistry, readDocument, recordOf, type Candidate } from '../../src/lib/core/capture';
import { dateText, fold, nameText, type CslName, type SourceRecord } from './core';
import type { Label, Labelled } from './label';

export const FIELDS = [
  'type',
  'title',
  'creators',
  'date',
  'container',
  'volume',
  'issue',
  'pages',
  'identifiers',
] as const;
export type Field = (typeof FIELDS)[number];

const names = (list: CslName[] | undefined) => (list ?? []).map(nameText).join('; ');

/** What a record says, in the words of a label. Case of titles counts only where the page did not shout. */
function said(r: SourceRecord): Record<Field, string> {
  const creators = [
    names(r.author),
    r.editor ? `ed. ${names(r.editor)}` : '',
    r.director ? `dir. ${names(r.director)}` : '',
  ];
  return {
    type: r.type,
    title: r.title ?? '',
    creators: creators.filter(Boolean).join(' / '),
    date: dateText(r.issued),
    container: r['container-title'] ?? '',
    volume: r.volume ?? '',
    issue: r.issue ?? '',
    pages: r.page ?? '',
    identifiers: [r.DOI?.toLowerCase(), r.ISBN?.replace(/-/g, ''), r.ISSN].filter(Boolean).join(' '),
  };
}

function wanted(l: Label): Record<Field, string> {
  const creators = [
    l.author ?? '',
    l.editor ? `ed. ${l.editor}` : '',
    l.director ? `dir. ${l.director}` : '',
  ];
  return {
    type: l.type,
    title: l.title,
    creators: creators.filter(Boolean).join(' / '),
    date: l.issued ?? '',
    container: l.container ?? '',
    volume: l.volume ?? '',
    issue: l.issue ?? '',
    pages: l.page ?? '',
    identifiers: [l.DOI?.toLowerCase(), l.ISBN?.replace(/-/g, ''), l.ISSN].filter(Boolean).join(' '),
  };
}

/** Reads a labelled page as a capture does, the registry's record joined when there is one. */
export function readLabelled(
  given: Labelled,
  registry?: (doi: string) => Candidate[] | undefined,
): SourceRecord {
  const { document } = new JSDOM(given.html, { url: given.address }).window;
  const { candidates } = readDocument(document, given.address, given.linkHeader ?? '');
  const doi = candidates.find((c) => c.field === 'DOI')?.value as string | undefined;
  const answer = doi && registry?.(doi);
  const joined = answer ? joinRegistry(candidates, answer, 'DOI') : { candidates };
  return recordOf(joined.candidates, given.address, '2026-01-01T00:00:00.000Z');
}

export interface Miss {
  page: string;
  field: Field;
  wanted: string;
  read: string;
}

/** How many pages each field is right on, of those where it is there or was read; and every miss. */
export function score(pages: Labelled[], registry?: (doi: string) => Candidate[] | undefined) {
  const right = Object.fromEntries(FIELDS.map((f) => [f, 0])) as Record<Field, number>;
  const of = Object.fromEntries(FIELDS.map((f) => [f, 0])) as Record<Field, number>;
  const misses: Miss[] = [];
  for (const given of pages) {
    const [read, want] = [said(readLabelled(given, registry)), wanted(given.label)];
    for (const field of FIELDS) {
      if (!read[field] && !want[field]) continue;
      of[field]++;
      const same =
        field === 'title'
          ? read.title === want.title ||
            (fold(read.title) === fold(want.title) && read.title !== read.title.toUpperCase())
          : read[field] === want[field];
      if (same) right[field]++;
      else misses.push({ page: given.name, field, wanted: want[field], read: read[field] });
    }
  }
  return { right, of, misses };
}

import { proof, type Finding } from '../../core/proof';
import { derive, translationsOf, type SourceRecord } from '../../core/source';
import { plain } from '../../core/text';
import type { SearchText } from '../search/repository';

/**
 * The version of what is derived from a record: the columns, the findings, what a source is found by, how its names are
 * spelled and which pairs look like one work. Raise it whenever one of these changes: rows of an earlier version are then
 * brought up to date.
 */
export const DERIVED = 6;

/** The columns written from a record and what the proof finds in it, and from nothing else. */
export function columnsOf(record: SourceRecord, findings: Finding[] = proof(record)) {
  const d = derive(record);
  return {
    record: JSON.stringify(record),
    type: d.type,
    title: d.title,
    title_key: d.titleKey,
    creator_key: d.creatorKey,
    year: d.year,
    doi: d.doi,
    isbn: d.isbn,
    address_key: d.addressKey,
    sort_key: d.sortKey,
    people: d.people,
    findings: JSON.stringify(findings),
    derived: DERIVED,
  };
}

/** What the search finds a source by. */
export function searchText({ record, citekey }: { record: SourceRecord; citekey: string }): SearchText {
  const d = derive(record);
  const joined = (texts: unknown[]) =>
    texts
      .filter(Boolean)
      .map((t) => plain(String(t)))
      .join(' \n');
  return {
    title: joined([
      d.title,
      record['title-short'],
      record['original-title'],
      ...translationsOf(record).map((t) => t.text),
    ]),
    people: d.people,
    appeared: joined([
      record['container-title'],
      record['container-title-short'],
      record['collection-title'],
      record.publisher,
    ]),
    body: joined([
      d.year,
      citekey,
      record.DOI,
      record.ISBN,
      record.abstract,
      record.note,
      ...record.retexa.tags,
    ]),
  };
}

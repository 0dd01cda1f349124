import { parseDate, parseName, typedDate, type CslName, type CslType, type SourceRecord } from '../../source';
import { finish } from '../finish';
import type { ReadResult } from '../types';

/**
 * Tags of the MEDLINE/PubMed format that are one text variable. Source: National Library of Medicine, "MEDLINE/PubMed
 * Data Element (Field) Descriptions"; read from memory of that list.
 */
const TAGS: Record<string, keyof SourceRecord> = {
  TI: 'title',
  BTI: 'container-title',
  JT: 'container-title',
  TA: 'container-title-short',
  VI: 'volume',
  IP: 'issue',
  AB: 'abstract',
  LA: 'language',
  PL: 'publisher-place',
  PB: 'publisher',
  EN: 'edition',
  CTI: 'collection-title',
  PMID: 'PMID',
  PMC: 'PMCID',
  IS: 'ISSN',
  ISBN: 'ISBN',
  TT: 'original-title',
  VTI: 'volume-title',
};

/** Languages of MARC's three letters that are met most, to BCP 47. */
const LANGUAGES: Record<string, string> = {
  eng: 'en', fre: 'fr', ger: 'de', spa: 'es', ita: 'it', por: 'pt', rus: 'ru', jpn: 'ja', chi: 'zh', dut: 'nl', pol: 'pl', swe: 'sv', dan: 'da',
  nor: 'no', kor: 'ko', tur: 'tr', cze: 'cs', hun: 'hu', fin: 'fi', gre: 'el', heb: 'he', ara: 'ar', ukr: 'uk', rum: 'ro',
}; // prettier-ignore

/** Publication types that are not an article in a journal. */
const TYPES: [RegExp, CslType][] = [
  [/^Book Chapter$/i, 'chapter'],
  [/^Book$/i, 'book'],
  [/^Dissertation|Thesis$/i, 'thesis'],
  [/^Technical Report$/i, 'report'],
  [/^Dataset$/i, 'dataset'],
  [/^Preprint$/i, 'article'],
  [/^Newspaper Article$/i, 'article-newspaper'],
  [/^(?:Congress|Congresses)$/i, 'paper-conference'],
];

/** The last page of a shortened range written out: `112-30` is 112 to 130. */
function pages(text: string): string {
  return text.replace(/(\d+)-(\d+)/g, (whole, from: string, to: string) =>
    to.length < from.length ? `${from}-${from.slice(0, from.length - to.length)}${to}` : whole,
  );
}

/** `Ferreira AM` is a family name with initials. */
function shortForm(text: string): CslName | undefined {
  const m = /^(.+?) ([A-Z]{1,4})(?: (Jr|Sr|2nd|3rd))?$/.exec(text);
  if (!m) return parseName(text);
  return {
    family: m[1]!,
    given: [...m[2]!].map((c) => `${c}.`).join(' '),
    ...(m[3] ? { suffix: m[3] } : {}),
  };
}

interface Raw {
  line: number;
  tags: [string, string][];
}

function split(source: string): { records: Raw[]; skipped: ReadResult['skipped'] } {
  const records: Raw[] = [];
  const skipped: ReadResult['skipped'] = [];
  let current: Raw | undefined;
  const numbered = source.includes('PMID-');
  source.split(/\r\n|\r|\n/).forEach((text, i) => {
    const m = /^([A-Z]{2,4}) {0,2}- ?(.*)$/.exec(text);
    if (m) {
      if (m[1] === 'PMID' || !current) {
        current = { line: i + 1, tags: [] };
        records.push(current);
      }
      current.tags.push([m[1]!, m[2]!.trim()]);
    } else if (/^\s{2,}\S/.test(text) && current?.tags.length)
      current.tags[current.tags.length - 1]![1] += ` ${text.trim()}`;
    else if (text.trim() === '') {
      if (current && !numbered) current = undefined;
    } else skipped.push({ line: i + 1, reason: 'text outside a record', text: text.slice(0, 120) });
  });
  return { records, skipped };
}

function record({ line, tags }: Raw) {
  const every = (tag: string) => tags.filter(([t, v]) => t === tag && v).map(([, v]) => v);
  const type = every('PT').flatMap((p) => TYPES.find(([pattern]) => pattern.test(p))?.[1] ?? [])[0];
  const fields: Record<string, unknown> = {
    type: type ?? (every('BTI').length && !every('TI').length ? 'book' : 'article-journal'),
  };
  const kept: Record<string, string> = {};
  const names = (full: string, short: string) =>
    (every(full).length ? every(full).map(parseName) : every(short).map(shortForm)).filter(
      (n) => n !== undefined,
    );
  const author = [...names('FAU', 'AU'), ...every('CN').map((literal): CslName => ({ literal }))];
  if (author.length) fields.author = author;
  const editor = names('FED', 'ED');
  if (editor.length) fields.editor = editor;
  const READ = new Set(['FAU', 'AU', 'CN', 'FED', 'ED', 'MH', 'OT', 'PT', 'DP', 'PG', 'AID', 'LID']);
  for (const [tag, value] of tags) {
    const variable = TAGS[tag];
    if (READ.has(tag) || !value) continue;
    if (!variable || fields[variable] !== undefined) kept[tag] = kept[tag] ? `${kept[tag]}\n${value}` : value;
    else if (variable === 'language') fields.language = LANGUAGES[value] ?? value;
    else if (variable === 'title')
      fields.title = value.replace(/^\[([\s\S]+)\]\.?$/, '$1').replace(/(?<!\.\.)\.$/, '');
    else if (variable === 'ISSN') fields.ISSN = /\d{4}-\d{3}[\dX]/i.exec(value)?.[0] ?? value;
    else if (variable === 'ISBN') fields.ISBN = /[\dX-]{10,17}/i.exec(value)?.[0] ?? value;
    else fields[variable] = value;
  }
  if (fields.type === 'book' && !fields.title) {
    fields.title = fields['container-title'];
    delete fields['container-title'];
  }
  const [date] = every('DP');
  // "2021 Nov-Dec" is two months; "2021 Nov 3" a day; the order is always year first.
  const months = /^(\d{4}) ([A-Z][a-z]{2})-([A-Z][a-z]{2})$/.exec(date ?? '');
  const ends =
    months && [months[2]!, months[3]!].map((m) => parseDate(`${m} ${months[1]!}`)?.['date-parts']?.[0]);
  if (ends?.[0] && ends[1]) fields.issued = { 'date-parts': ends };
  else if (date)
    fields.issued =
      parseDate(date.replace(/^(\d{4}) (\p{L}+) ?(\d{1,2})?$/u, '$3 $2 $1').trim()) ?? typedDate(date);
  const [page] = every('PG');
  if (page) fields.page = pages(page);
  const doi = [...every('LID'), ...every('AID')].find((id) => /\[doi\]$/.test(id));
  if (doi) fields.DOI = doi.slice(0, -'[doi]'.length).trimEnd();
  const words = [...every('MH'), ...every('OT')].map((w) => w.replace(/\*/g, '').slice(0, 120));
  return finish(
    fields as Partial<SourceRecord> & { type: CslType },
    { format: 'medline', fields: kept },
    { line, notes: [], text: every('TI')[0] ?? '', tags: [...new Set(words)] },
  );
}

/** Reads the tagged text of MEDLINE/PubMed. */
export function readMedline(text: string): ReadResult {
  const { records, skipped } = split(text.replace(/^\uFEFF/, ''));
  const result: ReadResult = { entries: [], skipped: [...skipped] };
  for (const raw of records) {
    const { entry, skipped: refused } = record(raw);
    if (entry) result.entries.push(entry);
    if (refused) result.skipped.push(refused);
  }
  return result;
}

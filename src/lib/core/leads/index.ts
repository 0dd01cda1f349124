import { collector, pageRange, peopleOf, reconcile } from '../capture';
import { findDoi, findIsbn, type CslName, type SourceRecord } from '../source';
import { fold, nfc, squash } from '../text';
import { LONGEST, MARKER } from './split';

export { referenceListIn, type ReferenceList } from './list';
export { looksLikeReference, splitReferences } from './split';

const YEAR = String.raw`(?:1[5-9]|20)\d\d`;
const IN_BRACKETS = new RegExp(
  String.raw`\(\s*((?:c\.\s*|ca\.\s*)?${YEAR}[a-z]?(?:[/–-]\d{2,4})?(?:,\s*[^)]{3,25})?|n\.\s?d\.|in press|forthcoming)\s*\)[.,:]?\s*`,
  'i',
);
const BETWEEN_STOPS = new RegExp(String.raw`[.,]\s+(${YEAR})[a-z]?\s*[.,]\s+`);

const NUMBERS: RegExp[] = [
  // 2021;3(1-2):7-24  (the ICMJE samples)
  new RegExp(
    String.raw`(?<year>${YEAR})(?:\s+\p{L}{3,9}(?:\s+\d{1,2})?)?\s*;\s*(?<volume>\d+)\s*(?:\((?<issue>[^)]+)\))?\s*:\s*(?<page>\w+(?:\s*[–-]\s*\w+)?)`,
    'u',
  ),
  // 3(1-2), 7–24 and 3 (1–2): 7–24
  /(?<volume>\d+)\s*\((?<issue>[^)\d]*\d[^)]*)\)\s*[,:]\s*(?:pp?\.\s*)?(?<page>[a-z]?\d+(?:\s*[–-]\s*[a-z]?\d+)?)/iu,
  // vol. 3, no. 1, [2021,] pp. 7–24
  /\bvol\.?\s*(?<volume>\d+)(?:,\s*(?:no|nr|issue)\.?\s*(?<issue>[\w–-]+))?(?:,[^,]{0,24})?,?\s*(?:pp?\.?\s*(?<page>\d+(?:\s*[–-]\s*\d+)?))?/iu,
  // 3, no. 1 (2021): 7–24
  /(?<volume>\d+),\s*(?:no|nr)\.\s*(?<issue>[\w–-]+)\s*(?:\([^)]*\))?\s*:\s*(?<page>\d+(?:\s*[–-]\s*\d+)?)/iu,
  // 3, 7–24 or 3: 7–24
  /(?<volume>\b\d{1,4}),?\s*[,:]\s*(?:pp?\.\s*)?(?<page>e?\d+\s*[–-]\s*e?\d+)/iu,
];

/** What could be read of a reference. */
export interface ParsedReference {
  record: SourceRecord;
  title?: string;
}

const EDITORS = /\(\s*(?:eds?|hrsg|editors?)\.?\s*\)\.?,?|\b(?:edited by|hrsg\. von)\s+/i;

/** Names only where every one of them begins as a name does; words of a sentence are not made people of. */
function authorsOf(text: string): CslName[] {
  const names = namesIn(text);
  const likely = (n: CslName) =>
    n.literal !== undefined ||
    (/^\p{Lu}|^\p{Lo}|^[dl]’/u.test(n.family ?? '') &&
      (n.given === undefined || /^\p{Lu}|^\p{Lo}/u.test(n.given)));
  return names.every(likely) ? names : [];
}

function namesIn(text: string): CslName[] {
  const trimmed = squash(
    text.replace(/\bet al\.?|,?\s*…\s*/gi, ' ').replace(/\(\s*(?:eds?|hrsg)\.?\s*\)/gi, ''),
  ).replace(/[,;:\s]+$/, '');
  const bare = /(?<!\p{L})\p{Lu}\.$/u.test(trimmed) ? trimmed : trimmed.replace(/\.+$/, '');
  if (!bare || bare.length > 400) return [];
  // Ng TH, Ferreira A: family and initials without stops, as numbered styles print them.
  if (
    /^(?:\p{Lu}[\p{L}’'-]+(?:\s\p{Lu}?[\p{L}’'-]+)?\s\p{Lu}{1,3})(?:,\s*\p{Lu}[\p{L}’'-]+(?:\s\p{Lu}?[\p{L}’'-]+)?\s\p{Lu}{1,3})*$/u.test(
      bare,
    )
  )
    return bare.split(/,\s*/).map((n) => {
      const m = /^(.*)\s(\p{Lu}{1,3})$/u.exec(n)!;
      return { family: m[1]!, given: [...m[2]!].map((c) => `${c}.`).join(' ') };
    });
  // Ferreira, Ana, and Tsz Ho Ng: only the first is turned round.
  const turned = /^([^,]+,\s*[^,]+?),\s*(?:and|und|et|&)\s+(.+)$/iu.exec(bare);
  if (turned && !/^(?:\p{Lu}\.?[\s-]?)+$/u.test(turned[2]!) && !/,/.test(turned[2]!))
    return [...peopleOf([`${turned[1]!};`]), ...peopleOf([turned[2]!])];
  const several =
    /^([^,]+,\s*\p{Lu}\p{Ll}[^,]*),\s*((?:\p{Lu}[^,]*\s[^,]+,\s*)+(?:and|und|et|&)\s+.+)$/u.exec(bare);
  if (several) return [...peopleOf([`${several[1]!};`]), ...peopleOf([several[2]!])];
  return peopleOf([bare]);
}

/** Reads one reference as far as it goes. Never throws; a text nothing can be read from gives a record with no title. */
export function parseReference(given: string): ParsedReference {
  const text = squash(nfc(given.slice(0, 20 * LONGEST)).replace(MARKER, '')).slice(0, LONGEST);
  const c = collector('reference');
  const doi = findDoi(text);
  c.text('DOI', doi, 'a DOI in it');
  let rest = text.replace(/(?:https?:\/\/(?:dx\.)?doi\.(?:org|example)\/|doi:?\s*)10\.\S+/gi, ' ');
  if (doi) rest = rest.replace(doi, ' ');
  const url = /https?:\/\/[^\s<>]+/.exec(rest)?.[0].replace(/[).,;]+$/, '');
  c.text('URL', url, 'an address in it');
  rest = rest.replace(
    /(?:(?:retrieved|available|accessed|abgerufen)[^.]{0,40}?(?:from|at|:|am)?\s*)?https?:\/\/\S+/gi,
    ' ',
  );
  const isbn = findIsbn(/ISBN[:\s]*([\dXx -]{10,20})/i.exec(rest)?.[1] ?? '');
  c.text('ISBN', isbn, 'an ISBN in it');
  rest = squash(rest.replace(/ISBN[:\s]*[\dXx -]{10,20}/i, ' '));

  const bracketed = IN_BRACKETS.exec(rest);
  const stopped = BETWEEN_STOPS.exec(rest);
  const opens = (m: RegExpExecArray | null, within: number) =>
    m !== null && m.index < within && !/[“"„«]/.test(rest.slice(0, m.index)) ? m : undefined;
  const named = opens(stopped, 200);
  const authorDate =
    opens(bracketed, 250) ?? (named && authorsOf(rest.slice(0, named.index)).length ? named : undefined);
  const quoted = /[“"„«]([^”"»]{5,}?)[”"“»]/.exec(rest);
  let who = '';
  let after = rest;
  if (authorDate) {
    who = rest.slice(0, authorDate.index);
    if (authorDate === stopped && /\p{Lu}$/u.test(who)) who += '.';
    after = rest.slice(authorDate.index + authorDate[0].length);
    c.date('issued', authorDate[1]!.replace(/(\d{4})[a-z]\b/, '$1'), 'its year');
  } else {
    const stop = quoted
      ? quoted.index
      : (/(?<!\b\p{Lu})(?<!\bet al)\.\s+(?=[\p{Lu}“"„])/u.exec(rest)?.index ?? -1);
    if (stop > 0) {
      who = rest.slice(0, stop);
      after = rest.slice(stop).replace(/^[.\s]+/, '');
    }
  }
  const title = (
    quoted && after.includes(quoted[0])
      ? quoted[1]!
      : (/^(.+?[.?!])(?:\s+(?=[\p{Lu}“])|\s*$)/u.exec(after)?.[1] ?? after)
  ).replace(/[.,]$/, '');
  const tail = squash(after.slice(after.indexOf(title) + title.length).replace(/^[”"»“.,\s]+/, ''));
  const bare = title
    .replace(
      /\s*\((?:\d+(?:st|nd|rd|th)\s+ed|\d+\.\s*Aufl|[^)]*(?:thesis|dissertation)[^)]*|pp?\.[^)]*)[^)]*\)/i,
      '',
    )
    .replace(/\s*\[[^\]]*\]/g, '');
  c.names('author', authorsOf(who), 'before the title');
  c.text('title', bare.length >= 3 ? bare : undefined, 'its title');
  c.text('edition', /(\d+)(?:st|nd|rd|th|\.)?\s*(?:ed\b|edn\b|edition|aufl)/i.exec(after)?.[1], 'edition');

  const m = NUMBERS.map((pattern) => pattern.exec(tail)).find(Boolean);
  const thesis = /\b(?:thesis|dissertation)\b/i.test(after);
  const inBook = /^In:?\s+/.test(tail) || /\bIn:?\s+[^.]*\b(?:eds?\.|edited by|hrsg)/i.test(tail);
  if (!authorDate) {
    const year =
      m?.groups?.year ??
      new RegExp(String.raw`\b(${YEAR})\b(?!\s*[–-]\s*\d)`).exec(
        tail.replace(/pp?\.\s*\d+[–-]\d+/g, ' '),
      )?.[1];
    c.date('issued', year, 'its year');
  }
  if (inBook) {
    c.type('chapter', 'In …');
    const body = tail.replace(/^In:?\s+/, '');
    const pages =
      /\(?\bpp?\.\s*(\d+\s*[–-]\s*\d+)/i.exec(body)?.[1] ?? /[,:]\s*(\d+\s*[–-]\s*\d+)/.exec(body)?.[1];
    c.text('page', pageRange(pages), 'pages');
    const byEditors = EDITORS.exec(body);
    if (byEditors && /^\(/.test(byEditors[0].trim())) {
      c.names('editor', authorsOf(body.slice(0, byEditors.index)), 'editors');
      c.text(
        'container-title',
        /^[\s,]*([^.(]+)/.exec(body.slice(byEditors.index + byEditors[0].length))?.[1]?.replace(/,\s*$/, ''),
        'In …',
      );
    } else if (byEditors) {
      c.text('container-title', body.slice(0, byEditors.index).replace(/[,.\s]+$/, ''), 'In …');
      c.names(
        'editor',
        authorsOf(
          /^([^.]+?)(?:,\s*\d|\.|$)/.exec(body.slice(byEditors.index + byEditors[0].length))?.[1] ?? '',
        ),
        'editors',
      );
    } else c.text('container-title', /^([^.(,]+)/.exec(body)?.[1], 'In …');
  } else if (m?.groups?.volume && !thesis) {
    c.type('article-journal', 'volume and pages');
    const before = tail
      .slice(0, m.index)
      .replace(new RegExp(String.raw`[\s,.;:(]*(?:${YEAR})?[\s,.;:(]*$`), '');
    c.text(
      'container-title',
      before
        .replace(/^[,.\s]+/, '')
        .split(/(?<=\p{Ll}\p{Ll})\.\s+/u)
        .at(-1),
      'before the volume',
    );
    c.text('volume', m.groups.volume, 'volume');
    c.text('issue', m.groups.issue?.replace(/–/g, '-'), 'issue');
    c.text('page', pageRange(m.groups.page), 'pages');
  } else if (thesis) {
    c.type('thesis', 'says so');
    const words =
      /[[(]?\s*((?:Ph\.?\s?D\.?|doctoral|master[’']?s?|M\.?A\.?|M\.?Sc\.?|unpublished)[^,\])]*?(?:thesis|dissertation))/i.exec(
        after,
      )?.[1];
    c.text('genre', words, 'genre');
    c.text(
      'publisher',
      (/(?:The\s+)?Universit\S*\s+(?:of|de|zu)\s+[^,.\])]+/i.exec(after) ??
        /[^,.\])[(]*\bUniversity/i.exec(after))?.[0].trim(),
      'university',
    );
  } else if (url && !/\b\p{Lu}[\p{L} ]+:\s*\p{Lu}[\p{L} ]+\.?$/u.test(tail)) {
    c.type('webpage', 'an address and no volume');
    c.text('container-title', /^([^.]{3,80})/.exec(tail)?.[1]?.trim(), 'after the title');
  } else if (tail) {
    c.type('book', 'a publisher');
    const end = squash(
      tail.replace(new RegExp(String.raw`[,.]?\s*\b${YEAR}\b[.)]*\s*$`), '').replace(/[.,]$/, ''),
    );
    const placed = /(?:^|[.,]\s*)([^.:,]{2,40}):\s*([^.:]{2,80})$/u.exec(end);
    c.text('publisher-place', placed?.[1], 'place');
    c.text('publisher', placed?.[2] ?? /([^.,]{2,80})$/u.exec(end)?.[1]?.trim(), 'publisher');
  }
  const record = reconcile(c.found, undefined, '1970-01-01T00:00:00.000Z');
  return { record, ...(record.title ? { title: record.title } : {}) };
}

/** How near a record is to a lead, 0 to 1: shared words of the titles, and whether year and first name agree. */
export function nearness(lead: SourceRecord, text: string, found: SourceRecord): number {
  const words = new Set(
    fold(lead.title ?? text)
      .split(' ')
      .filter((w) => w.length > 2),
  );
  const other = new Set(
    fold(found.title ?? '')
      .split(' ')
      .filter((w) => w.length > 2),
  );
  if (words.size === 0 || other.size === 0) return 0;
  const shared = [...other].filter((w) => words.has(w)).length;
  const titles = lead.title ? (2 * shared) / (words.size + other.size) : shared / other.size;
  const year = lead.issued?.['date-parts']?.[0]?.[0];
  const otherYear = found.issued?.['date-parts']?.[0]?.[0];
  const years =
    year === undefined || otherYear === undefined ? 0 : Math.abs(year - otherYear) <= 1 ? 0.1 : -0.3;
  const family = fold(lead.author?.[0]?.family ?? '');
  const otherFamily = fold(found.author?.[0]?.family ?? '');
  const people = !family || !otherFamily ? 0 : family === otherFamily ? 0.1 : -0.3;
  return Math.max(0, Math.min(1, titles + years + people));
}

/** A title as it may stand in a reference, for looking a lead up: its parsed title, or the whole text. */
export const wordsToSearch = (lead: ParsedReference, text: string): string =>
  lead.title
    ? squash(
        [lead.record.author?.[0]?.family, lead.title, lead.record.issued?.['date-parts']?.[0]?.[0]]
          .filter(Boolean)
          .join(' '),
      )
    : text.slice(0, 300);

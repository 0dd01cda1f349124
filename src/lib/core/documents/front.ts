import { collector, pageRange, peopleOf, type Candidate } from '../capture';
import { findDoi, findIsbn, looksInstitutional, parseDate, type CslName } from '../source';
import { fold, squash } from '../text';
import { bodySize, compoundsOf, joined, linesOf, paragraphsOf, type Line } from './lines';
import type { DocumentData, Leaf } from './types';

/** What programs write as a title when nobody gave one. */
const NO_TITLE =
  /^(?:untitled|microsoft (?:word|powerpoint)|title|document\d*|layout \d|slide \d|doi:|.*\.(?:docx?|pdf|tex|dvi|indd|qxd|rtf|pages)$|[\d\W_]*$|[\w-]{1,12}\d{2,}[\w-]*$)/i;
/** Longest text that may be one of these, in characters. */
const LONGEST_NONE = 300;
const NO_AUTHOR = /^(?:user|admin|administrator|unknown|author|owner|default|microsoft|.*\\.*|\w{1,3})$/i;

const first = (value: string | string[] | undefined) => (Array.isArray(value) ? value[0] : value)?.trim();
const all = (value: string | string[] | undefined) =>
  (Array.isArray(value) ? value : value ? [value] : []).map((v) => v.trim());

/** `Marsh Letters 3 (1–2), 7–24 (2021)`, `Marsh Letters, Vol. 3, No. 1, pp. 7–24`, `Marsh Letters 3:7–24, 2021`. */
const RUNNING =
  /^(?<title>\p{Lu}[^\d:;|]{3,90}?)[\s,;:|·]+(?:vol(?:ume|\.)?\s*|band\s*|bd\.\s*)?(?<volume>\d{1,4})\s*(?:\(\s*(?<issue>[\w/–-]+)\s*\)|[,:]?\s*(?:no|nr|issue|heft)\.?\s*(?<issue2>[\w/–-]+))?(?:\s*[,:;]?\s*(?:\((?<year1>\d{4})\))?\s*[,:;]?\s*(?:pp?\.?\s*|s\.\s*)?(?<page>[a-z]?\d+\s*[–-]\s*[a-z]?\d+|e\d+))?(?:.*?(?<year2>\b(?:1[6-9]|20)\d\d\b))?/iu;

const HEADING_AFTER =
  /^(?:\d+\.?\s+)?(?:introduction|keywords?|key words|contents|background|einleitung|schlüsselwörter|mots[- ]clés|1\.?\s)/i;
const ABSTRACT = /^(?:abstract|summary|zusammenfassung|résumé|resumen)\b[\s.:—–-]*/i;

interface Block {
  text: string;
  size: number;
  y: number;
  lines: Line[];
}

function titleBlock(blocks: Block[], height: number, body: number): Block | undefined {
  const head = blocks.filter(
    (b) =>
      b.y < height * 0.7 &&
      b.text.length >= 8 &&
      b.text.split(' ').length >= 2 &&
      b.text.length < 400 &&
      !/^(?:doi|https?:|issn|isbn|vol)/i.test(b.text),
  );
  const largest = Math.max(0, ...head.map((b) => b.size));
  if (largest < body * 1.15) return undefined;
  return head.find((b) => b.size >= largest * 0.97);
}

/** The people named right after the title: lines of names until the abstract, an address or ordinary text begins. */
function authorsAfter(blocks: Block[], title: Block): CslName[] {
  const names: CslName[] = [];
  const at = blocks.indexOf(title);
  for (const block of blocks.slice(at + 1, at + 6)) {
    const text = squash(
      block.text.replace(/\b(?:by|von|par)\s+/i, '').replace(/[*†‡§¶]|\d+(?:,\d+)*(?=\s|,|;|$)/g, ''),
    );
    if (
      ABSTRACT.test(text) ||
      HEADING_AFTER.test(text) ||
      text.length > 400 ||
      /[.!?]\s+\p{Lu}\p{Ll}+\s+\p{Ll}/u.test(text)
    )
      break;
    if (/@|https?:|\d{4}/.test(text) || looksInstitutional(text)) {
      if (names.length) break;
      if (looksInstitutional(text) && !/,/.test(text) && text.length < 80 && block.size >= title.size * 0.6)
        names.push({ literal: text });
      continue;
    }
    const found = peopleOf([text]);
    const plausible = found.filter(
      (n) =>
        n.family &&
        (n.given ?? '').split(' ').length <= 4 &&
        /^\p{Lu}|^(?:van|von|de|den|der|la|el|al)\b/iu.test(n.family) &&
        (n.given === undefined || /^\p{Lu}/u.test(n.given)),
    );
    if (plausible.length === 0 || plausible.length < found.length || plausible.some((n) => !n.given)) {
      if (names.length) break;
      continue;
    }
    names.push(...plausible);
  }
  return names;
}

/**
 * Candidates from a document: its own data (Dublin Core and PRISM in XMP, the information dictionary), then its first
 * leaf: the title by size and place, the people under it, abstract, and the running head with container, volume,
 * issue, pages. `labels` are the printed page labels. Source of XMP names: ISO 16684-1 and PRISM for XMP.
 */
export function fromLeaves(leaves: Leaf[], labels: (string | undefined)[], data: DocumentData): Candidate[] {
  const c = collector('document');
  const { info, xmp } = data;
  const named = (text: string | undefined) =>
    text && (text.length > LONGEST_NONE || !NO_TITLE.test(text)) ? text : undefined;
  c.text('title', named(first(xmp['dc:title'])), 'XMP');
  c.text('title', named(info.Title?.trim()), 'PDF information');
  const people = all(xmp['dc:creator']).filter((n) => !NO_AUTHOR.test(n));
  c.names('author', people, 'XMP');
  if (info.Author && !NO_AUTHOR.test(info.Author.trim())) c.names('author', [info.Author], 'PDF information');
  c.text('container-title', first(xmp['prism:publicationname']), 'XMP');
  c.text('volume', first(xmp['prism:volume']), 'XMP');
  c.text('issue', first(xmp['prism:number']), 'XMP');
  c.text('ISSN', first(xmp['prism:issn']), 'XMP');
  c.text('publisher', first(xmp['dc:publisher']), 'XMP');
  c.text('language', first(xmp['dc:language']), 'XMP');
  c.date(
    'issued',
    first(xmp['prism:publicationdate']) ??
      first(xmp['prism:coverdate']) ??
      first(xmp['prism:coverdisplaydate']),
    'XMP',
  );
  c.text(
    'page',
    pageRange(first(xmp['prism:startingpage']), first(xmp['prism:endingpage'])) ??
      pageRange(first(xmp['prism:pagerange'])),
    'XMP',
  );
  const declared = [
    first(xmp['prism:doi']),
    first(xmp['dc:identifier']),
    first(xmp['pdfx:doi']),
    info.doi,
    info.DOI,
    info.Subject,
  ]
    .map((t) => findDoi(t ?? ''))
    .find(Boolean);
  c.text('DOI', declared, 'XMP');

  const leaf = leaves[0];
  if (!leaf) return c.found;
  const body = bodySize(leaves);
  const compounds = compoundsOf(leaves);
  const blocks: Block[] = paragraphsOf(linesOf(leaf, false), body).map(({ lines }) => ({
    text: squash(joined(lines, compounds).text),
    size: lines[0]!.size,
    y: lines[0]!.y,
    lines,
  }));
  const words = blocks.map((b) => b.text).join('\n');
  c.text('DOI', findDoi(words.replace(/\n(?=\S*\d)/g, ' ')), 'printed on the first page');
  const title = titleBlock(blocks, leaf.height, body);
  if (title) {
    c.text('title', title.text.replace(/\s*[*†‡]$/, ''), 'largest on the first page');
    c.names('author', authorsAfter(blocks, title), 'under the title');
  }
  const abstractAt = blocks.findIndex((b) => ABSTRACT.test(b.text));
  if (abstractAt !== -1) {
    const own = blocks[abstractAt]!.text.replace(ABSTRACT, '');
    const text = own.length > 40 ? own : (blocks[abstractAt + 1]?.text ?? '');
    if (text.length > 40 && !HEADING_AFTER.test(text)) c.text('abstract', text, 'headed so');
  }
  const edge = blocks
    .flatMap((b) => b.lines)
    .filter((l) => l.y < leaf.height * 0.16 || l.y > leaf.height * 0.86);
  const run = edge
    .map((l) => RUNNING.exec(squash(l.text)))
    .find((m) => m?.groups?.volume && (m.groups.page || m.groups.issue || m.groups.issue2 || m.groups.year2));
  const thesis =
    /\b(?:thesis|dissertation)\b.{0,120}\b(?:submitted|degree|doctor|master|fulfil)|\b(?:submitted|doctor of philosophy|zur erlangung|inauguraldissertation)\b/is.test(
      words,
    );
  const report =
    !run &&
    /\b(?:technical|working|research|annual|survey|final)\s+(?:report|paper)\b|\breport\s+(?:no|number|nr)\.?\s*\S+/i.exec(
      words,
    );
  if (run?.groups) {
    const { title: container, volume, issue, issue2, page, year1, year2 } = run.groups;
    c.type('article-journal', 'its running head');
    c.text('container-title', container?.replace(/[\s,;:|·]+$/, ''), 'running head');
    c.text('volume', volume, 'running head');
    c.text('issue', (issue ?? issue2)?.replace('–', '-'), 'running head');
    c.text('page', pageRange(page), 'running head');
    c.date('issued', year1 ?? year2, 'running head');
    const known = labels.filter((l) => l !== undefined && /^\d+$/.test(l));
    if (!page && known.length === leaves.length && leaves.length > 1)
      c.text('page', pageRange(known[0], known[known.length - 1]), 'printed page numbers');
  } else if (first(xmp['prism:publicationname'])) c.type('article-journal', 'XMP');
  else if (thesis) {
    c.type('thesis', 'its title page');
    const institution = blocks.map((b) => b.text).find((t) => /\buniversit/i.test(t) && t.length < 120);
    c.text(
      'publisher',
      institution?.replace(/^.*?(?=(?:the\s+)?university|universit)/i, (m) => (m.length > 30 ? '' : m)),
      'title page',
    );
  } else if (report) {
    c.type('report', 'its title page');
    c.text(
      'number',
      /\breport\s+(?:no|number|nr)\.?\s*(\S+)/i.exec(words)?.[1]?.replace(/[,.;]$/, ''),
      'title page',
    );
  } else if (title) c.type('document', 'a document');
  if (!run?.groups?.year1 && !run?.groups?.year2) {
    const published =
      /\b(?:published|publication date|accepted|date)\b[^\n]{0,20}?((?:\d{1,2}\s+)?\p{L}{3,9}\s+(?:\d{1,2},\s*)?\d{4}|\d{4}-\d{2}-\d{2})/iu.exec(
        words,
      )?.[1];
    const alone = blocks
      .map((b) => b.text)
      .find((t) => t.length < 30 && parseDate(t) && /\b(?:1[6-9]|20)\d\d\b/.test(t));
    c.date('issued', published ?? alone, 'first page');
  }
  const isbn = leaves
    .slice(0, 4)
    .map((l) =>
      linesOf(l)
        .map((x) => x.text)
        .find((t) => /isbn/i.test(t)),
    )
    .find(Boolean);
  c.text('ISBN', isbn ? findIsbn(isbn) : undefined, 'printed');
  return c.found.filter((f) => f.field !== 'title' || fold(String(f.value)).length > 3);
}

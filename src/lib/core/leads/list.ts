import { fold } from '../text';
import { looksLikeReference, splitReferences } from './split';

const headings = (...words: string[]) => new Set(words.map(fold));

/** What the list at the end of an article is headed with, in the languages most are written in: common practice. */
const HEADS = headings(
  ...[
    'References',
    'References cited',
    'Reference list',
    'List of references',
    'Bibliography',
    'Works cited',
  ],
  ...[
    'Literature',
    'Literature cited',
    'Sources',
    'Sources cited',
    'Cited literature',
    'Notes and references',
  ],
  ...['Literatur', 'Literaturverzeichnis', 'Quellen', 'Quellenverzeichnis', 'Bibliografie', 'Bibliographie'],
  ...['Références', 'Références bibliographiques', 'Ouvrages cités', 'Bibliografía', 'Referencias'],
  ...[
    'Referencias bibliográficas',
    'Obras citadas',
    'Bibliografia',
    'Riferimenti',
    'Riferimenti bibliografici',
  ],
  ...[
    'Referências',
    'Referências bibliográficas',
    'Literatuur',
    'Literatuurlijst',
    'Referenser',
    'Litteratur',
  ],
  ...['Литература', 'Список литературы', '参考文献', '引用文献', '参考資料'],
);
/** What stands behind it. */
const AFTER = headings(
  ...[
    'Appendix',
    'Appendices',
    'Acknowledgements',
    'Acknowledgments',
    'About the author',
    'About the authors',
  ],
  ...['Author information', 'Supplementary material', 'Supporting information', 'Notes', 'Endnotes', 'Index'],
  ...[
    'Anhang',
    'Danksagung',
    'Annexe',
    'Annexes',
    'Remerciements',
    'Apéndice',
    'Agradecimientos',
    'Appendice',
  ],
  ...['Further reading', 'Contributors', 'List of figures', 'Funding', 'Rights and permissions', 'Footnotes'],
);

/** A heading without its number or colon, for comparing. */
const headOf = (line: string): string | undefined =>
  line.length > 60 ? undefined : fold(line.replace(/^\s*(?:\d+(?:\.\d+)*\.?|[IVX]+\.)\s+/u, ''));

/** How many headings are tried, from the end. */
const TRIED = 5;
/** How much of a list is read, in characters. */
const LONGEST_LIST = 200_000;

/** What stands on many leaves is no part of what is printed on one. */
const OFTEN = 3;

/** The lines of a text without page numbers and without running heads, words parted at the end of a line joined. */
function printedLines(text: string): string[] {
  const lines = text.split(/\r\n?|\n/).map((line) => line.trim());
  const alike = (line: string) => line.replace(/\d+/g, '').toLowerCase();
  const times = new Map<string, number>();
  for (const line of lines)
    if (line && line.length < 90) times.set(alike(line), (times.get(alike(line)) ?? 0) + 1);
  const kept = lines.filter(
    (line) =>
      !/^[\p{Pd}\s]*\d{1,4}[\p{Pd}\s]*$/u.test(line) &&
      ((times.get(alike(line)) ?? 0) < OFTEN || looksLikeReference(line)),
  );
  const joined: string[] = [];
  for (const line of kept) {
    const before = joined.at(-1);
    // The end of an address keeps its hyphen.
    const parted =
      before !== undefined && /(?<![/.]\S{0,80})\p{Ll}[-\u00ad]$/u.test(before) && /^\p{Ll}/u.test(line);
    if (parted) joined[joined.length - 1] = before.slice(0, -1) + line;
    else joined.push(line);
  }
  return joined;
}

/** The list of references a document has at its end. */
export interface ReferenceList {
  /** What it is headed with. */
  heading: string;
  /** Each of them in one line, as it is printed there. `likely` ones read as a reference. */
  references: { text: string; likely: boolean }[];
}

/**
 * The list of references in the text of an article: what stands under the last heading that heads one, up to what comes
 * behind it, cut into its references. Nothing where there is no such list.
 */
export function referenceListIn(text: string): ReferenceList | undefined {
  const lines = printedLines(text);
  const heads = lines.flatMap((line, at) => (HEADS.has(headOf(line) ?? '') ? at : []));
  for (const at of heads.slice(-TRIED).reverse()) {
    const rest = lines.slice(at + 1);
    const end = rest.findIndex((line) => AFTER.has(headOf(line) ?? ''));
    const body = (end === -1 ? rest : rest.slice(0, end)).join('\n').slice(0, LONGEST_LIST);
    const references = splitReferences(body).map((one) => ({ text: one, likely: looksLikeReference(one) }));
    const likely = references.filter((one) => one.likely).length;
    // A line of a table of contents heads nothing.
    if (likely > 0 && likely >= references.length / 4) return { heading: lines[at]!, references };
  }
  return undefined;
}

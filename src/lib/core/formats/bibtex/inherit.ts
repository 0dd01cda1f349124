import type { Dialect } from './names';
import type { RawEntry } from './parse';

const TITLES = (from: string, to: string): [string, string][] => [
  [from, to],
  ['subtitle', to.replace(/title$/, 'subtitle')],
  ['titleaddon', to.replace(/title$/, 'titleaddon')],
];
const NOT_TITLES = new Set([
  'title',
  'subtitle',
  'titleaddon',
  'shorttitle',
  'sorttitle',
  'indextitle',
  'indexsorttitle',
]);

/** Which fields of a parent become which of its child, by their types. biblatex manual, appendix B, "Default inheritance setup". */
const RULES: { parents: string[]; children: string[]; fields: [string, string][] }[] = [
  {
    parents: ['mvbook', 'book'],
    children: ['inbook', 'bookinbook', 'suppbook'],
    fields: [['author', 'bookauthor']],
  },
  { parents: ['mvbook'], children: ['book', 'inbook', 'bookinbook', 'suppbook'], fields: TITLES('title', 'maintitle') },
  {
    parents: ['mvcollection', 'mvreference'],
    children: ['collection', 'reference', 'incollection', 'inreference', 'suppcollection'],
    fields: TITLES('title', 'maintitle'),
  },
  { parents: ['mvproceedings'], children: ['proceedings', 'inproceedings'], fields: TITLES('title', 'maintitle') },
  { parents: ['book'], children: ['inbook', 'bookinbook', 'suppbook'], fields: TITLES('title', 'booktitle') },
  {
    parents: ['collection', 'reference', 'book'],
    children: ['incollection', 'inreference', 'suppcollection'],
    fields: TITLES('title', 'booktitle'),
  },
  {
    parents: ['proceedings'],
    children: ['inproceedings', 'conference'],
    fields: TITLES('title', 'booktitle'),
  },
  {
    parents: ['periodical'],
    children: ['article', 'suppperiodical'],
    fields: [
      ['title', 'journaltitle'],
      ['subtitle', 'journalsubtitle'],
    ],
  },
]; // prettier-ignore

/** Fields no entry inherits (the same appendix). */
const NEVER = new Set(
  'ids crossref xref entryset entrysubtype execute label options presort related relatedoptions relatedstring relatedtype shorthand shorthandintro sortkey xdata key'.split(' '),
); // prettier-ignore

const keysIn = (text: string | undefined) =>
  (text ?? '').split(',').flatMap((k) => k.trim().toLowerCase() || []);

/** The fields an entry takes from its parent. In biblatex titles change their name where the types ask for it; in BibTeX all go as they are. */
function inherited(
  child: RawEntry,
  parent: RawEntry,
  parentFields: Map<string, string>,
  dialect: Dialect,
): [string, string][] {
  const rules = RULES.filter(
    (r) => dialect === 'biblatex' && r.parents.includes(parent.type) && r.children.includes(child.type),
  );
  const renamed = rules.flatMap((r) => r.fields);
  const moved = renamed.some(([from]) => from === 'title');
  const same = [...parentFields].filter(([name]) => !NEVER.has(name) && !(moved && NOT_TITLES.has(name)));
  return [
    ...same,
    ...renamed.flatMap(([from, to]): [string, string][] => {
      const value = parentFields.get(from);
      return value === undefined ? [] : [[to, value]];
    }),
  ];
}

/**
 * Gives every entry the fields it takes over by `xdata` and `crossref` (biblatex manual, 3.14 and 2.4.1; btxdoc, 4, item 8):
 * its own win. Keys are compared without regard to case, as BibTeX does. An entry that names one not in the file says so
 * in its notes; `@xdata` entries are not returned.
 */
export function withInheritance(entries: RawEntry[], dialect: Dialect): RawEntry[] {
  if (!entries.some((e) => e.fields.has('crossref') || e.fields.has('xdata') || e.type === 'xdata'))
    return entries;
  const byKey = new Map(entries.map((e) => [e.key.toLowerCase(), e]));
  const done = new Map<RawEntry, Map<string, string>>();
  const complete = (entry: RawEntry, under: Set<RawEntry>): Map<string, string> => {
    const known = done.get(entry);
    if (known) return known;
    const fields = new Map(entry.fields);
    if (under.has(entry)) return fields;
    const chain = new Set(under).add(entry);
    for (const kind of ['xdata', 'crossref'] as const)
      for (const key of keysIn(entry.fields.get(kind))) {
        const parent = byKey.get(key);
        if (!parent) {
          entry.notes.push(`“${kind}” names “${key}”, which is not in the file`);
          continue;
        }
        const theirs = complete(parent, chain);
        const given =
          kind === 'xdata'
            ? [...theirs].filter(([n]) => n !== 'xdata')
            : inherited(entry, parent, theirs, dialect);
        for (const [name, value] of given) if (!fields.has(name)) fields.set(name, value);
      }
    fields.delete('xdata');
    fields.delete('crossref');
    done.set(entry, fields);
    return fields;
  };
  return entries
    .filter((e) => e.type !== 'xdata')
    .map((entry) => ({ ...entry, fields: complete(entry, new Set()) }));
}

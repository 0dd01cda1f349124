import {
  keywordsOf,
  AND_OTHERS,
  edtfOf,
  isDateVariable,
  isNameVariable,
  isTextVariable,
  othersUnnamed,
  type CslDate,
  type NameVariable,
  type SourceRecord,
} from '../../source';
import { otherKept } from '../finish';
import type { Loss, WriteItem, WriteResult } from '../types';
import {
  ARTICLES,
  DATE_RULES,
  EDITOR_ROLES,
  INSIDE,
  LANGUAGES,
  NAME_RULES,
  ORDINALS,
  readRule,
  TYPE_RULES,
  wordFor,
  WRITE_AS,
  writeRule,
  type FieldRule,
  type TypeRule,
} from './mapping';
import { namesToTex, OTHERS, type Dialect } from './names';
import { typeRead } from './read';
import { textToTex } from './tex';

const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');
const NAMES: Record<Dialect, string> = { bibtex: 'BibTeX', biblatex: 'BibLaTeX' };
/** The entry type a record is written as, and the subtype that says what the entry type does not. */
function entryType(
  record: SourceRecord,
  dialect: Dialect,
): { rule: TypeRule; bib: string; subtype?: string } {
  const own = TYPE_RULES.filter((r) => r.write?.includes(dialect) && r.csl === record.type);
  const rule =
    own.find(
      (r) =>
        r.genre &&
        (r.genre === record.genre ||
          (dialect === 'bibtex' && /master/i.test(record.genre ?? '') && /master/.test(r.bib))),
    ) ??
    own.find((r) => !r.genre) ??
    own[0];
  // A book that has editors and no author is a collection to biblatex.
  if (rule?.bib === 'book' && dialect === 'biblatex' && record.editor && !record.author)
    return { rule, bib: 'collection' };
  if (rule) return { rule, bib: rule.bib, ...(rule.subtype ? { subtype: rule.subtype } : {}) };
  const bib = dialect === 'biblatex' ? 'misc' : (WRITE_AS[record.type] ?? 'misc');
  const other = TYPE_RULES.find((r) => r.bib === bib && r.write?.includes(dialect) && !r.subtype)!;
  return { rule: other, bib, ...(dialect === 'biblatex' ? { subtype: record.type } : {}) };
}

/** An address or identifier as it stands; what would be TeX's in it is percent-encoded (`^^5c` is a backslash to TeX). */
const verbatim = (text: string) => text.replace(/[{}\\^]/g, encodeURIComponent);

/** A key without what would end it; BibTeX's own keys come through as they are. */
const plainKey = (key: string) => key.replace(/[\s,{}()="#%\\~]+/g, '-').replace(/^-|-$/g, '') || 'source';

/** Fields of an entry in the order they are written; values in their delimiters. */
type Fields = Map<string, string>;
type Lose = (field: string, reason: string) => void;

/** Year, month and day of BibTeX; what those cannot say, also as a date of biblatex, which our reader prefers. */
function putIssued(fields: Fields, date: CslDate) {
  const [from, to] = date['date-parts'] ?? [];
  if (from && !to && !date.season && !date.circa && !date.edtf && from[0]! > 0) {
    fields.set('year', `{${from[0]}}`);
    if (from[1]) fields.set('month', MONTHS[from[1] - 1]!);
    if (from[2]) fields.set('day', `{${from[2]}}`);
  } else {
    fields.set('year', `{${textToTex(from ? String(from[0]) : (date.literal ?? ''))}}`);
    if (from) fields.set('date', `{${edtfOf(date)}}`);
  }
}

function putDate(fields: Fields, variable: string, date: CslDate, dialect: Dialect, lose: Lose) {
  const rule = DATE_RULES.find((r) => r.csl === variable);
  if (!rule) return lose(variable, `${NAMES[dialect]} has no field for this date`);
  const edtf = edtfOf(date);
  if (rule.bib === 'date' && dialect === 'bibtex') putIssued(fields, date);
  else if (edtf) fields.set(rule.bib, `{${edtf}}`);
  else if (rule.bib === 'date') fields.set('year', `{${textToTex(date.literal ?? '')}}`);
  else lose(variable, `${NAMES[dialect]} takes a date of the calendar, not “${date.literal ?? ''}”`);
}

/** Creators: a field of their own, or in biblatex one of the three for other editors with their role. */
function putNames(
  fields: Fields,
  taken: Set<string>,
  record: SourceRecord,
  variable: NameVariable,
  dialect: Dialect,
  lose: Lose,
) {
  const end = othersUnnamed(record, variable) ? ` and ${OTHERS}` : '';
  const tex = () =>
    `{${namesToTex(record[variable] ?? [], dialect, (reason) => lose(variable, reason))}${end}}`;
  const own = NAME_RULES.find((r) => r.csl === variable);
  if (own) return fields.set(own.bib, tex());
  const role = Object.keys(EDITOR_ROLES).find((word) => EDITOR_ROLES[word] === variable);
  const slot = ['editora', 'editorb', 'editorc'].find((name) => !fields.has(name) && !taken.has(name));
  if (dialect === 'bibtex' || !role || !slot)
    return lose(
      variable,
      `${NAMES[dialect]} has no ${role && dialect === 'biblatex' ? 'more fields' : 'field'} for these creators`,
    );
  fields.set(slot, tex());
  fields.set(`${slot}type`, `{${role}}`);
}

/** The titles of a volume and of the work it belongs to change places with the title: biblatex's `maintitle` is the whole. */
function putVolumeTitle(fields: Fields, record: SourceRecord, lose: Lose) {
  const [whole, part] = INSIDE.includes(record.type)
    ? ['container-title' as const, 'booktitle']
    : ['title' as const, 'title'];
  if (record[whole] === undefined || (whole === 'title' && record['container-title'] !== undefined))
    return lose('volume-title', 'BibLaTeX holds a volume’s title only beside the title of the whole');
  const put = (name: string, variable: 'title' | 'container-title' | 'volume-title') =>
    fields.set(
      name,
      `{${valueOf(readRule('title', 'book')!, record[variable]!, 'biblatex', (reason) => lose(variable, reason))}}`,
    );
  put('maintitle', whole);
  put(part, 'volume-title');
}

const withoutCase = (text: string) => text.replace(/<span class="nocase">([\s\S]*?)<\/span>/g, '$1');

/** A text variable as the value of a field by its rule. */
function valueOf(rule: FieldRule, text: string, dialect: Dialect, lose: (reason: string) => void): string {
  if (rule.verbatim) {
    if (verbatim(text) !== text) lose('its braces, backslashes or carets are written percent-encoded');
    return verbatim(text);
  }
  if (/[^\S ]|\s{2}/.test(text.replace(/\u00a0/g, 'x')))
    lose('line breaks and repeated spaces become one space');
  const plain = rule.titleCase ? text : withoutCase(text);
  if (plain !== text) lose(`${NAMES[dialect]} protects case in titles only`);
  if (rule.list && dialect === 'biblatex') return plain.split('; ').map(listItem).join(' and ');
  // Between numbers a range is set with a dash.
  if (rule.csl === 'page') return textToTex(plain.replace(/(?<=\d)-(?=\d)/g, '–'));
  if (rule.csl === 'edition' && dialect === 'bibtex') return ORDINALS[Number(plain) - 1] ?? textToTex(plain);
  return textToTex(plain);
}

function writeEntry({ key, record }: WriteItem, dialect: Dialect, losses: Loss[]): string {
  const { rule, bib, subtype } = entryType(record, dialect);
  const fields: Fields = new Map();
  const kept = { ...record.retexa.kept.biblatex, ...record.retexa.kept.bibtex };
  const taken = new Set(Object.keys(kept));
  const readAs = typeRead(
    bib,
    subtype,
    record.URL !== undefined,
    Boolean(record.retexa.kept[dialect]?.eprint),
  );
  const known = plainKey(key);
  const lose: Lose = (field, reason) => losses.push({ key, field, reason });
  if (known !== key) lose('citekey', `“${key}” has signs no key may have; written as ${known}`);
  if (subtype) fields.set('entrysubtype', `{${subtype}}`);
  const volumeTitle =
    dialect === 'biblatex' && record['volume-title'] !== undefined && !ARTICLES.includes(record.type);
  if (volumeTitle) putVolumeTitle(fields, record, lose);
  for (const [variable, value] of Object.entries(record)) {
    if (['type', 'retexa', 'keyword'].includes(variable) || value === undefined) continue;
    if (isNameVariable(variable)) putNames(fields, taken, record, variable, dialect, lose);
    else if (isDateVariable(variable)) putDate(fields, variable, value as CslDate, dialect, lose);
    else if (isTextVariable(variable)) {
      const text = String(value);
      if (variable === 'volume-title' && volumeTitle) continue;
      if (variable === 'genre' && text === rule.genre) continue;
      if (variable === 'language' && dialect === 'biblatex') {
        const word = wordFor(LANGUAGES, text);
        fields.set(word ? 'langid' : 'language', `{${word ?? textToTex(text)}}`);
        continue;
      }
      const field = writeRule(variable, readAs, dialect);
      if (fields.has('maintitle') && field && fields.has(field.bib) && field.bib !== 'maintitle') continue;
      if (!field || fields.has(field.bib)) lose(variable, `${NAMES[dialect]} has no field for it`);
      else fields.set(field.bib, `{${valueOf(field, text, dialect, (reason) => lose(variable, reason))}}`);
    } else lose(variable, `${NAMES[dialect]} has no field for it`);
  }
  if (readAs !== record.type)
    lose('type', `${NAMES[dialect]} has no entry type for ${record.type}; written as @${bib}`);
  if (rule.genre && record.genre === undefined)
    lose('genre', `BibTeX has no thesis without a degree; @${bib} says “${rule.genre}”`);
  const keywords = keywordsOf(record);
  if (keywords.length)
    fields.set('keywords', `{${keywords.map((word) => textToTex(word.replace(/[,;]/g, ' '))).join(', ')}}`);
  for (const [name, tex] of Object.entries(kept))
    if (!fields.has(name) && tex !== AND_OTHERS) fields.set(name, `{${tex}}`);
  for (const loss of otherKept(record, ['bibtex', 'biblatex'], NAMES[dialect])) losses.push({ key, ...loss });
  return `@${bib}{${known},\n${[...fields].map(([name, value]) => `  ${name} = ${value}`).join(',\n')}\n}\n`;
}

/** An item of a list that `and` joins: a name with the word in it goes in braces. */
const listItem = (text: string) =>
  /(?:^|\s)and(?=\s|$)/i.test(text) ? `{${textToTex(text)}}` : textToTex(text);

/** Writes a .bib file in UTF-8 for a dialect, and says what it could not hold. */
export function writeBib(items: WriteItem[], dialect: Dialect): WriteResult {
  const losses: Loss[] = [];
  return { text: items.map((item) => writeEntry(item, dialect, losses)).join('\n'), losses };
}

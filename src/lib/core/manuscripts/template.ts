import { attrOf, endOf, tagsOf } from './xml';
import { edited, type Edit } from './edits';
import { UnreadableManuscript, type Parts } from './setting';
import { withRelation } from './package';

const DOCUMENT = 'word/document.xml';
const STYLES = 'word/styles.xml';
const THEME = 'word/theme/theme1.xml';
/** Parts whose paragraphs and words have styles. */
const STYLED = [DOCUMENT, 'word/footnotes.xml', 'word/endnotes.xml'];

/** Which parts of a template are read. */
export const isTemplatePart = (name: string): boolean => [DOCUMENT, STYLES, THEME].includes(name);

/** A style of a document. */
interface Style {
  id: string;
  /** What it is called, in small letters: that is one in all languages, where the id is not. */
  name: string;
  xml: string;
}

function stylesOf(xml: string): Style[] {
  const styles: Style[] = [];
  let skip = 0;
  for (const tag of tagsOf(xml)) {
    if (tag.from < skip || tag.name !== 'w:style' || tag.is !== 'open') continue;
    skip = endOf(xml, tag);
    const inside = xml.slice(tag.from, skip);
    const id = attrOf(tag, 'w:styleId');
    const name = /<w:name\s[^<>]{0,200}?w:val="([^"<>]{1,200})"/.exec(inside)?.[1];
    if (id && name) styles.push({ id, name: name.toLowerCase(), xml: inside });
  }
  return styles;
}

/** The last section of a document: the size of its page and its margins. */
function sectionOf(xml: string): { size: string | undefined; margins: string | undefined } {
  const section = xml.slice(Math.max(0, xml.lastIndexOf('<w:sectPr')));
  return {
    size: /<w:pgSz\s[^<>]{0,400}\/>/.exec(section)?.[0],
    margins: /<w:pgMar\s[^<>]{0,400}\/>/.exec(section)?.[0],
  };
}

/**
 * A .docx document in the styles of another, such as a university gives out: its headings, text, quotations, captions and notes look
 * as they do there, on the same page. Styles are found by what they are called; what the template has none for keeps its own.
 * Gives the parts that changed.
 */
export function inTemplate(made: Parts, template: Parts): Record<string, string> {
  const [ours, theirs] = [made[STYLES], template[STYLES]];
  if (theirs === undefined || template[DOCUMENT] === undefined)
    throw new UnreadableManuscript('The template is no .docx document with styles.');
  if (ours === undefined) return {};
  const there = stylesOf(theirs);
  const byName = new Map(there.map((style) => [style.name, style.id]));
  const ids = new Set(there.map(({ id }) => id));
  const renamed = new Map<string, string>();
  const added: Style[] = [];
  for (const style of stylesOf(ours)) {
    const same = byName.get(style.name);
    if (same === undefined) added.push(style);
    renamed.set(style.id, same ?? (ids.has(style.id) ? `Retexa${style.id}` : style.id));
  }
  const changed: Record<string, string> = {};
  const more = added.map(({ xml }) => renamedIn(xml, renamed)).join('');
  const end = theirs.lastIndexOf('</w:styles>');
  if (end === -1) throw new UnreadableManuscript('The styles of the template cannot be read.');
  changed[STYLES] = `${theirs.slice(0, end)}${more}${theirs.slice(end)}`;
  for (const part of STYLED) if (made[part] !== undefined) changed[part] = renamedIn(made[part], renamed);
  const document = changed[DOCUMENT] ?? made[DOCUMENT] ?? '';
  const { size, margins } = sectionOf(template[DOCUMENT]);
  const at = Math.max(0, document.lastIndexOf('<w:sectPr'));
  let section = document.slice(at);
  if (size) section = section.replace(/<w:pgSz\s[^<>]{0,400}\/>/, () => size);
  if (margins) section = section.replace(/<w:pgMar\s[^<>]{0,400}\/>/, () => margins);
  changed[DOCUMENT] = withoutSpacing(document.slice(0, at)) + section;
  if (template[THEME] !== undefined) {
    changed[THEME] = template[THEME];
    withRelation(made, changed, 'theme', 'theme/theme1.xml', {
      part: `/${THEME}`,
      type: 'application/vnd.openxmlformats-officedocument.theme+xml',
    });
  }
  return changed;
}

/** XML in which styles are called by other ids. */
function renamedIn(xml: string, renamed: ReadonlyMap<string, string>): string {
  const edits: Edit[] = [];
  for (const tag of tagsOf(xml)) {
    const isRef = ['w:pStyle', 'w:rStyle', 'w:tblStyle', 'w:basedOn', 'w:next', 'w:link'].includes(tag.name);
    const name = isRef ? 'w:val' : tag.name === 'w:style' ? 'w:styleId' : undefined;
    const id = name && tag.is !== 'close' ? attrOf(tag, name) : undefined;
    const to = id === undefined ? undefined : renamed.get(id);
    if (to === undefined || to === id) continue;
    const whole = xml.slice(tag.from, tag.to);
    edits.push({ from: tag.from, to: tag.to, by: whole.replace(`${name!}="${id!}"`, `${name!}="${to}"`) });
  }
  return edited(xml, edits);
} // prettier-ignore

/** Paragraphs without distances of their own: those are the template’s. */
function withoutSpacing(xml: string): string {
  const edits: Edit[] = [];
  let inside = false;
  for (const tag of tagsOf(xml)) {
    if (tag.name === 'w:pPr') inside = tag.is === 'open';
    else if (inside && tag.name === 'w:spacing' && tag.is === 'empty')
      edits.push({ from: tag.from, to: tag.to, by: '' });
  }
  return edited(xml, edits);
}

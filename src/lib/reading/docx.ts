import { strFromU8, unzipSync } from 'fflate';
import { decodeEntities } from '../core/text';

/** The parts of a document that hold its running text, in the order they are read. ECMA-376, part 1, 11.3. */
const PARTS = ['word/document.xml', 'word/footnotes.xml', 'word/endnotes.xml'];
/** The largest part that is read, unpacked, in bytes. */
const LARGEST = 60_000_000;
const NONE = 'The file is no .docx document.';

/** Parts of a document as text, by their names. Throws an Error with words for the person when it is none, or too large. */
function partsOf(bytes: Uint8Array, names: readonly string[]): Record<string, string> {
  let tooLarge = false;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!names.includes(name)) return false;
        if (originalSize > LARGEST) tooLarge = true;
        return originalSize <= LARGEST;
      },
    });
  } catch {
    throw new Error(NONE);
  }
  if (tooLarge) throw new Error('The document is too large to be read here. Save it as plain text.');
  if (!files[PARTS[0]!]) throw new Error(NONE);
  return Object.fromEntries(Object.entries(files).map(([name, file]) => [name, strFromU8(file)]));
}

/**
 * The running text of a .docx document with its foot- and endnotes, a line each paragraph. Words in a document are cut into
 * runs anywhere, so they are joined without anything between. Throws an Error with words for the person when the file is
 * none, or too large.
 */
export function textOfDocx(bytes: Uint8Array): string {
  const files = partsOf(bytes, PARTS);
  return PARTS.flatMap((part) => (files[part] ? [paragraphsOf(files[part])] : [])).join('\n');
}

const STYLES = 'word/styles.xml';
/** An attribute `w:val` of the first element of a name; names are ours. */
const valueOf = (xml: string, name: string): string | undefined =>
  new RegExp(`<w:${name}\\s[^<>]{0,200}?w:val="([^"<>]{0,200})"`).exec(xml)?.[1];

/** Which level of heading each style of a document is: by its built-in name, or by the level it says it has in the outline. ECMA-376, part 1, 17.3.1.20 and 17.7.4. */
function levelsOf(styles: string): Map<string, number> {
  const levels = new Map<string, number>();
  const based = new Map<string, string>();
  for (const [style] of styles.matchAll(/<w:style\s(?:(?!<\/w:style>)[^])*/g)) {
    const id = /^<w:style\s[^<>]{0,400}?w:styleId="([^"<>]{1,200})"/.exec(style)?.[1];
    if (!id) continue;
    const name = /^heading (\d)$/i.exec(valueOf(style, 'name') ?? '')?.[1];
    const outline = valueOf(style, 'outlineLvl');
    const level = name ? Number(name) : outline === undefined ? NaN : Number(outline) + 1;
    if (level >= 1 && level <= 6) levels.set(id, level);
    else if (valueOf(style, 'basedOn') !== undefined) based.set(id, valueOf(style, 'basedOn')!);
  }
  // A style is what it is based on, unless it says otherwise.
  for (const [id, on] of based) {
    let at: string | undefined = on;
    for (let steps = 0; at !== undefined && steps < 20; steps++) {
      if (levels.has(at)) levels.set(id, levels.get(at)!);
      at = levels.has(at) ? undefined : based.get(at);
    }
  }
  return levels;
}

/** The headings of a .docx document and what stands under them, as Markdown. Throws as `textOfDocx` does. */
export function outlineOfDocx(bytes: Uint8Array): string {
  const { [PARTS[0]!]: document = '', [STYLES]: styles = '' } = partsOf(bytes, [PARTS[0]!, STYLES]);
  const levels = levelsOf(styles);
  const lines: string[] = [];
  for (const paragraph of document.split('</w:p>')) {
    const text = paragraphsOf(paragraph).replace(/\s+/g, ' ').trim();
    if (!text) continue;
    const own = /<w:pPr>((?:(?!<\/w:pPr>)[^])*)/.exec(paragraph)?.[1] ?? '';
    const outline = valueOf(own, 'outlineLvl');
    const level = outline !== undefined && Number(outline) < 6 ? Number(outline) + 1 : levels.get(valueOf(own, 'pStyle') ?? '');
    // What would be a mark of Markdown at the start of a line is a word here.
    const plain = text.replace(/[\\`*_[\]<>]/g, '\\$&').replace(/^([-+=:#~]|\d{1,9}[.)])/, '\\$1');
    lines.push(level ? `${'#'.repeat(level)} ${plain}` : plain);
  }
  return lines.join('\n\n');
} // prettier-ignore

/** Text, tabs, breaks and ends of paragraphs of WordprocessingML. ECMA-376, part 1, 17.3.3. */
function paragraphsOf(xml: string): string {
  let text = '';
  for (const m of xml.matchAll(
    /<w:t(?:\s[^<>]*)?>([^<]*)<\/w:t>|<w:(?:tab|br|cr)(?:\s[^<>]*)?\/>|<w:noBreakHyphen\/>|<\/w:p>/g,
  )) {
    if (m[1] !== undefined) text += decodeEntities(m[1]);
    else if (m[0] === '</w:p>') text += '\n';
    else text += m[0] === '<w:noBreakHyphen/>' ? '-' : ' ';
  }
  return text;
}

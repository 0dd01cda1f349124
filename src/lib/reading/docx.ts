import { strFromU8, unzipSync } from 'fflate';
import { decodeEntities } from '../core/text';

/** The parts of a document that hold its running text, in the order they are read. ECMA-376, part 1, 11.3. */
const PARTS = ['word/document.xml', 'word/footnotes.xml', 'word/endnotes.xml'];
/** The largest part that is read, unpacked, in bytes. */
const LARGEST = 60_000_000;
const NONE = 'The file is no .docx document.';

/**
 * The running text of a .docx document with its foot- and endnotes, a line each paragraph. Words in a document are cut into
 * runs anywhere, so they are joined without anything between. Throws an Error with words for the person when the file is
 * none, or too large.
 */
export function textOfDocx(bytes: Uint8Array): string {
  let tooLarge = false;
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!PARTS.includes(name)) return false;
        if (originalSize > LARGEST) tooLarge = true;
        return originalSize <= LARGEST;
      },
    });
  } catch {
    throw new Error(NONE);
  }
  if (tooLarge) throw new Error('The document is too large to be read here. Save it as plain text.');
  if (!files[PARTS[0]!]) throw new Error(NONE);
  return PARTS.flatMap((part) => (files[part] ? [paragraphsOf(strFromU8(files[part]))] : [])).join('\n');
}

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

import { decodeEntities, escapeHtml, withoutControls } from '../text';

/** A tag of a document: where it stands, what it is called, and what follows its name. */
export interface Tag {
  from: number;
  to: number;
  name: string;
  /** `open`, `close`, or `empty` for one that closes itself. */
  is: 'open' | 'close' | 'empty';
  attrs: string;
}

/** The tags of an XML text in order; comments and instructions are none. Documents of these kinds have no CDATA in their text. */
export function* tagsOf(xml: string, from = 0): Generator<Tag> {
  for (let at = xml.indexOf('<', from); at !== -1; at = xml.indexOf('<', at)) {
    if (xml.startsWith('<!--', at)) {
      const end = xml.indexOf('-->', at + 4);
      if (end === -1) return;
      at = end + 3;
      continue;
    }
    const to = endOfTag(xml, at);
    if (to === -1) return;
    const inside = xml.slice(at + 1, to - 1);
    const begun = at;
    at = to;
    if (inside.startsWith('!') || inside.startsWith('?')) continue;
    const close = inside.startsWith('/');
    const empty = !close && inside.endsWith('/');
    const body = inside.slice(close ? 1 : 0, empty ? -1 : undefined);
    const space = body.search(/\s/);
    const name = space === -1 ? body : body.slice(0, space);
    yield { from: begun, to, name, is: close ? 'close' : empty ? 'empty' : 'open', attrs: body.slice(name.length) };
  }
} // prettier-ignore

/** Where a tag ends: a bracket in a value in quotation marks is none of its own. */
function endOfTag(xml: string, from: number): number {
  let quote = '';
  for (let i = from + 1; i < xml.length; i++) {
    const c = xml[i]!;
    if (quote) {
      if (c === quote) quote = '';
    } else if (c === '"' || c === "'") quote = c;
    else if (c === '>') return i + 1;
  }
  return -1;
}

/** The value of an attribute, its references resolved. */
export function attrOf({ attrs }: Pick<Tag, 'attrs'>, name: string): string | undefined {
  for (let at = attrs.indexOf(name); at !== -1; at = attrs.indexOf(name, at + 1)) {
    const m = /^\s*=\s*(?:"([^"]*)"|'([^']*)')/.exec(attrs.slice(at + name.length));
    if (m && /\s/.test(attrs[at - 1] ?? ' ')) return decodeEntities(m[1] ?? m[2] ?? '');
  }
  return undefined;
}

/** Where an element that begins with an open tag ends; the end of the text where it never does. */
export function endOf(xml: string, open: Tag): number {
  if (open.is === 'empty') return open.to;
  let depth = 0;
  for (const tag of tagsOf(xml, open.from)) {
    if (tag.name !== open.name) continue;
    if (tag.is === 'open') depth++;
    else if (tag.is === 'close' && --depth === 0) return tag.to;
  }
  return xml.length;
}

/** Text as it stands in XML. */
export const escaped = (text: string): string => escapeHtml(withoutControls(text));

/** A stretch of text as it stands in XML and as it reads. */
export interface RawText {
  text: string;
  /** Where each UTF-16 unit of the text stands in the XML, and where the last ends. */
  places: number[];
}

/** What stands between two tags, with the places of its letters: a reference is several letters there, and one here. */
export function rawText(xml: string, from: number, to: number): RawText {
  const raw = xml.slice(from, to);
  const places: number[] = [];
  let text = '';
  let at = 0;
  const take = (read: string, length: number) => {
    for (let i = 0; i < read.length; i++) places.push(from + at + (length === read.length ? i : 0));
    text += read;
    at += length;
  };
  for (const m of raw.matchAll(/&(?:#\d{1,7}|#x[0-9a-fA-F]{1,6}|[A-Za-z]{1,10});/g)) {
    take(raw.slice(at, m.index), m.index - at);
    take(decodeEntities(m[0]), m[0].length);
  }
  take(raw.slice(at), raw.length - at);
  places.push(from + raw.length);
  return { text, places };
}

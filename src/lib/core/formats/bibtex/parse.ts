import type { Skipped } from '../types';
import { expand, macrosOf, type Macros } from './macros';

/** An entry as written: names in lower case, values still in TeX with macros and `#` resolved. Lines count from 1. */
export interface RawEntry {
  type: string;
  key: string;
  line: number;
  fields: Map<string, string>;
  notes: string[];
  text: string;
}

/** The month macros of the standard styles (btxdoc, section 3.2), as words, since days are joined to them by `#`. */
const MONTHS: Record<string, string> = Object.fromEntries(
  'January February March April May June July August September October November December'
    .split(' ')
    .map((name) => [name.slice(0, 3).toLowerCase(), name]),
);

class Broken extends Error {}

/**
 * Splits a BibTeX file into entries. Grammar: btxdoc and "The name of the game" (bibtex.web): entries between braces
 * or parentheses, values in braces, quotes or bare, joined by `#`, `@string` macros, `@comment` passed over, TeX macros
 * of a `@preamble` expanded, any text between entries ignored. A broken entry is skipped with its line and reason; reading goes on at the
 * next `@` that begins a line.
 */
export function parseBibtex(source: string): { entries: RawEntry[]; skipped: Skipped[] } {
  const text = source.replace(/^\uFEFF/, '');
  const entries: RawEntry[] = [];
  const skipped: Skipped[] = [];
  const macros = new Map(Object.entries(MONTHS));
  let preamble = '';
  let at = 0;
  let countedTo = 0;
  let lines = 1;

  const lineAt = (offset: number) => {
    if (offset < countedTo) return text.slice(0, offset).split('\n').length;
    for (; countedTo < offset; countedTo++) if (text.charCodeAt(countedTo) === 10) lines++;
    return lines;
  };
  const space = () => {
    while (at < text.length && /\s/.test(text[at]!)) at++;
  };
  const word = (pattern: RegExp) => {
    pattern.lastIndex = at;
    const m = pattern.exec(text);
    if (!m) return '';
    at += m[0].length;
    return m[0];
  };
  const braced = (open: number): string => {
    let depth = 1;
    at = open + 1;
    for (; at < text.length; at++) {
      const c = text[at];
      if (c === '\\') at++;
      else if (c === '{') depth++;
      else if (c === '}' && --depth === 0) return text.slice(open + 1, at++);
      // An entry beginning at the start of a line inside a value means a brace was never closed.
      else if (
        c === '@' &&
        text[at - 1] === '\n' &&
        /^@[a-z]+\s*[{(]\s*[^\s,{}]+\s*,/i.test(text.slice(at, at + 120))
      )
        break;
    }
    throw new Broken('a brace is opened and never closed');
  };
  const quoted = (open: number): string => {
    let depth = 0;
    for (at = open + 1; at < text.length; at++) {
      const c = text[at];
      if (c === '\\') at++;
      else if (c === '{') depth++;
      else if (c === '}') depth--;
      else if (c === '"' && depth === 0) return text.slice(open + 1, at++);
    }
    throw new Broken('a quotation mark is opened and never closed');
  };
  const value = (notes: string[]): string => {
    let whole = '';
    for (;;) {
      space();
      if (text[at] === '{') whole += braced(at);
      else if (text[at] === '"') whole += quoted(at);
      else {
        const bare = word(/[^\s,{}()#"=@%~]+/y);
        if (bare === '') throw new Broken('a value is missing');
        const macro = macros.get(bare.toLowerCase());
        if (macro === undefined && !/^\d+$/.test(bare))
          notes.push(`macro “${bare}” is not defined; kept as text`);
        whole += macro ?? bare;
      }
      space();
      if (text[at] !== '#') return whole;
      at++;
    }
  };

  for (;;) {
    const start = text.indexOf('@', at);
    if (start === -1) break;
    at = start + 1;
    space();
    const type = word(/[a-z][\w-]*/iy).toLowerCase();
    space();
    const open = text[at];
    if (type === '' || (open !== '{' && open !== '(')) continue;
    if (type === 'comment') {
      if (open === '{') {
        try {
          braced(at);
        } catch {
          at = start + 1;
        }
      }
      continue;
    }
    const close = open === '{' ? '}' : ')';
    const notes: string[] = [];
    const fields = new Map<string, string>();
    at++;
    try {
      space();
      if (type === 'preamble') {
        preamble += value([]);
        space();
        at++;
        continue;
      }
      let key = '';
      if (type !== 'string') {
        key = word(open === '{' ? /[^\s,{}]*/y : /[^\s,{})]*/y);
        space();
        // A key of several words is none in BibTeX, but is met; it ends at the comma.
        const more = text[at] === ',' ? '' : word(/[^,{}()="#@\n]+(?=,)/y);
        if (more) {
          notes.push(`the key “${key} ${more.trim()}” has spaces`);
          key = `${key} ${more.trim()}`;
        }
        if (text[at] !== ',' && text[at] !== close)
          throw new Broken(`a comma is missing after the key “${key}”`);
      }
      for (;;) {
        space();
        while (text[at] === ',') {
          at++;
          space();
        }
        if (text[at] === close) break;
        if (at >= text.length) throw new Broken('the file ends inside the entry');
        const name = word(/[^\s,{}()=#"%@]+/y).toLowerCase();
        space();
        if (name === '' || text[at] !== '=')
          throw new Broken(`“=” expected after ${name ? `“${name}”` : 'a field name'}`);
        at++;
        const v = value(notes);
        if (type === 'string') macros.set(name, v);
        else if (fields.has(name)) notes.push(`field “${name}” is given twice; the first is taken`);
        else fields.set(name, v);
        space();
        if (text[at] === '@' || at >= text.length) throw new Broken('the entry is opened and never closed');
        if (text[at] !== ',' && text[at] !== close)
          throw new Broken(`a comma is missing after field “${name}”`);
      }
      at++;
      if (type !== 'string')
        entries.push({ type, key, line: lineAt(start), fields, notes, text: text.slice(start, at) });
    } catch (error) {
      if (!(error instanceof Broken)) throw error;
      const where = lineAt(start);
      const next = /^[ \t]*@/gm;
      next.lastIndex = start + 1;
      const m = next.exec(text);
      skipped.push({
        line: where,
        reason: error.message,
        text: text.slice(start, start + 120).split('\n')[0]!,
      });
      at = m ? m.index : text.length;
    }
  }
  const defined: Macros = macrosOf(preamble);
  if (defined.size > 0)
    for (const entry of entries)
      for (const [name, tex] of entry.fields) entry.fields.set(name, expand(tex, defined));
  return { entries, skipped };
}

import { nfc } from '../../text';
import { bracesOf } from './macros';
import { ACCENTS, DOUBLE_STRUCK, MARKUP, MATHS, SWITCHES, SYMBOLS, TEXT_ARGUMENT } from './symbols';

const marked = (tag: string, inner: string) =>
  tag === 'sc'
    ? `<span style="font-variant:small-caps;">${inner}</span>`
    : tag
      ? `<${tag}>${inner}</${tag}>`
      : inner;

/** How deep groups are read as such; beyond it braces are dropped, so that no file can exhaust the stack. */
const DEEPEST = 200;
/** Text with single blanks; ties stay. */
const spaced = (text: string) =>
  (/[^\S \u00a0]|[^\S\u00a0]{2}/.test(text) ? text.replace(/[^\S\u00a0]+/g, ' ') : text).trim();

/** Text that stands for itself. */
const ORDINARY = /[^\\{}$~`'-]+/y;
const PLAIN = /[\\{}$~`'\-&]/;

/** Where a sign comes next; what does not come again is not looked for again, so that many left open cost no more than one. */
function closings(tex: string): (sign: string, from: number) => number {
  const none = new Set<string>();
  return (sign, from) => {
    if (none.has(sign)) return -1;
    const at = tex.indexOf(sign, from);
    if (at === -1) none.add(sign);
    return at;
  };
}

/**
 * TeX to text with CSL rich text. Accents in all spellings, symbols, ligatures, dashes, quotes, ties, markup commands
 * and font switches; braces that are not arguments protect case and become `<span class="nocase">` when `protect` is
 * set and they stand inside other text; maths is written out legibly. Of an unknown command the argument stays.
 */
export function texToText(tex: string, protect = false): string {
  if (!PLAIN.test(tex)) return nfc(spaced(tex));
  let at = 0;
  let depth = 0;
  const bracedAt = bracesOf(tex);
  const closed = closings(tex);
  const blanks = () => {
    while (/\s/.test(tex[at] ?? '')) at++;
  };
  const group = (): string => {
    blanks();
    if (tex[at] === '{') {
      at++;
      const inner = run('}');
      at++;
      return inner;
    }
    if (tex[at] === '\\') return command();
    return tex[at] === undefined ? '' : String.fromCodePoint(tex.codePointAt(at++)!);
  };
  const accent = (mark: string): string => {
    const base = group().replace(/^ı/, 'i').replace(/^ȷ/, 'j');
    const [first = ''] = base;
    return nfc(first + mark) + base.slice(first.length);
  };
  /** An argument that is not TeX: an address or a path. */
  const verbatim = (): string => {
    blanks();
    const braced = bracedAt(at);
    if (!braced) return group();
    at = braced.end;
    return braced.inner.replace(/\\([_%#&~{}])/g, '$1');
  };
  function command(): string {
    at++;
    const letters = /^[a-zA-Z]+\*?/.exec(tex.slice(at, at + 40))?.[0];
    if (!letters) {
      const sign = tex[at++] ?? '';
      if (ACCENTS[sign]) return accent(ACCENTS[sign]);
      if (sign === '\\') return ' ';
      if (sign === '-' || sign === '/' || sign === '@' || sign === '!') return '';
      if (sign === '(' || sign === '[') {
        const end = closed(sign === '(' ? '\\)' : '\\]', at);
        const source = end === -1 ? '' : tex.slice(at, end);
        at = end === -1 ? at : end + 2;
        return maths(source);
      }
      return /[,;:>\s]/.test(sign) ? ' ' : sign;
    }
    at += letters.length;
    const name = letters.replace('*', '');
    if (name.length === 1 && ACCENTS[name]) return accent(ACCENTS[name]);
    if (MARKUP[name]) return marked(MARKUP[name], group());
    if (name === 'url' || name === 'path' || name === 'nolinkurl') return verbatim();
    if (name === 'verb') {
      const sign = tex[at] ?? '';
      const end = closed(sign, at + 1);
      const inner = end === -1 ? '' : tex.slice(at + 1, end);
      at = end === -1 ? at : end + 1;
      return inner;
    }
    if (name === 'ensuremath') {
      const inner = bracedAt(at);
      if (!inner) return '';
      at = inner.end;
      return maths(inner.inner);
    }
    if (name === 'enquote' || name === 'mkbibquote') return `“${group()}”`;
    if (name === 'char' || name === 'symbol') {
      const m = /^\{?\s*(?:"([0-9A-F]+)|(\d+))\s*\}?/.exec(tex.slice(at, at + 12));
      if (!m) return '';
      at += m[0].length;
      const code = m[1] ? parseInt(m[1], 16) : Number(m[2]);
      return code >= 32 && code < 0x110000 ? String.fromCodePoint(code) : '';
    }
    const several = TEXT_ARGUMENT[name];
    if (several) {
      const given = Array.from({ length: several.count }, (_, i) => {
        if (i === several.text) return group();
        verbatim();
        return '';
      });
      return given[several.text] ?? '';
    }
    while (tex[at] === ' ') at++;
    const symbol = SYMBOLS[name] ?? MATHS[name];
    if (symbol !== undefined) {
      if (tex[at] === '{' && tex[at + 1] === '}') at += 2;
      return symbol;
    }
    return tex[at] === '{' ? group() : '';
  }
  function run(until: string | undefined): string {
    let out = '';
    while (at < tex.length) {
      ORDINARY.lastIndex = at;
      if (ORDINARY.test(tex)) {
        out += tex.slice(at, ORDINARY.lastIndex);
        at = ORDINARY.lastIndex;
        continue;
      }
      const c = tex[at]!;
      if (c === until) return out;
      if (c === '{') {
        at++;
        if (depth >= DEEPEST) continue;
        depth++;
        const special = tex[at] === '\\';
        const inner = run('}');
        at++;
        depth--;
        const wanted = protect && !special && until === undefined && /\p{L}/u.test(inner);
        out += wanted ? `<span class="nocase">${inner}</span>` : inner;
      } else if (c === '\\') {
        const name = /^[a-zA-Z]+/.exec(tex.slice(at + 1, at + 20))?.[0];
        if (name !== undefined && Object.hasOwn(SWITCHES, name)) {
          at += name.length + 1;
          blanks();
          const rest = run(until);
          return out + (rest.trim() ? marked(SWITCHES[name]!, rest) : '');
        }
        out += command();
      } else if (c === '~') {
        out += '\u00a0';
        at++;
      } else if (c === '$') {
        const twice = tex[at + 1] === '$' ? 2 : 1;
        const end = closed('$', at + twice);
        out += end === -1 ? '$' : maths(tex.slice(at + twice, end));
        at = end === -1 ? at + 1 : end + twice;
      } else if (c === '-' && tex.startsWith('---', at)) {
        out += '—';
        at += 3;
      } else if (c === '-' && tex.startsWith('--', at)) {
        out += '–';
        at += 2;
      } else if (tex.startsWith('``', at)) {
        out += '“';
        at += 2;
      } else if (tex.startsWith("''", at)) {
        out += '”';
        at += 2;
      } else if (c === '}') at++;
      else {
        out += c === "'" ? '’' : c === '`' ? '‘' : c;
        at++;
      }
    }
    return out;
  }
  let result = run(undefined);
  // A value that is protected as a whole ({{Title}}) has nothing that needs telling apart.
  const wholly = /^<span class="nocase">((?:(?!<span class="nocase">)[\s\S])*)<\/span>$/.exec(result);
  if (wholly) result = wholly[1]!;
  return nfc(spaced(result));
}

/** Signs that stand between two things: relations, operations, arrows. */
const BETWEEN = /^(?![∂∇∑∏∫∮∀∃¬√∞])[\p{Sm}\u2190-\u21ff·]$/u;

/** Maths written out: Greek letters and signs as characters, raised and lowered parts as rich text, fractions with a slash. */
function maths(source: string): string {
  let at = 0;
  let depth = 0;
  const argument = (): string => {
    while (source[at] === ' ') at++;
    if (source[at] === '{') {
      at++;
      if (depth++ > DEEPEST) return '';
      const inner = run('}');
      depth--;
      at++;
      return inner;
    }
    return source[at] === '\\' ? sign() : (source[at++] ?? '');
  };
  const grouped = (text: string) => (text.length > 1 && /[^\p{L}\p{N}]/u.test(text) ? `(${text})` : text);
  function sign(): string {
    at++;
    const name = /^[a-zA-Z]+/.exec(source.slice(at, at + 40))?.[0];
    if (!name) {
      const c = source[at++] ?? '';
      return /[,;:!>\s]/.test(c) ? (c === '!' ? '' : ' ') : c === '\\' ? ' ' : c;
    }
    at += name.length;
    if (name === 'frac' || name === 'tfrac' || name === 'dfrac') {
      const above = argument();
      return `${grouped(above)}/${grouped(argument())}`;
    }
    if (name === 'sqrt') return `√${grouped(argument())}`;
    if (name === 'mathbb') {
      return [...argument()].map((c) => DOUBLE_STRUCK[c] ?? c).join('');
    }
    if (name === 'left' || name === 'right' || name === 'displaystyle') return '';
    if (MATHS[name] !== undefined) {
      const word = /^[a-z]{2,}$/.test(MATHS[name]);
      if (source[at] === ' ' && !word) at++;
      return word && /[\\\p{L}]/u.test(source[at] ?? '') ? `${MATHS[name]} ` : MATHS[name];
    }
    if (SYMBOLS[name] !== undefined) return SYMBOLS[name];
    while (source[at] === ' ') at++;
    return source[at] === '{' ? argument() : `${name} `;
  }
  function run(until: string | undefined): string {
    let out = '';
    while (at < source.length) {
      const c = source[at]!;
      if (c === until) return out;
      if (c === '^' || c === '_') {
        at++;
        const inner = argument();
        out +=
          inner === '′' || inner === '∘' ? inner.replace('∘', '°') : marked(c === '^' ? 'sup' : 'sub', inner);
      } else if (c === '\\') {
        const open = out.endsWith(' ');
        const read = sign();
        // A space ends the command's name; where one stands before a sign between two things, it sets the sign off too.
        out += open && BETWEEN.test(read) && source[at - 1] === ' ' ? `${read} ` : read;
      } else if (c === '{') out += argument();
      else {
        if (c !== '}') out += c === '~' ? ' ' : c;
        at++;
      }
    }
    return out;
  }
  return run(undefined).trim();
}

const ESCAPES: Record<string, string> = {
  '\\': '\\textbackslash{}', '&': '\\&', '%': '\\%', $: '\\$', '#': '\\#', _: '\\_', '{': '\\{', '}': '\\}', '~': '\\textasciitilde{}',
  '^': '\\textasciicircum{}', '`': '\\textasciigrave{}', '\u00a0': '~', '–': '--', '—': '---', '“': '``', '”': "''", '’': "'", '‘': '`',
}; // prettier-ignore
const ESCAPE = /[\\&%$#_{}~^`\u00a0–—“”’‘]/g;

const TAGS: [RegExp, string][] = [
  [/<i>/g, '\u0001emph{'],
  [/<b>/g, '\u0001textbf{'],
  [/<sup>/g, '\u0001textsuperscript{'],
  [/<sub>/g, '\u0001textsubscript{'],
  [/<span style="font-variant:\s*small-caps;?">/g, '\u0001textsc{'],
  [/<span class="nocase">/g, '\u0002'],
  [/<\/(?:i|b|sup|sub|span)>/g, '\u0003'],
];

/** Signs that TeX would join, written apart: hyphens and quotes that stand side by side in the text. */
const JOINED = /[-–—]{2,}|[‘’']{2,}/g;

/** Text with CSL rich text to TeX in UTF-8: TeX's own characters escaped, markup as commands, `nocase` as braces. */
export function textToTex(text: string): string {
  if (!/[\\&%$#_{}~^`\u00a0–—“”’‘<\-]|''/.test(text)) return text;
  let t = text;
  if (t.includes('<')) for (const [tag, to] of TAGS) t = t.replace(tag, to.replace('{', '\u0002'));
  return t
    .replace(JOINED, (signs) => [...signs].join('\u0002\u0003'))
    .replace(ESCAPE, (c) => ESCAPES[c] ?? c)
    .replace(/\u0001/g, '\\')
    .replace(/\u0002/g, '{')
    .replace(/\u0003/g, '}');
}

import { nfc } from '../../text';

/** Combining marks by TeX accent command (The TeXbook, chapter 9; LaTeX `\k`, `\r`). */
const ACCENTS: Record<string, string> = {
  '`': '\u0300', "'": '\u0301', '^': '\u0302', '~': '\u0303', '"': '\u0308', '=': '\u0304', '.': '\u0307',
  u: '\u0306', v: '\u030C', H: '\u030B', c: '\u0327', k: '\u0328', r: '\u030A', d: '\u0323', b: '\u0331',
}; // prettier-ignore

/** Commands that are a character of their own. */
const SYMBOLS: Record<string, string> = {
  ss: 'ß', ae: 'æ', AE: 'Æ', oe: 'œ', OE: 'Œ', o: 'ø', O: 'Ø', aa: 'å', AA: 'Å', l: 'ł', L: 'Ł', i: 'ı', j: 'ȷ', dh: 'ð',
  DH: 'Ð', th: 'þ', TH: 'Þ', dj: 'đ', DJ: 'Đ', ng: 'ŋ', S: '§', P: '¶', dag: '†', ddag: '‡', copyright: '©', pounds: '£',
  ldots: '…', dots: '…', textellipsis: '…', textendash: '–', textemdash: '—', textquoteleft: '‘', textquoteright: '’',
  textquotedblleft: '“', textquotedblright: '”', guillemotleft: '«', guillemotright: '»', textbackslash: '\\', textasciitilde: '~',
  textasciicircum: '^', textbar: '|', textless: '<', textgreater: '>', textdegree: '°', texttimes: '×', textregistered: '®', texttrademark: '™', euro: '€', texteuro: '€',
  textunderscore: '_', slash: '/', textbullet: '•',
}; // prettier-ignore

/** Commands whose argument becomes CSL rich text. */
const MARKUP: Record<string, string> = {
  emph: 'i', textit: 'i', textsl: 'i', textbf: 'b', textsuperscript: 'sup', textsubscript: 'sub', textsc: 'sc',
}; // prettier-ignore
const TRANSPARENT = new Set(
  'mbox hbox text textrm textsf texttt textnormal textup url path href uppercase MakeUppercase'.split(' '),
);

/**
 * TeX to text with CSL rich text. Accents in all spellings, symbols, dashes, quotes, ties, markup commands; braces
 * that are not arguments protect case and become `<span class="nocase">` when `protect` is set and they hold a letter
 * group inside other text; maths stays as its source without dollars. Unknown commands keep their name's argument.
 */
export function texToText(tex: string, protect = false): string {
  let at = 0;
  const group = (): string => {
    while (/\s/.test(tex[at] ?? '')) at++;
    if (tex[at] === '{') {
      at++;
      const inner = run('}');
      at++;
      return inner;
    }
    if (tex[at] === '\\') return command();
    return tex[at] === undefined ? '' : tex[at++]!;
  };
  const accent = (mark: string): string => {
    const base = group().replace(/^ı/, 'i').replace(/^ȷ/, 'j');
    const first = [...base][0] ?? '';
    return nfc(first + mark) + base.slice(first.length);
  };
  function command(): string {
    at++;
    const letters = /^[a-zA-Z]+/.exec(tex.slice(at, at + 40))?.[0];
    if (!letters) {
      const sign = tex[at++] ?? '';
      if (ACCENTS[sign]) return accent(ACCENTS[sign]);
      if (sign === '\\') return ' ';
      if (sign === '-' || sign === '/' || sign === '@') return '';
      return sign === ',' || sign === ';' || sign === ' ' || sign === ':' ? ' ' : sign;
    }
    at += letters.length;
    if (letters.length === 1 && ACCENTS[letters]) return accent(ACCENTS[letters]);
    if (MARKUP[letters]) {
      const inner = group();
      const tag = MARKUP[letters];
      return tag === 'sc'
        ? `<span style="font-variant:small-caps;">${inner}</span>`
        : `<${tag}>${inner}</${tag}>`;
    }
    while (tex[at] === ' ') at++;
    if (SYMBOLS[letters] !== undefined) {
      if (tex[at] === '{' && tex[at + 1] === '}') at += 2;
      return SYMBOLS[letters];
    }
    if (TRANSPARENT.has(letters) || tex[at] === '{') return group();
    return '';
  }
  function run(until: string | undefined): string {
    let out = '';
    while (at < tex.length) {
      const c = tex[at]!;
      if (c === until) return out;
      if (c === '{') {
        at++;
        const special = tex[at] === '\\';
        const inner = run('}');
        at++;
        const wanted = protect && !special && /\p{L}/u.test(inner) && until === undefined;
        out += wanted ? `<span class="nocase">${inner}</span>` : inner;
      } else if (c === '\\') out += command();
      else if (c === '~') {
        out += '\u00a0';
        at++;
      } else if (c === '$') {
        const end = tex.indexOf('$', at + 1);
        out += end === -1 ? '$' : maths(tex.slice(at + 1, end));
        at = end === -1 ? at + 1 : end + 1;
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
  return nfc(result.replace(/[^\S\u00a0]+/gu, ' ').trim());
}

const maths = (source: string) =>
  source
    .replace(/\^\{?([^{}]+?)\}?(?=\W|$)/g, '<sup>$1</sup>')
    .replace(/_\{?([^{}]+?)\}?(?=\W|$)/g, '<sub>$1</sub>')
    .replace(/\\([a-zA-Z]+)\s*/g, '$1 ')
    .trim();

const ESCAPES: Record<string, string> = {
  '\\': '\\textbackslash{}', '&': '\\&', '%': '\\%', $: '\\$', '#': '\\#', _: '\\_', '{': '\\{', '}': '\\}', '~': '\\textasciitilde{}',
  '^': '\\textasciicircum{}', '\u00a0': '~', '–': '--', '—': '---', '“': '``', '”': "''", '’': "'", '‘': '`',
}; // prettier-ignore
const ESCAPE = /[\\&%$#_{}~^\u00a0–—“”’‘]/g;

const TAGS: [RegExp, string][] = [
  [/<i>/g, '\u0001emph{'],
  [/<b>/g, '\u0001textbf{'],
  [/<sup>/g, '\u0001textsuperscript{'],
  [/<sub>/g, '\u0001textsubscript{'],
  [/<span style="font-variant:\s*small-caps;?">/g, '\u0001textsc{'],
  [/<span class="nocase">/g, '\u0002'],
  [/<\/(?:i|b|sup|sub|span)>/g, '\u0003'],
];

/** Text with CSL rich text to TeX in UTF-8: TeX's own characters escaped, markup as commands, `nocase` as braces. */
export function textToTex(text: string): string {
  let t = text;
  for (const [tag, to] of TAGS) t = t.replace(tag, to.replace('{', '\u0002'));
  return t
    .replace(ESCAPE, (c) => ESCAPES[c] ?? c)
    .replace(/\u0001/g, '\\')
    .replace(/\u0002/g, '{')
    .replace(/\u0003/g, '}');
}

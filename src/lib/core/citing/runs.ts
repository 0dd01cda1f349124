import type { Frame, Leaf } from '../csl';
import { escapeHtml, hasControls, withoutControls } from '../text';

/** A stretch of printed text of one look. `field` is the record's field it was printed from. */
export interface Run {
  text: string;
  italic?: boolean;
  bold?: boolean;
  smallCaps?: boolean;
  underline?: boolean;
  raised?: boolean;
  lowered?: boolean;
  href?: string;
  field?: string;
  /** What it came through, where that was asked. */
  trace?: string;
}

/**
 * Runs of the leaves a style printed; stretches of one look and one field are one run. `fieldOf` gives what the record
 * calls a variable; `traceOf`, where it is given, what a stretch came through: such of one trace are one run.
 */
export function runsOfLeaves(
  leaves: Leaf[],
  fieldOf: (variable: string) => string | undefined,
  traceOf?: (frame: Frame | undefined) => string,
): Run[] {
  const runs: Run[] = [];
  let last: Run | undefined;
  let before: Frame | undefined;
  let display: Frame | undefined;
  for (let i = 0; i < leaves.length; i++) {
    const { frame, text } = leaves[i]!;
    if (last && frame === before) {
      last.text += text;
      continue;
    }
    before = frame;
    let field: string | undefined;
    let block: Frame | undefined;
    for (let around = frame; around; around = around.parent) {
      if (field === undefined && around.piece.field) field = fieldOf(around.piece.field);
      if (around.piece.display) block = around;
    }
    // Parts that stand apart in the entry are words apart in a run of text.
    if (block !== display && last && !/\s$/.test(last.text)) runs.push((last = { text: ' ' }));
    display = block;
    const run: Run = { text };
    const within = frame?.within;
    if (within) {
      if (within.style === 'italic' || within.style === 'oblique') run.italic = true;
      if (within.weight === 'bold') run.bold = true;
      if (within.variant === 'small-caps') run.smallCaps = true;
      if (within.decoration === 'underline') run.underline = true;
      if (within.align === 'sup') run.raised = true;
      if (within.align === 'sub') run.lowered = true;
    }
    if (field) run.field = field;
    if (traceOf) run.trace = traceOf(frame);
    if (last && sameLook(last, run)) last.text += text;
    else runs.push((last = run));
  }
  return trimmed(runs);
}

const sameLook = (a: Run, b: Run): boolean =>
  a.field === b.field &&
  a.trace === b.trace &&
  a.italic === b.italic &&
  a.bold === b.bold &&
  a.smallCaps === b.smallCaps &&
  a.underline === b.underline &&
  a.raised === b.raised &&
  a.lowered === b.lowered;

/** In one line, without blanks at its ends. The runs are changed. */
function trimmed(runs: Run[]): Run[] {
  for (let i = 0; i < runs.length; i++) {
    const run = runs[i]!;
    if (BREAK.test(run.text)) run.text = run.text.replace(/[\r\n]+\s*/g, ' ');
  }
  if (runs[0]) runs[0].text = runs[0].text.trimStart();
  const last = runs[runs.length - 1];
  if (last) last.text = last.text.trimEnd();
  return runs.every((r) => r.text !== '') ? runs : runs.filter((r) => r.text !== '');
}
const BREAK = /[\r\n]/;

/** Runs as they may be written: characters that are no text would break what holds them, or be read as a command. */
export const writable = (runs: Run[]): Run[] =>
  runs.map((r) => (hasControls(r.text) ? { ...r, text: withoutControls(r.text) } : r));

/** The text of runs, without any look. */
export function runsToText(runs: Run[]): string {
  let text = '';
  for (let i = 0; i < runs.length; i++) text += runs[i]!.text;
  return withoutControls(text);
}

const ADDRESS = /https?:\/\/[^\s<>"]+[^\s<>".,;)]/g;

/** Where the addresses in a text begin and end. */
const addressesIn = (text: string): { from: number; to: number }[] =>
  text.includes('://')
    ? [...text.matchAll(ADDRESS)].map((m) => ({ from: m.index, to: m.index + m[0].length }))
    : [];

function lookOf(run: Run, text: string, fields: boolean): string {
  let inner = escapeHtml(text);
  if (run.smallCaps) inner = `<span style="font-variant:small-caps">${inner}</span>`;
  if (run.underline) inner = `<u>${inner}</u>`;
  if (run.raised) inner = `<sup>${inner}</sup>`;
  if (run.lowered) inner = `<sub>${inner}</sub>`;
  if (run.bold) inner = `<b>${inner}</b>`;
  if (run.italic) inner = `<i>${inner}</i>`;
  return fields && run.field ? `<span data-field="${escapeHtml(run.field)}">${inner}</span>` : inner;
}

/**
 * Runs as HTML. With `fields`, parts carry `data-field`; with `links`, addresses become links, also one that is printed in
 * parts, such as the resolver's and the DOI behind it.
 */
export function runsToHtml(runs: Run[], options: { fields?: boolean; links?: boolean } = {}): string {
  const all = writable(runs);
  const fields = options.fields ?? false;
  const whole = options.links ? all.map((r) => r.text).join('') : '';
  const addresses = addressesIn(whole);
  let html = '';
  let at = 0;
  let next = 0;
  for (const run of all) {
    const end = at + run.text.length;
    let from = at;
    // What of a run lies before, in and behind addresses; a link is closed where its address ends.
    while (from < end) {
      const address = addresses[next];
      const inside = address !== undefined && from >= address.from;
      const to = Math.min(end, !address ? end : inside ? address.to : address.from);
      if (inside && from === address.from)
        html += `<a href="${escapeHtml(whole.slice(address.from, address.to))}">`;
      html += lookOf(run, run.text.slice(from - at, to - at), fields);
      if (inside && to === address.to) {
        html += '</a>';
        next++;
      }
      from = to;
    }
    at = end;
  }
  return html;
}

/**
 * RTF 1.9.1, "Unicode RTF": `\uN` is a signed 16-bit unit, followed by one character for older readers. The space ends the
 * number, which some readers want.
 */
const rtfText = (text: string) =>
  text.replace(/[\\{}]|[^\0-\x7f]/g, (unit) => {
    const code = unit.charCodeAt(0);
    return code < 0x80 ? `\\${unit}` : `\\u${code > 0x7fff ? code - 0x10000 : code} ?`;
  });

/** Runs as RTF (Rich Text Format 1.9.1), without document or paragraph. */
export function runsToRtf(runs: Run[]): string {
  return writable(runs)
    .map((r) => {
      const codes = [
        r.italic && '\\i',
        r.bold && '\\b',
        r.smallCaps && '\\scaps',
        r.underline && '\\ul',
        r.raised && '\\super',
        r.lowered && '\\sub',
      ].filter(Boolean);
      return codes.length ? `{${codes.join('')} ${rtfText(r.text)}}` : rtfText(r.text);
    })
    .join('');
}

/**
 * Characters that mean something to Markdown where they stand (CommonMark 0.31, 2.4 Backslash escapes), `$` and `@` to those
 * of its dialects that know maths and citations.
 */
const MARKDOWN = /[\\`*_{}[\]<>#~|^$&@]/g;

/** A look around text, its white space left outside, where Markdown wants it. */
const around = (text: string, before: string, after = before) => {
  const m = /^(\s*)([\s\S]*?)(\s*)$/.exec(text)!;
  return m[2] ? `${m[1]!}${before}${m[2]}${after}${m[3]!}` : text;
};

/** Runs as Markdown (CommonMark 0.31), what it has no mark for in inline HTML. Addresses become autolinks. */
export function runsToMarkdown(runs: Run[]): string {
  return writable(runs)
    .map((r) => {
      let from = 0;
      let text = '';
      for (const m of r.text.matchAll(ADDRESS)) {
        text += `${r.text.slice(from, m.index).replace(MARKDOWN, '\\$&')}<${m[0]}>`;
        from = m.index + m[0].length;
      }
      text += r.text.slice(from).replace(MARKDOWN, '\\$&');
      if (r.raised) text = around(text, '<sup>', '</sup>');
      if (r.lowered) text = around(text, '<sub>', '</sub>');
      if (r.underline) text = around(text, '<u>', '</u>');
      if (r.smallCaps) text = around(text, '<span style="font-variant:small-caps">', '</span>');
      if (r.bold) text = around(text, '**');
      if (r.italic) text = around(text, '*');
      return text;
    })
    .join('');
}

const LATEX: Record<string, string> = {
  '\\': '\\textbackslash{}', '&': '\\&', '%': '\\%', $: '\\$', '#': '\\#', _: '\\_', '{': '\\{', '}': '\\}', '~': '\\textasciitilde{}', '^': '\\textasciicircum{}',
  '\u00a0': '~', '–': '--', '—': '---',
}; // prettier-ignore
/** Strokes and marks in a row would be joined to others: they are kept apart. The TeXbook, chapter 2. */
const inLatex = (text: string) =>
  text
    .replace(/[\\&%$#_{}~^\u00a0]/g, (c) => LATEX[c] ?? c)
    .replace(/(?:[-–](?=[-–—])|—(?=[-–])|['`‘’](?=['`‘’]))/g, '$&{}')
    .replace(/[–—]/g, (c) => LATEX[c] ?? c);

/**
 * An address as an argument of `\\url` that may itself stand in an argument, where TeX has read it before `\\url` does: what
 * no address may hold is percent-encoded (RFC 3986, 2), most of all `^`, since `^^5c` would become a backslash (The TeXbook,
 * chapter 8).
 */
const addressInLatex = (address: string) =>
  address.replace(/[\\^{}`|\u00a0]/g, encodeURIComponent).replace(/[%#]/g, '\\$&');

/** Runs as LaTeX in UTF-8; addresses in `\url`, for the hyperref or url package. */
export function runsToLatex(runs: Run[]): string {
  return writable(runs)
    .map((r) => {
      let from = 0;
      let text = '';
      for (const m of r.text.matchAll(ADDRESS)) {
        text += `${inLatex(r.text.slice(from, m.index))}\\url{${addressInLatex(m[0])}}`;
        from = m.index + m[0].length;
      }
      text += inLatex(r.text.slice(from));
      const commands = [
        r.raised && 'textsuperscript',
        r.lowered && 'textsubscript',
        r.underline && 'underline',
        r.smallCaps && 'textsc',
        r.bold && 'textbf',
        r.italic && 'emph',
      ].filter(Boolean);
      return commands.reduce<string>((inner, command) => `\\${String(command)}{${inner}}`, text);
    })
    .join('');
}

/** A TeX macro defined in a `@preamble`: how many arguments it takes, and its body with `#1` … `#9`. */
export interface Macro {
  count: number;
  body: string;
}
export type Macros = Map<string, Macro>;

/**
 * Finds the text between a brace and its partner, and where it ends; `undefined` where the brace is never closed. The text is
 * gone through once, however many braces are asked for in their order, so that what is left open many times costs no more.
 */
export function bracesOf(tex: string): (open: number) => { inner: string; end: number } | undefined {
  let from = Infinity;
  const ends = new Map<number, number>();
  return (open) => {
    if (tex[open] !== '{') return undefined;
    if (open < from) {
      from = open;
      ends.clear();
      const opened: number[] = [];
      for (let i = open; i < tex.length; i++) {
        if (tex[i] === '\\') i++;
        else if (tex[i] === '{') opened.push(i);
        else if (tex[i] === '}' && opened.length) ends.set(opened.pop()!, i);
      }
    }
    const end = ends.get(open);
    return end === undefined ? undefined : { inner: tex.slice(open + 1, end), end: end + 1 };
  };
}

/** The macros a preamble defines by `\newcommand`, `\renewcommand`, `\providecommand` or `\def`. */
export function macrosOf(preamble: string): Macros {
  const macros: Macros = new Map();
  const bracedAt = bracesOf(preamble);
  const definition =
    /\\(?:(?:new|renew|provide)command\*?\s*\{?\s*\\([a-zA-Z]+)\s*\}?\s*(?:\[(\d)\])?|def\s*\\([a-zA-Z]+)\s*((?:#\d)*))\s*(?=\{)/g;
  for (const m of preamble.matchAll(definition)) {
    const body = bracedAt(m.index + m[0].length);
    const name = m[1] ?? m[3];
    if (!body || !name) continue;
    macros.set(name, { count: m[1] ? Number(m[2] ?? 0) : m[4]!.length / 2, body: body.inner });
  }
  return macros;
}

/** A value with macros replaced by their bodies. Expansion goes five deep and to 20,000 characters, against macros that grow. */
export function expand(tex: string, macros: Macros, depth = 5): string {
  if (macros.size === 0 || depth === 0 || !tex.includes('\\')) return tex;
  const bracedAt = bracesOf(tex);
  let out = '';
  let at = 0;
  for (const m of tex.matchAll(/\\([a-zA-Z]+) ?/g)) {
    const macro = macros.get(m[1]!);
    if (!macro || m.index < at) continue;
    let end = m.index + m[0].length;
    const given: string[] = [];
    while (given.length < macro.count) {
      while (/\s/.test(tex[end] ?? '')) end++;
      const group = bracedAt(end);
      given.push(group?.inner ?? tex[end] ?? '');
      end = group?.end ?? end + 1;
    }
    out +=
      tex.slice(at, m.index) + macro.body.replace(/#(\d)/g, (_, n: string) => given[Number(n) - 1] ?? '');
    at = end;
  }
  const whole = out + tex.slice(at);
  return at === 0 || whole.length > 20_000 ? whole : expand(whole, macros, depth - 1);
}

/**
 * citeproc-js driven directly, as it is published: the processor ours is held against. A development dependency for this
 * check alone.
 */
import CSL from 'citeproc';
import type { Cite, Tree } from '../../src/lib/core/csl';
import type { Run } from '../../src/lib/core/citing';
import { nodesNamed } from '../../src/lib/core/csl';
import type { Work } from './works';

/** An entry or a citation by its key, in the one form both processors are compared in. */
export type Printed = Map<string, string>;

type Look = Omit<Run, 'text' | 'field' | 'href'>;

/** Runs as text with its looks between braces; white space counts as one blank and has no look of its own. */
export function comparableRuns(runs: Run[]): string {
  let out = '';
  let last = '';
  const flags = (r: Look) =>
    (r.italic ? 'i' : '') + (r.bold ? 'b' : '') + (r.smallCaps ? 'c' : '') + (r.underline ? 'u' : '') +
    (r.raised ? '^' : '') + (r.lowered ? '_' : ''); // prettier-ignore
  for (const run of runs)
    for (const c of run.text.replace(/\s+/g, ' ')) {
      const look = c === ' ' ? last : flags(run);
      if (look !== last) out += `{${(last = look)}}`;
      out += c;
    }
  return out.replace(/ +/g, ' ').trim();
}

const ENTITIES: Record<string, string> = {
  '&#38;': '&',
  '&#60;': '<',
  '&#62;': '>',
  '&amp;': '&',
  '&lt;': '<',
  '&gt;': '>',
  '&quot;': '"',
};

/** The HTML citeproc-js writes, as runs. */
function runsOfHtml(html: string): Run[] {
  const runs: Run[] = [];
  const stack: { tag: string; look: Look }[] = [{ tag: '', look: {} }];
  const says = (style: string, what: RegExp) => what.test(style);
  for (const m of html.replace(/<\/?div[^>]*>/g, ' ').matchAll(/<(\/?)([a-z]+)([^<>]*)>|([^<]+|<)/gi)) {
    const [, slash, tag, attributes = '', text] = m;
    const { look } = stack[stack.length - 1]!;
    if (text !== undefined) runs.push({ text: text.replace(/&#?\w+;/g, (e) => ENTITIES[e] ?? e), ...look });
    else if (slash) {
      const at = stack.findLastIndex((s) => s.tag === tag);
      if (at > 0) stack.length = at;
    } else
      stack.push({
        tag: tag!,
        look: {
          ...look,
          ...(tag === 'i' || tag === 'em' ? { italic: true } : {}),
          ...(says(attributes, /font-style:\s*normal/) ? { italic: false } : {}),
          ...(tag === 'b' ? { bold: true } : {}),
          ...(says(attributes, /font-weight:\s*normal/) ? { bold: false } : {}),
          ...(says(attributes, /font-variant:\s*small-caps/) ? { smallCaps: true } : {}),
          ...(says(attributes, /font-variant:\s*normal/) ? { smallCaps: false } : {}),
          ...(says(attributes, /text-decoration:\s*underline/) ? { underline: true } : {}),
          ...(tag === 'sup' ? { raised: true } : {}),
          ...(tag === 'sub' ? { lowered: true } : {}),
        },
      });
  }
  return runs;
}

/**
 * The list and the citations of works in a style, by key ("list ID", "c0", "c1" …); the citations stand in notes 1, 2, 3 …
 * of one text. Nothing when entries are left out of the list, since it cannot be told which.
 */
export function theirs(
  style: Tree,
  locale: Tree,
  lang: string,
  works: Work[],
  clusters: Cite[][],
): Printed | undefined {
  const byId = new Map(works.map((w) => [w.id, w]));
  const sys = { retrieveLocale: () => locale, retrieveItem: (id: string) => structuredClone(byId.get(id)) };
  const engine = new CSL.Engine(sys, structuredClone(style), lang, true);
  engine.opt.development_extensions.wrap_url_and_doi = false;
  engine.opt.development_extensions.field_hack = false;
  const printed: Printed = new Map();
  engine.updateItems(works.map((w) => w.id));
  if (nodesNamed(style, 'bibliography').length > 0) {
    const [meta, entries] = engine.makeBibliography();
    if (entries.length !== meta.entry_ids.length) return undefined;
    entries.forEach((html, i) =>
      printed.set(`list ${meta.entry_ids[i]![0]!}`, comparableRuns(runsOfHtml(html))),
    );
  }
  const before: [string, number][] = [];
  clusters.forEach((cites, i) => {
    const [, changed] = engine.processCitationCluster(
      { citationItems: cites.map((c) => ({ ...c })), properties: { noteIndex: i + 1 }, citationID: `c${i}` },
      before,
      [],
    );
    before.push([`c${i}`, i + 1]);
    for (const [, html, id] of changed) printed.set(id, comparableRuns(runsOfHtml(html)));
  });
  return printed;
}

import { runsToMarkdown } from '../citing';
import type { CitedWork } from '../drafting';
import { locatorText, type Locator } from '../passages';
import { inOneLine } from '../text';
import { laidOut, type DraftOut, type Laid, type Stretch } from './layout';

const KEY = /^[\p{L}\p{N}_][\p{L}\p{N}_]*(?:[:.#$%&\-+?<>~/][\p{L}\p{N}_]+)*$/u;
const keyed = (key: string) => (KEY.test(key) ? key : `{${key.replace(/[{}\s]/g, '')}}`);
const md = (text: string) => runsToMarkdown([{ text: inOneLine(text) }]);

/** What stands behind a citekey: its place, in braces where nothing else would say where it ends, and words. */
function behind({ label, locator, suffix }: CitedWork): string {
  const place = locator
    ? `, ${/^[\divxlc\s,\-–]+$/i.test(locator) ? '' : '{'}${locatorText({ label: (label ?? 'page') as Locator['label'], value: locator })}${/^[\divxlc\s,\-–]+$/i.test(locator) ? '' : '}'}`
    : '';
  const words = suffix?.trim() ? `${/^[,;:.)\]]/.test(suffix.trim()) ? '' : ' '}${md(suffix.trim())}` : '';
  // Words that begin with a number would be read as a place.
  return `${place || (/^\s*[\d]/.test(suffix ?? '') ? '{}' : '')}${words}`;
}

/** A citation with citekeys, as pandoc has them. Pandoc User’s Guide, "Citation syntax". */
export function withKeys(
  { works, named }: Extract<Stretch, { is: 'cite' }>,
  keys: ReadonlyMap<string, string>,
): string {
  const one = (work: CitedWork) =>
    `${work.prefix?.trim() ? `${md(work.prefix.trim())} ` : ''}${work.withoutAuthor ? '-' : ''}@${keyed(keys.get(work.id) ?? work.id)}${behind(work)}`;
  const [first, ...others] = works;
  if (!first) return '';
  if (!named || first.prefix?.trim()) return `[${works.map(one).join('; ')}]`;
  const rest = [behind(first).replace(/^,\s*/, ''), ...others.map(one)].filter(Boolean).join('; ');
  return `@${keyed(keys.get(first.id) ?? first.id)}${rest ? ` [${rest}]` : ''}`;
}

function spelled(laid: readonly Laid[], keys: ReadonlyMap<string, string>): Laid[] {
  const line = (stretches: readonly Stretch[]): Stretch[] =>
    stretches.map((one): Stretch => {
      if (one.is === 'cite') return { is: 'runs', runs: [{ text: withKeys(one, keys) }] };
      return one.is === 'note' ? { ...one, content: line(one.content) } : one;
    });
  return laid.map((block): Laid => {
    switch (block.is) {
      case 'heading':
      case 'paragraph':
        return { ...block, line: line(block.line) };
      case 'figure':
        return { ...block, caption: line(block.caption), line: line(block.line) };
      case 'quotation':
        return { ...block, content: spelled(block.content, keys) };
      case 'list':
        return { ...block, items: block.items.map((item) => spelled(item, keys)) };
      case 'table':
        return {
          ...block,
          caption: line(block.caption),
          rows: block.rows.map((row) =>
            row.map((cell) => ({ ...cell, content: spelled(cell.content, keys) })),
          ),
        };
      default:
        return block;
    }
  });
}

/** A draft laid out with its citations spelled by citekeys, for whoever prints them in the file itself. */
export const spelledOut = (out: DraftOut): Laid[] =>
  spelled(
    laidOut({
      ...out,
      printed: new Map(),
      // Notes that citations make are none yet.
      notes: new Map([...out.notes].filter(([id]) => !out.printed.has(id))),
    }),
    out.keys,
  );

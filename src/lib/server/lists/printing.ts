import type { Knex } from 'knex';
import {
  runsToHtml,
  runsToText,
  type CiteItem,
  type ListTerms,
  type PrintedList,
  type PrintedReference,
  type Run,
  type TextCitation,
  type ToldList,
} from '../../core/citing';
import { toCsl, type CslItem, type CslType, type Variable } from '../../core/source';
import { localeFile } from '../catalogue';
import type { Context } from '../access/context';
import { log } from '../log';
import type { Source } from '../sources/repository';
import { styleTree } from '../../reading/styles';
import { asks, print, terms, type Asked, type TextPrinted } from '../workers/pools';
import { styleOf } from './catalogue';

/** A style and a language. */
export interface Look {
  style: string;
  locale: string;
}

/** A reference as a page shows it. `html` carries `data-field` on each part; empty when nothing prints. */
export interface ShownReference {
  id: string;
  html: string;
  text: string;
  label?: string;
  /** It cannot be printed in this style. */
  failed?: boolean;
}

const asked = new Map<string, Promise<Asked>>();

/** What a style makes of a type; nothing that prints when the style cannot be read. */
export async function askedOf(ctx: Context, style: string, type: CslType): Promise<Asked> {
  const { file } = await styleOf(ctx, style);
  const key = `${file} ${style} ${type}`;
  let known = asked.get(key);
  if (!known) {
    known = Promise.resolve()
      .then(() => asks(style, file, type))
      .catch(() => ({ prints: [], titleAsItStands: false }));
    asked.set(key, known);
  }
  return known;
}

/** The variables a style can print of a type, in its order. */
export const printedFields = async (ctx: Context, style: string, type: CslType): Promise<Variable[]> =>
  (await askedOf(ctx, style, type)).prints;

const spoken = new Map<string, Promise<ListTerms>>();

/** What a language calls pages and chapters, and its quotation marks. */
export function termsOf(locale: string): Promise<ListTerms> {
  const file = localeFile(locale);
  const known = spoken.get(file) ?? terms(file);
  spoken.set(file, known);
  known.catch(() => spoken.delete(file));
  return known;
}

/** A style and a language as those who print are told them. */
export const printingIn = async (ctx: Context, { style, locale }: Look) => ({
  style,
  styleFile: (await styleOf(ctx, style)).file,
  locale,
  localeFile: localeFile(locale),
});

const task = async (ctx: Context, look: Look, items: CslItem[]) => ({
  ...(await printingIn(ctx, look)),
  items,
});

/** A printed reference as a page shows it. */
export const shown = ({ id, runs, label, failed }: PrintedReference): ShownReference => ({
  id,
  html: runsToHtml(runs, { fields: true }),
  text: runsToText(runs),
  ...(label ? { label } : {}),
  ...(failed === undefined ? {} : { failed: true }),
});

async function cachedRuns(ctx: Context, sources: Source[], look: Look): Promise<Map<string, Run[]>> {
  const found = new Map<string, Run[]>();
  for (let i = 0; i < sources.length; i += 400) {
    const part = sources.slice(i, i + 400);
    const revisions = new Map(part.map((s) => [s.id, s.revision]));
    const rows = (await ctx
      .db('printed')
      .where({ style: look.style, locale: look.locale })
      .whereIn('source_id', [...revisions.keys()])) as {
      source_id: string;
      revision: number;
      runs: string;
    }[];
    for (const row of rows)
      if (revisions.get(row.source_id) === row.revision)
        found.set(row.source_id, JSON.parse(row.runs) as Run[]);
  }
  return found;
}

/** Keeps what was printed. A request that only reads does not wait for it: what writes may be busy with an import. */
async function keep(ctx: Context, work: (trx: Knex) => Promise<void>): Promise<void> {
  const kept = (ctx.writes ?? ctx.db).transaction(work);
  if (!ctx.writes) return kept;
  kept.catch((err: unknown) => log.warn({ err }, 'what was printed is not kept'));
}

/** Lets go of what was printed in a style. */
export const forgetPrinted = async (ctx: Context, style: string): Promise<void> =>
  void (await ctx.db('printed').where({ style }).delete());

/** What the cache has of the given sources, by id; nothing is printed. */
export async function printedSoFar(
  ctx: Context,
  sources: Source[],
  look: Look,
): Promise<Map<string, ShownReference>> {
  const runs = await cachedRuns(ctx, sources, look);
  return new Map([...runs].map(([id, r]) => [id, shown({ id, runs: r })]));
}

/** Prints each source alone, from its current revision: from the cache where it can, else in the worker. */
export async function printEach(ctx: Context, sources: Source[], look: Look): Promise<ShownReference[]> {
  const runs = await cachedRuns(ctx, sources, look);
  const failed = new Set<string>();
  const missing = sources.filter((s) => !runs.has(s.id));
  for (let i = 0; i < missing.length; i += 100) {
    const part = missing.slice(i, i + 100);
    const printed = await print({
      ...(await task(
        ctx,
        look,
        part.map((s) => toCsl(s.id, s.record)),
      )),
      what: 'each',
    });
    for (const reference of printed) {
      runs.set(reference.id, reference.runs);
      if (reference.failed !== undefined) failed.add(reference.id);
    }
    await keep(ctx, async (trx) => {
      for (const [j, reference] of printed.entries()) {
        if (reference.failed !== undefined) continue;
        const source = part[j]!;
        await trx('printed').where({ source_id: source.id }).where('revision', '<', source.revision).delete();
        await trx('printed')
          .insert({
            source_id: source.id,
            revision: source.revision,
            ...look,
            runs: JSON.stringify(reference.runs),
          })
          .onConflict(['source_id', 'revision', 'style', 'locale'])
          .ignore();
      }
    });
  }
  return sources.map(({ id }) =>
    shown({ id, runs: runs.get(id) ?? [], ...(failed.has(id) ? { failed: '' } : {}) }),
  );
}

/** Sources that are printed together, and which list they are. */
const listTask = async (ctx: Context, sources: Source[], look: Look, list: string) => ({
  ...(await task(
    ctx,
    look,
    sources.map((s) => toCsl(s.id, s.record)),
  )),
  list: `${ctx.libraryId} ${list}`,
});

/**
 * Prints sources together as a reference list, `list` naming which: what was printed of it before stays where it did not change.
 */
export const printList = async (
  ctx: Context,
  sources: Source[],
  look: Look,
  list: string,
): Promise<PrintedList> => print({ ...(await listTask(ctx, sources, look, list)), what: 'list' });

/** What tells the works of a list apart; `list` names which, as for `printList`. */
export const tellApart = async (
  ctx: Context,
  sources: Source[],
  look: Look,
  list: string,
): Promise<ToldList> => print({ ...(await listTask(ctx, sources, look, list)), what: 'told' });

/** Prints an in-text citation; with `named`, the first work's author stands before it in the sentence. */
export async function printCitation(
  ctx: Context,
  sources: Source[],
  cited: CiteItem[],
  look: Look,
  named = false,
): Promise<{ html: string; text: string }> {
  const runs = await print({
    ...(await task(
      ctx,
      look,
      sources.map((s) => toCsl(s.id, s.record)),
    )),
    what: 'citation',
    cited,
    named,
  });
  return { html: runsToHtml(runs, { fields: true }), text: runsToText(runs) };
}

/** Prints many in-text citations, each by itself, as a first one in its text. */
export async function printCitations(
  ctx: Context,
  sources: Source[],
  cited: CiteItem[][],
  look: Look,
): Promise<Run[][]> {
  const items = sources.map((s) => toCsl(s.id, s.record));
  return print({ ...(await task(ctx, look, items)), what: 'citations', clusters: cited });
}

/** Prints the citations of a text in order, each as it stands in the whole of it, and the list of all sources given. */
export async function printText(
  ctx: Context,
  sources: Source[],
  citations: TextCitation[],
  look: Look,
): Promise<TextPrinted> {
  const items = sources.map((s) => toCsl(s.id, s.record));
  return print({ ...(await task(ctx, look, items)), what: 'text', text: citations });
}

/** Whether a style cites in notes. */
export const citesInNotes = async (ctx: Context, { style }: Look): Promise<boolean> =>
  styleTree(style, (await styleOf(ctx, style)).file).attrs.class === 'note';

/** Prints records that are not stored (a merge being considered, a form being filled in). Not cached. */
export async function printPreview(ctx: Context, items: CslItem[], look: Look): Promise<ShownReference[]> {
  return (await print({ ...(await task(ctx, look, items)), what: 'each' })).map(shown);
}

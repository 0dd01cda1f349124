import { READING_STATES, type ReadingState } from '../../core/query';
import type { Context } from '../access/context';
import { outlines, passagesPlaced } from '../projects/sections';
import { living } from '../sources/repository';
import { tallied } from '../sources/tallies';

/** How many weeks are looked back. */
const WEEKS = 16;
const DAY = 24 * 3600 * 1000;

/** A week from Monday to Sunday, as days (ISO 8601), and how many sources were added in it. */
export interface Week {
  from: string;
  to: string;
  n: number;
}

/** What a section is written from: sources, those of sections under it too, and passages placed right under it and under these. */
export interface Evidence {
  id: string;
  name: string;
  depth: number;
  projectId: string;
  sources: number;
  passages: number;
}

const day = (time: number): string => new Date(time).toISOString().slice(0, 10);

/** The sources added in each of the last weeks, the earliest first; `today` is the day the last of them has in it. */
async function addedByWeek(ctx: Context, projectId: string | undefined, today: string): Promise<Week[]> {
  const now = Date.parse(`${today}T00:00:00Z`);
  // Of getUTCDay, Sunday is 0: the week begins with Monday (ISO 8601).
  const monday = now - ((new Date(now).getUTCDay() + 6) % 7) * DAY;
  const weeks: Week[] = Array.from({ length: WEEKS }, (_, i) => {
    const from = monday - (WEEKS - 1 - i) * 7 * DAY;
    return { from: day(from), to: day(from + 6 * DAY), n: 0 };
  });
  const rows = (await living(ctx, projectId ? { projectId } : {})
    .where('source.added', '>=', weeks[0]!.from)
    .groupByRaw('substr(source.added, 1, 10)')
    .select(ctx.db.raw('substr(source.added, 1, 10) AS day'))
    .count({ n: '*' })) as { day: string; n: number }[];
  for (const { day, n } of rows) {
    const week = weeks.find(({ from, to }) => from <= day && day <= to);
    if (week) week.n += n;
  }
  return weeks;
}

/** How far the person is with the sources, of those they have said it of. */
async function readingProgress(
  ctx: Context,
  projectId: string | undefined,
): Promise<{ state: ReadingState; n: number }[]> {
  const rows = (await ctx
    .db('reading')
    .where({ owner_id: ctx.personId })
    .whereNotNull('state')
    .whereIn('source_id', living(ctx, projectId ? { projectId } : {}).select('source.id'))
    .groupBy('state')
    .select('state')
    .count({ n: '*' })) as { state: ReadingState; n: number }[];
  const of = new Map(rows.map(({ state, n }) => [state, n]));
  return READING_STATES.map((state) => ({ state, n: of.get(state) ?? 0 }));
}

/** What each section of a project, or of all, is written from, as the outline is read. */
async function evidence(ctx: Context, projectId: string | undefined): Promise<Evidence[]> {
  const passages = await passagesPlaced(ctx);
  const sections = (await outlines(ctx)).filter((s) => !projectId || s.projectId === projectId);
  const found = sections.map(({ id, name, depth, projectId, sources }) => ({
    id,
    name,
    depth,
    projectId,
    sources,
    passages: passages.get(id) ?? 0,
  }));
  // From the last to the first: what stands under a section is summed before it is.
  for (let i = found.length - 1; i > 0; i--) {
    const above = found.slice(0, i).findLast((s) => s.depth < found[i]!.depth);
    if (above && above.depth === found[i]!.depth - 1) above.passages += found[i]!.passages;
  }
  return found;
}

/** What the Desk draws, for a project or the library. */
export async function chartsOf(ctx: Context, projectId: string | undefined, today = day(Date.now())) {
  const [weeks, reading, sections, published, types] = await Promise.all([
    addedByWeek(ctx, projectId, today),
    readingProgress(ctx, projectId),
    evidence(ctx, projectId),
    tallied(ctx, 'published', projectId),
    tallied(ctx, 'type', projectId),
  ]);
  return {
    weeks,
    reading,
    sections,
    years: published
      .map(({ value, n }) => {
        const [year, type] = value.split(':') as [string, string];
        return { year: Number(year), type, n };
      })
      .sort((a, b) => a.year - b.year),
    types: types.sort((a, b) => b.n - a.n).map(({ value, n }) => ({ type: value, n })),
  };
}

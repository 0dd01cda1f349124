import { z } from 'zod';
import {
  checkedOf,
  inOrder,
  isAround,
  letStand,
  proof,
  proofAll,
  RANK,
  type Checked,
  type Finding,
} from '../../core/proof';
import { plain } from '../../core/text';
import { shortLabel, toCsl, valueText, withEdit, type SourceRecord } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { inParts, now } from '../db/ids';
import { inTurn } from '../turns';
import { printPreview, type Look, type ShownReference } from '../lists/printing';
import { editSourceIn, letStandIn, revisionsOfMade, type MadeOf } from '../sources/editing';
import { getSources, revisionsIn, type Source, type SourceFilter } from '../sources/repository';
import { besideIn, findingsAround, findingsInStyle } from './around';
import { asideIn, foundBy, setAside, sourcesFound, type Found } from './repository';

/** What one check found in a project or the library. */
export interface FoundGroup extends Found, Checked {
  /** It is found beside the records: in the style, in the library. */
  around: boolean;
  /** The project does not ask it. */
  aside: boolean;
}

/** A source in which a check found something. */
export interface FoundSource {
  id: string;
  label: string;
  title: string;
  field: string;
  value: string;
  message: string;
  /** What the value would be, where the check knows. */
  fixed?: string;
  fixLabel?: string;
}

/** Found in sources of this revision in this style; gone through anew only where either changed. */
const inStyle = new Map<string, Finding[]>();
const MOST_KEPT = 120_000;
const keyOf = (ctx: Context, id: string, revision: number, { style }: Look) =>
  `${ctx.libraryId} ${id} ${revision} ${style}`;

/** How many sources are gone through at once. */
const AT_ONCE = 200;

/** Ids of sources by the check that found something in them. */
type FoundAround = Map<string, { pencil: Finding['pencil']; ids: string[]; fixable: number }>;

/** What is being gone through for somebody: who asks the same meanwhile gets it, too. */
const going = new Map<string, Promise<FoundAround>>();

/**
 * What is found beside the records that fit a filter, by check. Records are gone through where they or the style
 * changed since; others are answered between them.
 */
function foundAround(ctx: Context, look: Look, filter: SourceFilter): Promise<FoundAround> {
  const what = [ctx.libraryId, ctx.personId, JSON.stringify(filter), look.style].join(' ');
  let found = going.get(what);
  if (!found) {
    found = goThrough(ctx, look, filter).finally(() => going.delete(what));
    going.set(what, found);
  }
  return found;
}

async function goThrough(ctx: Context, look: Look, filter: SourceFilter): Promise<FoundAround> {
  const sources = await revisionsIn(ctx, filter);
  const anew = sources.filter(({ id, revision }) => !inStyle.has(keyOf(ctx, id, revision, look)));
  for await (const part of inTurn(
    inParts(
      anew.map(({ id }) => id),
      AT_ONCE,
    ),
  )) {
    const some = await getSources(ctx, part);
    const found = await findingsInStyle(ctx, some, look);
    for (const { id, revision } of some) inStyle.set(keyOf(ctx, id, revision, look), found.get(id) ?? []);
  }
  const by: FoundAround = new Map();
  const add = (id: string, { check, pencil, fix }: Finding) => {
    const group = by.get(check) ?? { pencil, ids: [], fixable: 0 };
    group.ids.push(id);
    if (fix) group.fixable++;
    by.set(check, group);
  };
  for (const { id, revision } of sources)
    for (const finding of inStyle.get(keyOf(ctx, id, revision, look)) ?? []) add(id, finding);
  while (inStyle.size > MOST_KEPT) inStyle.delete(inStyle.keys().next().value!);
  for (const part of inParts(await besideIn(ctx, filter), AT_ONCE)) {
    const some = (await getSources(ctx, part)).filter((s) => !s.binned && !s.mergedInto);
    for (const [id, findings] of await findingsAround(ctx, some, look))
      for (const finding of findings)
        if (finding.check === 'place-unsaid' || finding.check === 'version-of-record') add(id, finding);
  }
  return by;
}

const inGroups = (groups: FoundGroup[]) =>
  groups.sort((a, b) => RANK[a.pencil] - RANK[b.pencil] || b.n - a.n || a.check.localeCompare(b.check));

/** What is found in the records that fit a filter, a group for each check: what prints wrong first, most first. */
export async function proofOf(ctx: Context, filter: SourceFilter): Promise<FoundGroup[]> {
  const [found, aside] = await Promise.all([foundBy(ctx, filter), asideIn(ctx, filter.projectId)]);
  return inGroups(
    found.map((one) => ({ ...one, ...checkedOf(one.check), around: false, aside: aside.has(one.check) })),
  );
}

/** The same for what is found beside the records, in a style. */
export async function proofAroundOf(ctx: Context, look: Look, filter: SourceFilter): Promise<FoundGroup[]> {
  const [found, aside] = await Promise.all([foundAround(ctx, look, filter), asideIn(ctx, filter.projectId)]);
  return inGroups(
    [...found].map(([check, { pencil, ids, fixable }]) => ({
      check,
      pencil,
      n: ids.length,
      fixable,
      ...checkedOf(check),
      around: true,
      aside: aside.has(check),
    })),
  );
}

/** All that is found in a source, by itself and beside it. */
export async function findingsOf(ctx: Context, source: Source, look: Look): Promise<Finding[]> {
  const beside = await findingsAround(ctx, [source], look, true);
  return inOrder([...proof(source.record), ...(beside.get(source.id) ?? [])]);
}

/** What somebody let stand in a record, and still stands. */
export const standingIn = (record: SourceRecord): Finding[] =>
  proofAll(record).filter((finding) => letStand(record, finding));

/** What a check found in each of some sources; sources in which it finds nothing any more are left out. */
async function foundIn(
  ctx: Context,
  check: string,
  sources: Source[],
  look: Look,
): Promise<{ source: Source; finding: Finding }[]> {
  const own = sources.map((source) => source.findings.find((f) => f.check === check));
  const rest = sources.filter((_, i) => !own[i]);
  const beside = rest.length ? await findingsAround(ctx, rest, look) : new Map<string, Finding[]>();
  return sources.flatMap((source, i) => {
    const finding = own[i] ?? beside.get(source.id)?.find((f) => f.check === check);
    return finding && !source.binned && !source.mergedInto ? [{ source, finding }] : [];
  });
}

/** The value of a field as a record would have it after a fix. */
const fixedText = (record: SourceRecord, { field, fix }: Finding): string => {
  const after = withEdit(record, fix!.edit, now());
  return valueText(field, after[field]);
};

/** How many sources of one check can be decided on at once. */
const MOST_DECIDED = 5_000;

/** What a check found in the sources that fit a filter. */
export interface OpenedProof extends Checked {
  check: string;
  /** Ids of all its sources, in the order they were added, as many as can be decided on at once. */
  ids: string[];
  /** The first of them. */
  sources: FoundSource[];
}

/** What a check found, with the first `most` of its sources. */
export async function openedProof(
  ctx: Context,
  check: string,
  look: Look,
  filter: SourceFilter,
  most: number,
): Promise<OpenedProof> {
  const ids = isAround(check)
    ? ((await foundAround(ctx, look, filter)).get(check)?.ids ?? []).sort().slice(0, MOST_DECIDED)
    : await sourcesFound(ctx, check, filter, MOST_DECIDED);
  const found = await foundIn(ctx, check, await getSources(ctx, ids.slice(0, most)), look);
  return {
    check,
    ...checkedOf(check),
    ids,
    sources: found.map(({ source, finding }) => ({
      id: source.id,
      label: shortLabel(source.record),
      title: plain(source.record.title ?? ''),
      field: finding.field,
      value: valueText(finding.field, source.record[finding.field]),
      message: finding.message,
      ...(finding.fix ? { fixed: fixedText(source.record, finding), fixLabel: finding.fix.label } : {}),
    })),
  };
}

/** How many references are shown before and after a fix at once. */
export const MOST_SHOWN = 40;

export const toShow = z.object({
  check: z.string().max(80),
  ids: z.array(z.string().max(60)).max(MOST_SHOWN),
});

/** How sources print, and how they would print once what a check found is mended. */
export async function shownFixed(
  ctx: Context,
  check: string,
  ids: string[],
  look: Look,
): Promise<{ id: string; before: ShownReference; after: ShownReference }[]> {
  const found = (await foundIn(ctx, check, await getSources(ctx, ids.slice(0, MOST_SHOWN)), look)).filter(
    ({ finding }) => finding.fix,
  );
  const print = (records: [string, SourceRecord][]) =>
    printPreview(
      ctx,
      records.map(([id, record]) => toCsl(id, record)),
      look,
    );
  const [before, after] = await Promise.all([
    print(found.map(({ source }) => [source.id, source.record])),
    print(found.map(({ source, finding }) => [source.id, withEdit(source.record, finding.fix!.edit, now())])),
  ]);
  return found.map(({ source }, i) => ({ id: source.id, before: before[i]!, after: after[i]! }));
}

/** What is done with what a check found in some sources. */
export const decision = z.object({
  check: z.string().max(80),
  ids: z.array(z.string().max(60)).min(1).max(MOST_DECIDED),
  /** Mends it, lets it stand as it is, or asks it again. */
  act: z.enum(['mend', 'let stand', 'ask again']),
});

const CHANGE = { right: 'edit', of: ['sources'] } as const;

/**
 * Mends what a check found in sources, or lets it stand; all or none. Sources in which it finds nothing any more stay as they
 * are. Gives the revisions made, for undoing, and how many sources were left as they are.
 */
export async function decide(
  ctx: Context,
  { check, ids, act }: z.infer<typeof decision>,
  look: Look,
): Promise<{ revisions: string[]; left: number }> {
  return change(ctx, CHANGE, async (inner) => {
    const revisions = revisionsOfMade(await decideEach(inner, { check, ids, act }, look));
    return { revisions, left: new Set(ids).size - revisions.length };
  });
}

/** The same in a transaction that is under way, of which nobody is told. */
export async function decideEach(
  inner: Context,
  { check, ids, act }: Pick<z.infer<typeof decision>, 'check' | 'act'> & { ids: readonly string[] },
  look: Look,
): Promise<MadeOf[]> {
  const made: MadeOf[] = [];
  const note = (sourceId: string, revisionId: string | undefined) =>
    revisionId && made.push({ sourceId, revisionId });
  for (const part of inParts([...new Set(ids)], AT_ONCE)) {
    const sources = await getSources(inner, part);
    if (act === 'ask again') {
      const why = `asked again: ${checkedOf(check).name}`;
      for await (const source of inTurn(sources))
        note(source.id, await letStandIn(inner, source, check, undefined, why));
      continue;
    }
    for await (const { source, finding } of inTurn(await foundIn(inner, check, sources, look))) {
      if (act === 'let stand')
        note(source.id, await letStandIn(inner, source, check, finding, `let stand: ${finding.message}`));
      else if (finding.fix) {
        const edit = { fields: finding.fix.edit };
        const { revisionId } = await editSourceIn(inner, source, edit, `fixed: ${finding.message}`);
        note(source.id, revisionId);
      }
    }
  }
  return made;
}

export const toAsk = z.object({ check: z.string().max(80), aside: z.boolean() });

/** Has a project not ask a check any more, or ask it again. */
export async function askIn(
  ctx: Context,
  projectId: string | undefined,
  check: string,
  aside: boolean,
): Promise<void> {
  if (!projectId) throw new Refusal(422, 'Choose a project first: what is not asked is kept with it.');
  await change(ctx, { right: 'edit', of: ['sources'], names: { project: projectId } }, (inner) =>
    setAside(inner, projectId, check, aside),
  );
}

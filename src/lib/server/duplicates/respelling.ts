import { z } from 'zod';
import {
  DIFFERENCE_WORDS,
  formOfName,
  nameOfForm,
  respelled,
  SPELLED,
  spellingsOf,
  textOfForm,
  type Spelled,
} from '../../core/duplicates';
import { parseName, shortLabel } from '../../core/source';
import { nfc, squash } from '../../core/text';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { editSource, revisionsOfMade, type MadeOf } from '../sources/editing';
import { getSource, getSources } from '../sources/repository';
import { inTurn } from '../turns';
import {
  setSpellingApart,
  sourcesSpelling,
  spellingGroup,
  spellingGroups,
  spellingsApart,
  spellingTotals,
  timesOf,
  unsetSpellingApart,
  type SpellingGroup,
} from './spelled';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'duplicates'] } as const;

/** How many groups of spellings are shown at once; beside them stands how many there are. */
const GROUPS_SHOWN = 100;
/** How many sources are changed in one step; all of them are shown before. */
const MOST_TOUCHED = 2_000;

const key = z.string().max(1_000);
const form = z.string().min(1).max(40_000);
/** What a person says of spellings that look like one name. */
export const spellingDecision = z.discriminatedUnion('act', [
  z.object({
    act: z.literal('one'),
    kind: z.enum(SPELLED),
    key,
    /** The spellings that become another. */
    forms: z.array(form).min(1).max(100),
    /** What they become: one of those there are, or typed. */
    to: z.union([z.object({ form }), z.object({ typed: z.string().max(4_000) })]),
    sources: z
      .array(z.object({ id: z.string().max(60), revision: z.int() }))
      .min(1)
      .max(MOST_TOUCHED),
  }),
  z.object({ act: z.literal('apart'), key, form, others: z.array(form).min(1).max(100) }),
  z.object({ act: z.literal('not-apart'), key, form, others: z.array(form).min(1).max(100) }),
]);
export type One = Extract<z.infer<typeof spellingDecision>, { act: 'one' }>;

/** One spelling of a group. */
export interface ShownSpelling {
  form: string;
  text: string;
  /** How many sources have it. */
  times: number;
}

/** A source that one of the spellings stands in. */
export interface SpellingSource {
  id: string;
  revision: number;
  label: string;
  title: string;
  /** Places of the spellings it has, in the group. */
  has: number[];
}

async function laidOut(ctx: Context, group: SpellingGroup) {
  const times = await timesOf(ctx, group.key, group.forms);
  const ids = await sourcesSpelling(ctx, group.key, group.forms, MOST_TOUCHED);
  const sources = await getSources(ctx, ids.slice(0, MOST_TOUCHED));
  return {
    forms: group.forms.map((one): ShownSpelling => ({
      form: one,
      text: textOfForm(group.kind, one),
      times: times.get(one) ?? 0,
    })),
    sources: sources.map(({ id, revision, record }): SpellingSource => {
      const own = new Set(spellingsOf(record).map((s) => s.form));
      return {
        id,
        revision,
        label: shortLabel(record),
        title: record.title ?? '',
        has: group.forms.flatMap((one, i) => (own.has(one) ? [i] : [])),
      };
    }),
    more: ids.length > MOST_TOUCHED,
  };
}

/**
 * The groups of a kind (people, or containers where only they are written in several ways), and the one that is asked for, or
 * the first, laid out with every source it would change.
 */
export async function spellingsIn(ctx: Context, asked: Spelled | undefined, wanted?: number) {
  const totals = await spellingTotals(ctx);
  const kind = asked ?? (totals.person === 0 && totals.container > 0 ? 'container' : 'person');
  const groups = await spellingGroups(ctx, kind, GROUPS_SHOWN);
  const apart = await spellingsApart(ctx);
  const named = wanted === undefined ? undefined : await spellingGroup(ctx, wanted);
  const group = (named?.kind === kind ? named : undefined) ?? groups[0];
  const shown =
    group && !groups.some((g) => g.id === group.id) ? [group, ...groups.slice(0, GROUPS_SHOWN - 1)] : groups;
  return {
    kind,
    totals,
    groups: shown.map(({ id, label, differences, sure, forms }) => ({
      id,
      label,
      sure,
      forms: forms.length,
      differences: differences.map((d) => DIFFERENCE_WORDS[d]),
    })),
    group: group && { id: group.id, key: group.key, ...(await laidOut(ctx, group)) },
    apart: apart
      .map((pair) => ({ ...pair, kind: kindOfKey(pair.key) }))
      .filter((pair) => pair.kind === kind)
      .map((pair) => ({ ...pair, texts: [pair.a, pair.b].map((one) => textOfForm(kind, one)) })),
  };
}
export type SpellingsIn = Awaited<ReturnType<typeof spellingsIn>>;

const kindOfKey = (one: string): Spelled => (/^(?:container|issn) /.test(one) ? 'container' : 'person');

/** How many names are written in several ways. */
export async function severalSpellings(ctx: Context): Promise<number> {
  const { person, container } = await spellingTotals(ctx);
  return person + container;
}

/** A spelling that is typed, as a form. */
function typedForm(kind: Spelled, ofKey: string, typed: string): string {
  const text = squash(nfc(typed));
  if (text === '') throw new Refusal(422, 'Nothing was changed:', ['spelling: nothing is typed']);
  if (kind === 'container') return text;
  if (ofKey.startsWith('institution ')) return formOfName({ literal: text });
  const name = parseName(text);
  if (!name) throw new Refusal(422, 'Nothing was changed:', [`spelling: “${text}” is no name`]);
  return formOfName(name);
}

/** A form as it was given, refused when it is none. */
function givenForm(kind: Spelled, given: string): string {
  if (kind === 'container') return given;
  try {
    return formOfName(nameOfForm(given));
  } catch {
    throw new Refusal(422, 'Nothing was changed:', ['spelling: this is no name']);
  }
}

/**
 * Gives several spellings of one name a single one, in the sources named and wherever they stand in them; all or none. Gives
 * the revisions made, for undoing.
 */
export const respell = async (ctx: Context, said: One): Promise<{ revisions: string[] }> => {
  const asked = respellingOf(said);
  return change(ctx, CHANGE, async (inner) => ({
    revisions: revisionsOfMade(await respellEach(inner, asked, said.sources)),
  }));
};

/** Spellings, and the one that stands in their place. */
export interface Respelling {
  kind: Spelled;
  forms: string[];
  target: string;
}
/** What is spelled how, as it was said; refuses what is no spelling. */
export const respellingOf = ({ kind, key: ofKey, forms, to }: One): Respelling => ({
  kind,
  forms,
  target: 'typed' in to ? typedForm(kind, ofKey, to.typed) : givenForm(kind, to.form),
});

/** The same in a transaction that is under way, of which nobody is told. */
export async function respellEach(
  inner: Context,
  { kind, forms, target }: Respelling,
  sources: One['sources'],
): Promise<MadeOf[]> {
  const from = new Set(forms);
  const made: MadeOf[] = [];
  for await (const { id, revision } of inTurn(sources)) {
    const { record } = await getSource(inner, id);
    const fields = respelled(record, kind, from, target);
    if (Object.keys(fields).length === 0) continue;
    const why = `spelled ${textOfForm(kind, target)}`.slice(0, 200);
    const { revisionId } = await editSource(inner, id, revision, { fields }, why);
    if (revisionId) made.push({ sourceId: id, revisionId });
  }
  return made;
}

/** Says that a spelling is another name than some others. */
export const spellingApart = (ctx: Context, ofKey: string, one: string, others: string[]): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    const all = [...new Set([one, ...others])];
    // Only what some source is spelled by, or was.
    if (others.includes(one) || (await timesOf(inner, ofKey, all)).size !== all.length)
      throw notHere('spelling');
    await setSpellingApart(inner, ofKey, one, others);
  });

/** Takes that back. */
export const spellingNotApart = (ctx: Context, ofKey: string, one: string, others: string[]): Promise<void> =>
  change(ctx, CHANGE, (inner) => unsetSpellingApart(inner, ofKey, one, others));

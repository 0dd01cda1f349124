import { inOrder, type Heading } from './headings';
import { isOwn, type Item } from './items';

/** What an item brings as evidence. */
export interface Evidence extends Item {
  /** The work it is, or is of. */
  sourceId?: string | undefined;
  /** It holds words of one’s own on a work. */
  inOwnWords?: boolean | undefined;
}

/** What a section has to stand on; with that of the sections under it. */
export interface Standing {
  /** Works, each once, whether placed or quoted. */
  sources: number;
  passages: number;
  /** Passages in words of one’s own. */
  ownWords: number;
  sentences: number;
  questions: number;
  /** Sentences at the end of a section behind which nothing stands that bears them out: no source and no passage. */
  bare: string[];
}

/** Why a section is thin; nothing where it is not. */
export type Thin =
  'nothing in it' | 'claims without evidence' | 'one source only' | 'nothing quoted or noted';

/** What each section has to stand on, by its id; one that holds nothing is there as well. */
export function standings(headings: readonly Heading[], items: readonly Evidence[]): Map<string, Standing> {
  const own = new Map<string, Evidence[]>();
  for (const item of items) {
    const there = own.get(item.sectionId);
    if (there) there.push(item);
    else own.set(item.sectionId, [item]);
  }
  const sections = inOrder(headings);
  const works = new Map<string, Set<string>>();
  const found = new Map<string, Standing>();
  // From the last to the first: what stands under a section has been gone through before it.
  for (let i = sections.length - 1; i >= 0; i--) {
    const { id, depth } = sections[i]!;
    const here = own.get(id) ?? [];
    const sources = new Set(here.flatMap((item) => item.sourceId ?? []));
    const of = (kind: Item['kind']) => here.filter((item) => item.kind === kind).length;
    const standing: Standing = {
      sources: 0,
      passages: of('passage'),
      ownWords: here.filter((item) => item.inOwnWords).length,
      sentences: of('sentence'),
      questions: of('question'),
      bare: bareOf(here),
    };
    for (let j = i + 1; j < sections.length && sections[j]!.depth > depth; j++) {
      if (sections[j]!.depth !== depth + 1) continue;
      const under = found.get(sections[j]!.id)!;
      for (const work of works.get(sections[j]!.id)!) sources.add(work);
      for (const key of ['passages', 'ownWords', 'sentences', 'questions'] as const)
        standing[key] += under[key];
      standing.bare = [...standing.bare, ...under.bare];
    }
    standing.sources = sources.size;
    works.set(id, sources);
    found.set(id, standing);
  }
  return found;
}

/** The refs of sentences behind which no source and no passage stands; sentences in a row share what comes behind them. */
function bareOf(items: readonly Item[]): string[] {
  let from = items.length;
  while (from > 0 && isOwn(items[from - 1]!.kind)) from--;
  return items.slice(from).flatMap(({ kind, ref }) => (kind === 'sentence' ? [ref] : []));
}

/** What is wanting in a section, the worst of it. */
export function thinness(standing: Standing): Thin | undefined {
  const { sources, passages, sentences, questions, bare } = standing;
  if (sources + passages + sentences + questions === 0) return 'nothing in it';
  if (bare.length) return 'claims without evidence';
  if (sources === 1) return 'one source only';
  if (sources > 0 && passages === 0) return 'nothing quoted or noted';
  return undefined;
}

import type { Judgement } from './score';

/** A judged pair of records, by their ids. */
export interface JudgedPair extends Judgement {
  a: string;
  b: string;
}

/** Records that are one work, surely or for a person to decide. */
export interface Group {
  /** In order. */
  ids: string[];
  verdict: 'sure' | 'decide';
  /** That of its weakest link. */
  score: number;
  reasons: string[];
}

const pairKey = (a: string, b: string) => (a < b ? `${a}\n${b}` : `${b}\n${a}`);

/**
 * Groups of pairs. The surest pair is joined first; two groups become one when what links them is no weaker than what any
 * two of their records say against it: most of their records must agree across (half will do where the link is sure), and
 * none be another work for a reason (a different edition, other pages). So no group grows by a chain of weak likeness. Pairs that were not judged
 * are asked for; `judge` must be symmetric. The order of the pairs has no effect.
 */
export function groupsOf(pairs: readonly JudgedPair[], judge: (a: string, b: string) => Judgement): Group[] {
  const judged = new Map<string, Judgement>(pairs.map((p) => [pairKey(p.a, p.b), p]));
  const between = (a: string, b: string): Judgement => {
    const key = pairKey(a, b);
    const known = judged.get(key);
    if (known) return known;
    const now = a < b ? judge(a, b) : judge(b, a);
    judged.set(key, now);
    return now;
  };
  const of = new Map<string, Set<string>>();
  const at = (id: string) => of.get(id) ?? new Set([id]);
  const rank = { sure: 0, decide: 1, different: 2 };
  const linking = pairs
    .filter((p) => p.verdict !== 'different')
    .map((p) => (p.a < p.b ? p : { ...p, a: p.b, b: p.a }))
    .sort(
      (x, y) =>
        rank[x.verdict] - rank[y.verdict] ||
        y.score - x.score ||
        (x.a < y.a ? -1 : x.a > y.a ? 1 : x.b < y.b ? -1 : 1),
    );
  for (const { a, b, verdict } of linking) {
    const [left, right] = [at(a), at(b)];
    if (left === right || left.has(b)) continue;
    const across = [...left].flatMap((x) => [...right].map((y) => between(x, y)));
    const against = across.filter((j) => j.verdict === 'different');
    // A record that tells little (a title alone) may be like one of three and say nothing of the others.
    const most = verdict === 'sure' ? across.length / 2 : (across.length - 1) / 2;
    if (against.some((j) => j.relation !== undefined || j.score < 1e-4) || against.length > most) continue;
    const joined = new Set([...left, ...right]);
    for (const id of joined) of.set(id, joined);
  }
  return [...new Set(of.values())]
    .map((members) => described([...members].sort(), between))
    .sort(
      (x, y) => rank[x.verdict] - rank[y.verdict] || y.score - x.score || (x.ids[0]! < y.ids[0]! ? -1 : 1),
    );
}

/** A group of members: sure when sure pairs alone hold it together and no two of it are told apart. */
function described(ids: string[], between: (a: string, b: string) => Judgement): Group {
  const all = ids.flatMap((a, i) => ids.slice(i + 1).map((b) => ({ a, b, ...between(a, b) })));
  const reached = new Set([ids[0]!]);
  for (let grown = true; grown;) {
    grown = false;
    for (const { a, b, verdict } of all)
      if (verdict === 'sure' && reached.has(a) !== reached.has(b)) {
        reached.add(a).add(b);
        grown = true;
      }
  }
  const sure = reached.size === ids.length && all.every((j) => j.verdict !== 'different');
  const links = all.filter((j) => j.verdict !== 'different');
  const reasons = [...new Set([...links].sort((x, y) => y.score - x.score).flatMap((j) => j.reasons))];
  return {
    ids,
    verdict: sure ? 'sure' : 'decide',
    score: Math.min(...links.map((j) => j.score)),
    reasons: reasons.slice(0, 8),
  };
}

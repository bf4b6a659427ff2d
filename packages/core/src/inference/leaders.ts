import type { Evidence } from './evidence';
import type { Sized } from './foreseen';

/** The two with the highest score, of equals the earlier. */
function twoBest(list: readonly number[], score: (item: number) => number): readonly number[] {
  let best: { readonly c: number; readonly score: number } | undefined;
  let second = best;
  for (const c of list) {
    const mine = { c, score: score(c) };
    if (!best || mine.score > best.score) [best, second] = [mine, best];
    else if (!second || mine.score > second.score) second = mine;
  }
  return [best, second].flatMap((one) => (one ? [one.c] : []));
}

/** Causes that lead alone, with those that explain single observations best; a third of the places is theirs. */
export function leadersAlone(alone: readonly Sized[], evidence: readonly Evidence[], most: number): readonly number[] {
  const byScore = [...alone].sort((a, b) => b.log - a.log).map(({ set }) => set[0] as number);
  if (byScore.length <= most) return byScore;
  const chosen = new Set(byScore.slice(0, Math.ceil((most * 2) / 3)));
  const first = byScore[0] as number;
  const gain = (item: Evidence, c: number): number => (item.likelihood[c] ?? 0) / (item.likelihood[first] || 1e-9);
  const worst = [...evidence].sort(
    (a, b) => (a.likelihood[first] ?? 0) / a.elsewhere - (b.likelihood[first] ?? 0) / b.elsewhere,
  );
  for (const item of worst)
    for (const c of twoBest(byScore, (one) => gain(item, one)))
      if (chosen.size < most && gain(item, c) > 2) chosen.add(c);
  for (const c of byScore) if (chosen.size < most) chosen.add(c);
  return [...chosen];
}

/** Causes by the share that they have in sets of two. */
export function leaders(possible: readonly number[], pairs: readonly Sized[], most: number): readonly number[] {
  if (possible.length <= most) return possible;
  const top = pairs.reduce((best, { log }) => Math.max(best, log), -Infinity);
  const share = new Map<number, number>();
  for (const { set, log } of pairs) for (const c of set) share.set(c, (share.get(c) ?? 0) + Math.exp(log - top));
  return [...possible].sort((x, y) => (share.get(y) ?? 0) - (share.get(x) ?? 0) || x - y).slice(0, most);
}

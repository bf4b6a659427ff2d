import type { Evidence } from './evidence';
import type { Sized } from './foreseen';

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
    for (const c of [...byScore].sort((x, y) => gain(item, y) - gain(item, x)).slice(0, 2))
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

import type { Live, Model } from './model';
import { ELSEWHERE_MIN, MEND_MIN, mendMinutes } from './repairs';

/** Which groups of repairs end each live hypothesis, as plain arrays for the inner loop; −1 is none. */
export interface Needs {
  readonly first: Int16Array;
  readonly second: Int16Array;
  /** Third and further ones, of the few hypotheses that have them. */
  readonly more: ReadonlyMap<number, readonly number[]>;
  /** Expected minutes of later rungs, by hypothesis. */
  readonly later: Float64Array;
  /** Minutes to find it by taking everything apart, by hypothesis. */
  readonly apart: Float64Array;
  /** Groups that some hypothesis needs, those of the likeliest first: nearly in the order in which they will be tried. */
  readonly playing: Int16Array;
  readonly scratch: Scratch;
}

/** Room for the inner loop, used over and over. */
interface Scratch {
  readonly share: Float64Array;
  readonly ratio: Float64Array;
  readonly order: Int16Array;
  readonly rank: Int16Array;
  readonly cured: Float64Array;
  readonly rungs: Float64Array;
  readonly saved: Float64Array;
}

/** @param apartMin by cause, `elsewhere` last: minutes to find it by taking the path apart, to mend it and to prove it */
export function needsOf(model: Model, live: readonly Live[], apartMin: readonly number[]): Needs {
  const group = (cause: number | undefined): number => (cause === undefined ? -1 : (model.groupOf[cause] ?? -1));
  const needed = live.map(({ causes }) => [...new Set(causes.map(group))]);
  const later = Float64Array.from(live, ({ causes }) =>
    causes.reduce((sum, cause) => sum + (model.groups[group(cause)]?.laterMin ?? 0), 0),
  );
  // Several are found on one way, and each is mended.
  const apart = Float64Array.from(live, ({ causes }) =>
    causes.length === 0
      ? (apartMin.at(-1) ?? ELSEWHERE_MIN)
      : Math.max(...causes.map((cause) => apartMin[cause] ?? ELSEWHERE_MIN)) +
        causes.reduce((sum, cause) => sum + mendMinutes(model.groups[group(cause)]?.remedy), -MEND_MIN),
  );
  return needsFrom(needed, later, model.groups.length, apart);
}

/** From the groups that each hypothesis needs, −1 where no remedy is left: then no repair ends it, whatever else it needs. */
export function needsFrom(
  wanted: readonly (readonly number[])[],
  later: Float64Array,
  groups: number,
  apart = new Float64Array(wanted.length).fill(ELSEWHERE_MIN),
): Needs {
  const needed = wanted.map((list) => (list.every((g) => g >= 0) ? list : []));
  const first = Int16Array.from(needed, (list) => list[0] ?? -1);
  const second = Int16Array.from(needed, (list) => list[1] ?? -1);
  const more = new Map(needed.flatMap((list, h) => (list.length > 2 ? [[h, list.slice(2)] as const] : [])));
  const scratch = {
    share: new Float64Array(groups),
    ratio: new Float64Array(groups),
    order: new Int16Array(groups),
    rank: new Int16Array(groups),
    cured: new Float64Array(groups),
    rungs: new Float64Array(groups),
    saved: new Float64Array(groups),
  };
  const playing = Int16Array.from(new Set(needed.flat()));
  return { first, second, more, later, apart, playing, scratch };
}

export interface RepairOrder {
  /** The first `steps` entries: groups in the order in which they should be tried, as far as it pays. Valid until the next call. */
  readonly order: Int16Array;
  readonly steps: number;
  readonly minutes: number;
  /** Minutes with no repair tried: everything is taken apart at once. */
  readonly apart: number;
}

/** The latest of some groups in an order; −1 when one of them is not in it. */
function lastOf(list: readonly number[], rank: Int16Array, least: number): number {
  let at = least;
  for (const g of list) {
    const r = rank[g] as number;
    if (r < 0) return -1;
    if (r > at) at = r;
  }
  return at;
}

/**
 * Expected minutes to a proved repair when no more is checked: repairs one after the other by probability over cost
 * (optimal for one fault and independent repairs: Heckerman, Breese, Rommelse 1995, CACM 38(3)), and, from where that no
 * longer pays, stripping and looking at everything, which finds whatever is left, what no eye sees there later. Several causes
 * at once are cured by the latest of their repairs. `p` need not sum to one; the result is in its measure.
 */
export function repairCost(needs: Needs, p: Float64Array, tries: readonly number[]): RepairOrder {
  const { first, second, more, later, apart, playing, scratch } = needs;
  const { share, ratio, order, rank, cured, rungs, saved } = scratch;
  share.fill(0);
  let whole = 0;
  let strip = 0;
  for (let h = 0; h < p.length; h++) {
    const x = p[h] as number;
    if (x <= 0) continue;
    whole += x;
    strip += x * (apart[h] as number);
    const a = first[h] as number;
    const b = second[h] as number;
    if (a >= 0) share[a] = (share[a] as number) + x;
    if (b >= 0) share[b] = (share[b] as number) + x;
  }
  for (const [h, list] of more) for (const g of list) share[g] = (share[g] as number) + (p[h] as number);
  // Insertion into order: few groups are in play, and this runs thousands of times a decision.
  let n = 0;
  const least = whole * 1e-4;
  for (let i = 0; i < playing.length; i++) {
    const g = playing[i] as number;
    rank[g] = -1;
    if ((share[g] as number) <= least) continue;
    const r = (share[g] as number) / (tries[g] as number);
    let at = n++;
    while (at > 0 && (ratio[at - 1] as number) < r) {
      ratio[at] = ratio[at - 1] as number;
      order[at] = order[at - 1] as number;
      at--;
    }
    ratio[at] = r;
    order[at] = g;
  }
  for (let i = 0; i < n; i++) {
    rank[order[i] as number] = i;
    cured[i] = 0;
    rungs[i] = 0;
    saved[i] = 0;
  }
  // What each step of the order cures, and the later rungs that come with it.
  for (let h = 0; h < p.length; h++) {
    const x = p[h] as number;
    const a = first[h] as number;
    const b = second[h] as number;
    if (x <= 0 || a < 0) continue;
    const rankA = rank[a] as number;
    const rankB = b >= 0 ? (rank[b] as number) : 0;
    if (rankA < 0 || rankB < 0) continue;
    let at = rankA > rankB ? rankA : rankB;
    if (more.size > 0) {
      const list = more.get(h);
      if (list && (at = lastOf(list, rank, at)) < 0) continue;
    }
    cured[at] = (cured[at] as number) + x;
    rungs[at] = (rungs[at] as number) + x * (later[h] as number);
    saved[at] = (saved[at] as number) + x * (apart[h] as number);
  }
  let left = whole;
  let minutes = 0;
  const asked = strip;
  let best = strip;
  let steps = 0;
  for (let i = 0; i < n; i++) {
    minutes += left * (tries[order[i] as number] as number) + (rungs[i] as number);
    left -= cured[i] as number;
    strip -= saved[i] as number;
    const stopping = minutes + Math.max(0, strip);
    if (stopping < best) {
      best = stopping;
      steps = i + 1;
    }
    // What comes later only adds to it.
    if (minutes >= best) break;
  }
  return { steps, order, minutes: best, apart: asked };
}

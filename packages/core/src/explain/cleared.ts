import type { Model } from '../decision/model';
import { priorShares, stationShares } from '../decision/model';
import { evidenceLabel } from './explain';
import type { Evidence } from '../inference/evidence';
import type { Suspicion } from '../inference/suspicion';

export interface StationSuspicion {
  readonly station: string;
  readonly name: string;
  readonly suspicion: number;
  readonly prior: number;
  /** What it would hold if nothing spoke for or against it: the one more fault that may be anywhere. */
  readonly anywhere: number;
  /** Label of the finding that cleared it, when it is cleared. */
  readonly clearedBy?: string;
}

export interface ClearedSpan {
  readonly from: string;
  readonly to: string;
  readonly stations: readonly string[];
  readonly by: readonly string[];
}

/**
 * A station is cleared when little suspicion is left, beside the one more fault that may be anywhere, and a finding that reaches it
 * took most of it away (chosen).
 */
const CLEARED_BELOW = 0.025;
const CLEARED_RATIO = 0.4;
/** A finding clears a station when it is at most half as likely there as elsewhere (chosen). */
const AGAINST = 0.5;

/** Only what was seen at the place itself clears it: a check that reaches it, a swap elsewhere that cured, or one here that did not. */
function tellsOf(model: Model, item: Evidence, index: number): boolean {
  const { place, finding } = item;
  if (!place || !finding || place.wholePath || finding.id.startsWith('before:')) return false;
  if (finding.innocent) return false;
  // A strand that stopped says nothing of what lies beyond.
  const stop = model.route.stops[index];
  const depth = place.check.results.find(({ id }) => id === finding.result)?.depth ? finding.value : undefined;
  const entry = place.entryMm ?? 0;
  if (stop && depth !== undefined)
    return (
      place.reach.has(index) &&
      (place.check.reach === 'upward' ? stop.fromMm >= entry - depth : stop.toMm <= entry + depth)
    );
  const cured = finding.result === place.check.results[0]?.id;
  return place.check.swap ? place.reach.has(index) !== cured : place.reach.has(index);
}

/** By stop of the route: the one more fault that may be anywhere. */
export function anywhereByStop({ route, causes }: Model, { bystander }: Suspicion): readonly number[] {
  const shares = route.stops.map(() => 0);
  causes.forEach(({ stop: { index } }, c) => (shares[index] = (shares[index] ?? 0) + (bystander[c] ?? 0)));
  return shares;
}

/** For each station of the route, the label of the finding that cleared it. */
export function clearing(model: Model, evidence: readonly Evidence[], suspicion: Suspicion) {
  const now = stationShares(model, suspicion);
  const before = priorShares(model);
  const anywhere = anywhereByStop(model, suspicion);
  return model.route.stops.map((stop, i): string | undefined => {
    const left = (now[i] ?? 0) - (anywhere[i] ?? 0);
    const low = left < CLEARED_BELOW && left < CLEARED_RATIO * (before[i] ?? 0);
    if (!low) return undefined;
    const members = model.causes.flatMap((cause, c) => (cause.stop.index === i ? [c] : []));
    if (members.length === 0) return undefined;
    const bench = evidence.filter((item) => tellsOf(model, item, stop.index));
    const told = bench
      .map((item) => ({ item, ratio: likelihoodRatio(model, item, new Set(members)) }))
      .filter(({ ratio }) => ratio < AGAINST)
      .sort((a, b) => a.ratio - b.ratio || (a.item.id < b.item.id ? -1 : 1))[0];
    return told && evidenceLabel(model, told.item);
  });
}

/** How much likelier a piece of evidence is under these causes than under all others, by itself. */
function likelihoodRatio(model: Model, item: Evidence, inside: ReadonlySet<number>): number {
  const mean = (pick: (i: number) => boolean): number => {
    let top = 0;
    let bottom = 0;
    model.prior.forEach((p, i) => {
      if (!pick(i)) return;
      top += p * (i === model.prior.length - 1 ? item.elsewhere : (item.likelihood[i] ?? 0));
      bottom += p;
    });
    return bottom > 0 ? top / bottom : 0;
  };
  return mean((i) => inside.has(i)) / mean((i) => !inside.has(i));
}

/** Cleared stations that follow one another, as spans. */
export function spansOf(stations: readonly StationSuspicion[]): readonly ClearedSpan[] {
  const spans: { from: string; to: string; stations: string[]; by: string[] }[] = [];
  let open = false;
  for (const { station, clearedBy } of stations) {
    const last = spans.at(-1);
    if (clearedBy === undefined) open = false;
    else if (open && last) {
      last.to = station;
      last.stations.push(station);
      if (!last.by.includes(clearedBy)) last.by.push(clearedBy);
    } else {
      spans.push({ from: station, to: station, stations: [station], by: [clearedBy] });
      open = true;
    }
  }
  return spans;
}

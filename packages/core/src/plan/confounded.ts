import { isSetting, materialOf, modeById, remedyById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { causesUnderWork, triesAt } from '../order/causes';
import type { OrderState } from '../order/state';
import { stationById, type Machine } from '../path/machine';
import { placedActions, priceOfAll } from '../bench/action';
import type { Bench } from '../bench/state';
import { routeOf } from '../path/route';

export interface Change {
  readonly station: string;
  readonly text: string;
  /** Bench minutes to put it back as it was and try; absent when it cannot be undone. */
  readonly reversalMin?: number;
}

export interface Confounded {
  readonly changes: readonly Change[];
  /** The cheapest reversal that would tell. */
  readonly tells?: Change;
}

/** Loading and looking after a reversal (chosen). */
const TRY_MIN = 4;

/**
 * What was changed at once, so that it cannot be told which of it was the cure; and the cheapest change that can be put
 * back: if the fault returns, it was that one. Cleaning cannot be undone; a part or a setting can.
 */
export function confounded(
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  bench: Bench,
): Confounded | undefined {
  const done = [
    ...state.cured.map(({ station, mode, remedies }) => ({ station, mode, remedies })),
    ...causesUnderWork(state).map(({ station, mode }) => ({
      station,
      mode,
      remedies: triesAt(state, { station, mode })
        .filter((item) => item.outcome !== 'no-change')
        .map((item) => item.remedy),
    })),
  ];
  const route = routeOf(machine, state.intake?.lane);
  const material = materialOf(catalogue, state.intake?.material);
  const changes = done.flatMap(({ station, mode, remedies }) =>
    [...new Set(remedies)].flatMap((id): Change[] => {
      const remedy = remedyById(catalogue, id);
      const stop = route.stops.find((candidate) => candidate.station.id === station);
      if (!remedy || !stop) return [];
      const name = `${stationById(machine, station)?.name ?? station}: ${remedy.name.toLowerCase()} (${(modeById(catalogue, mode)?.name ?? mode).toLowerCase()})`;
      // A worn part is not put back to learn something; a setting may be.
      const undone = isSetting(remedy, stop.station);
      const placed = placedActions(machine, route, stop, remedy, material) ?? [];
      const price = priceOfAll(
        machine,
        bench,
        placed.map(({ need }) => need),
      );
      return [
        {
          station,
          text: name,
          ...(undone ? { reversalMin: price.minutes + price.closingMin + remedy.minutes + TRY_MIN } : {}),
        },
      ];
    }),
  );
  if (changes.length < 2) return undefined;
  const tells = changes
    .filter((change) => change.reversalMin !== undefined)
    .sort((a, b) => (a.reversalMin ?? 0) - (b.reversalMin ?? 0))[0];
  return { changes, ...(tells ? { tells } : {}) };
}

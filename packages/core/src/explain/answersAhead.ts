import type { Bench } from '../bench/state';
import { checksOnLane } from '../bench/places';
import type { Catalogue } from '../catalogue/types';
import { benchAt, benchToDecide } from '../order/bench';
import type { OrderEvent } from '../order/events';
import { movedFor } from '../order/moves';
import { judge } from '../order/reduce';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import type { RankedCheck } from './assessment';

/** An order as it would stand once a check has been answered. */
export interface OrderAhead {
  readonly state: OrderState;
  readonly bench: Bench;
}

/** Answers that are foreseen, at most: the likeliest ones (chosen). */
const MOST = 6;

/**
 * How the order may stand after a check, by the answers that are one tap, the likeliest first; of a look that may show several
 * things, by each as all that is seen. What is measured is not foreseen, and nothing once a cause is chosen or the order is closed.
 *
 * @param nowMs when it is answered: what it leaves of the machine's heat is reckoned for then
 */
export function answersAhead(
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  nowMs: number,
  { key, openIds, backIds, outcomes }: RankedCheck,
): readonly OrderAhead[] {
  if (state.closed || state.cause) return [];
  const check = checksOnLane(catalogue, machine, state.intake?.lane).find((place) => place.key === key)?.check;
  if (!check || check.quantity || check.asks) return [];
  const normal = check.results.at(-1)?.id;
  const likely = (result: string): number =>
    outcomes.filter((outcome) => outcome.result === result).reduce((sum, { probability }) => sum + probability, 0);
  const at = new Date(nowMs).toISOString();
  const event = (type: string, body: object) => ({ id: `ahead:${type}`, at, by: '', type, body }) as OrderEvent;
  const moved = movedFor(machine, benchAt(machine, state, nowMs), openIds, backIds).map((body) =>
    event('parts-moved', body),
  );
  return check.results
    .filter(({ depth, measured }) => !depth && measured === undefined)
    .sort((a, b) => likely(b.id) - likely(a.id))
    .slice(0, MOST)
    .map(({ id }): OrderAhead => {
      const after = [
        ...moved,
        event('finding-recorded', { key, result: id, ...(check.items && id !== normal ? { finished: true } : {}) }),
      ].reduce((before, next) => judge(machine, catalogue, [], next, before), state);
      return { state: after, bench: benchToDecide(machine, after, nowMs) };
    });
}

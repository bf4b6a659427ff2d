import type { Bench } from '../bench/state';
import { partsToRemove } from '../bench/closure';
import { checksOnLane } from '../bench/places';
import type { Catalogue } from '../catalogue/types';
import { caseOf } from '../decision/working';
import { benchAt, benchToDecide } from '../order/bench';
import type { EventBodies, OrderEvent } from '../order/events';
import { judge } from '../order/reduce';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import type { RankedCheck } from './assessment';

/** An order as it would stand once a check has been answered. */
export interface OrderAhead {
  readonly state: OrderState;
  readonly bench: Bench;
}

/**
 * Everything of an order that belief and advice depend on, bench aside: two orders of which it is the same are believed alike,
 * whoever recorded them and when.
 */
export function tellingOf(machine: Machine, catalogue: Catalogue, state: OrderState): string {
  const { machine: _machine, catalogue: _catalogue, ...kase } = caseOf(machine, catalogue, state);
  const findings = state.findings.map(({ key, result, value, also, finished, innocent }) => [
    key,
    result,
    value,
    also,
    finished,
    innocent,
  ]);
  return JSON.stringify([kase, findings, state.notDone.map(({ key }) => key)]);
}

/** Answers that are foreseen, at most: the likeliest ones (chosen). */
const MOST = 6;

/** What is moved for a check, as it is recorded before its answer: what goes back first, and what comes off. */
export function movedFor(
  machine: Machine,
  bench: Pick<Bench, 'off'>,
  opens: readonly string[],
  back: readonly string[] = [],
): readonly EventBodies['parts-moved'][] {
  const ways = partsToRemove(machine, opens, bench.off).flatMap(({ id, way }) =>
    way === undefined ? [] : [[id, way]],
  );
  return [
    ...(back.length > 0 ? [{ on: back }] : []),
    ...(opens.length > 0 ? [{ off: opens, ...(ways.length > 0 ? { ways: Object.fromEntries(ways) } : {}) }] : []),
  ];
}

/**
 * How the order may stand after a check, by the answers that are one tap, the likeliest first; of a look that may show several
 * things, by each as all that is seen. What is measured is not foreseen.
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

import type { Catalogue } from '../catalogue/types';
import { lessonOf, nothingLearned, learn, type Learned } from '../learn';
import { routeOf } from '../path/route';
import { causesOf } from '../observation/causes';
import { checksFor } from '../bench/places';
import { evidenceOf } from '../inference/evidenceOf';
import { priorOf } from '../inference/prior';
import { shownWays } from '../inference/suspicion';
import type { Tally } from './tally';
import type { HiddenOrder } from './hidden';

/** What a shop has learned from orders that were worked through and whose single cause came to light. */
export function learnedFrom(
  orders: readonly { readonly hidden: HiddenOrder; readonly tally: Tally }[],
  catalogue: Catalogue,
): Learned {
  return orders.reduce((learned, { hidden, tally }) => {
    const [fault, second] = hidden.faults;
    if (!fault || second) return learned;
    const kase = { ...hidden.kase, catalogue };
    const { machine } = kase;
    const route = routeOf(machine, kase.lane);
    const causes = causesOf(kase, route);
    const cause = causes.findIndex((item) => item.id === fault.id);
    if (cause < 0) return learned;
    const places = new Map(checksFor(catalogue, machine, route).map((place) => [place.key, place]));
    const prior = priorOf(causes);
    const evidence = evidenceOf(kase, causes, places, tally.findings);
    const ways = shownWays(causes, evidence)(cause);
    return learn(learned, lessonOf({ machine, causes, prior, evidence, ways, cause }));
  }, nothingLearned);
}

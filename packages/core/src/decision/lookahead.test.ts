import { benchAt } from '../order/bench';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { QUICK } from '../inference/hypotheses';
import { dunlin, finding, stateOf, takenIn, whelk } from '../testing/machines';
import { Forecasts } from './forecasts';
import { Lookahead } from './lookahead';
import { liveOf } from './model';
import { workOut } from './working';

/** An answer rarer than this takes an average course. */
const RARE = 0.01;

describe.each([
  ['nothing looked at', whelk, []],
  ['a push that drags', whelk, [finding('push-strand@extruder>end', 'drags')]],
  ['several lanes', dunlin, [finding('other-lane@spool-a', 'works')]],
] as const)('the best second step, %s', (_name, machine, findings) => {
  const lane = machine === dunlin ? { lane: 'lane-a' } : {};
  const state = stateOf(machine, [takenIn(machine, { symptoms: ['thin', 'clicks'], ...lane }), ...findings]);
  const { model, suspicion } = workOut(machine, catalogue, state, QUICK);
  const { live, p } = liveOf(model, suspicion);
  const bench = benchAt(machine, state, state.lastMs);

  // What is left out by a bound must not have been the best: all of it worked out, by the definition.
  test('is that of all of them worked out in full, in whatever order they are gone through', () => {
    const ahead = new Lookahead(model, new Forecasts(model, suspicion, live));
    const checks = model.places.flatMap(({ cannot, check }, i) => (cannot || check.retired ? [] : [i]));
    const stopping = (of: Float64Array, at = bench): number => ahead.stopping(of, at).minutes;
    const now = stopping(p);
    const inFull = (index: number): number => {
      const { price, minutes } = ahead.price(index, bench);
      return ahead.answers(index, p).reduce((sum, next) => {
        const likely = next.reduce((total, x) => total + x, 0);
        return sum + (likely < RARE ? likely * now : stopping(next, price.after));
      }, minutes);
    };
    const all = checks.map(inFull);
    const best = Math.min(now, ...all);
    expect(best).toBeLessThan(now);
    const byWorth = checks.map((_, i) => i).sort((a, b) => (all[a] as number) - (all[b] as number));
    for (const order of [byWorth, [...byWorth].reverse(), checks.map((_, i) => i)]) {
      ahead.seconds = order.map((i) => checks[i] as number);
      expect(ahead.oneStep(p, bench, -1)).toBeCloseTo(best, 6);
    }
  });
});

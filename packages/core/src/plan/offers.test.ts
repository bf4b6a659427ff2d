import { deliveredCatalogue as catalogue, materialOf, remedyById } from '../catalogue/index';
import type { Offer, Remedy } from '../catalogue/types';
import { benchAt } from '../order/bench';
import { judge, RefusedEvent } from '../order/reduce';
import { dunlin, event, stateOf, takenIn } from '../testing/machines';
import { clearingMinutes, offerFor, pricedOffers } from './offers';
import { planFor } from './plan';

const pla = materialOf(catalogue, 'PLA');
const offer = (id: string, price: number, minutes: number, lifeHours: number): Offer => ({
  id,
  name: id,
  kind: 'part',
  price,
  minutes,
  lifeHours,
  origin: 'invented for this test',
});
const remedy = {
  ...(remedyById(catalogue, 'renew-hot-end') as Remedy),
  offers: [offer('original', 30, 20, 2000), offer('better', 65, 20, 5000)],
};

describe('part, kit, assembly or upgrade', () => {
  // The trade's own example of an original hot end at 30 against a better design at 65; rate 36, so 20 min cost 12.
  test('by hand: cheap now against cheap over its life', () => {
    const list = pricedOffers(remedy, pla, 36, 10, []);
    expect(list.map(({ offer: { id } }) => id)).toEqual(['better', 'original']);
    expect(list[1]?.cost).toBeCloseTo(30 + 18, 9);
    expect(list[1]?.perThousandHours).toBeCloseTo(48 / 2, 9);
    expect(list[0]?.perThousandHours).toBeCloseTo(83 / 5, 9);
    expect(offerFor(remedy, pla, 36)?.id).toBe('better');
    expect(offerFor(remedy, pla, 36, 'original')?.id).toBe('original');
    // In the ladder renewing counts with the least that clears it: 20 min, and 30 at 36 an hour.
    expect(clearingMinutes(remedy, 36)).toBeCloseTo(20 + 50, 9);
  });

  test('the further it is to get at, the more a long life counts', () => {
    const gap = (there: number): number => {
      const [a, b] = ['original', 'better'].map(
        (id) => pricedOffers(remedy, pla, 36, there, []).find((item) => item.offer.id === id)?.perThousandHours ?? 0,
      ) as [number, number];
      return a - b;
    };
    expect(gap(120)).toBeGreaterThan(gap(0));
  });

  test('lives on record move the advice: a better design that keeps failing early loses', () => {
    const lives = [300, 280, 350, 310].map((hours) => ({ part: 'hot end', offer: 'better', hours, ended: true }));
    const list = pricedOffers(remedy, pla, 36, 10, lives);
    expect(list[0]?.offer.id).toBe('original');
    expect(list.map(({ speak }) => speak)).toEqual([0, 4]);
  });

  test('abrasive filament wears plain steel: then the hardened set is advised', () => {
    const gears = remedyById(catalogue, 'renew-gears') as Remedy;
    const first = (material: string): string | undefined =>
      pricedOffers(gears, materialOf(catalogue, material), 36, 8, []).find(({ offer: { kind } }) => kind !== 'spare')
        ?.offer.id;
    expect(first('PLA-filled')).toBe('hardened');
  });
});

const worn = [
  takenIn(dunlin, { material: 'PLA', symptoms: ['nothing'] }),
  event('cause-chosen', { station: 'extruder', mode: 'gears-worn', advised: true }),
];
const planAfter = (events: Parameters<typeof stateOf>[1]) => {
  const state = stateOf(dunlin, events);
  return planFor(dunlin, catalogue, state, benchAt(dunlin, state, state.lastMs));
};

test('what is picked to be fitted is in the plan with its minutes and the flaw to look for', () => {
  const pick = event('rung-picked', {
    station: 'extruder',
    mode: 'gears-worn',
    remedy: 'renew-extruder-unit',
    offer: 'unit',
  });
  const step = planAfter([...worn, pick]).steps.find((item) => item.kind === 'rung');
  expect(step?.offer?.kind).toBe('assembly');
  expect(step?.minutes).toBe(step?.offer?.minutes);
  const renew = event('rung-picked', { station: 'extruder', mode: 'gears-worn', remedy: 'renew-gears' });
  const usual = planAfter([...worn, renew]).steps.find((item) => item.kind === 'rung');
  expect(usual?.offer?.flaw).toMatch(/file/);
});

test('a solvent is tried on a piece first, and only one that the catalogue has', () => {
  const softened = event('solvent-tried', { solvent: 'ethyl-acetate', softened: true });
  expect(stateOf(dunlin, [...worn, softened]).solvents).toEqual({ 'ethyl-acetate': true });
  const unknown = event('solvent-tried', { solvent: 'tea', softened: true });
  expect(() => judge(dunlin, catalogue, worn, unknown)).toThrow(RefusedEvent);
});

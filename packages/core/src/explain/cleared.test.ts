import { deliveredCatalogue as catalogue } from '../catalogue/index';
import type { OrderEvent } from '../order/events';
import { remembered } from '../testing/remembered';
import { dunlin, finding, stateOf, takenIn } from '../testing/machines';
import { QUICK, USUAL, type Breadth, type ByExpectation } from '../inference/hypotheses';
import { workOut } from '../decision/working';
import { sightOf } from './assess';
import type { StationSuspicion } from './cleared';

const ORDERS: readonly (readonly [string, string, number?])[][] = [
  [['push-strand@gate-a>end', 'stops', 901]],
  [['push-strand@gate-a>end', 'passes']],
  [['pull-strand@extruder', 'free']],
  [['push-strand@gate-a>port-a', 'drags']],
  [['tug@port-a', 'holds']],
  [['draw-home@buffer-a', 'home']],
  [['swap-spool@spool-a', 'cured']],
  [
    ['push-strand@gate-a>end', 'stops', 901],
    ['free-air@nozzle', 'straight'],
    ['tug@coupler-a', 'holds'],
  ],
];
const viewBy = (breadth: Breadth | ByExpectation) =>
  remembered(
    (list: readonly OrderEvent[], symptoms: readonly string[]) => {
      const taken = takenIn(dunlin, { lane: 'lane-a', material: 'PLA', symptoms });
      return sightOf(workOut(dunlin, catalogue, stateOf(dunlin, [taken, ...list]), breadth));
    },
    (list, symptoms) => [symptoms, list.map(({ body }) => body)],
  );
/** What is seen after these findings. Most orders share what they are without their only one. */
const view = viewBy(QUICK);

const leftAt = (item?: StationSuspicion): number => (item ? item.suspicion - item.anywhere : 0);

// The bounds are chosen: a place is cleared when beside one more fault that may be anywhere less than 2.5 % is left, at most
// two fifths of what there was.
test.each(ORDERS)(
  'what is cleared has lost most of its suspicion, and by the finding that is named (%#)',
  (...list) => {
    const events = list.map(([key, result, value]) => finding(key, result, value));
    // Both are complained of: with one of them alone some places are next to clear before anything is looked at.
    const said = ['thin', 'not-reach'];
    const all = view(events, said);
    const cleared = all.stations.filter(({ clearedBy }) => clearedBy !== undefined);
    for (const { station, suspicion, prior, anywhere, clearedBy = '' } of cleared) {
      const left = suspicion - anywhere;
      expect([station, left < 0.025, left / prior < 0.4, anywhere < prior / 3]).toEqual([station, true, true, true]);
      // Without the finding that is said to clear it, it would be half as suspect again and more.
      const without = events.map((_, i) =>
        view(
          events.filter((__, k) => k !== i),
          said,
        ),
      );
      const before = Math.max(...without.map(({ stations }) => leftAt(stations.find((s) => s.station === station))));
      expect([station, clearedBy, before > 1.5 * Math.max(left, 0)]).toEqual([station, clearedBy, true]);
    }
  },
);

test('a strand that stops in the hub clears what it passed; a seat that holds, being one witness of several ways to fail, clears nothing', () => {
  const by = (key: string, result: string, value?: number) =>
    viewBy(USUAL)([finding(key, result, value)], ['thin']).stations.flatMap(({ station, clearedBy }) =>
      clearedBy ? [station] : [],
    );
  expect(by('push-strand@gate-a>end', 'stops', 901)).toEqual(['gate-a', 'buffer-a']);
  expect(by('tug@port-a', 'holds')).toEqual([]);
});

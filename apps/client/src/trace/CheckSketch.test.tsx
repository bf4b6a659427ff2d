import {
  checksOnLane,
  deliveredCatalogue as catalogue,
  laneRuns,
  machineOfFamily,
  FAMILIES,
  routeOf,
} from '@zealous/core';
import { render, screen } from '../testing/render';
import { CheckSketch } from './CheckSketch';

test('every check of every family has a drawing of the machine’s own stations, or says why none would help', () => {
  const said = new Set<string>();
  let asked = 0;
  for (const { id: family } of FAMILIES) {
    const machine = machineOfFamily(family, family, family);
    const lane = laneRuns(machine)[0]?.id;
    const route = routeOf(machine, lane);
    const names = route.stops.map(({ station }) => station.name);
    for (const place of checksOnLane(catalogue, machine, lane)) {
      const { unmount } = render(<CheckSketch place={place} route={route} />);
      const drawing = screen.queryByLabelText(/^Drawing/);
      if (drawing) {
        const label = String(drawing.props['aria-label']);
        expect([place.key, names.some((name) => label.includes(name))]).toEqual([place.key, true]);
        said.add(label.split(' ')[1] ?? '');
      } else {
        expect([place.key, screen.queryByText('A question: a drawing would not help.') !== null]).toEqual([
          place.key,
          true,
        ]);
        asked++;
      }
      unmount();
    }
  }
  expect([...said].sort()).toEqual(['a', 'another', 'from', 'look', 'measure', 'pull']);
  expect(asked).toBeGreaterThan(0);
});

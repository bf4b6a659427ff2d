import { machineOfFamily, stationById, type Machine, type Station } from '@zealous/core';
import { fireEvent, render, screen, waitForElementToBeRemoved, within } from '../testing/render';
import { useState } from 'react';
import { fitting } from './usePieceForm';

import type { Loose } from '../ui/form/fields';
import { Parts } from './PartEditor';
import { StationEditor } from './StationEditor';

const machine = machineOfFamily('bowden-open', 'whelk', 'Whelk');

interface Typed {
  readonly station: Station;
  /** What was typed and does not fit. */
  readonly unfit: Loose | undefined;
}

function editor(id: string, typed?: Loose): () => Typed {
  let now: Typed = { station: stationById(machine, id) as Station, unfit: typed };
  function Kept() {
    const [station, setStation] = useState(now.station);
    return (
      <StationEditor
        machine={machine}
        station={station}
        typed={typed}
        onChange={(next, unfit) => {
          now = { station: next, unfit };
          setStation(next);
        }}
        onRemove={jest.fn()}
        onClose={jest.fn()}
      />
    );
  }
  render(<Kept />);
  return () => now;
}

test('a parameter is typed, also with a comma, and taken away by emptying it', () => {
  const now = editor('tube');
  fireEvent.changeText(screen.getByLabelText(/^Bore, mm/), '1,9');
  expect(now()).toMatchObject({ station: { params: { boreMm: 1.9 } }, unfit: undefined });
  fireEvent.changeText(screen.getByLabelText(/^Bore, mm/), '');
  expect(Object.keys(now().station.params ?? {})).not.toContain('boreMm');
});

test('bends are asked in degrees and kept in radians; what is out of range is said in degrees too', async () => {
  const now = editor('tube');
  const bends = screen.getByLabelText(/^All its bends together, degrees/);
  expect(bends.props.value).toBe(
    String(Math.round(((stationById(machine, 'tube')?.params?.bendRad ?? 0) * 1800) / Math.PI) / 10),
  );
  fireEvent.changeText(bends, '90');
  expect(now().station.params?.bendRad).toBeCloseTo(Math.PI / 2, 4);
  expect(bends.props.value).toBe('90');
  // As it is typed, also where it is not round.
  fireEvent.changeText(bends, '270,');
  fireEvent.changeText(bends, '270,5');
  expect(screen.getByLabelText(/^All its bends together/).props.value).toBe('270,5');
  fireEvent.changeText(bends, '9999');
  fireEvent(bends, 'blur');
  expect(await screen.findByText('Must be a number from 0 to 3437.7.')).toBeTruthy();
  expect(now().station.params?.bendRad).toBeCloseTo((270.5 * Math.PI) / 180, 4);
  fireEvent.changeText(bends, '');
  expect(Object.keys(now().station.params ?? {})).not.toContain('bendRad');
  await waitForElementToBeRemoved(() => screen.queryByText(/^Must be a number/));
});

test('what does not fit stays out of the machine, is said at its field by the contract, and waits in the form', async () => {
  const now = editor('tube');
  const bore = screen.getByLabelText(/^Bore, mm/);
  fireEvent.changeText(bore, '1,9');
  fireEvent.changeText(bore, 'wide');
  fireEvent(bore, 'blur');
  expect(await screen.findByText('Must be a number from 0.05 to 20.')).toBeTruthy();
  expect(now()).toMatchObject({ station: { params: { boreMm: 1.9 } }, unfit: { params: { boreMm: 'wide' } } });
  // What else is typed meanwhile is taken.
  fireEvent.changeText(screen.getByLabelText(/^Length along the path, mm/), '455');
  expect(now().station.params).toMatchObject({ boreMm: 1.9, lengthMm: 455 });
});

test('opened again, a form shows what was typed and did not fit', () => {
  editor('tube', { ...(stationById(machine, 'tube') as unknown as Loose), params: { boreMm: 'wide' } });
  expect(screen.getByLabelText(/^Bore, mm/).props.value).toBe('wide');
});

test('the lining is asked for, never assumed, and can be set', () => {
  const now = editor('liner');
  const lining = screen.getByLabelText('Lining');
  fireEvent.press(within(lining).getByRole('radio', { name: 'All-metal' }));
  expect(now().station.params?.lining).toBe('none');
});

test('a station gets a mouth, and what must be off for it', () => {
  const now = editor('sink');
  expect(now().station.access?.mouth).toBeUndefined();
  fireEvent.press(within(screen.getByLabelText('Mouth')).getByRole('radio', { name: 'Yes' }));
  expect(now().station.access?.mouth).toEqual([]);
  fireEvent.press(within(screen.getByLabelText('Off for the mouth')).getByRole('checkbox', { name: 'Fan shroud' }));
  expect(now().station.access?.mouth).toEqual(['shroud']);
});

test('a part that is taken away is gone from everything that named it', () => {
  let now: Machine = machine;
  function Kept() {
    const [kept, setKept] = useState(machine);
    const [open, setOpen] = useState<string | undefined>(undefined);
    return (
      <Parts
        machine={kept}
        open={open}
        onOpen={setOpen}
        onTyped={(next) => {
          now = next;
          setKept(next);
        }}
      />
    );
  }
  render(<Kept />);
  fireEvent.press(screen.getByRole('button', { name: 'Fan shroud' }));
  fireEvent.press(screen.getByRole('button', { name: 'Take this part away' }));
  expect(screen.getByText(/goes, with its screws and plugs/)).toBeTruthy();
  fireEvent.press(screen.getByRole('button', { name: 'Take it away' }));
  expect(now.parts.some((part) => part.id === 'shroud')).toBe(false);
  expect(JSON.stringify(now)).not.toContain('"shroud"');
});

test('of a part that fits only partly, what fits is taken and the rest stays as it was', () => {
  const screw = { count: 2, what: 'screw' };
  const was = {
    id: 'cover',
    name: 'Cover',
    minutesOff: 2,
    minutesOn: 3,
    heat: 'cold',
    power: 'any',
    off: 'Lift it.',
    on: 'Put it back.',
    fasteners: [screw],
  };
  const typed = {
    ...was,
    name: 'Lid',
    minutesOff: 'two',
    on: undefined,
    tool: 7,
    fasteners: [{ ...screw, count: 2.5, drive: 'hex' }, { count: 1 }, { ...screw, lengthMm: 12 }],
  };
  expect(fitting('part', typed, was)).toEqual({
    ...was,
    name: 'Lid',
    fasteners: [
      { ...screw, drive: 'hex' },
      { ...screw, lengthMm: 12 },
    ],
  });
});

import { machineOfFamily, stationById, type Machine, type Station } from '@zealous/core';
import { fireEvent, render, screen, within } from '../testing/render';
import { useState } from 'react';

import { Parts } from './PartEditor';
import { StationEditor } from './StationEditor';

const machine = machineOfFamily('bowden-open', 'whelk', 'Whelk');

function editor(id: string): () => Station {
  let now = stationById(machine, id) as Station;
  function Kept() {
    const [station, setStation] = useState(now);
    return (
      <>
        <StationEditor
          machine={machine}
          station={station}
          onChange={(next) => {
            now = next;
            setStation(next);
          }}
          onRemove={jest.fn()}
          onClose={jest.fn()}
        />
      </>
    );
  }
  render(<Kept />);
  return () => now;
}

test('a parameter is typed, also with a comma, and taken away by emptying it', () => {
  const station = editor('tube');
  fireEvent.changeText(screen.getByLabelText('Bore, mm'), '1,9');
  expect(station().params?.boreMm).toBe(1.9);
  fireEvent.changeText(screen.getByLabelText('Bore, mm'), 'wide');
  expect(station().params?.boreMm).toBe(1.9);
  fireEvent.changeText(screen.getByLabelText('Bore, mm'), '');
  expect(station().params && 'boreMm' in station().params!).toBe(false);
});

test('the lining is asked for, never assumed, and can be set', () => {
  const station = editor('liner');
  const lining = screen.getByLabelText('Lining');
  fireEvent.press(within(lining).getByRole('radio', { name: 'All-metal' }));
  expect(station().params?.lining).toBe('none');
});

test('a station gets a mouth, and what must be off for it', () => {
  const station = editor('sink');
  expect(station().access?.mouth).toBeUndefined();
  fireEvent.press(within(screen.getByLabelText('Mouth')).getByRole('radio', { name: 'Yes' }));
  expect(station().access?.mouth).toEqual([]);
  fireEvent.press(within(screen.getByLabelText('Off for the mouth')).getByRole('checkbox', { name: 'Fan shroud' }));
  expect(station().access?.mouth).toEqual(['shroud']);
});

test('a part that is taken away is gone from everything that named it', () => {
  let now: Machine = machine;
  function Kept() {
    const [kept, setKept] = useState(machine);
    return (
      <>
        <Parts
          machine={kept}
          onChange={(next) => {
            now = next;
            setKept(next);
          }}
        />
      </>
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

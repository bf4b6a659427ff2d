import { deliveredCatalogue, machineOfFamily, routeOf, stepOf, type FastenerRecord } from '@zealous/core';
import { fireEvent, render, screen } from '../testing/render';
import { FastenerMap, stillOut, type FastenerMoves } from './FastenerMap';

const machine = machineOfFamily('hub-head', 'dunlin', 'Dunlin');
const part = machine.parts.find((item) => (item.fasteners ?? []).reduce((n, one) => n + one.count, 0) >= 4);
if (!part) throw new Error('test data');
const writing = { machine, catalogue: deliveredCatalogue, route: routeOf(machine) };
const opening = stepOf(`open:${part.id}`, writing);
const closing = stepOf(`close:${part.id}`, writing);
const count = (part.fasteners ?? []).reduce((n, one) => n + one.count, 0);
/** A plug is only pulled: it is never on the mat. */
const counted = (part.fasteners ?? []).reduce((n, one) => n + (one.loosenOnly ? 0 : one.count), 0);

function shown(step: typeof opening, record: FastenerRecord = {}): readonly FastenerMoves[] {
  const moves: FastenerMoves[] = [];
  render(<FastenerMap step={step} record={record} onMove={(move) => moves.push(move)} />);
  return moves;
}

test('each screw is a tap: out when it comes off, and all at once', () => {
  const moves = shown(opening);
  expect(screen.getAllByRole('checkbox')).toHaveLength(count);
  fireEvent.press(screen.getAllByRole('checkbox')[1] as never);
  fireEvent.press(screen.getByRole('button', { name: 'All are out' }));
  expect(moves).toEqual([{ out: [1] }, { out: Array.from({ length: count }, (_, i) => i) }]);
});

test('at closing what is out lies on the mat: tapped in, or left out for a reason only', () => {
  const record: FastenerRecord = { 0: { now: 'out' }, 1: { now: 'in' }, 2: { now: 'out' } };
  const moves = shown(closing, record);
  expect(stillOut(closing, record)).toBe(2);
  expect(stillOut(opening, record)).toBe(0);
  expect(screen.getByText(`1 of ${counted} back, 2 on the mat`)).toBeTruthy();
  fireEvent.press(screen.getByRole('checkbox', { name: /number 3: out/ }));
  expect(moves).toEqual([{ in: [2] }]);
  fireEvent.press(screen.getByRole('button', { name: 'One stays out …' }));
  const leave = screen.getByRole('button', { name: /^Leave these 2 out/ });
  fireEvent.press(leave);
  expect(moves).toHaveLength(1);
  fireEvent.changeText(screen.getByLabelText('Why it stays out'), ' stripped ');
  fireEvent.press(screen.getByRole('button', { name: /^Leave these 2 out/ }));
  expect(moves[1]).toEqual({
    left: [
      { index: 0, why: 'stripped' },
      { index: 2, why: 'stripped' },
    ],
  });
});

test('on a picture of one’s own the screws stand where they were put', () => {
  const photo = {
    photoId: 'p',
    about: `part:${part.id}`,
    widthPx: 100,
    heightPx: 80,
    at: '',
    by: '',
    eventId: 'e',
    markers: [{ x: 0.25, y: 0.5, label: '#0' }],
  };
  const placed: (typeof photo.markers)[] = [];
  render(
    <FastenerMap
      step={opening}
      record={{}}
      onMove={() => undefined}
      photo={{ source: 'data:,', photo }}
      onPlace={(markers) => placed.push([...markers])}
    />,
  );
  expect(screen.getByRole('checkbox', { name: /number 1: in/ })).toHaveStyle({ left: '25%' });
  fireEvent.press(screen.getByRole('button', { name: 'Put the screws where they are on your picture' }));
  const picture = screen.getByRole('button', { name: 'Place number 1' });
  fireEvent(picture, 'layout', { nativeEvent: { layout: { width: 200, height: 250 } } });
  fireEvent.press(picture, { nativeEvent: { locationX: 100, locationY: 25 } });
  expect(placed).toEqual([[{ x: 0.5, y: 0.1, label: '#0' }]]);
  expect(screen.getByText(`Tap the place of number 2 of ${count}.`)).toBeTruthy();
});

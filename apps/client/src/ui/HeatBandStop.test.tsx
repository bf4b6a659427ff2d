import { machineOfFamily, type EventType } from '@zealous/core';
import { fireEvent, screen } from '../testing/render';
import { atTen, deskOf } from '../testing/bench';
import { HeatBand } from './HeatBand';

const dunlin = machineOfFamily('hub-head', 'dunlin', 'Dunlin');
const HOT: readonly (readonly [EventType, object])[] = [
  ['taken-in', { number: 't-1', machineId: 'dunlin', symptoms: [], before: [], material: 'PLA' }],
  ['bench-changed', { targetC: 208, readingC: 208, power: 'on' }],
];

atTen();

test('while it heats with the heating at fault, stopping it is one tap away, and it cannot be set to heat', async () => {
  const desk = await deskOf(
    dunlin,
    [...HOT, ['finding-recorded', { key: 'watch-temp@block', result: 'error' }]],
    ({ order, record }) => (
      <HeatBand machine={order.machine} state={order.state} record={record} printC={210} title="Dunlin" />
    ),
  );
  expect(screen.getByTestId('heat')).toHaveTextContent(/heating at fault/);
  fireEvent.press(screen.getByRole('button', { name: 'Target is zero' }));
  expect(desk.order().state.heat.targetC).toBe(0);
  expect(screen.queryByRole('button', { name: 'Target is zero' })).toBeNull();
  fireEvent.press(screen.getByRole('button', { name: /Change/ }));
  expect(screen.getByRole('button', { name: /^Heating to 210/ })).toBeDisabled();
  expect(screen.getByText(/the heating is at fault/)).toBeOnTheScreen();
});

test('of a sound machine nothing of it is seen', async () => {
  await deskOf(dunlin, HOT, ({ order, record }) => (
    <HeatBand machine={order.machine} state={order.state} record={record} printC={210} title="Dunlin" />
  ));
  expect(screen.getByTestId('heat')).not.toHaveTextContent(/at fault/);
  expect(screen.queryByRole('button', { name: 'Target is zero' })).toBeNull();
});

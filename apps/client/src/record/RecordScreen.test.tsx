import { deliveredCatalogue, machineOfFamily, proofsFor, type EventType } from '@zealous/core';
import { fireEvent, screen, waitFor } from '../testing/render';
import { atTen, deskOf } from '../testing/bench';
import { RecordScreen } from './RecordScreen';

jest.mock('expo-router', () => ({ useRouter: () => ({ replace: jest.fn(), push: jest.fn() }) }));
jest.mock('../data/photos', () => ({
  photoUrl: () => '',
  waitingPhoto: async () => undefined,
  whyRefused: async () => undefined,
}));

const dunlin = machineOfFamily('hub-head', 'dunlin', 'Dunlin');
const repaired: readonly (readonly [EventType, object])[] = [
  ['taken-in', { number: 't-1', machineId: 'dunlin', symptoms: [], before: [], material: 'PLA' }],
  ['cause-chosen', { station: 'hub', mode: 'stub', advised: true }],
  [
    'rung-tried',
    { stepId: 'rung:hub:stub:take-out', remedy: 'take-out', outcome: 'cleared', station: 'hub', mode: 'stub' },
  ],
];
const press = (name: string): void => fireEvent.press(screen.getByRole('button', { name }));

atTen();

test('an order is closed as cured only when every proof is passed; a wrong closing is taken back', async () => {
  const desk = await deskOf(dunlin, repaired, (props) => <RecordScreen {...props} />);
  expect(screen.queryByRole('radio', { name: /^Cured/ })).toBeNull();
  for (const proof of proofsFor(dunlin, deliveredCatalogue, desk.order().state))
    desk.record('proof-recorded', { proof: proof.id, passed: true });
  fireEvent.press(screen.getByRole('radio', { name: /^Cured/ }));
  fireEvent.changeText(screen.getByLabelText('Minutes of work'), '45');
  fireEvent.changeText(screen.getByLabelText('Rate per hour'), '40');
  fireEvent.press(screen.getByRole('radio', { name: 'In two weeks' }));
  press('Close the order');
  await waitFor(() => expect(desk.order().state.closed).toBeDefined());
  expect(desk.order().state.closed).toMatchObject({ outcome: 'cured', minutes: 45, hourlyRate: 40 });
  expect(desk.order().state.closed?.watchOn).toBe('2026-12-09');
  expect(screen.getByText(/work 30\.00 at 40 an hour/)).toBeTruthy();
  press('Closed wrongly?');
  press('Withdraw the closing');
  expect(desk.order().state.closed).toBeUndefined();
});

test('it has what was fitted, which solvent took, and what was not the cure', async () => {
  await deskOf(
    dunlin,
    [
      ...repaired,
      ['not-cured', {}],
      ['cause-chosen', { station: 'break', mode: 'break-plug', advised: false }],
      ['solvent-tried', { solvent: 'acetone', softened: true }],
      ['part-replaced', { station: 'break', part: 'hot end', offer: 'better', price: 65, maker: 'Skerry Parts' }],
    ],
    (props) => <RecordScreen {...props} />,
  );
  expect(screen.getByText(/hot end, Better design that fits, .*Skerry Parts.*price 65/)).toBeTruthy();
  expect(screen.getByText('A piece in acetone: softened')).toBeTruthy();
  expect(screen.getByText(/Hub: .*stub/i)).toBeTruthy();
});

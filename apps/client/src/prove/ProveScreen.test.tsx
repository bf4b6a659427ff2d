import { deliveredCatalogue, machineOfFamily, proofsFor, type EventType } from '@zealous/core';
import { act, fireEvent, screen, waitFor } from '../testing/render';
import { atTen, deskOf, type Desk } from '../testing/bench';
import { ProveScreen } from './ProveScreen';

const mockReplace = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ replace: (to: string) => mockReplace(to), push: jest.fn() }) }));
jest.mock('../data/photos', () => ({
  photoUrl: () => '',
  waitingPhoto: async () => undefined,
  whyRefused: async () => undefined,
}));

const dunlin = machineOfFamily('hub-head', 'dunlin', 'Dunlin');
type Start = readonly (readonly [EventType, object])[];
const repaired = (station: string, mode: string, remedy: string, intake: object = {}, more: Start = []): Start => [
  ['taken-in', { number: 't-1', machineId: 'dunlin', symptoms: [], before: [], material: 'PLA', ...intake }],
  ['cause-chosen', { station, mode, advised: true }],
  ...more,
  ['rung-tried', { stepId: `rung:${station}:${mode}:${remedy}`, remedy, outcome: 'cleared', station, mode }],
  ['bench-changed', { targetC: 208, readingC: 208, power: 'on' }],
];
const press = (name: string | RegExp): void => fireEvent.press(screen.getByRole('button', { name }));
const open = (desk: Desk) => {
  const { state } = desk.order();
  return proofsFor(dunlin, deliveredCatalogue, state).find((proof) => !state.proofs[proof.id]?.passed);
};

/** Passes what needs no numbers, up to a proof of a form. */
function upTo(desk: Desk, form: 'bed' | 'run' | 'feed'): void {
  for (let i = 0; i < 12; i++) {
    const proof = open(desk);
    if (!proof) throw new Error(`no proof of the form ${form} is asked for`);
    if (proof.form === form || (form === 'feed' && proof.quantity)) return;
    if (proof.form || proof.quantity) desk.record('proof-recorded', { proof: proof.id, passed: true });
    else press('Yes');
  }
}

atTen();
beforeEach(() => void mockReplace.mockReset());

test('what is asked for follows from what was done, smallest first, and each pass opens the next', async () => {
  const desk = await deskOf(dunlin, repaired('hub', 'stub', 'take-out'), (props) => <ProveScreen {...props} />);
  const first = open(desk);
  press('Yes');
  expect(desk.order().state.proofs[first?.id ?? '']?.passed).toBe(true);
  expect(open(desk)?.id).not.toBe(first?.id);
});

test('a machine that is off is switched on before the proof, and that is the first thing to tap', async () => {
  const desk = await deskOf(
    dunlin,
    repaired('hub', 'stub', 'take-out', {}, []).concat([['bench-changed', { readingC: 24, targetC: 0, power: 'off' }]]),
    (props) => <ProveScreen {...props} />,
  );
  const way = screen.getAllByRole('button', { name: /^(Switched on|Heating to)/ })[0];
  fireEvent.press(way as never);
  expect(desk.order().state.power).toBe('on');
});

test('not cured goes back to tracing with the repair as a finding', async () => {
  const desk = await deskOf(dunlin, repaired('hub', 'stub', 'take-out'), (props) => <ProveScreen {...props} />);
  press('No: not cured');
  expect(desk.order().state.failures[0]).toMatchObject({ station: 'hub', mode: 'stub', remedies: ['take-out'] });
  expect(mockReplace).toHaveBeenCalledWith('/order/order/trace');
});

test('gears were touched: the length that went in sets the steps, and the reading error says whether it means anything', async () => {
  const desk = await deskOf(dunlin, repaired('extruder', 'gears-worn', 'renew-gears'), (props) => (
    <ProveScreen {...props} />
  ));
  upTo(desk, 'feed');
  fireEvent.changeText(screen.getByLabelText('Asked, mm'), '100');
  fireEvent.changeText(screen.getByLabelText('Left to the mark, mm'), '27,5');
  fireEvent.changeText(screen.getByLabelText('Present steps/mm'), '400');
  press('Feed is right, or set right');
  await waitFor(() =>
    expect(desk.events().at(-1)).toMatchObject({
      type: 'proof-recorded',
      body: { askedMm: 100, oldStepsPerMm: 400 },
    }),
  );
  // 400 × 100 / 92.5, as in the handbook's rule of three.
  expect(screen.getByText(/432\.43/)).toBeTruthy();
});

test('a fault that took four hours is proved by more than four, not by four', async () => {
  const desk = await deskOf(
    dunlin,
    repaired('break', 'break-plug', 'rod', { onset: 'after-hours', failedAfterMinutes: 240 }),
    (props) => <ProveScreen {...props} />,
  );
  upTo(desk, 'run');
  const done = () => screen.getByRole('button', { name: 'It ran past that, sound' });
  fireEvent.changeText(screen.getByLabelText('It ran sound for, minutes'), '240');
  fireEvent.press(done());
  expect(desk.events().some(({ type, body }) => type === 'proof-recorded' && 'ranMinutes' in body)).toBe(false);
  fireEvent.changeText(screen.getByLabelText('It ran sound for, minutes'), '300');
  fireEvent.press(done());
  await waitFor(() =>
    expect(desk.events().at(-1)).toMatchObject({ type: 'proof-recorded', body: { passed: true, ranMinutes: 300 } }),
  );
});

test('the feed at several speeds: four are the least, and the speed at which 5 % is lost is told with its error', async () => {
  const desk = await deskOf(dunlin, repaired('hub', 'stub', 'take-out'), (props) => <ProveScreen {...props} />);
  press('What does this hot end melt? Feed at several speeds');
  const fed: Readonly<Record<number, number>> = { 1: 99, 2: 99, 3: 98.8, 4: 95, 5: 90, 6: 85 };
  for (const [speed, mm] of Object.entries(fed))
    fireEvent.changeText(screen.getByLabelText(`at ${speed} mm/s, fed mm`), String(mm));
  expect(screen.getByText(/^5 % is lost at 4\.\d ± \d\.\d mm\/s of strand/)).toBeTruthy();
  // What the server would refuse is refused at its speed, also beside one that was not tried.
  fireEvent.changeText(screen.getByLabelText('at 1 mm/s, fed mm'), '');
  fireEvent.changeText(screen.getByLabelText('at 6 mm/s, fed mm'), '9999');
  press('Keep it in the record');
  await act(async () => jest.advanceTimersByTimeAsync(1));
  expect(screen.getByText('Must be a number from 0 to 2000.')).toBeTruthy();
  expect(desk.order().state.curve).toBeUndefined();
  // Judged anew at every change from now on, which takes a moment.
  await act(async () => fireEvent.changeText(screen.getByLabelText('at 1 mm/s, fed mm'), '99'));
  await act(async () => fireEvent.changeText(screen.getByLabelText('at 6 mm/s, fed mm'), '85'));
  press('Keep it in the record');
  await act(async () => jest.advanceTimersByTimeAsync(1));
  expect(desk.order().state.curve).toHaveLength(6);
});

test('a long print is a bet: the longer it is, the sooner the small piece comes first', async () => {
  await deskOf(dunlin, repaired('hub', 'stub', 'take-out'), (props) => <ProveScreen {...props} />);
  press('A long print next? Straight to it, or a small piece first');
  const hours = screen.getByLabelText('Print, hours');
  fireEvent.changeText(hours, '0,2');
  fireEvent.changeText(screen.getByLabelText('Filament, g'), '5');
  expect(screen.getByText('Straight to the long print.')).toBeTruthy();
  fireEvent.changeText(hours, '60');
  expect(screen.getByText('Small piece first.')).toBeTruthy();
});

import { checksOnLane, deliveredCatalogue, type Check, type EventType, type Machine } from '@zealous/core';
import { act, fireEvent, screen } from '../testing/render';
import { atTen, deskOf, type Desk } from '../testing/bench';
import { TraceScreen } from './TraceScreen';

const mockReplace = jest.fn();
jest.mock('expo-router', () => ({ useRouter: () => ({ replace: (to: string) => mockReplace(to), push: jest.fn() }) }));
jest.mock('../data/photos', () => ({
  photoUrl: () => '',
  waitingPhoto: async () => undefined,
  whyRefused: async () => undefined,
}));
/** How long the longer look takes, ms: less than it is waited for. */
let mockLongMs = 1;
// The worker's own work, on this thread.
jest.mock('../workers/trace', () => {
  const core = jest.requireActual('@zealous/core');
  // As from the worker, an answer comes a moment later, when the test lets time go on.
  const later = (answer: () => unknown, ms = 1) => new Promise((resolve) => setTimeout(() => resolve(answer()), ms));
  const work = (machine: unknown, state: unknown, bench: unknown, search: object, ms?: number) =>
    later(() => core.assess(machine, core.deliveredCatalogue, state, bench, search), ms);
  const service = {
    sight: (m: unknown, s: unknown) => later(() => core.sightOf(core.quickWorking(m, core.deliveredCatalogue, s))),
    assess: async (m: unknown, s: unknown, b: unknown, also: readonly string[]) =>
      work(m, s, b, { depth: 1, quick: true, also }),
    assessDeeper: async (m: unknown, s: unknown, b: unknown, also: readonly string[]) =>
      work(m, s, b, { depth: 2, also }, mockLongMs),
    stationCase: (m: unknown, s: unknown, station: string) =>
      later(() => core.stationCase(m, core.deliveredCatalogue, s, station)),
  };
  return { tracer: () => service };
});

const dunlin = jest.requireActual('../../../../demo/machines/dunlin.json') as Machine;
type Start = readonly (readonly [EventType, object])[];
const order = (intake: object = {}, more: Start = []): Start => [
  [
    'taken-in',
    {
      number: 't-1',
      machineId: 'dunlin',
      lane: 'lane-a',
      symptoms: ['not-reach'],
      before: [],
      material: 'PLA',
      onset: 'loading',
      ...intake,
    },
  ],
  ...more,
];

const settle = async (): Promise<void> => {
  await act(async () => {
    await jest.advanceTimersByTimeAsync(1000);
  });
};
async function shown(start: Start): Promise<Desk> {
  const desk = await deskOf(dunlin, start, (props) => <TraceScreen {...props} />);
  await settle();
  return desk;
}
const asked = (): string => screen.getByTestId('check-name').props.children as string;
const answer = async (name: string | RegExp): Promise<void> => {
  fireEvent.press(screen.getByRole('button', { name }));
  await settle();
};
const findings = (desk: Desk): readonly string[] => desk.order().state.findings.map(({ result }) => result);

atTen();
const { matchMedia } = globalThis;
beforeEach(() => {
  mockReplace.mockReset();
  mockLongMs = 1;
  globalThis.matchMedia = matchMedia;
});

test('one check is asked for; its answer moves the strand, the next one follows, and undo brings the first one back', async () => {
  const desk = await shown(order());
  const first = asked();
  await answer('Not sure');
  expect(findings(desk)).toEqual(['not-sure']);
  expect(asked()).not.toBe(first);
  await answer('Undo');
  expect(findings(desk)).toEqual([]);
  expect(asked()).toBe(first);
});

test('the strand moves with the first answer, before the longer look has said what is asked for next', async () => {
  const desk = await shown(order());
  const first = asked();
  const strand = (): string => screen.getByRole('button', { name: /Show the whole strand$/ }).props.accessibilityLabel;
  const before = strand();
  mockLongMs = 300;
  // The strand's own movement is no matter here.
  globalThis.matchMedia = jest.fn(() => ({ matches: true })) as never;
  fireEvent.press(screen.getByRole('button', { name: 'Stops: enter the depth' }));
  for (const digit of '901') fireEvent.press(screen.getByRole('button', { name: digit }));
  fireEvent.press(screen.getByRole('button', { name: 'Enter 901 mm' }));
  // What came in the one step is drawn at its end, and moves in the next.
  for (let step = 0; step < 3; step++)
    await act(async () => {
      await jest.advanceTimersByTimeAsync(30);
    });
  expect(strand()).not.toBe(before);
  // The pad of the old check still stands, and answers nothing more.
  fireEvent.press(screen.getByRole('button', { name: 'Enter 901 mm' }));
  expect(findings(desk)).toEqual(['stops']);
  await settle();
  expect(asked()).not.toBe(first);
});

test('an answer counts also at the moment when the server’s copy of the entries comes, with its fields in another order', async () => {
  const desk = await shown(order());
  desk.served();
  // Nothing of what is weighed has changed: nothing is waited for.
  fireEvent.press(screen.getByRole('button', { name: 'Not sure' }));
  expect(findings(desk)).toEqual(['not-sure']);
});

test('a check that cannot be done is not asked again, and says why in the record', async () => {
  const desk = await shown(order());
  const first = asked();
  fireEvent.press(screen.getByRole('button', { name: 'Could not do it' }));
  fireEvent.press(screen.getByRole('button', { name: 'Cannot reach it' }));
  await settle();
  expect(desk.order().state.notDone[0]?.why).toBe('Cannot reach it');
  expect(asked()).not.toBe(first);
});

test('another check is chosen by hand, and why it is not the advice is told in minutes', async () => {
  const desk = await shown(order());
  const first = asked();
  await answer(/^Other/);
  const others = screen
    .getAllByRole('button', { name: /min/ })
    .filter((item) => !item.props.accessibilityState?.disabled);
  expect(others.length).toBeGreaterThan(3);
  fireEvent.press(others[2] as never);
  await settle();
  expect(asked()).not.toBe(first);
  await answer(/^Why/);
  expect(screen.getByText(`Against “${first}”`)).toBeTruthy();
  expect(findings(desk)).toEqual([]);
});

test('a stub is found: enough is known, and the repair at its place is taken on', async () => {
  const desk = await shown(
    order({}, [
      ['finding-recorded', { key: 'push-strand@gate-a>end', result: 'stops', value: 901 }],
      ['finding-recorded', { key: 'lift-hub@hub', result: 'stub' }],
    ]),
  );
  expect(screen.getByText('Repair now: enough is known')).toBeTruthy();
  await answer(/^Repair Hub: /);
  expect(desk.order().state.cause).toMatchObject({ station: 'hub', mode: 'stub' });
  expect(mockReplace).toHaveBeenCalledWith('/order/order/plan');
});

test('what has no name is said in one’s own words, at its finding', async () => {
  const desk = await shown(
    order({}, [['finding-recorded', { key: 'free-tube@port-a', result: 'unlisted', finished: true }]]),
  );
  expect(screen.queryByRole('button', { name: 'About it' })).toBeNull();
  fireEvent.press(screen.getByRole('button', { name: 'Say what it was' }));
  expect(screen.getByText(/^Free the tube at Hub port .* and look in: Something else is wrong here$/)).toBeTruthy();
  fireEvent.changeText(screen.getByLabelText('What it was, in your own words'), 'A washer between the halves');
  await answer('Write it down');
  const { findings: seen, notes } = desk.order().state;
  expect(notes).toMatchObject([{ text: 'A washer between the halves', findingId: seen[0]?.id }]);
  expect(screen.queryByRole('button', { name: 'Say what it was' })).toBeNull();
  expect(screen.getByRole('button', { name: 'About it' })).toBeTruthy();
});

test('what a check opens is recorded open with its finding', async () => {
  const desk = await shown(
    order({}, [['finding-recorded', { key: 'push-strand@gate-a>end', result: 'stops', value: 901 }]]),
  );
  // The hub is the place to look at; lifting it wants the cover off.
  await answer(/^Other/);
  fireEvent.press(screen.getAllByRole('button', { name: /^Lift the hub/ })[0] as never);
  await settle();
  expect(screen.getByText(/^Take off first: /)).toBeTruthy();
  await answer('Clear');
  expect(findings(desk).at(-1)).toBe('clear');
  expect(desk.order().state.off.length).toBeGreaterThan(0);
});

test('a closed order keeps the strand, and asks for nothing', async () => {
  await shown(order({}, [['closed', { outcome: 'given-back' }]]));
  expect(screen.getByText(/The order is closed\. The strand stands as it was/)).toBeTruthy();
  expect(screen.queryByTestId('check-name')).toBeNull();
});

test('checks are offered on the bench as it is recorded: once an error of the heating was seen, none that heats', async () => {
  const looksAtHeat = ({ results }: Check): boolean => results.some(({ spoilsHeat }) => spoilsHeat);
  const hot = checksOnLane(deliveredCatalogue, dunlin, 'lane-a')
    .filter(({ check }) => check.heat === 'hot' && !looksAtHeat(check))
    .map(({ name }) => name);
  const offered = async (start: Start): Promise<readonly string[]> => {
    await shown(start);
    fireEvent.press(screen.getByRole('button', { name: 'Other. Choose another check' }));
    expect(screen.getByText('Choose another check')).toBeTruthy();
    const names = hot.filter((name) => screen.queryByRole('button', { name }) !== null);
    screen.unmount();
    return names;
  };
  const told = { symptoms: ['heat-error', 'thin'] };
  expect(await offered(order(told))).not.toEqual([]);
  expect(await offered(order(told, [['finding-recorded', { key: 'watch-temp@block', result: 'error' }]]))).toEqual([]);
});

import {
  deliveredCatalogue,
  machineOfFamily,
  outcomesOfRung,
  type EventType,
  type Machine,
  type Remedy,
} from '@zealous/core';
import { act, fireEvent, screen, within } from '../testing/render';
import { atTen, deskOf, noHistory, type Desk } from '../testing/bench';
import { PlanScreen } from './PlanScreen';

jest.mock('expo-router', () => ({ useRouter: () => ({ replace: jest.fn(), push: jest.fn() }) }));
jest.mock('../data/photos', () => ({
  photoUrl: () => '',
  waitingPhoto: async () => undefined,
  whyRefused: async () => undefined,
}));

const whelk = machineOfFamily('bowden-open', 'whelk', 'Whelk');
const dunlin = machineOfFamily('hub-head', 'dunlin', 'Dunlin');
type Start = readonly (readonly [EventType, object])[];
const begun = (
  machine: { readonly id: string },
  station: string,
  mode: string,
  material = 'PLA',
  more: Start = [],
): Start => [
  ['taken-in', { number: 't', machineId: machine.id, symptoms: [], before: [], material }],
  ['cause-chosen', { station, mode, advised: true }],
  ...more,
];

type Node = ReturnType<typeof screen.getByLabelText>;
const now = (): Node => screen.getByLabelText(/^Step .*, now$/);
const press = (name: string | RegExp, at?: Node): void =>
  fireEvent.press((at ? within(at) : screen).getByRole('button', { name }));
/** The remedy of a step, by its title. */
function remedyOf(label: string): Remedy {
  const found = deliveredCatalogue.remedies.find(({ name, actions }) =>
    [name, actions?.at(-1)?.name].some((title) => title !== undefined && label.includes(`: ${title}: `)),
  );
  if (!found) throw new Error(`"${label}" is no rung.`);
  return found;
}
const types = (desk: Desk): readonly string[] => desk.events().map(({ type }) => type);

atTen();

test('one step is open; done, the next one is, and it can be taken back', async () => {
  const desk = await deskOf(whelk, begun(whelk, 'extruder', 'gears-worn'), (props) => <PlanScreen {...props} />);
  const first = now().props['aria-label'] as string;
  press('The path is empty', now());
  expect(now().props['aria-label']).not.toBe(first);
  expect(screen.getByText('1 step done: show')).toBeTruthy();
  press('Undo the last step');
  expect(now().props['aria-label']).toBe(first);
  expect(types(desk)).toContain('event-withdrawn');
});

test('a step is skipped with a reason only', async () => {
  const desk = await deskOf(whelk, begun(whelk, 'extruder', 'gears-worn'), (props) => <PlanScreen {...props} />);
  press(/^Out of turn, now: The machine’s own box of spares/);
  press('Not needed here …', now());
  const skip = () => within(now()).getByRole('button', { name: 'Skip, with this reason' });
  fireEvent.press(skip());
  expect(types(desk)).not.toContain('step-skipped');
  fireEvent.changeText(within(now()).getByLabelText('Why it is not needed'), ' it has no box ');
  fireEvent.press(skip());
  expect(desk.events().at(-1)).toMatchObject({ type: 'step-skipped', body: { why: 'it has no box' } });
});

test('a step out of turn that the machine is not ready for waits, says for what, and can be done under one’s name', async () => {
  const hot: Start = [['bench-changed', { targetC: 208, readingC: 208, power: 'on' }]];
  const desk = await deskOf(dunlin, begun(dunlin, 'extruder', 'gears-worn', 'PLA', hot), (props) => (
    <PlanScreen {...props} />
  ));
  press(/^Out of turn, now: Off: Extruder cover/);
  expect(within(now()).getByText(/^Waits: it comes after another part: Front cover/)).toBeTruthy();
  press(/^Back in turn: /, now());
  expect(within(now()).queryByText(/^Waits: it comes after another part/)).toBeNull();
  expect(within(now()).queryByRole('button', { name: /^Back in turn: / })).toBeNull();
  press(/^Out of turn, now: Off: Extruder cover/);
  press('Do it all the same …', now());
  press('Done all the same', now());
  const done = desk.events().findLast(({ type }) => type === 'step-done');
  expect(done?.body).toMatchObject({ override: expect.stringMatching(/Front cover/) });
});

test('what is fitted is chosen by its cost over its life; the record of lives moves it', async () => {
  const lives = [260, 240, 300, 280, 270].map((hours) => ({
    part: 'drive gears',
    offer: 'hardened',
    hours,
    ended: true,
  }));
  const desk = await deskOf(
    dunlin,
    begun(dunlin, 'extruder', 'gears-worn', 'PLA', [
      ['rung-picked', { station: 'extruder', mode: 'gears-worn', remedy: 'renew-gears' }],
    ]),
    (props) => <PlanScreen {...props} />,
    { ...noHistory, lives },
  );
  press(/^Out of turn, now: Change the gears/);
  const fitted = screen.getByLabelText('What is fitted');
  expect(within(fitted).getByText(/\(5 here speak\)/)).toBeTruthy();
  // Hardened sets that ended after some 270 h each are the cheapest over their life no more.
  const names = within(fitted)
    .getAllByRole('button')
    .map((item) => String(item.props.accessibilityLabel));
  expect(names).toHaveLength(3);
  expect(names.filter((name) => !/own box/.test(name))[0]).toMatch(/^Set of plain gears/);
  fireEvent.press(within(fitted).getByRole('button', { name: /^Set of plain gears/ }));
  expect(desk.order().state.picked?.offer).toBe('set');
});

test('the part that was fitted is in the record with maker and batch, and a bad batch is said before it is fitted', async () => {
  const parts = [
    { part: 'drive gears', maker: 'Groyne Works', batch: 'G1', machine: 'Limpet', at: '2026-10-01', again: true },
  ];
  const desk = await deskOf(
    dunlin,
    begun(dunlin, 'extruder', 'gears-worn', 'PLA', [
      ['rung-picked', { station: 'extruder', mode: 'gears-worn', remedy: 'renew-gears' }],
      ['parts-moved', { off: dunlin.parts.map(({ id }) => id) }],
    ]),
    (props) => <PlanScreen {...props} />,
    { ...noHistory, parts },
  );
  press(/^Out of turn, now: Spring, cover and cutter/);
  press('Note maker, batch, price, hours', now());
  fireEvent.changeText(within(now()).getByLabelText('Maker'), 'groyne works');
  expect(within(now()).getByText(/renewed again at 1: Limpet G1\. Look for the same flaw\./)).toBeTruthy();
  fireEvent.changeText(within(now()).getByLabelText('Batch'), 'G2');
  fireEvent.changeText(within(now()).getByLabelText('Hours on the old one'), '1180');
  press('It is clear', now());
  expect(desk.order().state.parts[0]).toMatchObject({
    part: 'drive gears',
    maker: 'groyne works',
    batch: 'G2',
    oldHours: 1180,
    price: 24,
  });
});

test('a rung that brought nothing gives way to the next; the other remedies can be taken by hand', async () => {
  const desk = await deskOf(
    dunlin,
    begun(dunlin, 'break', 'break-plug', 'PLA', [['bench-changed', { targetC: 208, readingC: 208, power: 'on' }]]),
    (props) => <PlanScreen {...props} />,
  );
  const rung = () => desk.order().state.tries.at(-1)?.remedy;
  const before = screen.getAllByRole('button', { name: /^Out of turn, now: / }).length;
  expect(before).toBeGreaterThan(0);
  for (let i = 0; i < 16 && !/What came of it/.test(JSON.stringify(screen.toJSON())); i++) {
    const [done] = within(now()).queryAllByRole('button', {
      name: /^(Done|It reads|All \d+|It is out|It stands|Loaded|It came|Head raised)/,
    });
    if (done) fireEvent.press(done);
    else fireEvent.press(within(now()).getByRole('button', { name: /^(Heating|Switched|Target)/ }));
  }
  const label = now().props['aria-label'] as string;
  press(/^Other remedies for it: \d/);
  expect(screen.getAllByText(/likely to clear it/).length).toBeGreaterThan(0);
  const remedy = remedyOf(label);
  press(outcomesOfRung(remedy).find(({ means }) => means === 'no-change')?.label ?? '', now());
  expect(rung()).toBeDefined();
  expect(now().props['aria-label']).not.toBe(label);
});

test('a solvent is tried on a piece before the soak can begin', async () => {
  const desk = await deskOf(
    dunlin,
    begun(dunlin, 'break', 'break-plug', 'PLA', [
      ['rung-picked', { station: 'break', mode: 'break-plug', remedy: 'solvent-soak' }],
      ['parts-moved', { off: dunlin.parts.map(({ id }) => id) }],
    ]),
    (props) => <PlanScreen {...props} />,
    { ...noHistory, solvents: [{ solvent: 'acetone', material: 'PLA', tried: 4, softened: 1 }] },
  );
  press(/^Out of turn, now: Try the solvent on a piece/);
  // No part goes in before a piece has softened.
  expect(screen.queryByRole('button', { name: /^Out of turn, now: Soak the part/ })).not.toBeNull();
  expect(within(now()).getByText(/Here with this filament: 1 of 4 softened/)).toBeTruthy();
  const [no] = within(now()).getAllByRole('radio', { name: 'It did not' });
  fireEvent.press(no as never);
  const yes = within(now()).getAllByRole('radio', { name: 'The piece softened' });
  fireEvent.press(yes[1] as never);
  expect(desk.order().state.solvents).toEqual({ 'ethyl-acetate': false, acetone: true });
  press(/^Out of turn, now: Soak the part/);
  press(/^Start the timer/, now());
  expect(within(now()).getByLabelText('Time left')).toBeTruthy();
});

test('a part that comes off in two ways takes the quicker; the other one can be picked', async () => {
  const [open] = whelk.parts.filter(({ id }) => id === 'hot-end');
  if (!open) throw new Error('test data');
  const below = {
    id: 'from-below',
    name: 'from below',
    minutesOff: 2,
    minutesOn: 2,
    heat: 'cold',
    power: 'off',
    off: 'Two screws from below.',
    on: 'Both by hand first.',
  } as const;
  const machine: Machine = {
    ...whelk,
    parts: whelk.parts.map((part) => (part === open ? { ...part, ways: [below] } : part)),
  };
  const desk = await deskOf(
    machine,
    begun(machine, 'liner', 'liner-plug', 'PLA', [
      ['rung-picked', { station: 'liner', mode: 'liner-plug', remedy: 'renew-liner' }],
    ]),
    (props) => <PlanScreen {...props} />,
  );
  press(new RegExp(`^Out of turn, now: Off: ${open.name}`));
  const chosen = () =>
    within(now())
      .getAllByRole('radio')
      .map((item) => [item.props.accessibilityLabel, item.props.accessibilityState.checked]);
  const other = chosen().find(([, on]) => !on)?.[0] as string;
  fireEvent.press(within(now()).getByRole('radio', { name: other }));
  expect(chosen()).toContainEqual([other, true]);
  expect(Object.keys(desk.order().state.pickedWays)).toEqual([open.id]);
});

test('the timeline has the time of day, and the tools are fetched before the first screw', async () => {
  const desk = await deskOf(whelk, begun(whelk, 'extruder', 'gears-worn'), (props) => <PlanScreen {...props} />);
  expect(screen.getByText('Fetch before the first screw')).toBeTruthy();
  expect(
    screen.getByText(/^now 10:00 · done about 10:\d\d · \d+ min of work and \d+ min of waiting \(hatched\) left\.$/),
  ).toBeTruthy();
  press('The path is empty', now());
  act(() => jest.setSystemTime(new Date('2026-11-25T10:20:00')));
  desk.record('note-added', { text: 'tea' });
  act(() => jest.advanceTimersByTime(1000));
  expect(screen.getByText(/^Begun 10:00 · now 10:20 · /)).toBeTruthy();
});

test('every remedy that renews something says what can be fitted or what it costs', () => {
  for (const remedy of deliveredCatalogue.remedies.filter(({ replaces }) => replaces))
    expect((remedy.offers?.length ?? 0) > 0 || remedy.price !== undefined).toBe(true);
});

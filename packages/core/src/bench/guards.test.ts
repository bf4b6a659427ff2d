import { dunlin } from '../testing/machines';
import { later, schedule, type Moment, type Task } from './schedule';

const cold: Moment = { temperatureC: 22, targetC: 0, power: 'off', coldSure: true };
const hot: Moment = { temperatureC: 208, targetC: 208, power: 'on', coldSure: true };
const task = (id: string, more: Partial<Task> = {}): Task => ({
  id,
  kind: 'work',
  minutes: 2,
  heat: 'any',
  power: 'any',
  hotC: 0,
  after: [],
  ...more,
});
const atHeat = { heat: 'hot', power: 'on', hotC: 208 } as const;
const ids = (start: Moment, tasks: readonly Task[], off?: Parameters<typeof schedule>[3]): readonly string[] =>
  schedule(dunlin, start, tasks, off).turns.map((turn) => turn.task.id);

test('with plugs loose nothing is switched on: the part goes back first', () => {
  const close = task('close:unit', {
    kind: 'close',
    part: 'unit',
    loosens: true,
    heat: 'cold',
    power: 'off',
    minutes: 9,
  });
  expect(ids(cold, [task('push', atHeat), close], { loosens: ['unit'], unheats: [] })).toEqual(['close:unit', 'push']);
  // Recorded as switched on all the same: off first, and only then anything else.
  const { turns } = schedule(dunlin, { ...cold, power: 'on' }, [close], { loosens: ['unit'], unheats: [] });
  expect(turns[0]?.switched).toBe('off');
});

test('with the heater off its mount nothing is heated, but in its service position it is', () => {
  const close = task('close:end', { kind: 'close', part: 'end', unheats: true });
  const off = { loosens: [], unheats: ['end'] };
  expect(ids(cold, [task('push', atHeat), close], off)).toEqual(['close:end', 'push']);
  const serve = task('service:end', { serves: 'end', heat: 'cold' });
  const pull = task('pull', { ...atHeat, after: ['service:end'] });
  expect(ids(cold, [serve, pull, { ...close, after: ['pull'] }], off)).toEqual(['service:end', 'pull', 'close:end']);
  // What can be done neither way is no plan.
  expect(() => ids(cold, [task('push', { ...atHeat, after: [] }), { ...close, after: ['push'] }], off)).toThrow(
    RangeError,
  );
});

test('between wetting and drying there is no power', () => {
  const soak = task('soak', { heat: 'cold', power: 'off', wets: true });
  const dry = task('dry', { after: ['soak'], dries: true });
  const lamp = task('look', { power: 'on', after: ['soak'] });
  expect(ids(cold, [soak, lamp, dry])).toEqual(['soak', 'dry', 'look']);
  expect(
    ids(cold, [task('look', { power: 'on' }), task('dry', { dries: true })], { loosens: [], unheats: [], wet: true }),
  ).toEqual(['dry', 'look']);
});

test('a temperature for minutes is set for its own task, and left at once', () => {
  const brief = task('hotter', { heat: 'hot', power: 'on', hotC: 240, brief: true, thenC: 208 });
  const filler = task('fetch', { minutes: 5 });
  const { turns } = schedule(dunlin, hot, [brief, filler, task('needle', { ...atHeat, after: ['hotter'] })]);
  expect(turns.find((turn) => turn.target === 240)?.task.id).toBe('hotter');
  const after = turns[turns.findIndex((turn) => turn.task.id === 'hotter') + 1];
  expect(after?.before.targetC).toBe(208);
});

test('what takes no state is done as soon as it may be', () => {
  const keep = task('keep', { after: ['fit'], soon: true });
  expect(
    ids(cold, [task('fit', { heat: 'cold', power: 'off' }), task('heat', { ...atHeat, after: ['fit'] }), keep]),
  ).toEqual(['fit', 'keep', 'heat']);
});

test('a target cools as well as it heats', () => {
  expect(later(dunlin, { ...hot, targetC: 90 }, 600).temperatureC).toBeCloseTo(90, 6);
  expect(later(dunlin, { ...hot, targetC: 240 }, 600).temperatureC).toBe(240);
});

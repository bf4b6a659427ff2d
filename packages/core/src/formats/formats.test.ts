import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deliveredCatalogue } from '../catalogue/index';
import type { Machine } from '../path/machine';
import { dunlin, event, finding, takenIn, whelk } from '../testing/machines';
import { FormatError, parseCatalogue, parseEvent, parseMachine, parseOrder, schemas } from './index';

const root = join(__dirname, '../../../..');
const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
const fault = (read: () => unknown): string => {
  try {
    read();
  } catch (error) {
    if (error instanceof FormatError) return error.message;
    throw error;
  }
  return 'accepted';
};

describe('the published schemas', () => {
  test.each(Object.entries(schemas))('docs/formats has the %s schema that the program uses', (name, schema) => {
    expect(JSON.parse(readFileSync(join(root, 'docs/formats', `${name}.schema.json`), 'utf8'))).toEqual(schema);
  });

  test('the delivered catalogue fits its schema and is as large as promised', () => {
    expect(() => parseCatalogue(copy(deliveredCatalogue))).not.toThrow();
    expect(deliveredCatalogue.modes.length).toBeGreaterThanOrEqual(25);
    expect(deliveredCatalogue.checks.length).toBeGreaterThanOrEqual(20);
  });

  test('the catalogue holds together: every reference leads somewhere, no effect is more than certain', () => {
    const { modes, checks, symptoms, dimensions, remedies, onsets, before } = deliveredCatalogue;
    const values = new Map(dimensions.map((dimension) => [dimension.id, new Set(dimension.values)]));
    const known = (of: Readonly<Record<string, readonly string[]>>) =>
      Object.entries(of).forEach(([id, list]) =>
        list.forEach((value) => expect([id, value, values.get(id)?.has(value)]).toEqual([id, value, true])),
      );
    for (const mode of modes) {
      known(Object.fromEntries(Object.entries(mode.shows).map(([id, shows]) => [id, Object.keys(shows)])));
      for (const shows of Object.values(mode.shows))
        expect(Object.values(shows).reduce((sum, p) => sum + p, 0)).toBeLessThanOrEqual(1.0001);
      for (const id of mode.remedies) expect(remedies.some((remedy) => remedy.id === id)).toBe(true);
      for (const id of Object.keys(mode.onset ?? {})) expect(onsets.some((onset) => onset.id === id)).toBe(true);
    }
    for (const item of [...checks.flatMap((check) => check.results), ...symptoms]) known(item.when ?? {});
    for (const { finding: told } of before)
      if (told)
        expect(
          checks.find((check) => check.id === told.check)?.results.some((result) => result.id === told.result),
        ).toBe(true);
  });

  test('every kind of station of the two machines can fail and can be checked', () => {
    for (const machine of [whelk, dunlin])
      for (const { kind } of machine.runs.flatMap((run) => run.stations))
        expect([kind, deliveredCatalogue.modes.some((mode) => kind in mode.where)]).toEqual([kind, true]);
  });
});

describe('a machine that cannot be', () => {
  const broken: readonly [string, (machine: Machine & Record<string, unknown>) => unknown, RegExp][] = [
    ['unknown field', (m) => ({ ...m, colour: 'red' }), /^\/colour: unknown field/],
    ['wrong type', (m) => ({ ...m, strandMm: 'thick' }), /^\/strandMm: must be number/],
    ['missing field', (m) => ({ ...m, runs: undefined }), /^\/runs: this field is missing/],
    ['another version', (m) => ({ ...m, version: 9 }), /^\/version: must be "3"/],
    [
      'no nozzle',
      (m) => ({
        ...m,
        runs: m.runs.map((run) => ({ ...run, stations: run.stations.filter((s) => s.kind !== 'nozzle') })),
      }),
      /no station is a nozzle/,
    ],
    [
      'a lane that merges nowhere',
      (m) => ({ ...m, runs: m.runs.map((run) => ({ ...run, into: run.into && 'attic' })) }),
      /merges into "attic"/,
    ],
    ['a part that is not there', (m) => ({ ...m, parts: [] }), /no part has the id "front-cover"/],
    [
      'parts that hold each other',
      (m) => ({ ...m, parts: m.parts.map((p) => (p.id === 'front-cover' ? { ...p, after: ['hub-off'] } : p)) }),
      /off before itself/,
    ],
  ];
  test.each(broken)('%s', (_name, change, message) => {
    const faulty = change(copy(dunlin) as Machine & Record<string, unknown>);
    expect(fault(() => parseMachine(copy(faulty)))).toMatch(message);
  });
});

describe('an event that does not fit', () => {
  const good = copy(finding('glide@hub', 'stiff'));
  test.each([
    ['fits', good, /^accepted$/],
    ['unknown kind', { ...good, type: 'guess' }, /^\/type: must be one of: taken-in/],
    ['unknown field in the body', { ...good, body: { ...good.body, mood: 1 } }, /^\/body\/mood: unknown field/],
    [
      'over-long text',
      copy(event('note-added', { text: 'x'.repeat(2001) })),
      /^\/body\/text: must NOT have more than 2000/,
    ],
    ['not a UUID', { ...good, id: '7' }, /^\/id: must match format "uuid"/],
    [
      'no number where one belongs',
      { ...good, body: { ...good.body, value: 'deep' } },
      /^\/body\/value: must be number/,
    ],
  ])('%s', (_name, value, message) => {
    expect(fault(() => parseEvent(value))).toMatch(message);
  });
});

describe('npm run assess', () => {
  const folder = mkdtempSync(join(tmpdir(), 'assess-'));
  const file = (name: string, text: string): string => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };
  const run = (...files: string[]) =>
    spawnSync(process.execPath, ['-r', '@swc-node/register', 'packages/core/src/cli/assess.ts', ...files], {
      cwd: root,
      encoding: 'utf8',
    });
  const order = (events: unknown[]) =>
    JSON.stringify({
      format: 'zealous-tracer/order',
      version: 1,
      id: '00000000-0000-4000-8000-000000000abc',
      machine: dunlin,
      events,
    });

  test('prints suspicions, spans cleared, ranked checks with reasons, and advice', () => {
    const path = file(
      'good.json',
      order([takenIn(dunlin, { symptoms: ['not-reach'] }), finding('push-strand@gate-a>end', 'stops', 901)]),
    );
    const text = execFileSync(process.execPath, ['-r', '@swc-node/register', 'packages/core/src/cli/assess.ts', path], {
      cwd: root,
      encoding: 'utf8',
    });
    const answer = JSON.parse(text) as Record<string, never[]> & { advice: { kind: string } };
    expect(answer['stations']).toHaveLength(15 + 1);
    expect(answer['cleared']?.length).toBeGreaterThan(0);
    expect((answer['checks']?.[0] as { because?: unknown[] } | undefined)?.because?.length).toBeGreaterThan(0);
    expect(['check', 'repair']).toContain(answer.advice.kind);
  });

  test.each([
    ['not JSON', '{', /not JSON/],
    [
      'a bad event',
      order([takenIn(dunlin), finding('glide@hub', 'wobbles')]),
      /\/events\/1\/body\/result: .*no result "wobbles"/,
    ],
    [
      'a bad machine',
      JSON.stringify({
        format: 'zealous-tracer/order',
        version: 1,
        id: '00000000-0000-4000-8000-000000000abc',
        machine: { ...dunlin, strandMm: 99 },
        events: [],
      }),
      /\/machine\/strandMm: must be <= 5/,
    ],
  ])('%s: the JSON path and exit 2', (name, text, message) => {
    const result = run(file(`${name}.json`, text));
    expect(result.status).toBe(2);
    expect(result.stderr).toMatch(message);
    expect(result.stdout).toBe('');
  });

  test('no file, or one that is not there: exit 2', () => {
    expect(run().status).toBe(2);
    expect(run(join(folder, 'none.json')).stderr).toMatch(/no such file/);
  });

  test('a whole order file is read back as it was written', () => {
    expect(parseOrder(JSON.parse(order([copy(takenIn(whelk))]))).machine).toEqual(dunlin);
  });
});

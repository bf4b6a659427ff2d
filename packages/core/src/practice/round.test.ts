import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FAMILIES } from '../path/families';
import type { PracticeCase } from './practiceCase';
import { ACCIDENT_WORDS } from './accidentWords';
import { reviewRound } from './review';
import { faultWords, playRound, repairChoices, type RoundMove, type RoundPlayed } from './round';
import { casesOf, nextCase, plain, recordOf, seedFor } from './rounds';
import type { Hidden } from './roundBench';

const folder = join(__dirname, '../../../../cases');
const cases = readdirSync(folder)
  .filter((name) => name.endsWith('.json'))
  .map((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as PracticeCase);
const caseOf = (id: string): Hidden => ({ from: 'case', case: cases.find((one) => one.id === id) as PracticeCase });
const gears = caseOf('gears-and-arm');
const drawn: Hidden = { from: 'catalogue', family: 'bowden-open', seed: 5 };
const hands = (moves: readonly RoundMove[], hidden: Hidden = drawn): RoundPlayed => ({ hidden, level: 'hands', moves });
const repairOf = (state: ReturnType<typeof playRound>, station: string, mode: string): RoundMove => ({
  do: 'repair',
  station,
  mode,
  remedy:
    repairChoices(state)
      .find((one) => one.station === station)
      ?.causes.find((one) => one.mode === mode)?.remedies[0]?.id ?? '',
});

describe('A practice round', () => {
  it('stops what would hurt, says which accident, and leaves the bench as it was', () => {
    // Rules of the trade, no source: not off above 100 °C, no plug under power, no bare hand on a hot end.
    const hot: RoundMove[] = [{ do: 'heat' }];
    const tries: readonly (readonly [RoundMove, string])[] = [
      [{ do: 'power', to: 'off' }, 'off-hot'],
      [{ do: 'unplug', connector: playRound(hands([])).bench.machine.connectors[0]?.id ?? '' }, 'power-loose'],
    ];
    const before = playRound(hands(hot));
    for (const [move, accident] of tries) {
      const after = playRound(hands([...hot, move]));
      expect(after.entries.at(-1)).toMatchObject({ accident, readyMin: 0, waitMin: 0 });
      expect(after.hands).toEqual(before.hands);
      expect(ACCIDENT_WORDS[accident as 'off-hot']).toBeDefined();
    }
  });

  it('burns a bare hand that looks at a hot sink, and lets it look when it is cold', () => {
    const key = playRound(hands([], gears)).places.find(({ check }) => check.id === 'look-block')?.key ?? '';
    const open: RoundMove[] = [...playRound(hands([], gears)).bench.machine.parts].map(({ id }) => ({
      do: 'off',
      part: id,
    }));
    const cold = playRound(hands([{ do: 'look', key }], gears));
    expect(cold.entries[0]?.refused).toMatch(/covers it/);
    const ready: RoundMove[] = [
      { do: 'heat' },
      { do: 'unload' },
      { do: 'cool', to: 'touch' },
      { do: 'power', to: 'off' },
      ...open,
      ...open,
      ...open,
    ];
    const looked = playRound(hands([...ready, { do: 'look', key }], gears));
    expect(looked.entries.at(-1)?.finding?.key).toBe(key);
    const parts = playRound(hands([], gears)).bench.machine.parts.filter(({ hot, after }) => hot && !after?.length);
    for (const { id } of parts)
      expect(playRound(hands([{ do: 'heat' }, { do: 'off', part: id }], gears)).entries.at(-1)?.accident).toBe(
        'hot-hand',
      );
  });

  it('takes filament out of a nozzle only when it is molten', () => {
    expect(playRound(hands([{ do: 'unload' }])).entries[0]?.refused).toMatch(/frozen/);
    expect(playRound(hands([{ do: 'heat' }, { do: 'unload' }])).hands.bench.strand?.path).toBe('out');
  });

  it('makes the bench ready by itself on the first levels, and counts what that takes', () => {
    const { entries } = playRound({
      hidden: gears,
      level: 'signs',
      moves: [{ do: 'look', key: 'look-gears@extruder' }],
    });
    expect(entries[0]).toMatchObject({ finding: { result: 'cracked', also: ['worn'] } });
    expect(entries[0]?.readyMin).toBeGreaterThan(0);
  });

  it('is over when everything that was wrong is repaired, and not before', () => {
    const start = playRound({ hidden: gears, level: 'several', moves: [] });
    const arm = repairOf(start, 'extruder', 'arm-cracked');
    const teeth = repairOf(start, 'extruder', 'gears-worn');
    const one = playRound({ hidden: gears, level: 'several', moves: [arm] });
    expect([one.over, one.bench.cured()]).toEqual([undefined, false]);
    const both = playRound({ hidden: gears, level: 'several', moves: [arm, teeth, { do: 'give-up' }] });
    expect(both.over).toBe('cured');
    expect(both.entries).toHaveLength(2);
  });

  it('counts a sound part that was renewed', () => {
    const start = playRound({ hidden: gears, level: 'signs', moves: [] });
    const renew = repairChoices(start)
      .flatMap(({ station, causes }) =>
        causes.flatMap(({ mode, remedies }) => remedies.map((remedy) => ({ station, mode, remedy }))),
      )
      .find(({ station, remedy }) => station === 'nozzle' && remedy.replaces !== undefined);
    const moves: RoundMove[] = [
      { do: 'repair', station: 'nozzle', mode: renew?.mode ?? '', remedy: renew?.remedy.id ?? '' },
      { do: 'give-up' },
    ];
    const record = recordOf({ hidden: gears, level: 'signs', moves }, { id: 'a', person: 'b', at: 'c' });
    expect(record).toMatchObject({ soundRenewed: 1, repairs: 1, looks: 0, outcome: 'gave-up', family: 'hub-head' });
  });

  it.each(cases.map((one) => [one.id, one] as const))('%s can be brought to its end', (_, one) => {
    let played: RoundPlayed = { hidden: { from: 'case', case: one }, level: 'several', moves: [] };
    for (const { station, mode } of one.faults) {
      const state = playRound(played);
      const rungs =
        repairChoices(state)
          .find((choice) => choice.station === station)
          ?.causes.find((cause) => cause.mode === mode)?.remedies ?? [];
      const moves: RoundMove[] =
        mode === undefined
          ? [{ do: 'not-listed', station }]
          : rungs.map(({ id }): RoundMove => ({ do: 'repair', station, mode, remedy: id }));
      played = { ...played, moves: [...played.moves, ...moves] };
    }
    expect(playRound(played).over).toBe(one.faults.some(({ mode }) => mode === undefined) ? 'called' : 'cured');
    expect(faultWords(playRound(played)).join()).not.toMatch(/undefined/);
  });

  it('draws the same fault from the same seed, on every family, and always one that shows', () => {
    for (const { id } of FAMILIES)
      for (const seed of [1, 2, 3]) {
        const of = (): RoundPlayed => ({ hidden: { from: 'catalogue', family: id, seed }, level: 'signs', moves: [] });
        const { bench, places } = playRound(of());
        expect(bench.faults.length).toBeGreaterThan(0);
        expect(bench.kase().symptoms.length).toBeGreaterThan(0);
        const moves: RoundMove[] = places.slice(0, 6).map(({ key }) => ({ do: 'look', key }));
        const found = (): unknown => playRound({ ...of(), moves }).entries.map(({ finding }) => finding);
        expect(found()).toEqual(found());
      }
  });

  it('whatever is done: time never runs back, and what is refused changes nothing', () => {
    const { machine } = playRound(hands([])).bench;
    const any = fc.oneof(
      fc.constantFrom<RoundMove>(
        { do: 'heat' },
        { do: 'cool', to: 'touch' },
        { do: 'cool', to: 'switch-off' },
        { do: 'power', to: 'off' },
        { do: 'power', to: 'on' },
        { do: 'unload' },
        { do: 'raise' },
      ),
      fc.constantFrom(...machine.parts.map(({ id }): RoundMove => ({ do: 'off', part: id }))),
      fc.constantFrom(...machine.parts.map(({ id }): RoundMove => ({ do: 'on', part: id }))),
      fc.constantFrom(...machine.connectors.map(({ id }): RoundMove => ({ do: 'unplug', connector: id }))),
      fc.constantFrom(...playRound(hands([])).places.map(({ key }): RoundMove => ({ do: 'look', key }))),
    );
    fc.assert(
      fc.property(fc.array(any, { maxLength: 14 }), (moves) => {
        const { entries, hands: after } = playRound(hands(moves));
        expect(entries).toHaveLength(moves.length);
        for (const { readyMin, waitMin, workMin } of entries)
          expect(Math.min(readyMin, waitMin, workMin)).toBeGreaterThanOrEqual(0);
        // Only what was done counts: the refused moves left out, it comes to the same.
        const done = moves.filter((_, i) => !entries[i]?.accident && entries[i]?.refused === undefined);
        expect(playRound(hands(done)).hands.bench).toEqual(after.bench);
        const { bench } = after;
        if (bench.power === 'off') expect(bench.targetC ?? 0).toBe(0);
      }),
      { numRuns: 60 },
    );
  });
});

describe('A round looked at afterwards', () => {
  const moves: RoundMove[] = [
    { do: 'look', key: 'feel-fan@sink' },
    { do: 'look', key: 'look-gears@extruder' },
    { do: 'give-up' },
  ];
  const review = reviewRound({ hidden: gears, level: 'signs', moves });

  it('shows the tracer’s way to a cure beside the own one', () => {
    expect(review.tracerCured).toBe(true);
    expect(review.tracer.at(-1)).toMatchObject({ kind: 'repair', helped: true });
    expect(review.own.map(({ name }) => name)).toContain('Gave up');
  });

  it('says of each choice what it was worth when it was made', () => {
    const [fan, teeth] = review.worth;
    // A fan strip tells next to nothing of worn teeth; a look at the teeth does.
    expect(fan?.bits).toBeLessThan(teeth?.bits ?? 0);
    expect(fan?.expected).toBeGreaterThan(fan?.bestExpected ?? Infinity);
  });

  it('spends the minutes where they went, and all of them', () => {
    const { ready, waiting, looks, repairs } = review.spent;
    expect(ready + waiting + looks + repairs).toBeCloseTo(review.ownMinutes, 6);
    expect(looks).toBeGreaterThan(0);
    expect(repairs).toBe(0);
  });
});

describe('A drawn fault', () => {
  it('is one alone on the first level', () => {
    const faults = (seed: number): number =>
      playRound({ hidden: { from: 'catalogue', family: 'hub-head', seed }, level: 'signs', moves: [] }).bench.faults
        .length;
    const seeds = Array.from({ length: 40 }, (_, i) => i);
    expect(seeds.some((seed) => faults(seed) > 1)).toBe(true);
    for (const seed of seeds) expect(faults(seedFor('signs', 'hub-head', seed))).toBe(1);
    for (const seed of seeds) expect(seedFor('several', 'hub-head', seed)).toBe(seed);
  });
});

describe('The next case', () => {
  it('is one that was done least often, of the level and family asked for', () => {
    const easy = casesOf(cases, 'signs');
    expect(easy.length).toBeGreaterThan(15);
    expect(casesOf(cases, 'several').length).toBeGreaterThan(15);
    const done = easy.slice(1).map(({ id }) => id);
    for (const chance of [0, 0.5, 0.99]) expect(nextCase(cases, 'signs', done, chance)).toBe(easy[0]);
    expect(nextCase(cases, 'hands', [], 0.3, 'bowden-open')?.family).toBe('bowden-open');
    expect(nextCase(cases, 'hands', [], 0.3, 'no-such-family')).toBeUndefined();
    expect(plain(cases.find(({ id }) => id === 'edge-innocent') as PracticeCase)).toBe(false);
  });
});

import fc from 'fast-check';
import { BODIES, runHeat, type HeatPhase, type HeatTask } from './heatCreep';
import { airFactorFrom, peakSpread, softening } from './softening';

const task = (phases: readonly HeatPhase[] = [], rest: Partial<HeatTask> = {}): HeatTask => ({
  body: BODIES['all-metal'],
  ambientC: 22,
  targetC: 210,
  tauS: 180,
  strandMm: 1.75,
  phases,
  ...rest,
});
const MINUTE = 60;
const off = (fan: HeatPhase['fan'], minutes = 30): HeatPhase => ({ seconds: minutes * MINUTE, heater: 'off', fan });
const on = (fan: HeatPhase['fan'], minutes = 60): HeatPhase => ({ seconds: minutes * MINUTE, heater: 'hold', fan });

describe('the steady state', () => {
  // Incropera, Fundamentals of Heat and Mass Transfer, table 3.4, case B: θ = θb cosh m(L − x) / cosh mL, q = √(hPkA) θb tanh mL.
  test('is the analytic fin behind the resistance of the break', () => {
    const body = { ...BODIES['all-metal'], wallToStrand: 1e-9 };
    const { frames, heightMm } = runHeat(task([], { body, refine: 4 }));
    const h = 50;
    const length = body.sinkMm / 1000;
    const perimeter = body.sinkSurfaceMm2 / 1e6 / length;
    const area = body.sinkAreaMm2 / 1e6;
    const m = Math.sqrt((h * perimeter) / (body.sinkK * area));
    const fin = Math.sqrt(h * perimeter * body.sinkK * area) * Math.tanh(m * length);
    const neck = (body.neckK * body.neckAreaMm2) / 1e6 / (body.neckMm / 1000);
    const base = ((210 - 22) * neck) / (neck + fin);
    frames[0]?.metalC.forEach((t, i) => {
      const x = ((heightMm[i] ?? 0) - body.neckMm) / 1000;
      if (x < 0) return;
      const theta = (base * Math.cosh(m * (length - x))) / Math.cosh(m * length);
      expect(Math.abs(t - 22 - theta) / theta).toBeLessThan(0.002);
    });
  });

  test('with the fan running the cold zone stays cold; it is the fan that does it', () => {
    const { peakC } = softening(runHeat(task()), 60);
    expect(peakC).toBeGreaterThan(25);
    expect(peakC).toBeLessThan(50);
  });
});

describe('over time', () => {
  test('no heat is lost or made: what left the block went into the air or is still held', () => {
    for (const phases of [[on('dead')], [off('dead')], [on('half', 10), off('full', 10), off('dead', 10)]]) {
      const run = runHeat(task(phases));
      expect(Math.abs(run.balanceJ)).toBeLessThan(0.01);
    }
  });

  test('a finer grid and shorter steps change the warmest by less than half a degree', () => {
    for (const phases of [[on('dead', 20)], [off('dead', 20)]]) {
      const coarse = softening(runHeat(task(phases)), 60);
      const fine = softening(runHeat(task(phases, { refine: 4, stepS: 0.1 })), 60);
      expect(Math.abs(coarse.peakC - fine.peakC)).toBeLessThan(0.5);
    }
  });

  test('long enough with a dead fan, it comes to the steady state of a dead fan', () => {
    const { frames } = runHeat(task([on('dead', 600)]));
    const last = frames.at(-1)?.metalC.at(-1) ?? 0;
    const before = frames.at(-60)?.metalC.at(-1) ?? 0;
    expect(last - before).toBeLessThan(0.05);
    expect(last).toBeGreaterThan(60);
  });

  test('the block cools by its own constant while little goes up the break', () => {
    const body = { ...BODIES['all-metal'], neckAreaMm2: 1e-6 };
    const { frames } = runHeat(task([off('dead', 10)], { body, stepS: 0.1 }));
    // 220 → 100 °C takes 167.7 s at τ 180 s and 22 °C; from 210: τ ln(188/78) = 158.4 s.
    const at = frames.findIndex(({ blockC }) => blockC <= 100);
    expect(frames[at]?.atS).toBeCloseTo(160, -1);
  });

  test('no cell is ever colder than the room or hotter than the target', () => {
    const kinds = fc.constantFrom(...Object.values(BODIES));
    const phase = fc.record({
      seconds: fc.integer({ min: 1, max: 900 }),
      heater: fc.constantFrom('hold' as const, 'off' as const),
      fan: fc.constantFrom('full' as const, 'half' as const, 'dead' as const),
    });
    fc.assert(
      fc.property(kinds, fc.array(phase, { minLength: 1, maxLength: 4 }), (body, phases) => {
        const all = runHeat(task(phases, { body })).frames.flatMap(({ metalC, strandC }) => [...metalC, ...strandC]);
        expect(all.reduce((a, b) => Math.min(a, b))).toBeGreaterThan(22 - 1e-6);
        expect(all.reduce((a, b) => Math.max(a, b))).toBeLessThan(210 + 1e-6);
      }),
      { numRuns: 30 },
    );
  });
});

describe('does the strand soften where it should be cold', () => {
  // Common practice, no source: a dead fan softens PLA within the hour; polycarbonate (147 °C) is not troubled.
  test('with a dead fan PLA does, in minutes, and some way up; PC does not', () => {
    const run = runHeat(task([on('dead')]));
    const pla = softening(run, 60);
    expect(pla.softAtS).toBeGreaterThan(30);
    expect(pla.softAtS).toBeLessThan(30 * MINUTE);
    expect(pla.softToMm).toBeGreaterThan(5);
    expect(softening(run, 147).softAtS).toBeUndefined();
  });

  test('half a fan is between none and all; a hotter target is worse', () => {
    const peak = (fan: HeatPhase['fan'], targetC = 210) => softening(runHeat(task([on(fan)], { targetC })), 60).peakC;
    expect(peak('full')).toBeLessThan(peak('half'));
    expect(peak('half')).toBeLessThan(peak('dead'));
    expect(peak('dead', 250)).toBeGreaterThan(peak('dead'));
  });

  // Practice: never off above 100 °C. What waiting with the fan running brings is what the rule is for.
  test('switched off hot with its fan it gets warmer than after waiting until 100 °C', () => {
    const hot = softening(runHeat(task([off('dead')])), 60).peakC;
    const { frames } = runHeat(task([off('full', 30)]));
    const wait = frames.find(({ blockC }) => blockC <= 100)?.atS ?? 0;
    const waited = softening(runHeat(task([{ seconds: wait, heater: 'off', fan: 'full' }, off('dead')])), 60);
    expect(waited.peakC).toBeLessThan(hot - 5);
  });

  test('the answer has a spread, and a sink that was measured narrows it', () => {
    const phases = [off('dead')];
    const wide = peakSpread(task(phases), 60);
    expect(wide).toBeGreaterThan(1);
    const airFactor = airFactorFrom(task(), 34);
    expect(peakSpread(task(phases, { airFactor }), 60)).toBeLessThan(wide);
  });

  test('from a sink’s temperature comes back the air that made it; one that no air explains is refused', () => {
    const { frames, heightMm, coldFromMm } = runHeat(task([], { airFactor: 0.7 }));
    const cold = [...(frames[0]?.metalC ?? [])].filter((_, i) => (heightMm[i] ?? 0) > coldFromMm);
    const sinkC = cold.reduce((sum, t) => sum + t, 0) / cold.length;
    expect(airFactorFrom(task(), sinkC)).toBeCloseTo(0.7, 3);
    expect(() => airFactorFrom(task(), 20)).toThrow(/does not fit a room at 22 °C/);
    expect(() => runHeat(task([], { targetC: 20 }))).toThrow(RangeError);
  });
});

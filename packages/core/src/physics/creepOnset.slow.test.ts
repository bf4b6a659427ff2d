import { deliveredCatalogue } from '../catalogue/index';
import { BODIES, runHeat, type HotEndKind } from './heatCreep';
import { creepOnset, CREEPS, shareOf } from './creepOnset';
import { peakSpread, softening } from './softening';

const KINDS = Object.keys(BODIES) as HotEndKind[];

test('the curves say what the model itself says, for other filaments, rooms and targets', () => {
  let soft = 0;
  for (const kind of KINDS)
    for (const creep of CREEPS)
      for (const [glassC, ambientC, targetC] of [
        [60, 22, 208],
        [80, 22, 240],
        [60, 45, 208],
        [105, 50, 250],
      ] as const) {
        const task = {
          body: BODIES[kind],
          ambientC,
          targetC,
          tauS: 180,
          strandMm: 1.75,
          phases: [
            creep === 'off'
              ? ({ seconds: 3600, heater: 'off', fan: 'dead' } as const)
              : ({ seconds: 3600, heater: 'hold', fan: creep } as const),
          ],
        };
        const { peakC, softAtS } = softening(runHeat(task), glassC);
        const found = creepOnset(kind, creep, shareOf(glassC, ambientC, targetC));
        expect(found.softens > 0.5).toBe(peakC > glassC);
        // Within the curve's own step of a fiftieth and the model's of ten seconds.
        if (softAtS !== undefined && found.afterS !== undefined)
          expect(Math.abs(found.afterS - softAtS)).toBeLessThan(0.12 * softAtS + 25);
        else expect(Math.abs(peakC - glassC)).toBeLessThan(softAtS === found.afterS ? Infinity : 5);
        if (softAtS !== undefined) soft++;
        // How sure: by the spread, as the page has it.
        const z = (peakC - glassC) / peakSpread(task, glassC);
        if (Math.abs(z) < 2) expect(found.softens).toBeCloseTo(normal(z), 1);
      }
  expect(soft).toBeGreaterThan(6);
});

/** Normal distribution by the midpoint rule, apart from the series in the code. */
function normal(z: number): number {
  let sum = 0;
  for (let x = -8; x < z; x += 0.001) sum += Math.exp(-((x + 0.0005) ** 2) / 2) * 0.001;
  return sum / Math.sqrt(2 * Math.PI);
}

test('what softens at a higher temperature softens less likely and later', () => {
  const soft = deliveredCatalogue.materials.flatMap(({ glassC, printC }) =>
    glassC === undefined ? [] : [shareOf(glassC, 22, printC)],
  );
  const shares = [...new Set(soft)].sort((a, b) => a - b);
  for (const kind of KINDS)
    for (const creep of CREEPS)
      shares.slice(1).forEach((share, i) => {
        const before = creepOnset(kind, creep, shares[i] as number);
        const now = creepOnset(kind, creep, share);
        expect(now.softens).toBeLessThan(before.softens);
        expect(now.afterS ?? Infinity).toBeGreaterThanOrEqual(before.afterS ?? Infinity);
      });
});

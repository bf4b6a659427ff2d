import { couplerTravel, planTube, retractionChange, type TubeTask } from './tubePlan';

const up = { x: 0, y: 0, z: 1 };
const task = (rest: Partial<TubeTask> = {}): TubeTask => ({
  fixed: { at: { x: 0, y: 0, z: 0 }, towards: up },
  moving: { at: { x: 200, y: 0, z: 0 }, towards: up },
  travel: { x: 0, y: 0, z: 0 },
  seatFixedMm: 10,
  seatMovingMm: 40,
  leastRadiusMm: 40,
  marginMm: 0,
  ...rest,
});

test('mouths that face each other: a straight tube, as long as they are apart, and no bend', () => {
  const plan = planTube(
    task({
      fixed: { at: { x: 0, y: 0, z: 0 }, towards: { x: 1, y: 0, z: 0 } },
      moving: { at: { x: 300, y: 0, z: 0 }, towards: { x: -1, y: 0, z: 0 } },
    }),
  );
  expect(plan.freeMm).toBeCloseTo(300, 0);
  expect(plan.cutMm - plan.freeMm).toBeCloseTo(50, 9);
  expect(plan.tightest.radiusMm).toBeGreaterThan(500);
});

// Closed form: no curve that keeps radius R is shorter than arc, straight, arc (Dubins 1957): here π R + (200 − 2 R). A springy
// tube does not bend so evenly, so it is a little longer, never shorter.
test.each([20, 40, 60, 80])(
  'two mouths side by side pointing up, radius %i: near the shortest curve there is',
  (radius) => {
    const plan = planTube(task({ leastRadiusMm: radius }));
    const least = Math.PI * radius + 200 - 2 * radius;
    expect(plan.freeMm).toBeGreaterThan(least - 0.5);
    expect(plan.freeMm / least).toBeLessThan(1.15);
    expect(plan.tightest.bendRad).toBeCloseTo(Math.PI, 2);
    expect(plan.tightest.radiusMm).toBeGreaterThanOrEqual(radius * 0.98);
  },
);

test('it reaches every corner of travel, with the margin at the farthest and slack at the nearest', () => {
  const plan = planTube(task({ travel: { x: 150, y: 200, z: 0 }, marginMm: 5 }));
  expect(plan.corners).toHaveLength(4);
  const far = Math.max(...plan.corners.map((corner) => corner.shortestMm));
  expect(plan.freeMm).toBeCloseTo(far + 5, 6);
  expect(Math.min(...plan.corners.map((corner) => corner.slackMm))).toBeCloseTo(5, 6);
  expect(plan.slackest.slackMm).toBeGreaterThan(50);
  // Every curve drawn is as long as the tube: summed from its own points.
  for (const { curve } of plan.corners) {
    const sum = curve.slice(1).reduce((total, p, i) => {
      const q = curve[i];
      return total + Math.hypot(p.x - (q?.x ?? 0), p.y - (q?.y ?? 0), p.z - (q?.z ?? 0));
    }, 0);
    expect(sum / plan.freeMm).toBeCloseTo(1, 2);
  }
});

test('a larger least radius asks for a longer tube; a mouth that points nowhere is refused', () => {
  const short = planTube(task({ leastRadiusMm: 40 }));
  const long = planTube(task({ leastRadiusMm: 90 }));
  expect(long.freeMm).toBeGreaterThan(short.freeMm);
  expect(() => planTube(task({ leastRadiusMm: 0 }))).toThrow(RangeError);
  expect(() => planTube(task({ fixed: { at: { x: 0, y: 0, z: 0 }, towards: { x: 0, y: 0, z: 0 } } }))).toThrow(/point/);
});

test('retraction after a tighter bore: less by the difference of the slacks', () => {
  // 0.25 mm over 540° is 2.356 mm, 0.15 mm is 1.414 mm: 0.942 mm less.
  const bendRad = 3 * Math.PI;
  expect(retractionChange(1.75, { boreMm: 2, bendRad }, { boreMm: 1.9, bendRad })).toBeCloseTo(1.414 - 2.356, 3);
});

// ISO 261: M6 × 1 and M10 × 1, three quarters of a turn.
test('a coupler moves the tube end by turns times pitch', () => {
  expect(couplerTravel('M10', 0.75)).toBe(0.75);
  expect(couplerTravel('M6', 0.75)).toBe(0.75);
  expect(() => couplerTravel('M7', 1)).toThrow(/not known/);
});

// Two mouths that point the same sideways way are the same shape as two that point up: laid on one plane it would come out otherwise.
test('mouths that point sideways out of the plane are refused, not flattened; a slight lean is near enough', () => {
  const sideways = (y: number, z: number): TubeTask => {
    const { fixed, moving, ...rest } = task({});
    return {
      ...rest,
      fixed: { ...fixed, towards: { x: 0, y, z } },
      moving: { ...moving, towards: { x: 0, y, z } },
    };
  };
  expect(() => planTube(sideways(1, 0))).toThrow(/twists in space.*measure it/);
  expect(() => planTube(sideways(1, 1))).toThrow(RangeError);
  const upright = planTube(sideways(0, 1)).freeMm;
  expect(Math.abs(planTube(sideways(0.3, 1)).freeMm / upright - 1)).toBeLessThan(0.1);
});

import { elastica } from './elastica';

const up = Math.PI / 2;

// Shapes of constant curvature are elasticas with no force at their ends (Euler 1744; any text on the elastica).
test('half a circle between two mouths that point up, a quarter between crossed ones', () => {
  const half = elastica(200, 0, Math.PI * 100, up, -up);
  expect((half?.radiusMm ?? 0) / 100).toBeCloseTo(1, 1);
  expect(half?.bendRad).toBeCloseTo(Math.PI, 6);
  const quarter = elastica(80, 80, (Math.PI * 80) / 2, up, 0);
  expect((quarter?.radiusMm ?? 0) / 80).toBeCloseTo(1, 1);
});

test('straight when it has no spare; nothing when it does not reach', () => {
  expect(elastica(300, 0, 300, 0, 0)?.bendRad).toBeLessThan(1e-3);
  expect(elastica(300, 0, 299, 0, 0)).toBeUndefined();
});

test('the end is where it is held, at any length', () => {
  for (const mm of [250, 330, 420, 600]) {
    const shape = elastica(120, -80, mm, up, -up);
    let x = 0;
    let z = 0;
    shape?.angles.forEach((angle) => {
      x += Math.cos(angle) * shape.stepMm;
      z += Math.sin(angle) * shape.stepMm;
    });
    expect([x, z].map((v) => Math.round(v * 1000) / 1000)).toEqual([120, -80]);
  }
});

/** Bending energy of a chain of angles between clamped ends, as ∫κ² ds. */
function energyOf(angles: readonly number[], stepMm: number, start: number, end: number): number {
  const all = [start, ...angles, end];
  return all.slice(1).reduce((sum, angle, i) => {
    const over = i === 0 || i === all.length - 2 ? stepMm / 2 : stepMm;
    return sum + (angle - (all[i] as number)) ** 2 / over;
  }, 0);
}

/** Moves a chain by two waves, as little as brings its end back to where it is held (Newton). */
function heldAt(angles: readonly number[], stepMm: number, dx: number, dz: number): readonly number[] {
  const wave = (k: number, i: number): number => Math.sin((Math.PI * k * (i + 0.5)) / angles.length);
  let [a, b] = [0, 0];
  const shaped = () => angles.map((angle, i) => angle + a * wave(1, i) + b * wave(2, i));
  for (let round = 0; round < 30; round++) {
    let [x, z, xa, xb, za, zb] = [-dx, -dz, 0, 0, 0, 0];
    shaped().forEach((angle, i) => {
      const [cos, sin] = [Math.cos(angle) * stepMm, Math.sin(angle) * stepMm];
      x += cos;
      z += sin;
      xa -= sin * wave(1, i);
      xb -= sin * wave(2, i);
      za += cos * wave(1, i);
      zb += cos * wave(2, i);
    });
    const det = xa * zb - xb * za;
    a -= (x * zb - z * xb) / det;
    b -= (z * xa - x * za) / det;
  }
  return shaped();
}

test.each([3, 4, 5, 6, 7])(
  'no shape with the same ends and length bends with less energy: bumped by %i half waves and held, it costs more',
  (k) => {
    const [dx, dz] = [150, 40];
    const shape = elastica(dx, dz, 380, up, -up);
    if (!shape) throw new Error('test data');
    const angles = [...shape.angles];
    expect(energyOf(angles, shape.stepMm, up, -up)).toBeCloseTo(shape.energy, 9);
    for (const size of [-0.1, -0.04, 0.04, 0.1]) {
      const bumped = angles.map((angle, i) => angle + size * Math.sin((Math.PI * k * (i + 0.5)) / angles.length));
      const held = heldAt(bumped, shape.stepMm, dx, dz);
      const along = (part: (angle: number) => number): number =>
        held.reduce((sum, angle) => sum + part(angle) * shape.stepMm, 0);
      expect(along(Math.cos)).toBeCloseTo(dx, 6);
      expect(along(Math.sin)).toBeCloseTo(dz, 6);
      expect(energyOf(held, shape.stepMm, up, -up)).toBeGreaterThan(shape.energy);
    }
  },
);

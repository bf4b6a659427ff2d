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

test('no shape with the same ends and length bends with less energy: small changes that keep the ends cost more', () => {
  const shape = elastica(150, 40, 380, up, -up);
  if (!shape) throw new Error('test data');
  const n = shape.angles.length;
  for (let k = 1; k <= 6; k++) {
    const bumped = shape.angles.map((angle, i) => angle + 0.05 * Math.sin((Math.PI * k * i) / (n - 1)));
    const held = elastica(150, 40, 380, up, -up, bumped);
    // Let go again, it comes back to the same shape.
    expect((held?.energy ?? 0) / shape.energy).toBeCloseTo(1, 2);
  }
});

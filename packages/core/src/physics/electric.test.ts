import { steinhartHart, thermistorC, thermistorOhms } from './electric';

// A common 10 kΩ sensor, its maker's table points as they are given in worked examples of the equation (from memory): the constants are
// about 1.129e-3, 2.341e-4, 8.775e-8.
test('Steinhart and Hart’s constants through three points of a table', () => {
  const found = steinhartHart([
    [0, 32650],
    [25, 10000],
    [50, 3602],
  ]);
  expect(found.a * 1e3).toBeCloseTo(1.129, 2);
  expect(found.b * 1e4).toBeCloseTo(2.341, 1);
  for (const [t, r] of [
    [0, 32650],
    [25, 10000],
    [50, 3602],
  ] as const)
    expect(thermistorC(r, found)).toBeCloseTo(t, 9);
});

test('where a sensor follows its B equation the two agree, to a tenth of a degree over the whole range', () => {
  const found = steinhartHart([
    [25, thermistorOhms(25)],
    [150, thermistorOhms(150)],
    [250, thermistorOhms(250)],
  ]);
  expect(Math.abs(found.c)).toBeLessThan(1e-12);
  for (const t of [20, 60, 100, 200, 220, 280]) expect(thermistorC(thermistorOhms(t), found)).toBeCloseTo(t, 1);
});

test('points that are alike or cannot be are refused', () => {
  expect(() =>
    steinhartHart([
      [25, 100],
      [30, 100],
      [40, 50],
    ]),
  ).toThrow(/different/);
  expect(() =>
    steinhartHart([
      [25, 0],
      [30, 100],
      [40, 50],
    ]),
  ).toThrow(/above nothing/);
  expect(() => thermistorC(0, { a: 1, b: 1, c: 1 })).toThrow(RangeError);
});

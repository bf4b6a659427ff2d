import { errorFunction } from 'simple-statistics';
import { normalCdf, smearedMass, smearedPdf } from './normal';

test('distribution function agrees with simple-statistics and with the table: Φ(1.96) = 0.975', () => {
  for (let z = -4; z <= 4; z += 0.25)
    expect(normalCdf(z, 0, 1)).toBeCloseTo((1 + errorFunction(z / Math.SQRT2)) / 2, 4);
  expect(normalCdf(1.96, 0, 1)).toBeCloseTo(0.975, 4); // Abramowitz and Stegun, table 26.1
});

test('mass of a smeared place is the integral of its density, and the whole of it is one', () => {
  const [from, to, sd] = [100, 160, 6];
  const step = 0.05;
  let sum = 0;
  for (let x = 120; x < 150; x += step) sum += step * smearedPdf(x + step / 2, from, to, sd);
  expect(smearedMass(120, 150, from, to, sd)).toBeCloseTo(sum, 5);
  expect(smearedMass(0, 300, from, to, sd)).toBeCloseTo(1, 6);
});

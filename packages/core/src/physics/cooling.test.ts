import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { lastCooling, parseTemperatureLog, summariseLog } from '../printfile/temperatureLog';
import { fitCooling, timeToCool, type TimedReading } from './cooling';
import { coolingConstant, secondsToCool } from './heat';

const heat = { ambientC: 22, coolTauS: 180 };
const reading = (atS: number, tauS: number, noise = 0): TimedReading => ({
  atS,
  temperatureC: 22 + 198 * Math.exp(-atS / tauS) + noise,
});

test('two readings far apart: near the constant that they give by themselves, drawn a little to the machine’s own', () => {
  // 220 → 150 °C in 85 s: τ = 194.85 s, the worked value.
  const alone = coolingConstant(220, 150, 85, 22);
  expect(alone).toBeCloseTo(194.85, 2);
  const sharp = fitCooling(
    heat,
    [
      { atS: 0, temperatureC: 220 },
      { atS: 85, temperatureC: 150 },
    ],
    0.01,
  );
  expect(sharp.tauS).toBeCloseTo(alone, 2);
  const blunt = fitCooling(heat, [
    { atS: 0, temperatureC: 220 },
    { atS: 85, temperatureC: 150 },
  ]);
  expect(blunt.tauS).toBeGreaterThan(180);
  expect(blunt.tauS).toBeLessThan(alone);
  expect(blunt.tauSd).toBeLessThan(0.15 * 180);
});

test('many readings: agrees with a nonlinear least-squares fit of a general library', () => {
  let seed = 7;
  const noise = (): number => (((seed = (seed * 48271) % 2147483647) / 2147483647) * 2 - 1) * 1.5;
  const list = Array.from({ length: 40 }, (_, i) => reading(i * 10, 160, noise()));
  const { parameterValues } = levenbergMarquardt(
    { x: list.map((r) => r.atS), y: list.map((r) => r.temperatureC) },
    ([a = 0, tau = 1]) =>
      (t: number) =>
        22 + a * Math.exp(-t / tau),
    { initialValues: [150, 100], damping: 0.01, maxIterations: 400, gradientDifference: 1e-4, errorTolerance: 1e-9 },
  );
  const fit = fitCooling(heat, list);
  expect(fit.tauS / (parameterValues[1] ?? 0)).toBeCloseTo(1, 1);
  expect(Math.abs(fit.tauS - 160)).toBeLessThan(3 * fit.tauSd);
});

test('no readings, or only such near the room, leave the machine’s own constant with its spread', () => {
  expect(fitCooling(heat, [])).toEqual({ tauS: 180, tauSd: 27, readings: 0 });
  expect(fitCooling(heat, [reading(0, 160), { atS: 900, temperatureC: 23 }]).readings).toBe(0);
});

test('the time left is that of the exponential; its spread falls as readings come in', () => {
  const left = timeToCool(220, 48, 22, { tauS: 180, tauSd: 27 });
  expect(left.seconds).toBeCloseTo(secondsToCool(220, 48, 22, 180), 9);
  expect(left.seconds).toBeCloseTo(365.4, 1);
  const fit = fitCooling(
    heat,
    Array.from({ length: 8 }, (_, i) => reading(i * 20, 180)),
  );
  expect(timeToCool(120, 48, 22, fit).sd).toBeLessThan(timeToCool(120, 48, 22, fitCooling(heat, [])).sd / 1.5);
  expect(timeToCool(40, 48, 22, fit)).toEqual({ seconds: 0, sd: 0 });
  expect(() => timeToCool(100, 20, 22, fit)).toThrow(/will not cool/);
});

describe('temperature logs', () => {
  test('report lines with and without times, and CSV, are read; other lines are passed over', () => {
    const log = parseTemperatureLog(
      'start\n10:00:00 T:210.1 /210.0 B:60.0 /60.0\nok\n10:00:05.5 T:209.0 /0.0 B:59 /0\n',
    );
    expect(log).toEqual([
      { atS: 36000, temperatureC: 210.1, targetC: 210 },
      { atS: 36005.5, temperatureC: 209, targetC: 0 },
    ]);
    expect(parseTemperatureLog('s,T,target\n0, 210, 0\n2.5;208.5;0')).toEqual([
      { atS: 0, temperatureC: 210, targetC: 0 },
      { atS: 2.5, temperatureC: 208.5, targetC: 0 },
    ]);
    expect(() => parseTemperatureLog('nothing here')).toThrow(/No temperatures found/);
  });

  test('the last cooling is found behind heating and noise, and gives the constant it was made with', () => {
    const up = Array.from({ length: 60 }, (_, i) => `T:${(25 + 3 * i).toFixed(1)} /205.0`);
    const down = Array.from({ length: 200 }, (_, i) => `T:${(22 + 180 * Math.exp(-(i * 2) / 170)).toFixed(1)} /0.0`);
    const log = parseTemperatureLog([...up, ...down].join('\n'), 2);
    const stretch = lastCooling(log);
    expect(stretch).toHaveLength(200);
    expect(fitCooling(heat, stretch).tauS).toBeCloseTo(170, 0);
    expect(lastCooling(parseTemperatureLog(up.join('\n')))).toEqual([]);
    expect(summariseLog(log).heatUpCPerS).toBeCloseTo(1.5, 2);
    expect(summariseLog(log).jumps).toBe(0);
  });

  test('overshoot, swing and jumps are what heater and sensor show', () => {
    const log = parseTemperatureLog(
      [
        'T:200 /210',
        'T:214 /210',
        'T:211 /210',
        'T:209 /210',
        'T:212 /210',
        'T:209 /210',
        'T:90 /210',
        'T:210 /210',
      ].join('\n'),
    );
    expect(summariseLog(log)).toMatchObject({ overshootC: 4, jumps: 2 });
  });
});

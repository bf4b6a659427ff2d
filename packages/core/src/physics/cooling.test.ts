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
    1e-3,
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

test('a room that is warmer than believed is found, and its constant with it', () => {
  // 30 °C where 22 is believed: with the room held at 22 the constant of 180 s comes out as about 195.
  const warm = Array.from({ length: 60 }, (_, i): TimedReading => ({
    atS: i * 10,
    temperatureC: 30 + 190 * Math.exp(-(i * 10) / 180),
  }));
  const held = fitCooling(heat, warm, 2, 1e-3);
  expect(held.tauS).toBeGreaterThan(190);
  const free = fitCooling(heat, warm);
  expect(Math.abs(free.tauS - 180)).toBeLessThan(2 * free.tauSd);
  expect(free.tauS).toBeLessThan(184);
  expect(free.roomC).toBeGreaterThan(27.5);
  expect(Math.abs((free.roomC ?? 0) - 30)).toBeLessThan(2.5 * (free.roomSd ?? 0));
  // The spread says how little a short cooling tells of the room.
  expect(fitCooling(heat, warm.slice(0, 4)).tauSd).toBeGreaterThan(3 * free.tauSd);
});

test('a room that nobody works in is not believed: the constant is fitted to the machine’s own', () => {
  const odd = Array.from({ length: 60 }, (_, i): TimedReading => ({
    atS: i * 10,
    temperatureC: 90 + 120 * Math.exp(-(i * 10) / 120),
  }));
  const fit = fitCooling(heat, odd, 0.1);
  expect(fit.roomC).toBeCloseTo(22, 2);
  expect(fit.tauS).toBeGreaterThan(120);
});

test('agrees with a general library where room, constant and height are all free', () => {
  const warm = Array.from({ length: 60 }, (_, i): TimedReading => ({
    atS: i * 10,
    temperatureC: 33 + 180 * Math.exp(-(i * 10) / 140) + Math.sin(i * 7.3),
  }));
  const { parameterValues } = levenbergMarquardt(
    { x: warm.map((r) => r.atS), y: warm.map((r) => r.temperatureC) },
    ([a = 0, tau = 1, room = 0]) =>
      (t: number) =>
        room + a * Math.exp(-t / tau),
    {
      initialValues: [150, 100, 20],
      damping: 0.01,
      maxIterations: 600,
      gradientDifference: 1e-4,
      errorTolerance: 1e-9,
    },
  );
  // Priors so wide that only the readings speak: a reading counts as exact.
  const fit = fitCooling(heat, warm, 0.01);
  expect(fit.tauS / (parameterValues[1] ?? 0)).toBeCloseTo(1, 3);
  expect(fit.roomC).toBeCloseTo(parameterValues[2] ?? 0, 1);
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
    expect(summariseLog(log)).toMatchObject({ jumpsAtS: [], drops: [] });
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
    expect(summariseLog(log)).toMatchObject({ overshootC: 4, jumpsAtS: [6, 7], drops: [] });
    // A jump back is no heating up.
    const back = Array.from({ length: 40 }, (_, i) => `T:${i === 20 ? 90 : 210} /210`);
    expect(summariseLog(parseTemperatureLog(back.join('\n'))).heatUpCPerS).toBeUndefined();
  });

  test('falls below a target that was reached are drops; warming up, a new target and noise are none', () => {
    const line = (temperatureC: number, targetC = 210) => `T:${temperatureC} /${targetC}`;
    const log = parseTemperatureLog(
      [
        ...[150, 170, 190, 208, 210].map((t) => line(t)),
        ...[207, 203, 199, 204, 209].map((t) => line(t)),
        ...[207, 206, 210].map((t) => line(t)),
        ...[212, 220, 229].map((t) => line(t, 230)),
        ...[224, 222].map((t) => line(t, 230)),
      ].join('\n'),
    );
    expect(summariseLog(log).drops).toEqual([
      { atS: 7, deepC: 11 },
      { atS: 17, deepC: 8 },
    ]);
  });

  test('a clock that passes midnight goes on: the cooling over it is found, with its time', () => {
    const lines = Array.from({ length: 40 }, (_, i) => {
      const s = 86_400 - 200 + i * 10;
      const two = (n: number): string => String(n).padStart(2, '0');
      const clock = `${two(Math.floor(s / 3600) % 24)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`;
      return `${clock} T:${(22 + 180 * Math.exp(-(i * 10) / 180)).toFixed(2)} /0.0`;
    });
    const log = parseTemperatureLog(lines.join('\n'));
    expect((log.at(-1)?.atS ?? 0) - (log[0]?.atS ?? 0)).toBe(390);
    expect(log.every(({ atS }, i) => i === 0 || atS === (log[i - 1]?.atS ?? 0) + 10)).toBe(true);
    expect(lastCooling(log)).toHaveLength(40);
  });

  test('the swing is of the heat once it has settled, without the overshoot before', () => {
    const log = parseTemperatureLog(
      ['T:200 /210', 'T:214 /210', 'T:211 /210', 'T:209 /210', 'T:212 /210', 'T:209 /210', 'T:210 /210'].join('\n'),
    );
    expect(summariseLog(log)).toMatchObject({ overshootC: 4, swingC: 3, jumpsAtS: [] });
  });
});

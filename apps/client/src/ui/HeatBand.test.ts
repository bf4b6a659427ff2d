import type { HeatRecord } from '@zealous/core';
import { ageText, clockText } from './format';
import { logWords } from './HeatBand';
import { readHeat } from './readHeat';

const machine = { heat: { ambientC: 22, coolTauS: 180, heatUpCPerS: 2, limitC: 300 } };
const at = (heat: HeatRecord, power: 'on' | 'off', seconds: number) =>
  readHeat(machine, { heat, power }, seconds * 1000);
const record = (temperatureC: number, targetC: number): HeatRecord => ({ temperatureC, atMs: 0, targetC });

test('cold and off, switched on, heating, hot: each in words', () => {
  expect(at(record(22, 0), 'off', 0)).toEqual({ icon: 'cold', words: 'Cold and off', warm: false });
  expect(at(record(22, 0), 'on', 0).words).toBe('Switched on, cold');
  expect(at(record(22, 208), 'on', 30).words).toMatch(/^Heating: 82 °C of 208 °C, about \d:\d\d left$/);
  expect(at(record(22, 208), 'on', 600).words).toBe('Hot at 208 °C');
});

test('while it cools, the minutes to below 100 °C, then to safe to touch', () => {
  // 220 → 100 °C at 22 °C ambient with τ 180 s takes 167.7 s; 100 → 48 °C the rest of 365.4 s.
  expect(at(record(220, 0), 'on', 0).words).toMatch(/^Cooling, about 220 °C: below 100 °C in 2:48 ± 0:2\d$/);
  expect(at(record(220, 0), 'on', 170).words).toMatch(/safe to touch in 3:16 ± 0:[23]\d$/);
  expect(at(record(220, 0), 'on', 370).warm).toBe(false);
});

test('the spread narrows with readings, and only a reading says that it is cold', () => {
  const cooling = { tauS: 180, tauSd: 3, readings: 6 };
  expect(at({ ...record(220, 0), cooling }, 'on', 0).words).toMatch(/in 2:48$/);
  const unsure = at({ ...record(220, 0), coldSure: false }, 'on', 600);
  expect(unsure.warm).toBe(true);
  expect(unsure.words).toMatch(/a reading has to say so$/);
});

test('a switched-off machine that is still hot is not called cold', () => {
  expect(at(record(180, 0), 'off', 0).warm).toBe(true);
});

test('clocks and ages', () => {
  expect([clockText(130), clockText(0.2), clockText(-5), clockText(7300)]).toEqual([
    '2:10',
    '0:01',
    '0:00',
    '2 h 1 min',
  ]);
  expect(ageText('2026-11-24T09:00:00Z', Date.parse('2026-11-24T11:10:00Z'))).toBe('2 hours');
});

test('a log is told in figures, and what is wrong with heater or sensor is said', () => {
  const sound = { highestC: 212, overshootC: 2.5, swingC: 1.2, heatUpCPerS: 1.9, jumpsAtS: [], drops: [] };
  expect(logWords(sound, 2)).toEqual([
    'In the log: highest 212 °C, overshoot 2.5 °C, swing 1.2 °C, heats at 1.9 °C a second.',
  ]);
  expect(logWords({ ...sound, heatUpCPerS: 1 }, 2).at(-1)).toMatch(/heater, its plug/);
  expect(logWords({ highestC: 180, jumpsAtS: [7], drops: [] }, 2)).toEqual([
    'In the log: highest 180 °C.',
    '1 jump that no heater makes: look at the sensor’s wire and plug.',
  ]);
  const drops = [
    { atS: 60, deepC: 7 },
    { atS: 90, deepC: 12.4 },
  ];
  expect(logWords({ ...sound, drops }, 2).at(-1)).toMatch(/^It drops below its target 2 times, by up to 12 °C/);
});

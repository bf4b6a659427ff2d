/**
 * `npm run bench:heat`: an hour of machine time along each typical hot end, with a dead fan and after switching off hot: how long the
 * reckoning takes, how warm the strand gets in the cold zone, and how far steps of a second and the usual cells are from a four times
 * finer grid in tenths of a second.
 */
import { BODIES, heatQuestions, softening, type HeatTask } from '@zealous/core';
import { runHeat } from '../packages/core/src/physics/heatCreep';

const GLASS_C = 60;
const TIMES = 5;
const PHASES: Readonly<Record<string, HeatTask['phases']>> = {
  'prints on with a dead fan': [{ seconds: 3600, heater: 'hold', fan: 'dead' }],
  'prints on with half a fan': [{ seconds: 3600, heater: 'hold', fan: 'half' }],
  'switched off hot, all dead': [{ seconds: 3600, heater: 'off', fan: 'dead' }],
};

const rows = Object.entries(BODIES).flatMap(([kind, body]) =>
  Object.entries(PHASES).map(([what, phases]) => {
    const task: HeatTask = { body, ambientC: 22, targetC: 210, tauS: 180, strandMm: 1.75, phases };
    const times = Array.from({ length: TIMES }, () => {
      const began = performance.now();
      runHeat(task);
      return performance.now() - began;
    }).sort((a, b) => a - b);
    const usual = softening(runHeat(task), GLASS_C);
    const fine = softening(runHeat({ ...task, refine: 4, stepS: 0.1 }), GLASS_C);
    return {
      'hot end': kind,
      what,
      'ms, median': Number((times[Math.floor(TIMES / 2)] ?? 0).toFixed(0)),
      'warmest, °C': Number(usual.peakC.toFixed(1)),
      'after, min': Number((usual.peakAtS / 60).toFixed(1)),
      'softens after, s': usual.softAtS === undefined ? '' : Math.round(usual.softAtS),
      'finer, °C': Number(fine.peakC.toFixed(1)),
      'heat lost, J': Number(runHeat(task).balanceJ.toExponential(1)),
    };
  }),
);
console.table(rows);
const began = performance.now();
heatQuestions({ body: BODIES['all-metal'], ambientC: 22, targetC: 210, tauS: 180, strandMm: 1.75 }, GLASS_C);
console.log(
  `All questions of the screen with their spread: ${(performance.now() - began).toFixed(0)} ms (aim 300 for an hour of machine time)`,
);

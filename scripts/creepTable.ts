import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BODIES, type HotEndKind } from '@zealous/core';
import { runHeat } from '../packages/core/src/physics/heatCreep';
import { CREEPS } from '../packages/core/src/physics/creepOnset';
import { peakSpread, softening } from '../packages/core/src/physics/softening';

/** `npm run creep-table`: the curves of `creepOnset`, from the model, for a room at 0 and a target at 1. */
const HOUR = 3600;
const round = (x: number, digits: number): number => Number(x.toFixed(digits));
const curves = Object.fromEntries(
  (Object.keys(BODIES) as HotEndKind[]).map((kind) => [
    kind,
    Object.fromEntries(
      CREEPS.map((creep) => {
        const task = {
          body: BODIES[kind],
          ambientC: 0,
          targetC: 1,
          tauS: 180,
          strandMm: 1.75,
          phases: [
            creep === 'off'
              ? ({ seconds: HOUR, heater: 'off', fan: 'dead' } as const)
              : ({ seconds: HOUR, heater: 'hold', fan: creep } as const),
          ],
        };
        const run = runHeat(task);
        const { peakC } = softening(run, 2);
        const passes = Array.from({ length: 50 }, (_, i) => (i + 1) / 50).flatMap((theta) => {
          const { softAtS } = softening(run, theta);
          return softAtS === undefined ? [] : [[theta, round(softAtS, 1)]];
        });
        return [creep, { peak: round(peakC, 4), spread: round(peakSpread(task, 2), 4), passes }];
      }),
    ),
  ]),
);
writeFileSync(join(__dirname, '../packages/core/src/physics/creepTable.json'), `${JSON.stringify(curves)}\n`);

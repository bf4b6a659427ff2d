/**
 * `npm run bench:plan`: how long the work planner takes, by machine: one cause, three, and ten at once, from a hot bench;
 * and what share of the steps' words is generated from data.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  benchAt,
  deliveredCatalogue,
  planFor,
  reduceOrder,
  routeOf,
  type Machine,
  type OrderEvent,
} from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import { causesOf } from '../packages/core/src/observation/causes';

const folder = join(__dirname, '../demo/machines');
let made = 0;
const event = (type: string, body: object): OrderEvent =>
  ({
    id: `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`,
    at: '2026-12-01T09:00:00.000Z',
    by: 'bench',
    type,
    body,
  }) as unknown as OrderEvent;

function stateWith(machine: Machine, goals: number) {
  const kase = { machine, catalogue: deliveredCatalogue, symptoms: [], before: [], material: 'PLA' };
  const causes = causesOf(kase, routeOf(machine));
  // Spread over the path, so that they lie behind different parts.
  const chosen = Array.from({ length: goals }, (_, i) => causes[Math.floor((i * causes.length) / goals)]);
  const events = [
    event('taken-in', { number: 'b', machineId: machine.id, symptoms: [], before: [], material: 'PLA' }),
    event('bench-changed', { targetC: 208, readingC: 208, power: 'on' }),
    ...chosen.flatMap((cause, i) =>
      cause
        ? [
            event(i === 0 ? 'cause-chosen' : 'cause-added', {
              station: cause.stop.station.id,
              mode: cause.mode.id,
              ...(i === 0 ? { advised: true } : {}),
            }),
          ]
        : [],
    ),
  ];
  return reduceOrder(machine, deliveredCatalogue, events);
}

function main(): void {
  const rows = readdirSync(folder)
    .filter((name) => name.endsWith('.json'))
    .sort()
    .flatMap((name) => {
      const text = readFileSync(join(folder, name), 'utf8');
      return [1, 3, 10].map((goals) => {
        // A machine read anew has nothing worked out beforehand.
        const machine = parseMachine(JSON.parse(text));
        const state = stateWith(machine, goals);
        const bench = benchAt(machine, state, state.lastMs);
        const began = performance.now();
        const plan = planFor(machine, deliveredCatalogue, state, bench);
        return {
          machine: machine.name,
          parts: machine.parts.length,
          goals,
          steps: plan.steps.length,
          ms: Math.round(performance.now() - began),
          'hands-on min': Math.round(plan.handsOnMinutes),
          'waiting min': Math.round(plan.waitingMinutes),
          exact: plan.exact,
        };
      });
    });
  console.table(rows);
}

main();

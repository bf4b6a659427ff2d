/** `npm run bench:trace [-- ORDERS]`: simulated orders with a hidden fault, for the tracer and for fixed habits. Prints a table. */
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { mersenne, unsafeUniformIntDistribution } from 'pure-rand';
import { deliveredCatalogue } from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import { drawOrder, followHabit, followTracer, HABITS, type Random, type Tally } from '@zealous/core/practice';

const ORDERS = Number(process.argv[2] ?? 500);
const SEED = 20261124;
const folder = join(__dirname, '../demo/machines');

function seeded(seed: number): Random {
  const generator = mersenne(seed);
  return () => unsafeUniformIntDistribution(0, 0x7fffffff, generator) / 0x80000000;
}

const mean = (list: readonly number[]): number => list.reduce((sum, x) => sum + x, 0) / list.length;
const quantile = (list: readonly number[], q: number): number =>
  [...list].sort((a, b) => a - b)[Math.floor(q * (list.length - 1))] ?? 0;

function row(machine: string, policy: string, tallies: readonly Tally[]) {
  const minutes = tallies.map((tally) => tally.minutes);
  return {
    machine,
    policy,
    'mean min': Number(mean(minutes).toFixed(1)),
    '± s.e.': Number(Math.sqrt(mean(minutes.map((x) => (x - mean(minutes)) ** 2)) / minutes.length).toFixed(1)),
    '90th pct': Number(quantile(minutes, 0.9).toFixed(0)),
    'right first': `${Math.round(100 * mean(tallies.map((tally) => (tally.rightFirst ? 1 : 0))))} %`,
    checks: Number(mean(tallies.map((tally) => tally.checks)).toFixed(1)),
    repairs: Number(mean(tallies.map((tally) => tally.repairs)).toFixed(2)),
    'opened for nothing': Number(mean(tallies.map((tally) => tally.openedForNothing)).toFixed(2)),
  };
}

const rows = readdirSync(folder)
  .filter((name) => name.endsWith('.json'))
  .flatMap((name) => {
    const machine = parseMachine(JSON.parse(readFileSync(join(folder, name), 'utf8')));
    const orders = Array.from({ length: ORDERS }, (_, i) => drawOrder(machine, deliveredCatalogue, seeded(SEED + i)));
    return [
      row(
        machine.name,
        'tracer',
        orders.map((order, i) => followTracer(order, seeded(SEED * 2 + i))),
      ),
      ...HABITS.map((habit) =>
        row(
          machine.name,
          habit.name,
          orders.map((order, i) => followHabit(habit, order, seeded(SEED * 2 + i))),
        ),
      ),
    ];
  });
console.log(
  `${ORDERS} orders with a hidden fault on each machine, seed ${SEED}; bench minutes to a proved repair (waiting counts half)`,
);
console.table(rows);

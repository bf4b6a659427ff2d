/**
 * `npm run bench:learning [-- ORDERS [WORLDS [MACHINE …]]]`: what 200 learned orders win back of what a wrong catalogue costs. The same
 * orders are worked through with the delivered catalogue, with what was learned and with the world as it is, so that the
 * differences are paired; and with the true weights or the true effects alone, which says where the loss lies. Two checks
 * ahead, as in the application; what is learned from is worked through with one. `--score`: in bits instead, see `learningScore.ts`.
 */
import { readdirSync } from 'node:fs';
import { basename, join } from 'node:path';
import type { LearningJob, Minutes } from './learningJob';
import { scores } from './learningScore';
import { mean, standardError } from './statistics';
import { all, inThread } from './threads';

const ORDERS = Number(process.argv[2] ?? 60);
const WORLDS = Number(process.argv[3] ?? 4);
const wanted = process.argv.slice(4);
const SEED = 20261125;
const folder = join(__dirname, '../demo/machines');

const text = (list: readonly number[]): string => `${mean(list).toFixed(1)} ± ${standardError(list).toFixed(1)}`;

function row(machine: string, orders: readonly Minutes[]) {
  const of = (name: keyof Minutes) => orders.map((order) => order[name]);
  const saved = (name: keyof Minutes) => orders.map((order) => order.delivered - order[name]);
  return {
    machine,
    orders: orders.length,
    delivered: mean(of('delivered')).toFixed(1),
    learned: mean(of('learned')).toFixed(1),
    knowing: mean(of('knowing')).toFixed(1),
    'loss, min': text(saved('knowing')),
    'won back, min': text(saved('learned')),
    'share won back': (mean(saved('learned')) / mean(saved('knowing'))).toFixed(2),
    'by true weights': text(saved('knowing weights')),
    'by true shows': text(saved('knowing shows')),
  };
}

async function main(): Promise<void> {
  const machines = readdirSync(folder)
    .filter((name) => name.endsWith('.json') && (wanted.length === 0 || wanted.includes(basename(name, '.json'))))
    .sort();
  const jobs = machines.flatMap((name) =>
    Array.from({ length: WORLDS }, (_, world): LearningJob => ({
      file: join(folder, name),
      world,
      orders: ORDERS,
      seed: SEED,
    })),
  );
  const done = await all(jobs, async (job) => ({
    machine: basename(job.file, '.json'),
    orders: await inThread<LearningJob, readonly Minutes[]>('learningJob.ts', job),
  }));
  const of = (machine: string) => done.filter((item) => item.machine === machine).flatMap(({ orders }) => orders);
  console.log(
    `200 orders learned in each of ${WORLDS} worlds that the catalogue has wrong, then ${ORDERS} orders in each; bench minutes`,
  );
  console.table([
    ...machines.map((name) => row(basename(name, '.json'), of(basename(name, '.json')))),
    row(
      'all',
      done.flatMap(({ orders }) => orders),
    ),
  ]);
}

const work = process.argv.includes('--score')
  ? scores(process.argv.slice(2).filter((arg) => arg !== '--score'))
  : main();
work.catch((problem: unknown) => {
  console.error(problem);
  process.exitCode = 1;
});

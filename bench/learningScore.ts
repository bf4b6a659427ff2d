/**
 * `npm run bench:learning -- --score [ORDERS [WORLDS [MACHINE …]]]`: by how many bits what was really wrong surprises (log score), at the
 * taking-in and after six findings, believing the delivered catalogue, what 200 orders taught, and the world as it is. Every belief
 * sees the same findings of the same orders, so the differences are paired.
 */
import { readdirSync } from 'node:fs';
import { basename, join } from 'node:path';
import type { ScoreJob, Scores } from './learningScoreJob';
import { mean, standardError } from './statistics';
import { all, inThread } from './threads';

const folder = join(__dirname, '../demo/machines');
const SEED = 20261124;
const MOMENTS = ['at take-in', 'after six'] as const;

const text = (list: readonly number[]): string => `${mean(list).toFixed(3)} ± ${standardError(list).toFixed(3)}`;

function row(machine: string, orders: readonly Scores[], moment: 0 | 1) {
  const bits = (of: keyof Scores) => orders.map((order) => order[of][moment]);
  const gain = (of: keyof Scores) => orders.map((order) => order.delivered[moment] - order[of][moment]);
  return {
    machine,
    when: MOMENTS[moment],
    orders: orders.length,
    delivered: mean(bits('delivered')).toFixed(3),
    'lost, bits': text(gain('knowing')),
    'won back, bits': text(gain('learned')),
    share: (mean(gain('learned')) / mean(gain('knowing'))).toFixed(2),
    'by learned weights': text(gain('learned weights')),
    'by true weights': text(gain('knowing weights')),
  };
}

export async function scores(args: readonly string[]): Promise<void> {
  const [orders = 60, worlds = 4] = args.filter((arg) => /^\d+$/.test(arg)).map(Number);
  const wanted = args.filter((arg) => !/^\d+$/.test(arg));
  const machines = readdirSync(folder)
    .map((name) => basename(name, '.json'))
    .filter((name) => wanted.length === 0 || wanted.includes(name))
    .sort();
  const jobs = machines.flatMap((name) =>
    Array.from({ length: worlds }, (_, world): ScoreJob => ({
      file: join(folder, `${name}.json`),
      world,
      orders,
      seed: SEED,
    })),
  );
  const done = await all(jobs, async (job) => ({
    machine: basename(job.file, '.json'),
    orders: await inThread<ScoreJob, readonly Scores[]>('learningScoreJob.ts', job),
  }));
  const of = (machine?: string) =>
    done.filter((item) => machine === undefined || item.machine === machine).flatMap(({ orders: list }) => list);
  console.log(
    `200 orders learned in each of ${worlds} worlds that the catalogue has wrong, then ${orders} orders in each`,
  );
  console.table([
    ...machines.flatMap((name) => [row(name, of(name), 0), row(name, of(name), 1)]),
    row('all', of(), 0),
    row('all', of(), 1),
  ]);
}

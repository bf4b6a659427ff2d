/**
 * `npm run bench:trace [-- ORDERS [MACHINE …] [--only=POLICY,…] [--worlds=WORLD,…]]`: simulated orders with a hidden fault on each demo machine, for the tracer, for
 * a fair technician, for information a minute, and for the fixed habits of the trade, in four worlds. Prints a table and writes it as CSV.
 */
import { mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { paceOf, shopPace, type Pace } from '@zealous/core';
import Papa from 'papaparse';
import { calibrationError, calibrationTable } from './calibration';
import { mean } from './statistics';
import { all, inThread } from './threads';
import { optimaOf } from './traceOptimum';
import { KNOWING, LEARNED, POLICIES, type Job, type run, type World } from './traceJob';

type Short = ReturnType<typeof run>[number];

const ORDERS = Number(process.argv[2] ?? 200);
const SEED = 20261124;
const folder = join(__dirname, '../demo/machines');
/** `--only=tracer,fair technician` and `--worlds=own,other` leave the rest out. */
const option = (name: string): readonly string[] | undefined =>
  process.argv
    .find((arg) => arg.startsWith(`--${name}=`))
    ?.split('=')[1]
    ?.split(',');
const only = option('only');
const worlds = option('worlds');
const wanted = process.argv.slice(3).filter((arg) => !arg.startsWith('--'));
const WORLDS: readonly World[] = ['own', 'perturbed', 'wrong findings', 'other'];
/** What taking everything apart in vain is put at, to see how much hangs on it. */
const STRIP_AT = [60, 120, 240] as const;
const machines = readdirSync(folder)
  .filter((name) => name.endsWith('.json') && (wanted.length === 0 || wanted.includes(basename(name, '.json'))))
  .sort();

const quantile = (list: readonly number[], q: number): number =>
  [...list].sort((a, b) => a - b)[Math.floor(q * (list.length - 1))] ?? 0;

/** The same for every other order, with the pace that a shop learned from the rest; and how many lie in its range. */
function paced(tallies: readonly Short[]) {
  const known = tallies.flatMap(({ minutes, promised }) => (promised === undefined ? [] : [{ minutes, promised }]));
  // Every other one: machines come one after the other.
  const [first, second] = [0, 1].map((rest) => known.filter((_, i) => i % 2 === rest));
  if (!first?.length || !second?.length) return {};
  const { factor, low, high } = shopPace(first.map((t) => paceOf(t.promised, t.minutes)).reduce(addPace));
  const inside = second.filter(({ minutes, promised }) => minutes >= low * promised && minutes <= high * promised);
  const stated = mean(second.map(({ promised }) => factor * promised));
  return {
    'with the pace learned': Number((mean(second.map(({ minutes }) => minutes)) / stated).toFixed(2)),
    'within its range %': Math.round((100 * inside.length) / second.length),
  };
}

const addPace = (a: Pace, b: Pace): Pace => ({
  orders: a.orders + b.orders,
  expected: a.expected + b.expected,
  taken: a.taken + b.taken,
  logs: a.logs + b.logs,
  squares: a.squares + b.squares,
});

/** What the tracer said beside what was so: log score in bits, "something else", minutes against those it expected at the taking-in. */
function told(tallies: readonly Short[]) {
  const ratios = tallies.flatMap((t) => (t.promised === undefined ? [] : [t.minutes / t.promised]));
  if (ratios.length === 0) return {};
  const score = (k: 0 | 1): number => mean(tallies.flatMap((t) => t.surprise?.[k] ?? []));
  const unlisted = tallies.flatMap((t) => (t.elsewhere ?? []).map((p) => [p, t.unlisted === true] as const));
  return {
    'bits at take-in': Number(score(0).toFixed(3)),
    'bits after six': Number(score(1).toFixed(3)),
    'ECE something else': Number(calibrationError(unlisted).toFixed(3)),
    'minutes against expected': Number(
      (
        mean(tallies.map((t) => t.minutes)) /
        (shopPace(undefined).factor * mean(tallies.map((t) => t.promised ?? 0)))
      ).toFixed(2),
    ),
    ...paced(tallies),
    '10th, 50th, 90th': [0.1, 0.5, 0.9].map((q) => quantile(ratios, q).toFixed(2)).join(' '),
  };
}

function row(machine: string, world: string, policy: string, tallies: readonly Short[]) {
  const minutes = tallies.map((tally) => tally.minutes);
  const m = mean(minutes);
  const stated = tallies.flatMap((tally) => tally.stated);
  return {
    machine,
    world,
    policy,
    'mean min': Number(m.toFixed(1)),
    's.e.': Number(Math.sqrt(mean(minutes.map((x) => (x - m) ** 2)) / minutes.length).toFixed(1)),
    '90th pct': Math.round(quantile(minutes, 0.9)),
    'right first %': Math.round(100 * mean(tallies.map((tally) => (tally.rightFirst ? 1 : 0)))),
    checks: Number(mean(tallies.map((tally) => tally.checks)).toFixed(1)),
    repairs: Number(mean(tallies.map((tally) => tally.repairs)).toFixed(2)),
    'opened for nothing': Number(mean(tallies.map((tally) => tally.openedForNothing)).toFixed(2)),
    'taken apart %': Math.round(100 * mean(tallies.map(({ stripped }) => (stripped ? 1 : 0)))),
    ...Object.fromEntries(
      STRIP_AT.map((at) => [
        `mean, apart at ${at}`,
        Number(mean(tallies.map((t) => t.minutes + (t.stripped ? at - t.apartMin : 0))).toFixed(1)),
      ]),
    ),
    ...told(tallies),
    ...(stated.length ? { ECE: Number(calibrationError(stated).toFixed(3)) } : { ECE: '' }),
  };
}

async function main(): Promise<void> {
  const jobs = machines.flatMap((name) =>
    WORLDS.filter((world) => worlds?.includes(world) ?? true).flatMap((world) =>
      [...Object.keys(POLICIES), ...(world === 'perturbed' ? [KNOWING, LEARNED] : [])]
        .filter((policy) => only?.includes(policy) ?? true)
        .map((policy): Job => ({
          file: join(folder, name),
          world,
          policy,
          from: 0,
          to: ORDERS,
          seed: SEED,
        })),
    ),
  );
  const done = await all(jobs, async (job) => ({
    job,
    tallies: await inThread<Job, readonly Short[]>('traceJob.ts', job),
  }));
  const each = done.map(({ job, tallies }) => row(basename(job.file, '.json'), job.world, job.policy, tallies));
  const groups = [...new Set(jobs.map(({ world, policy }) => `${world}|${policy}`))].map((key) => {
    const [world = '', policy = ''] = key.split('|');
    const of = done.filter(({ job }) => job.world === world && job.policy === policy);
    return { world, policy, tallies: of.flatMap(({ tallies }) => tallies) };
  });
  const together = groups.map(({ world, policy, tallies }) => row('all', world, policy, tallies));
  const results = [...each, ...together];
  console.log(
    `${ORDERS} orders with a hidden fault on each machine and in each world, seed ${SEED}; bench minutes to a proved repair (waiting counts half)`,
  );
  console.table(results);
  for (const { world, policy, tallies } of groups) {
    const stated = tallies.flatMap((tally) => tally.stated);
    if (stated.length === 0) continue;
    console.log(`${world} world, ${policy}: what was stated of the leading cause, and how often it was so`);
    console.table(calibrationTable(stated));
  }
  const out = join(__dirname, '../.build/bench-trace.csv');
  mkdirSync(join(out, '..'), { recursive: true });
  writeFileSync(out, Papa.unparse([...results]));
  if (only) return;
  console.log(
    'Against the exact optimum, by dynamic programming on reduced machines (minutes, worked out and not drawn):',
  );
  console.table(machines.flatMap((name) => optimaOf(join(folder, name))));
  console.log(`As CSV: ${out}`);
}

main().catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});

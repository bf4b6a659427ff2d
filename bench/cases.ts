/**
 * `npm run bench:cases [-- --steps --left-out --missed --unable] [ID …]`: cases written from practice, not from the catalogue. For each the tracer, answered
 * truthfully, to the end; beside it a competent technician; and the referee over every plan that the tracer's repairs would give. With
 * `--missed` as a worse day would have it: signs overlooked, complaints forgotten; with `--unable` a fifth of the tracer's checks cannot
 * be done (the technician does them all).
 */
import { readdirSync, readFileSync, writeFileSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { deliveredCatalogue as catalogue, laneRuns, machineOfFamily } from '@zealous/core';
import Papa from 'papaparse';
import { auditPlan } from '../packages/core/src/testing/audit';
import { calibrationError, calibrationTable } from './calibration';
import { unableIn, withMisses } from './cases/missed';
import { playTracer, type Played } from './cases/play';
import { playTechnician } from './cases/technician';
import { mean } from './statistics';
import type { PracticeCase } from '@zealous/core/practice';

const folder = join(__dirname, '../cases');
const wanted = process.argv.slice(2).filter((arg) => !arg.startsWith('--'));
const steps = process.argv.includes('--steps');
const wide = process.argv.includes('--left-out');
const missed = process.argv.includes('--missed');
const unable = process.argv.includes('--unable');
const cases = readdirSync(folder)
  .filter((name) => name.endsWith('.json'))
  .sort()
  .map((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as PracticeCase)
  .filter(({ id }) => wanted.length === 0 || wanted.some((w) => id.includes(w)))
  .map((of) => (missed ? withMisses(of) : of));

/** Plans of the tracer's repairs, played to the referee: accidents, if any. */
function accidents(of: PracticeCase, played: Played): number {
  const machine = machineOfFamily(of.family, of.id, of.id);
  const lane = of.lane ?? laneRuns(machine)[0]?.id ?? '';
  return played.repaired.filter(({ station, mode, remedy }, i) => {
    const { accident } = auditPlan(
      { machine, lane, material: of.material ?? 'PLA', station, mode, remedy, start: 'traced', seed: i + 1 },
      catalogue,
    );
    return accident !== undefined;
  }).length;
}

const median = (list: readonly number[]): number =>
  [...list].sort((a, b) => a - b)[Math.floor((list.length - 1) / 2)] ?? 0;
const percent = (list: readonly boolean[]): string => `${Math.round(100 * mean(list.map(Number)))} %`;

const rows = cases.map((of) => {
  const tracer = playTracer(of, wide, unable ? unableIn(of) : undefined);
  const technician = playTechnician(of);
  if (steps) console.log(`\n${of.id}: ${of.story}\n  ${tracer.steps.join('\n  ')}`);
  return { of, tracer, technician, unsafe: accidents(of, tracer) };
});
const table = rows.map(({ of, tracer, technician, unsafe }) => ({
  case: of.id,
  faults: of.faults.length,
  found: tracer.found ? 'yes' : 'NO',
  'sensible first': tracer.sensible ? 'yes' : 'NO',
  checks: tracer.checks,
  repairs: tracer.repairs,
  min: Math.round(tracer.minutes),
  'technician min': Math.round(technician.minutes),
  'technician sound renewed': technician.soundRenewed,
  'sound renewed': tracer.soundRenewed,
  apart: tracer.stripped ? 'yes' : '',
  unsafe,
  'left out %': Number((100 * tracer.massLeftOut).toFixed(2)),
}));
console.table(table);
const stated = rows.flatMap(({ tracer }) => tracer.stated);
console.table(calibrationTable(stated));
const own = mean(rows.map(({ tracer }) => tracer.minutes));
const theirs = mean(rows.map(({ technician }) => technician.minutes));
console.log(
  [
    `${rows.length} cases, ${new Set(cases.map(({ family }) => family)).size} families, ${cases.filter(({ faults }) => faults.length > 1).length} with several faults, ${cases.filter(({ innocent }) => innocent?.length).length} with an innocent finding`,
    `all true causes found before a sound part was renewed: ${percent(rows.map(({ tracer }) => tracer.found))} (aim 90)`,
    `a sensible check among the first three: ${percent(rows.map(({ tracer }) => tracer.sensible))} (aim 95)`,
    `median checks: ${median(rows.map(({ tracer }) => tracer.checks))} (aim 4)`,
    `mean minutes ${own.toFixed(1)}, technician ${theirs.toFixed(1)}: ${Math.round((100 * own) / theirs)} % (aim 75)`,
    `unsafe plans: ${rows.reduce((sum, { unsafe }) => sum + unsafe, 0)}`,
    `calibration error of the leading cause: ${calibrationError(stated).toFixed(3)} (aim 0.10)`,
    ...(wide
      ? [
          `most left out by the search for sets: ${(100 * Math.max(...rows.map(({ tracer }) => tracer.massLeftOut))).toFixed(2)} %`,
        ]
      : []),
    `technician: sound parts renewed in ${rows.filter(({ technician }) => technician.soundRenewed > 0).length} cases, everything apart in ${rows.filter(({ technician }) => technician.stripped).length}`,
  ].join('\n'),
);
mkdirSync(join(__dirname, '../.build'), { recursive: true });
writeFileSync(join(__dirname, '../.build/cases.csv'), Papa.unparse(table));

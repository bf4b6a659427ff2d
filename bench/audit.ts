/**
 * `npm run audit:plans [-- MATERIAL...]`: plays every plan to the referee: all demo machines and family templates × every cause ×
 * every remedy and offer on its ladder × starting states. Prints plans, steps and accidents by id; exit 1 on any.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FAMILIES, machineOfFamily } from '@zealous/core';
import { ACCIDENTS } from '@zealous/core/referee';
import type { AuditJob, AuditTally } from './auditJob';
import { all, inThread } from './threads';

const folder = join(__dirname, '../demo/machines');
const named = process.argv.slice(2);
const materials = named.length > 0 ? named : ['PLA', 'ABS', 'PA'];

async function main(): Promise<void> {
  const began = performance.now();
  const machines: unknown[] = [
    ...readdirSync(folder)
      .filter((name) => name.endsWith('.json'))
      .sort()
      .map((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as unknown),
    ...FAMILIES.map((family) => machineOfFamily(family.id, `template-${family.id}`, family.name)),
  ];
  const tallies = await all(machines, (machine) =>
    inThread<AuditJob, AuditTally>('auditJob.ts', { machine, materials }),
  );
  console.table(
    tallies.map(({ machine, plans, steps, errors, accidents }) => ({
      machine,
      plans,
      steps,
      'no plan': errors.length,
      accidents: Object.values(accidents).reduce((sum, list) => sum + list.length, 0),
    })),
  );
  const byId = ACCIDENTS.map((id) => ({ id, list: tallies.flatMap(({ accidents }) => accidents[id] ?? []) }));
  console.table(byId.map(({ id, list }) => ({ accident: id, plans: list.length })));
  for (const { id, list } of byId) if (list.length > 0) console.log(`${id}:\n  ${list.slice(0, 6).join('\n  ')}`);
  const errors = tallies.flatMap((tally) => tally.errors);
  if (errors.length > 0) console.log(`no plan:\n  ${errors.slice(0, 10).join('\n  ')}`);
  const plans = tallies.reduce((sum, tally) => sum + tally.plans, 0);
  const steps = tallies.reduce((sum, tally) => sum + tally.steps, 0);
  const bad = byId.reduce((sum, { list }) => sum + list.length, 0) + errors.length;
  console.log(`${plans} plans, ${steps} steps, ${bad} accidents, ${Math.round((performance.now() - began) / 1000)} s`);
  if (bad > 0) process.exitCode = 1;
}

void main();

import { parentPort, workerData } from 'node:worker_threads';
import { parseMachine } from '@zealous/core/formats';
import { auditCases, auditPlan, caseText } from '../packages/core/src/testing/audit';

export interface AuditJob {
  readonly machine: unknown;
  readonly materials: readonly string[];
}
export interface AuditTally {
  readonly machine: string;
  readonly plans: number;
  readonly steps: number;
  readonly errors: readonly string[];
  readonly accidents: Readonly<Record<string, readonly string[]>>;
}

const { machine: file, materials } = workerData as AuditJob;
const machine = parseMachine(file);
let plans = 0;
let steps = 0;
const errors: string[] = [];
const accidents: Record<string, string[]> = {};
for (const one of auditCases(machine, materials)) {
  const { accident, error, steps: n } = auditPlan(one);
  plans++;
  steps += n;
  if (error !== undefined) errors.push(`${caseText(one)}: ${error}`);
  if (accident) (accidents[accident.id] ??= []).push(`${caseText(one)} at ${accident.step}: ${accident.text}`);
}
const tally: AuditTally = { machine: machine.id, plans, steps, errors, accidents };
parentPort?.postMessage(tally);

import { machineOfFamily } from '../path/families';
import type { Machine } from '../path/machine';
import type { AccidentId, Deed, PlayedStep, Scene } from '../referee';
import { auditCases, auditPlan, caseText, type AuditCase } from './audit';

/** For tests only: sound plans, and how accidents are planted in them. */

export interface Sound {
  readonly of: AuditCase;
  readonly scene: Scene;
  readonly steps: readonly PlayedStep[];
}

const sound = new Map<string, Sound>();
/** The plan of one case, played without an accident. */
export function soundPlan(machine: Machine, wanted: (of: AuditCase) => boolean): Sound {
  for (const of of auditCases(machine, ['PLA'])) {
    if (!wanted(of)) continue;
    const key = caseText(of);
    const known = sound.get(key);
    if (known) return known;
    const { played, scene, accident, error } = auditPlan(of);
    if (accident ?? error) throw new Error(`${key}: ${accident?.text ?? error ?? ''}`);
    const found = { of, scene, steps: played };
    sound.set(key, found);
    return found;
  }
  throw new Error('no such plan');
}

export const by =
  (remedy: string, start = 'hot', station?: string) =>
  (of: AuditCase): boolean =>
    of.remedy === remedy && of.start === start && (station === undefined || of.station === station);

export const isPush = (deed: Deed): boolean => deed.do === 'push' && !deed.inHand;
export const has = (step: PlayedStep, wanted: (deed: Deed) => boolean): boolean => step.acts.some(wanted);
export const without = (steps: readonly PlayedStep[], wanted: (step: PlayedStep) => boolean): readonly PlayedStep[] =>
  steps.filter((step) => !wanted(step));
/** The first step that is wanted, changed. @throws when the plan has none: the test would prove nothing. */
export function changed(
  steps: readonly PlayedStep[],
  wanted: (step: PlayedStep) => boolean,
  to: (step: PlayedStep) => PlayedStep,
) {
  const at = steps.findIndex(wanted);
  if (at < 0) throw new Error('the plan has no such step');
  return steps.map((step, i) => (i === at ? to(step) : step));
}
/** Steps put before the first one that is wanted. */
export function before(
  steps: readonly PlayedStep[],
  wanted: (step: PlayedStep) => boolean,
  more: readonly PlayedStep[],
) {
  const at = steps.findIndex(wanted);
  if (at < 0) throw new Error('the plan has no such step');
  return [...steps.slice(0, at), ...more, ...steps.slice(at)];
}
export const step = (acts: readonly Deed[], more: Partial<PlayedStep> = {}): PlayedStep => ({
  id: 'planted',
  title: 'planted',
  how: '',
  cautions: ['hot', 'ptfe', 'unplug', 'axis', 'support-head', 'solvent', 'dry-first'],
  tools: [],
  minutes: 1,
  waitMinutes: 0,
  need: { heat: 'any', power: 'any', hotC: 0 },
  fasteners: [],
  acts,
  ...more,
});
export const opens = (what: (part: string) => boolean) => (s: PlayedStep) =>
  has(s, (deed) => deed.do === 'off' && what(deed.part));
export const afterOpening = (
  steps: readonly PlayedStep[],
  wanted: (step: PlayedStep) => boolean,
  more: readonly PlayedStep[],
) => {
  const at = steps.findIndex(wanted);
  if (at < 0) throw new Error('the plan has no such step');
  return [...steps.slice(0, at + 1), ...more, ...steps.slice(at + 1)];
};
export const isHotEnd = (part: string): boolean => part.startsWith('hot-end');

export const bolted = machineOfFamily('feeder-enclosed', 'bolted', 'Bolted');
export const shroud = machineOfFamily('enclosed-shroud', 'shroud', 'Shroud');
export const geared = machineOfFamily('geared-flexible', 'geared', 'Geared');
export const belt = machineOfFamily('direct-belt', 'belt', 'Belt');
export const bowden = machineOfFamily('bowden-open', 'bowden', 'Bowden');
export const rear = machineOfFamily('enclosed-rear', 'rear', 'Rear');
export const hub = machineOfFamily('hub-head', 'hub', 'Hub');

export type Plant = readonly [AccidentId, string, Sound, (plan: Sound) => readonly PlayedStep[], Partial<Scene>?];
export const power = (to: 'on' | 'off') => step([{ do: 'power', to }]);
export const on = power('on');

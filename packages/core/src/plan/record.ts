import { pinsThatComeOut } from '../bench/fastenerMap';
import { removalOf } from '../bench/state';
import type { EventBodies, EventType } from '../order/events';
import type { Machine } from '../path/machine';
import type { PlanStep, StepChoice } from './steps';

/** An event without its stamp. */
export type Entry = { readonly [T in EventType]: { readonly type: T; readonly body: EventBodies[T] } }[EventType];

/** What one tap on a step says of the bench, in the order in which it is recorded: heat and power, strand, head, parts. */
export function stepEntries(step: PlanStep, choice?: StepChoice): readonly Entry[] {
  const sets = choice?.sets ?? step.sets;
  const { opens, closes, way } = step;
  return [
    ...(sets ? [{ type: 'bench-changed' as const, body: sets }] : []),
    ...(opens
      ? [{ type: 'parts-moved' as const, body: { off: [opens], ...(way ? { ways: { [opens]: way } } : {}) } }]
      : []),
    ...(closes ? [{ type: 'parts-moved' as const, body: { on: [closes] } }] : []),
  ];
}

/** Every fastener of a part ticked at once, out or back in; nothing when it has none. */
export function allFasteners(
  machine: Machine,
  part: string,
  way: string | undefined,
  to: 'out' | 'in',
): readonly Entry[] {
  const pins = pinsThatComeOut(removalOf(machine, part, way)?.fasteners ?? []);
  return pins.length === 0
    ? []
    : [{ type: 'fasteners-moved', body: { part, ...(way === undefined ? {} : { way }), [to]: pins } }];
}

import type { OrderEvent } from './events';
import { liveEvents } from './reduce';

/** What one tap recorded beside a step carries nearly the same time. */
const ONE_TAP_MS = 100;
const COMPANY: readonly OrderEvent['type'][] = [
  'bench-changed',
  'parts-moved',
  'part-replaced',
  'timer-stopped',
  'finding-recorded',
];

/** Ids to withdraw to take the last step of the plan back: the step, and what its tap said of heat, power and parts. */
export function lastStepEvents(events: readonly OrderEvent[]): readonly string[] {
  const live = liveEvents(events).filter((event) => event.type !== 'event-withdrawn');
  const chosen = live.findLastIndex((event) => event.type === 'cause-chosen');
  const at = live.findLastIndex(
    (event, i) => i > chosen && ['step-done', 'step-skipped', 'rung-tried'].includes(event.type),
  );
  const step = live[at];
  if (!step) return [];
  const near = (event: OrderEvent): boolean =>
    Math.abs(Date.parse(event.at) - Date.parse(step.at)) <= ONE_TAP_MS && event.by === step.by;
  return live
    .slice(chosen + 1)
    .flatMap((event) => (event.id === step.id || (COMPANY.includes(event.type) && near(event)) ? [event.id] : []));
}

import type { OrderRecord, OrderState } from '@zealous/core';
import { createEvents, type DateArray, type EventAttributes } from 'ics';
import { Problem } from '../http/problem';

const utc = (ms: number): DateArray => {
  const at = new Date(ms);
  return [at.getUTCFullYear(), at.getUTCMonth() + 1, at.getUTCDate(), at.getUTCHours(), at.getUTCMinutes()];
};
/** Without a day of its own, what is to be watched is looked at after a week (practice: the pen mark). */
const WEEK_MS = 7 * 24 * 3600_000;

/** Soak ends and follow-ups of an order as iCalendar. @throws Problem when there is nothing to remember. */
export function datesOf(orderId: string, record: OrderRecord, state: OrderState): string {
  const name = `${record.machine}, order ${record.number}`;
  const timers = state.timers.map((timer): EventAttributes => ({
    uid: `${orderId}-${timer.id.replace(/[^A-Za-z0-9-]/g, '-')}@zealous-tracer`,
    title: `${timer.label} (${record.machine})`,
    description: `Ends now: ${name}.`,
    start: utc(timer.endsMs),
    startInputType: 'utc',
    duration: { minutes: 10 },
    // A moment, not a duration of nothing, which the library would write as no duration at all (RFC 5545, 3.3.6).
    alarms: [{ action: 'display', description: timer.label, trigger: utc(timer.endsMs) }],
  }));
  const due = record.watchOn
    ? Date.parse(`${record.watchOn}T09:00:00Z`)
    : record.closed
      ? Date.parse(record.closed) + WEEK_MS
      : undefined;
  const watch: EventAttributes[] =
    due !== undefined && (record.watch.length > 0 || record.watchOn)
      ? [
          {
            uid: `${orderId}-watch@zealous-tracer`,
            title: `Look again: ${record.machine}`,
            description: record.watch.join(' ') || `Order ${record.number}`,
            start: utc(due),
            startInputType: 'utc',
            duration: { minutes: 15 },
          },
        ]
      : [];
  const events = [...timers, ...watch];
  if (events.length === 0)
    throw new Problem(404, 'No dates', 'No timer runs, and nothing is to be watched: there is nothing to remember.');
  const { error, value } = createEvents(events);
  if (error || !value) throw error ?? new Error('no calendar');
  return value;
}

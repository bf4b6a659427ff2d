import { format } from 'date-fns/format';
import { formatDistanceStrict } from 'date-fns/formatDistanceStrict';
import { isSameDay } from 'date-fns/isSameDay';

/** Minutes and seconds left, 2:10; hours from an hour on. */
export function clockText(seconds: number): string {
  const s = Math.max(0, Math.ceil(seconds));
  if (s >= 3600) return `${Math.floor(s / 3600)} h ${Math.floor((s % 3600) / 60)} min`;
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}

/** How long something goes on by itself. */
export const waitText = (minutes: number): string =>
  minutes >= 90 ? `${Math.round(minutes / 60)} h wait` : `${Math.round(minutes)} min wait`;

/** How long ago, in one unit. */
export const ageText = (iso: string, now: number): string => formatDistanceStrict(new Date(iso), now);

/** A time of day; with the day of the week when that is another day than the one of `beside`. */
export const timeText = (ms: number, beside = Date.now()): string =>
  format(ms, isSameDay(ms, beside) ? 'HH:mm' : 'EEE HH:mm');

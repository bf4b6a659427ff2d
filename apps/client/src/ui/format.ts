import { formatDistanceStrict } from 'date-fns/formatDistanceStrict';

/** Minutes and seconds left, 2:10; hours from an hour on. */
export function clockText(seconds: number): string {
  const s = Math.max(0, Math.ceil(seconds));
  if (s >= 3600) return `${Math.floor(s / 3600)} h ${Math.floor((s % 3600) / 60)} min`;
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
}

/** How long ago, in one unit. */
export const ageText = (iso: string, now: number): string => formatDistanceStrict(new Date(iso), now);

import type { Assessment } from './assessment';
import { percent } from './explain';

/** One line on what a finding changed: what it cleared, and the station it moved most. */
export function whatChanged(before: Assessment, after: Assessment): string {
  const old = new Map(before.stations.map((item) => [item.station, item]));
  const cleared = after.stations.filter(
    (item) => item.clearedBy !== undefined && old.get(item.station)?.clearedBy === undefined,
  );
  const reopened = after.stations.filter(
    (item) => item.clearedBy === undefined && old.get(item.station)?.clearedBy !== undefined,
  );
  const moves = after.stations
    .map((item) => ({ ...item, from: old.get(item.station)?.suspicion ?? 0 }))
    .filter((item) => Math.abs(item.suspicion - item.from) >= 0.005)
    .sort((a, b) => Math.abs(b.suspicion - b.from) - Math.abs(a.suspicion - a.from));
  const parts: string[] = [];
  const names = cleared.map((item) => item.name);
  if (names.length)
    parts.push(
      `${names.length > 3 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more` : names.join(', ')} cleared`,
    );
  if (reopened.length) parts.push(`${reopened.map((item) => item.name).join(', ')} no longer cleared`);
  const top = moves.find((item) => item.suspicion > item.from) ?? moves[0];
  if (top) parts.push(`${top.name} ${percent(top.from)} → ${percent(top.suspicion)}`);
  if (Math.abs(after.elsewhere - before.elsewhere) >= 0.03)
    parts.push(`something else ${percent(before.elsewhere)} → ${percent(after.elsewhere)}`);
  return parts.length ? parts.join('; ') : 'Nothing moved';
}

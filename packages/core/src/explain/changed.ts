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
  const sentences: string[] = [];
  const goes = (name: string, from: number, to: number): string =>
    `${name} ${to > from ? 'rises' : 'falls'} from ${percent(from)} to ${percent(to)}.`;
  if (cleared.length) sentences.push(`${namesText(cleared)} cleared.`);
  if (reopened.length) sentences.push(`${namesText(reopened)} no longer cleared.`);
  const top = moves.find((item) => item.suspicion > item.from) ?? moves[0];
  if (top) sentences.push(goes(top.name, top.from, top.suspicion));
  if (Math.abs(after.elsewhere - before.elsewhere) >= 0.03)
    sentences.push(goes('Something else', before.elsewhere, after.elsewhere));
  return sentences.length ? sentences.join(' ') : 'Nothing moved.';
}

/** Names told one by one; beyond so many the rest are counted. */
const MOST_NAMES = 3;

/** The subject of a sentence with its verb: "Hub is", "Hub, Extruder and 2 more are". */
function namesText(stations: readonly { readonly name: string }[]): string {
  const names = stations.map(({ name }) => name);
  const told = names.length > MOST_NAMES ? [...names.slice(0, 2), `${names.length - 2} more`] : names;
  const last = told.at(-1) ?? '';
  return told.length > 1 ? `${told.slice(0, -1).join(', ')} and ${last} are` : `${last} is`;
}

import type { TimedReading } from '../physics/cooling';

/** A line of a temperature log. */
export interface LogLine extends TimedReading {
  readonly targetC?: number;
}

/** A log that says nothing that can be read. `line` is the first one that could not be. */
export class LogError extends Error {
  constructor(
    readonly line: number,
    message: string,
  ) {
    super(message);
    this.name = 'LogError';
  }
}

const NUMBER = String.raw`(-?\d+(?:\.\d+)?)`;
const REPORT = new RegExp(String.raw`\bT\d*:\s*${NUMBER}(?:\s*/\s*${NUMBER})?`);
const CLOCK = /\b(\d{1,2}):(\d{2}):(\d{2}(?:\.\d+)?)/;
const ISO = /\b(\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}:\d{2}(?:\.\d+)?Z?)/;
const CSV = new RegExp(String.raw`^\s*${NUMBER}\s*[,;\t]\s*${NUMBER}(?:\s*[,;\t]\s*${NUMBER})?`);
const LONGEST = 200_000;

function stamp(line: string): number | undefined {
  const iso = ISO.exec(line)?.[1];
  if (iso) return Date.parse(iso.replace(' ', 'T')) / 1000;
  const clock = CLOCK.exec(line);
  return clock ? Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number(clock[3]) : undefined;
}

/**
 * A temperature log: lines of "T:210.1 /210.0 B:60.0 /60.0", with or without a time before them, or CSV of seconds,
 * temperature and target. Lines that say nothing of the hot end are passed over; without times one line is `stepS` after
 * the other.
 *
 * @throws LogError when nothing in it can be read, or it is too long.
 */
export function parseTemperatureLog(text: string, stepS = 1): readonly LogLine[] {
  const lines = text.split(/\r?\n/);
  if (lines.length > LONGEST)
    throw new LogError(LONGEST, `The log has more than ${LONGEST} lines; cut out the part that matters.`);
  const found: LogLine[] = [];
  lines.forEach((line, i) => {
    const report = REPORT.exec(line);
    const csv = report ? null : CSV.exec(line);
    if (report)
      found.push({
        atS: stamp(line) ?? i * stepS,
        temperatureC: Number(report[1]),
        ...(report[2] === undefined ? {} : { targetC: Number(report[2]) }),
      });
    else if (csv)
      found.push({
        atS: Number(csv[1]),
        temperatureC: Number(csv[2]),
        ...(csv[3] === undefined ? {} : { targetC: Number(csv[3]) }),
      });
  });
  if (found.length === 0)
    throw new LogError(
      1,
      'No temperatures found. Lines such as "T:210.1 /210.0" or CSV of seconds and degrees are read.',
    );
  return found;
}

/** Rise that ends a stretch of cooling, °C: less is noise. */
const NOISE_C = 3;
/** A stretch must fall at least so far to say anything. */
const LEAST_FALL_C = 20;

/** The last stretch in which the hot end cooled with no target; empty when there is none. */
export function lastCooling(log: readonly LogLine[]): readonly LogLine[] {
  let best: readonly LogLine[] = [];
  let stretch: LogLine[] = [];
  for (const line of log) {
    const before = stretch.at(-1);
    const falls = (line.targetC ?? 0) === 0 && (!before || line.temperatureC <= before.temperatureC + NOISE_C);
    if (!falls) stretch = [];
    if ((line.targetC ?? 0) === 0) stretch.push(line);
    if ((stretch[0]?.temperatureC ?? 0) - (stretch.at(-1)?.temperatureC ?? 0) >= LEAST_FALL_C) best = stretch;
  }
  return best;
}

export interface LogSummary {
  readonly highestC: number;
  /** Over the target while heating, °C; absent without targets. */
  readonly overshootC?: number;
  /** Largest swing about the target once it was reached, °C. */
  readonly swingC?: number;
  /** Greatest rise, °C per second, over ten seconds or more. */
  readonly heatUpCPerS?: number;
  /** Steps between neighbouring lines that no heater makes: a wire or a plug. */
  readonly jumps: number;
}

/** A step between two lines that no hot end makes, °C per second (chosen). */
const JUMP_C_PER_S = 25;
const HEATUP_WINDOW_S = 10;

/** What a log says of heater and sensor. */
export function summariseLog(log: readonly LogLine[]): LogSummary {
  let jumps = 0;
  let rate = 0;
  let start = 0;
  log.forEach((line, i) => {
    const before = log[i - 1];
    if (before && Math.abs(line.temperatureC - before.temperatureC) > JUMP_C_PER_S * Math.max(1, line.atS - before.atS))
      jumps++;
    while (start < i && line.atS - (log[start + 1]?.atS ?? line.atS) >= HEATUP_WINDOW_S) start++;
    const from = log[start];
    if (from && line.atS - from.atS >= HEATUP_WINDOW_S)
      rate = Math.max(rate, (line.temperatureC - from.temperatureC) / (line.atS - from.atS));
  });
  const target = Math.max(0, ...log.map((line) => line.targetC ?? 0));
  const reached = log.findIndex((line) => target > 0 && line.temperatureC >= target - 1);
  const held = reached < 0 ? [] : log.slice(reached).filter((line) => line.targetC === target);
  const over = held.length ? Math.max(...held.map((line) => line.temperatureC)) - target : undefined;
  const settled = held.slice(Math.floor(held.length / 3));
  const swing = settled.length
    ? Math.max(...settled.map((line) => line.temperatureC)) - Math.min(...settled.map((line) => line.temperatureC))
    : undefined;
  return {
    highestC: Math.max(...log.map((line) => line.temperatureC)),
    ...(over === undefined ? {} : { overshootC: Math.max(0, over) }),
    ...(swing === undefined ? {} : { swingC: swing }),
    ...(rate > 0 ? { heatUpCPerS: rate } : {}),
    jumps,
  };
}

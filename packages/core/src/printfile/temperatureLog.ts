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

const DAY_S = 86_400;

/** Reads the time before a line; a clock that starts again from midnight goes on with the next day. */
class Stamps {
  private days = 0;
  private last = -Infinity;

  read(line: string): number | undefined {
    const iso = ISO.exec(line)?.[1];
    if (iso) return Date.parse(iso.replace(' ', 'T')) / 1000;
    const clock = CLOCK.exec(line);
    if (!clock) return undefined;
    const at = Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number(clock[3]);
    // Lines may come a little out of order; half a day back is midnight.
    if (at < this.last - DAY_S / 2) this.days++;
    this.last = at;
    return this.days * DAY_S + at;
  }
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
  const stamps = new Stamps();
  lines.forEach((line, i) => {
    const report = REPORT.exec(line);
    const csv = report ? null : CSV.exec(line);
    if (report)
      found.push({
        atS: stamps.read(line) ?? i * stepS,
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
  /** Where neighbouring lines differ by more than any heater makes: a wire or a plug. */
  readonly jumpsAtS: readonly number[];
  /** Falls below a target that was reached and stayed the same, deepest point of each: more flow than the heater follows, or a loose sensor. */
  readonly drops: readonly Drop[];
}

export interface Drop {
  /** When it was deepest. */
  readonly atS: number;
  /** How far below the target, °C. */
  readonly deepC: number;
}

/** So far below its target it drops, and so near it is back (chosen: twice what holds a print). */
const DROP_C = 5;
const BACK_C = 2;

/** Falls below the target after it was reached; one that jumps there and back is none. */
function dropsOf(log: readonly LogLine[], jumpsAtS: readonly number[]): readonly Drop[] {
  const jumps = new Set(jumpsAtS);
  const found: Drop[] = [];
  let target = 0;
  let reached = false;
  let deepest: Drop | undefined;
  let jumped = false;
  const end = (): void => {
    if (deepest && !jumped) found.push(deepest);
    deepest = undefined;
    jumped = false;
  };
  for (const { atS, temperatureC, targetC = 0 } of log) {
    if (targetC !== target) {
      end();
      target = targetC;
      reached = false;
    }
    const below = target - temperatureC;
    if (target > 0 && below <= BACK_C) {
      reached = true;
      end();
    }
    if (!reached || below < DROP_C) continue;
    if (jumps.has(atS)) jumped = true;
    if (below > (deepest?.deepC ?? 0)) deepest = { atS, deepC: below };
  }
  end();
  return found;
}

/** A step between two lines that no hot end makes, °C per second (chosen). */
const JUMP_C_PER_S = 25;
const HEATUP_WINDOW_S = 10;

/** What a log says of heater and sensor. */
export function summariseLog(log: readonly LogLine[]): LogSummary {
  const jumpsAtS: number[] = [];
  let rate = 0;
  let start = 0;
  log.forEach((line, i) => {
    const before = log[i - 1];
    if (
      before &&
      Math.abs(line.temperatureC - before.temperatureC) > JUMP_C_PER_S * Math.max(1, line.atS - before.atS)
    ) {
      jumpsAtS.push(line.atS);
      // Over a jump no rate is told: it is the sensor's and not the heater's.
      start = i;
    }
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
    jumpsAtS,
    drops: dropsOf(log, jumpsAtS),
  };
}

import type { RoundRecord } from '@zealous/core/practice';
import { load, save } from '../data/storage';
import type { KeptRound } from '../workers/practice';

const RECORD = 'practice-record';
const CURRENT = 'practice-round';
/** A person's rounds beyond this are dropped from the oldest on. */
const MOST = 2000;

/** Finished rounds of everybody who practised on this device, oldest first. */
export const keptRecord = (): readonly RoundRecord[] => load<readonly RoundRecord[]>(RECORD, []);

/** Adds a finished round, or replaces it when more is known of it. */
export function keepRecord(record: RoundRecord): readonly RoundRecord[] {
  const rest = keptRecord().filter(({ id }) => id !== record.id);
  const next = [...rest, record].slice(-MOST);
  save(RECORD, next);
  return next;
}

/** Adds the rounds of a file; those that are known stay as they are. */
export function bringIn(rounds: readonly RoundRecord[]): readonly RoundRecord[] {
  const known = keptRecord();
  const fresh = rounds.filter(({ id }) => !known.some((one) => one.id === id));
  const next = [...known, ...fresh].sort((a, b) => a.at.localeCompare(b.at)).slice(-MOST);
  save(RECORD, next);
  return next;
}

export const currentRound = (): KeptRound | undefined => load<KeptRound | undefined>(CURRENT, undefined);
export const keepRound = (round: KeptRound | undefined): void => void save(CURRENT, round ?? null);

/** A person's record as a file: the project's own open format. */
export const recordFile = (person: string, rounds: readonly RoundRecord[]): string =>
  `${JSON.stringify({ format: 'zealous-tracer/practice-record', version: 1, person, rounds }, null, 2)}\n`;

export interface Standing {
  readonly rounds: number;
  readonly cured: number;
  readonly accidents: number;
  /** Own minutes over the tracer's, middle one of the cured rounds; undefined while there is none. */
  readonly ratio?: number;
}

export function standingOf(rounds: readonly RoundRecord[]): Standing {
  const ratios = rounds
    .flatMap(({ outcome, minutes, tracerMinutes }) =>
      outcome === 'gave-up' || !tracerMinutes ? [] : [minutes / tracerMinutes],
    )
    .sort((a, b) => a - b);
  const ratio = ratios[Math.floor((ratios.length - 1) / 2)];
  return {
    rounds: rounds.length,
    cured: rounds.filter(({ outcome }) => outcome !== 'gave-up').length,
    accidents: rounds.reduce((sum, { accidents }) => sum + accidents.length, 0),
    ...(ratio === undefined ? {} : { ratio }),
  };
}

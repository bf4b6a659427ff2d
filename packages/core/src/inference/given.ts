import { UNSEEN } from './components';
import type { Evidence } from './evidence';

/** Likelihoods below this count as this: no observation rules anything out for good. */
export const LEAST = 1e-12;

/** When each fault of a set was taken away: the number of the repair, or never. */
export const NEVER = Infinity;

/** No sum of likelihoods counts as less. */
export const LEAST_SUM = 1e-280;

export const log = (x: number): number => Math.log(Math.max(x, LEAST));

/** Natural logarithms of likelihoods, as they are asked for. */
export class LogGiven {
  private readonly ofCause: (readonly number[] | number)[][];
  private readonly ofAny: (readonly number[] | undefined)[];
  /** If no fault lies within its reach. */
  readonly sound: readonly number[];

  constructor(private readonly evidence: readonly Evidence[]) {
    this.ofCause = evidence.map(() => []);
    this.sound = evidence.map(({ sound }) => log(sound));
    this.ofAny = evidence.map(({ given }) => {
      const any = given.find((g) => typeof g !== 'number');
      return typeof any === 'number' ? undefined : any?.map(log);
    });
  }

  /** For each result that there may be to see of a cause, or one number. */
  of(e: number, c: number): readonly number[] | number {
    const row = this.ofCause[e] as (readonly number[] | number)[];
    const known = row[c];
    if (known !== undefined) return known;
    const g = this.evidence[e]?.given[c] ?? LEAST;
    return (row[c] = typeof g === 'number' ? log(g) : g.map(log));
  }

  /** For a result, whichever fault shows it. */
  any(e: number, at: number): number {
    return (at === UNSEEN ? undefined : this.ofAny[e]?.[at]) ?? (this.sound[e] as number);
  }
}

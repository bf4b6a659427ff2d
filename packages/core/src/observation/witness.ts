import type { Cause } from './causes';
import type { CheckAtPlace } from '../bench/places';

/** Where an answer comes from, as far as its errors depend on it. */
export interface Witness {
  /** Same check at the same place: its errors repeat. */
  readonly same: string;
  /** Same check, wherever it was done. */
  readonly method: string;
  /** Where its errors come from, when other checks share it. */
  readonly source?: string;
  readonly trust: number;
  readonly place?: CheckAtPlace;
}

/** How much of the errors two answers share (chosen): the same check again, its method elsewhere, the same source of error. */
const SHARED = { same: 0.7, method: 0.3, source: 0.15 } as const;
/** Even an answer that only repeats others says a little (chosen). */
const LEAST_WEIGHT = 0.05;

/** Share of the errors that two answers have in common. */
export function sharedError(
  a: Pick<Witness, 'same' | 'method' | 'source'>,
  b: Pick<Witness, 'same' | 'method' | 'source'>,
): number {
  if (a.same === b.same) return SHARED.same;
  if (a.method === b.method) return SHARED.method;
  return a.source !== undefined && a.source === b.source ? SHARED.source : 0;
}

/** A question is about the whole machine; every other check sees what lies within its reach. */
const sees = ({ place }: Witness, stop: number): boolean =>
  !place || place.check.asks !== undefined || place.reach.has(stop);

/** Two of these fit into the 53 bits of a number. */
const WORD = 26;

/** Which of some answers look at any of some stops, as one key. */
function sightKey(answers: readonly Witness[]): (causes: readonly Cause[]) => number | string {
  const words = Math.ceil(answers.length / WORD);
  const byStop: (readonly number[] | undefined)[] = [];
  const at = (stop: number): readonly number[] =>
    (byStop[stop] ??= Array.from({ length: words }, (_, w) =>
      answers.slice(w * WORD, (w + 1) * WORD).reduce((bits, item, i) => (sees(item, stop) ? bits | (1 << i) : bits), 0),
    ));
  return (causes) => {
    const key: number[] = [];
    for (let w = 0; w < words; w++) {
      let bits = 0;
      for (const { stop } of causes) bits |= at(stop.index)[w] as number;
      key.push(bits);
    }
    return words <= 2 ? (key[0] ?? 0) + (key[1] ?? 0) * 2 ** WORD : key.join();
  };
}

/**
 * Weight of each answer for a set of causes: n witnesses whose errors correlate by ρ are worth n / (1 + (n − 1) ρ)
 * independent ones (the design effect: Kish 1965, Survey Sampling), each its own share of that, whatever the order. Errors
 * repeat only where both answers look at the cause, or where neither does: a dull ear that hears nothing at one coupler
 * makes the answer at the next one no weaker a witness against a fault that only that one sees. No causes: a fault that is
 * on no list, of which nothing is known, so that all errors are taken to be shared.
 */
export function weightsOf(evidence: readonly Witness[]): (causes: readonly Cause[]) => readonly number[] {
  const kin = evidence.map((item, i) =>
    evidence.flatMap((other, j) => {
      const share = i === j ? 0 : sharedError(item, other);
      return share > 0 ? [{ j, share }] : [];
    }),
  );
  const plain = evidence.map(({ trust }) => trust);
  const related = evidence.filter((_, i) => (kin[i] ?? []).length > 0);
  if (related.length === 0) return () => plain;
  const keyOf = sightKey(related);
  const known = new Map<number | string, readonly number[]>();
  return (causes) => {
    const key = causes.length === 0 ? 'unlisted' : keyOf(causes);
    const before = known.get(key);
    if (before) return before;
    const seen = evidence.map((item) => causes.length === 0 || causes.some(({ stop }) => sees(item, stop.index)));
    const weights = plain.map(
      (trust, i) =>
        trust / (1 + (kin[i] ?? []).reduce((sum, { j, share }) => (seen[i] === seen[j] ? sum + share : sum), 0)),
    );
    known.set(key, weights);
    return weights;
  };
}

/** What a further answer of a check would add for a set of causes, as a share of an independent witness. */
export function addedWeight(evidence: readonly Witness[], place: CheckAtPlace): (causes: readonly Cause[]) => number {
  const { check } = place;
  const next: Witness = {
    same: check.asks ?? place.key,
    method: check.id,
    trust: 1,
    place,
    ...(check.source ? { source: check.source } : {}),
  };
  const kin = evidence.filter((item) => sharedError(item, next) > 0);
  if (kin.length === 0) return () => 1;
  const [before, after] = [weightsOf(kin), weightsOf([...kin, next])];
  const sum = (weights: readonly number[]): number => weights.reduce((total, w) => total + w, 0);
  return (causes) => Math.max(LEAST_WEIGHT, sum(after(causes)) - sum(before(causes)));
}

import { isAlways } from '../catalogue/proofs';
import type { Check, CheckResult, FailureMode, Proof, Symptom } from '../catalogue/types';
import type { Stop } from '../path/route';

/**
 * What a check or a symptom looks for: results in order, each called for by values of some dimensions; the last one is the
 * normal result. A check that measures looks for one thing: whether the reading is off.
 */
export interface Look {
  readonly results: readonly { readonly when?: Readonly<Record<string, readonly string[]>> }[];
  readonly reads?: string;
}

/** One side of how a mode shows: its possible values, the normal one last, with their probabilities. */
export interface Facet {
  readonly dimension: string;
  readonly values: readonly (string | undefined)[];
  readonly p: readonly number[];
}

/** For a look at a mode: which of the mode's facets it sees, and the result that each combination of their values calls for. */
export interface LookTable {
  /** Indices into `facetsOf(mode)`. */
  readonly facets: readonly number[];
  readonly sizes: readonly number[];
  /** Mixed-radix over `facets`, the first one fastest: index of the result. */
  readonly result: Uint8Array;
}

const READS = 'reads:';

const facets = new WeakMap<FailureMode, readonly Facet[]>();

/** Everything in which a mode can show in more than one way, readings included. */
export function facetsOf(mode: FailureMode): readonly Facet[] {
  const known = facets.get(mode);
  if (known) return known;
  const made = Object.entries(mode.shows).flatMap(([dimension, values]): Facet[] => {
    const named = Object.entries(values).filter(([, p]) => p > 0);
    if (named.length === 0) return [];
    const shown = named.reduce((sum, [, p]) => sum + p, 0);
    const whole = Math.max(1, shown);
    const p = [...named.map(([, x]) => x / whole), Math.max(0, 1 - shown / whole)];
    return [{ dimension, values: [...named.map(([value]) => value), undefined], p }];
  });
  for (const [name, reading] of Object.entries(mode.reads ?? {}))
    made.push({ dimension: READS + name, values: ['off', undefined], p: [reading.p, 1 - reading.p] });
  facets.set(mode, made);
  return made;
}

const checkLooks = new WeakMap<Check, Look>();

/** The look of a check. Swaps and questions look for nothing: what they say follows from reach and history. */
export function lookOf(check: Check): Look | undefined {
  if (check.swap || check.asks) return undefined;
  const known = checkLooks.get(check);
  if (known) return known;
  const look: Look = check.quantity
    ? { results: [{ when: { [READS + check.quantity.reads]: ['off'] } }, {}], reads: check.quantity.reads }
    : { results: check.results };
  checkLooks.set(check, look);
  return look;
}

const itemLooks = new WeakMap<CheckResult, Look>();

/** One thing of those that a look may show: it is there, or it is not. */
export function itemLook(result: CheckResult): Look {
  const known = itemLooks.get(result);
  if (known) return known;
  const look: Look = { results: [{ ...(result.when ? { when: result.when } : {}) }, {}] };
  itemLooks.set(result, look);
  return look;
}

const symptomLooks = new WeakMap<Symptom, Look>();

export function symptomLook(symptom: Symptom): Look {
  const known = symptomLooks.get(symptom);
  if (known) return known;
  const look: Look = { results: [{ when: symptom.when }, {}] };
  symptomLooks.set(symptom, look);
  return look;
}

const proofLooks = new WeakMap<Proof, Look>();

/** What a proof would fail at; undefined where it tells nothing of faults. */
export function proofLook(proof: Proof): Look | undefined {
  if (!proof.fails) return undefined;
  const known = proofLooks.get(proof);
  if (known) return known;
  const look: Look = { results: [{ when: proof.fails }, {}] };
  proofLooks.set(proof, look);
  return look;
}

/**
 * Whether a proof after a repair at a stop looks at another stop. One that the work calls for looks at that place and its neighbours; one
 * that every repair is put through, or that the way the fault began calls for, at the whole path.
 */
export function proofReaches(proof: Proof, repairedAt: number, { index, station }: Stop): boolean {
  if (proof.kinds && !proof.kinds.includes(station.kind)) return false;
  return isAlways(proof) || proof.onsets !== undefined || Math.abs(index - repairedAt) <= 1;
}

const dimensions = new WeakMap<Look, readonly string[]>();

/** The sides of faults that a look looks at. */
export function dimensionsOf(look: Look): readonly string[] {
  const known = dimensions.get(look);
  if (known) return known;
  const made = [...new Set(look.results.flatMap(({ when }) => Object.keys(when ?? {})))];
  dimensions.set(look, made);
  return made;
}

const tables = new WeakMap<Look, WeakMap<FailureMode, LookTable>>();

/** Results are looked for in their order: the first one that any value calls for is what there is to be seen. */
export function lookTable(look: Look, mode: FailureMode): LookTable {
  const ofLook = tables.get(look) ?? new WeakMap<FailureMode, LookTable>();
  tables.set(look, ofLook);
  const known = ofLook.get(mode);
  if (known) return known;
  const all = facetsOf(mode);
  const wanted = new Set(look.results.flatMap((result) => Object.keys(result.when ?? {})));
  const seen = all.flatMap((facet, i) => (wanted.has(facet.dimension) ? [i] : []));
  const sizes = seen.map((i) => all[i]?.values.length ?? 1);
  const result = new Uint8Array(sizes.reduce((product, n) => product * n, 1));
  for (let combination = 0; combination < result.length; combination++) {
    let rest = combination;
    const shown = new Map<string, string | undefined>();
    seen.forEach((i, k) => {
      const size = sizes[k] ?? 1;
      const facet = all[i];
      if (facet) shown.set(facet.dimension, facet.values[rest % size]);
      rest = Math.floor(rest / size);
    });
    const called = look.results.findIndex(({ when }) =>
      Object.entries(when ?? {}).some(([dimension, values]) => {
        const value = shown.get(dimension);
        return value !== undefined && values.includes(value);
      }),
    );
    result[combination] = called < 0 ? look.results.length - 1 : called;
  }
  const table = { facets: seen, sizes, result };
  ofLook.set(mode, table);
  return table;
}

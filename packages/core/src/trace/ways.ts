import type { FailureMode } from '../catalogue/types';
import { facetsOf, lookTable, type Look } from './looks';

/**
 * The ways in which one cause may be showing itself on this machine, each with its weight. A fault shows in one way, and
 * every check sees that same way: two checks of one dimension agree but for their own errors, so they are not two
 * independent witnesses. Facets are told apart only once something has looked at them.
 */
export interface Ways {
  readonly mode: FailureMode;
  /** Facets told apart so far, in the order of `at`. */
  readonly facets: readonly number[];
  /** Value of each told facet, row by row. */
  readonly at: readonly (readonly number[])[];
  readonly weight: readonly number[];
}

export const allWays = (mode: FailureMode): Ways => ({ mode, facets: [], at: [[]], weight: [1] });

/** Ways with less than this share of the likeliest are dropped: they cannot come back in one order of evidence. */
const NEGLIGIBLE = 1e-10;

function told(ways: Ways, wanted: readonly number[]): Ways {
  let { facets, at, weight } = ways;
  for (const index of wanted) {
    if (facets.includes(index)) continue;
    const p = facetsOf(ways.mode)[index]?.p ?? [];
    const nextAt: (readonly number[])[] = [];
    const nextWeight: number[] = [];
    at.forEach((row, r) =>
      p.forEach((share, value) => {
        if (share <= 0) return;
        nextAt.push([...row, value]);
        nextWeight.push((weight[r] ?? 0) * share);
      }),
    );
    facets = [...facets, index];
    at = nextAt;
    weight = nextWeight;
  }
  return { mode: ways.mode, facets, at, weight };
}

/** Takes an observation in: `given[k]` is how likely it is when what there is to be seen is result k. */
export function observed(ways: Ways, look: Look, given: readonly number[]): Ways {
  const table = lookTable(look, ways.mode);
  const { mode, facets, at, weight } = told(ways, table.facets);
  const columns = table.facets.map((index) => facets.indexOf(index));
  const raw = at.map((row, r) => {
    let combination = 0;
    for (let k = columns.length - 1; k >= 0; k--)
      combination = combination * (table.sizes[k] ?? 1) + (row[columns[k] ?? 0] ?? 0);
    return (weight[r] ?? 0) * (given[table.result[combination] ?? 0] ?? 0);
  });
  const least = Math.max(...raw) * NEGLIGIBLE;
  const kept = raw.flatMap((x, r) => (x > least ? [r] : []));
  return {
    mode,
    facets,
    at: kept.map((r) => at[r] as readonly number[]),
    weight: kept.map((r) => raw[r] as number),
  };
}

export const mass = (ways: Ways): number => ways.weight.reduce((sum, x) => sum + x, 0);

const atFirst = new WeakMap<Look, WeakMap<FailureMode, readonly number[]>>();

/** Probability of each result of a look when none of the facets it sees is told yet: worked out once a look and mode. */
function sharesAtFirst(mode: FailureMode, look: Look): readonly number[] {
  const ofLook = atFirst.get(look) ?? new WeakMap<FailureMode, readonly number[]>();
  atFirst.set(look, ofLook);
  const known = ofLook.get(mode);
  if (known) return known;
  const table = lookTable(look, mode);
  const facets = facetsOf(mode);
  const shares = look.results.map(() => 0);
  table.result.forEach((result, combination) => {
    let rest = combination;
    let p = 1;
    table.facets.forEach((index, k) => {
      const size = table.sizes[k] ?? 1;
      p *= facets[index]?.p[rest % size] ?? 0;
      rest = Math.floor(rest / size);
    });
    shares[result] = (shares[result] ?? 0) + p;
  });
  ofLook.set(mode, shares);
  return shares;
}

/** Probability of each result of a look, as things stand: told facets as they are weighed, the others as the mode has them. */
export function resultShares(ways: Ways, look: Look): readonly number[] {
  const table = lookTable(look, ways.mode);
  const columns = table.facets.map((index) => ways.facets.indexOf(index));
  if (columns.every((column) => column < 0)) return sharesAtFirst(ways.mode, look);
  const all = facetsOf(ways.mode);
  const total = mass(ways);
  const shares = look.results.map(() => 0);
  // Weight of each combination of the facets that are told; the rest are independent of them.
  const combined = new Float64Array(table.result.length);
  const spread = (k: number, combination: number, weight: number, row: readonly number[], step: number): void => {
    if (weight === 0) return;
    if (k === columns.length) {
      combined[combination] = (combined[combination] ?? 0) + weight;
      return;
    }
    const size = table.sizes[k] ?? 1;
    const column = columns[k] ?? -1;
    if (column >= 0) spread(k + 1, combination + step * (row[column] ?? 0), weight, row, step * size);
    else
      all[table.facets[k] ?? 0]?.p.forEach((p, value) =>
        spread(k + 1, combination + step * value, weight * p, row, step * size),
      );
  };
  ways.at.forEach((row, r) => spread(0, 0, (ways.weight[r] ?? 0) / total, row, 1));
  combined.forEach((weight, combination) => {
    const result = table.result[combination] ?? 0;
    shares[result] = (shares[result] ?? 0) + weight;
  });
  return shares;
}

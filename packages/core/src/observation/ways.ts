import type { FailureMode } from '../catalogue/types';
import { facetsOf, lookTable, type Look } from './looks';

/** Sides of a fault that some observation has tied together, with every combination of their values. */
interface Part {
  /** Facets, in the order of `at`. */
  readonly facets: readonly number[];
  /** Value of each facet, row by row. */
  readonly at: readonly (readonly number[])[];
  readonly weight: readonly number[];
}

/**
 * The ways in which one cause may be showing itself on this machine, each with its weight. A fault shows in one way, and
 * every check sees that same way: two checks of one dimension agree but for their own errors, so they are not two
 * independent witnesses. Facets are told apart only once something has looked at them, and tied together only where one
 * observation looked at both.
 */
export interface Ways {
  readonly mode: FailureMode;
  readonly parts: readonly Part[];
}

export const allWays = (mode: FailureMode): Ways => ({ mode, parts: [] });

/** Ways with less than this share of the likeliest are dropped: they cannot come back in one order of evidence. */
const NEGLIGIBLE = 1e-10;

const NOTHING: Part = { facets: [], at: [[]], weight: [1] };

function product(a: Part, b: Part): Part {
  if (a.facets.length === 0) return b;
  const at: (readonly number[])[] = [];
  const weight: number[] = [];
  a.at.forEach((row, r) =>
    b.at.forEach((other, q) => {
      at.push([...row, ...other]);
      weight.push((a.weight[r] ?? 0) * (b.weight[q] ?? 0));
    }),
  );
  return { facets: [...a.facets, ...b.facets], at, weight };
}

/** One facet as the mode has it. */
function fresh(mode: FailureMode, index: number): Part {
  const at: (readonly number[])[] = [];
  const weight: number[] = [];
  (facetsOf(mode)[index]?.p ?? []).forEach((share, value) => {
    if (share <= 0) return;
    at.push([value]);
    weight.push(share);
  });
  return { facets: [index], at, weight };
}

/** The parts that hold some facets, as one, with those that nothing has looked at yet; and the other parts. */
function tied(ways: Ways, wanted: readonly number[]): { readonly one: Part; readonly others: readonly Part[] } {
  let one = NOTHING;
  const others: Part[] = [];
  for (const part of ways.parts)
    if (part.facets.some((index) => wanted.includes(index))) one = product(one, part);
    else others.push(part);
  for (const index of wanted) if (!one.facets.includes(index)) one = product(one, fresh(ways.mode, index));
  return { one, others };
}

/** For each row of a part, the result that a look would find. */
function resultsOf(one: Part, look: Look, mode: FailureMode): readonly number[] {
  const table = lookTable(look, mode);
  const columns = table.facets.map((index) => one.facets.indexOf(index));
  return one.at.map((row) => {
    let combination = 0;
    for (let k = columns.length - 1; k >= 0; k--)
      combination = combination * (table.sizes[k] ?? 1) + (row[columns[k] ?? 0] ?? 0);
    return table.result[combination] ?? 0;
  });
}

/** Takes an observation in: `given[k]` is how likely it is when what there is to be seen is result k. */
export function observed(ways: Ways, look: Look, given: readonly number[]): Ways {
  const { one, others } = tied(ways, lookTable(look, ways.mode).facets);
  const results = resultsOf(one, look, ways.mode);
  const raw = one.weight.map((w, r) => w * (given[results[r] ?? 0] ?? 0));
  const least = Math.max(...raw) * NEGLIGIBLE;
  const kept = raw.flatMap((x, r) => (x > least ? [r] : []));
  const part = {
    facets: one.facets,
    at: kept.map((r) => one.at[r] as readonly number[]),
    weight: kept.map((r) => raw[r] as number),
  };
  return { mode: ways.mode, parts: [...others, part] };
}

const weightOf = ({ weight }: Part): number => weight.reduce((sum, x) => sum + x, 0);

export const mass = ({ parts }: Ways): number => parts.reduce((whole, part) => whole * weightOf(part), 1);

const atFirst = new WeakMap<Look, WeakMap<FailureMode, readonly number[]>>();

/** Probability of each result of a look, as things stand: told facets as they are weighed, the others as the mode has them. */
export function resultShares(ways: Ways, look: Look): readonly number[] {
  const { mode } = ways;
  const { facets } = lookTable(look, mode);
  // Where nothing has looked at these facets yet it is the same for every case: worked out once a look and mode.
  const told = ways.parts.some((part) => part.facets.some((index) => facets.includes(index)));
  const ofLook = atFirst.get(look) ?? new WeakMap<FailureMode, readonly number[]>();
  atFirst.set(look, ofLook);
  const known = told ? undefined : ofLook.get(mode);
  if (known) return known;
  const { one } = tied(ways, facets);
  const total = weightOf(one);
  const results = resultsOf(one, look, mode);
  const shares = look.results.map(() => 0);
  one.weight.forEach((w, r) => (shares[results[r] ?? 0] = (shares[results[r] ?? 0] ?? 0) + w / total));
  if (!told) ofLook.set(mode, shares);
  return shares;
}

/** Expected share of each value of the facets that something has looked at, by facet. */
export const toldShares = ({
  mode,
  parts,
}: Ways): readonly { readonly facet: number; readonly p: readonly number[] }[] =>
  parts.flatMap((part) => {
    const total = weightOf(part);
    return part.facets.map((facet, column) => ({
      facet,
      p: (facetsOf(mode)[facet]?.values ?? []).map(
        (_, v) => part.at.reduce((sum, row, r) => sum + (row[column] === v ? (part.weight[r] ?? 0) : 0), 0) / total,
      ),
    }));
  });

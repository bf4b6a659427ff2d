import type { Catalogue, Check, FailureMode, Shows } from '../catalogue/types';
import { noCounts, type Counts, type Learned } from './counts';

/**
 * How many occurrences the catalogue's own word is worth before the counts outweigh it (chosen; about what a weight that
 * may be wrong by a factor 3 either way, and an effect wrong by 1 in log-odds, deserve). Closer groups need more to differ.
 */
const WEIGHT_STRENGTH = { shop: 3, family: 12, machine: 20 } as const;
const SHOWS_STRENGTH = 7;
const CHECK_STRENGTH = 25;

/** Gamma–Poisson, which for shares is the Dirichlet: (prior + found) / (prior + expected). */
const credible = (strength: number, found: number, expected: number): number =>
  (strength + found) / (strength + expected);

/** By how much a mode's weight is moved by the shop, then its family, then the machine, each against what came before. */
export function weightFactor(
  mode: string,
  levels: { readonly shop: Counts; readonly family: Counts; readonly machine: Counts },
): number {
  let factor = 1;
  for (const level of ['shop', 'family', 'machine'] as const) {
    const count = levels[level].modes[mode];
    if (count) factor *= credible(WEIGHT_STRENGTH[level], count.found, count.expected * factor);
  }
  return factor;
}

/** Dirichlet: the catalogue's shares as pseudo-counts, the shop's counts added. */
function movedShows(shows: Shows, counts: Readonly<Record<string, number>>): Shows {
  const total = Object.values(counts).reduce((sum, n) => sum + n, 0);
  return Object.fromEntries(
    Object.entries(shows).map(([value, p]) => [
      value,
      (SHOWS_STRENGTH * p + (counts[value] ?? 0)) / (SHOWS_STRENGTH + total),
    ]),
  );
}

const READS = 'reads:';

function movedMode(mode: FailureMode, factor: number, counts: Counts): FailureMode {
  const seen = counts.shows[mode.id];
  const weight = mode.weight * factor;
  if (!seen) return { ...mode, weight };
  const shows = Object.entries(mode.shows).map(([dimension, values]) => [
    dimension,
    seen[dimension] ? movedShows(values, seen[dimension]) : values,
  ]);
  const reads = Object.entries(mode.reads ?? {}).map(([name, reading]) => {
    const count = seen[READS + name];
    const p = count ? (movedShows({ off: reading.p }, count)['off'] ?? reading.p) : reading.p;
    return [name, { ...reading, p }];
  });
  return {
    ...mode,
    weight,
    shows: Object.fromEntries(shows) as FailureMode['shows'],
    ...(mode.reads ? { reads: Object.fromEntries(reads) as FailureMode['reads'] } : {}),
  };
}

/** Beta: how often a check errs, the catalogue's word as pseudo-counts. */
function movedCheck(check: Check, counts: Counts): Check {
  const count = counts.checks[check.id];
  if (!count) return check;
  const beta = (p: number, hits: number, n: number): number => (CHECK_STRENGTH * p + hits) / (CHECK_STRENGTH + n);
  return {
    ...check,
    miss: beta(check.miss, count.missed, count.present),
    falseAlarm: beta(check.falseAlarm, count.false, count.absent),
  };
}

/** The catalogue as the shop's own orders have moved it for one machine. */
export function learnedCatalogue(
  catalogue: Catalogue,
  learned: Learned,
  machine: { readonly id: string; readonly family: string },
): Catalogue {
  if (learned.shop.orders === 0) return catalogue;
  const levels = {
    shop: learned.shop,
    family: learned.families[machine.family] ?? noCounts,
    machine: learned.machines[machine.id] ?? noCounts,
  };
  return {
    ...catalogue,
    modes: catalogue.modes.map((mode) => movedMode(mode, weightFactor(mode.id, levels), learned.shop)),
    checks: catalogue.checks.map((check) => movedCheck(check, learned.shop)),
  };
}

export interface Moved {
  readonly id: string;
  readonly name: string;
  readonly from: number;
  readonly to: number;
  /** Orders that speak of it. */
  readonly speak: number;
}

/** What the counts have moved for a machine, most first: weights as multiples, errors as shares. */
export function whatMoved(
  catalogue: Catalogue,
  learned: Learned,
  machine: { readonly id: string; readonly family: string },
) {
  const after = learnedCatalogue(catalogue, learned, machine);
  const most = (list: readonly Moved[]): readonly Moved[] =>
    list
      .filter(({ from, to }) => Math.abs(Math.log(to / from)) > 0.05)
      .sort((a, b) => Math.abs(Math.log(b.to / b.from)) - Math.abs(Math.log(a.to / a.from)));
  const modes = most(
    catalogue.modes.map(({ id, name, weight }, i) => ({
      id,
      name,
      from: weight,
      to: after.modes[i]?.weight ?? weight,
      speak: learned.shop.modes[id]?.found ?? 0,
    })),
  );
  const checks = most(
    catalogue.checks.map(({ id, name, miss }, i) => ({
      id,
      name,
      from: miss,
      to: after.checks[i]?.miss ?? miss,
      speak: Math.round((learned.shop.checks[id]?.present ?? 0) + (learned.shop.checks[id]?.absent ?? 0)),
    })),
  );
  return { orders: learned.shop.orders, modes, checks };
}

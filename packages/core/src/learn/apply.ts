import type { Catalogue, Check, FailureMode, Shows } from '../catalogue/types';
import { shopPace, type LearnedCatalogue } from '../decision/pace';
import { noCounts, type Counts, type Learned, type ModeCount } from './counts';

/**
 * How many occurrences the catalogue's own word is worth before the counts outweigh it (chosen; about what a weight that
 * may be wrong by a factor 3 either way, and an effect wrong by 1 in log-odds, deserve). Closer groups need more to differ.
 */
const WEIGHT_STRENGTH = { shop: 3, family: 12, machine: 20 } as const;
const SHOWS_STRENGTH = 7;
const CHECK_STRENGTH = 25;

/** What is believed of a factor: gamma, by its mean and its shape. */
interface Belief {
  readonly mean: number;
  readonly shape: number;
}

/** Gamma–Poisson, which for shares is the Dirichlet. */
const seen = ({ mean, shape }: Belief, { found, expected }: ModeCount): Belief => ({
  mean: (shape + found) / (shape / mean + expected),
  shape: shape + found,
});

/** A closer group differs from what it belongs to: the same mean, less certain (squared spreads of the factors add up). */
const closer = ({ mean, shape }: Belief, strength: number): Belief => ({
  mean,
  shape: 1 / (1 / shape + 1 / strength),
});

const without = (whole: ModeCount | undefined, part: ModeCount | undefined): ModeCount => ({
  found: Math.max(0, (whole?.found ?? 0) - (part?.found ?? 0)),
  expected: Math.max(0, (whole?.expected ?? 0) - (part?.expected ?? 0)),
});

/**
 * By how much a mode's weight is moved: by the rest of the shop, then the rest of the machine's family, then the machine
 * itself, so that no order counts twice.
 */
export function weightFactor(
  mode: string,
  levels: { readonly shop: Counts; readonly family: Counts; readonly machine: Counts },
): number {
  const [shop, family, machine] = [levels.shop, levels.family, levels.machine].map(({ modes }) => modes[mode]);
  const elsewhere = seen({ mean: 1, shape: WEIGHT_STRENGTH.shop }, without(shop, family));
  const kin = seen(closer(elsewhere, WEIGHT_STRENGTH.family), without(family, machine));
  return seen(closer(kin, WEIGHT_STRENGTH.machine), without(machine, undefined)).mean;
}

/**
 * Dirichlet: the catalogue's shares as pseudo-counts, the shop's counts added. Counts of values that the mode had under another
 * name once are spread over those it has, as the catalogue shares them.
 */
function movedShows(shows: Shows, counts: Readonly<Record<string, number>>): Shows {
  const total = Object.values(counts).reduce((sum, n) => sum + n, 0);
  const known = Object.keys(shows).reduce((sum, value) => sum + (counts[value] ?? 0), counts[''] ?? 0);
  const whole = Object.values(shows).reduce((sum, p) => sum + p, 0) || 1;
  return Object.fromEntries(
    Object.entries(shows).map(([value, p]) => [
      value,
      (SHOWS_STRENGTH * p + (counts[value] ?? 0) + ((total - known) * p) / whole) / (SHOWS_STRENGTH + total),
    ]),
  );
}

const READS = 'reads:';

function movedMode(mode: FailureMode, factor: number, counts: Counts): FailureMode {
  const shown = counts.shows[mode.id];
  const weight = mode.weight * factor;
  if (!shown) return { ...mode, weight };
  const shows = Object.entries(mode.shows).map(([dimension, values]) => [
    dimension,
    shown[dimension] ? movedShows(values, shown[dimension]) : values,
  ]);
  const reads = Object.entries(mode.reads ?? {}).map(([name, reading]) => {
    const count = shown[READS + name];
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
): LearnedCatalogue {
  const { pace } = learned.shop;
  const paced = pace ? { ...catalogue, pace: shopPace(pace) } : catalogue;
  if (learned.shop.orders === 0) return paced;
  const levels = {
    shop: learned.shop,
    family: learned.families[machine.family] ?? noCounts,
    machine: learned.machines[machine.id] ?? noCounts,
  };
  return {
    ...paced,
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

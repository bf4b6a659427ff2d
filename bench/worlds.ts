import { createHash } from 'node:crypto';
import { mersenne, unsafeUniformIntDistribution } from 'pure-rand';
import { deliveredCatalogue, learnedCatalogue, type Catalogue, type Machine } from '@zealous/core';
import { drawOrder, followTracer, learnedFrom, perturbed, type Luck, type Random } from '@zealous/core/practice';

export function seeded(seed: number): Random {
  const generator = mersenne(seed);
  return () => unsafeUniformIntDistribution(0, 0x7fffffff, generator) / 0x80000000;
}

/** The same number for the same thing of the same order, whoever asks and when. */
export const luckOf =
  (seed: number): Luck =>
  (what) =>
    createHash('sha256').update(`${seed} ${what}`).digest().readUInt32LE() / 0x100000000;

/** Orders that are learned from. */
export const LEARNED_ORDERS = 200;

/** One of the worlds that the catalogue has wrong. */
export const worldOf = (seed: number, w: number): Catalogue => perturbed(deliveredCatalogue, seeded(seed * 7 + w));

/** What a shop believes after its first orders in a world. */
export function taught(machine: Machine, truth: Catalogue, seed: number): Catalogue {
  const orders = Array.from({ length: LEARNED_ORDERS }, (_, i) => {
    const hidden = drawOrder(machine, truth, seeded(seed * 3 + 100_000 + i), deliveredCatalogue);
    return { hidden, tally: followTracer(hidden, luckOf(seed * 5 + i), { depth: 1 }) };
  });
  return learnedCatalogue(deliveredCatalogue, learnedFrom(orders, deliveredCatalogue), machine);
}

/** A catalogue with the weights of another. */
export const withWeights = (catalogue: Catalogue, of: Catalogue): Catalogue => ({
  ...catalogue,
  modes: catalogue.modes.map((mode, i) => ({ ...mode, weight: of.modes[i]?.weight ?? mode.weight })),
});

import type { Material, Offer, Remedy } from '../catalogue/types';
import { halfLife, type Life } from '../physics/partLife';

/** A life on record, of a kind of part. */
export interface PartLife extends Life {
  readonly part: string;
  /** Which offer it was, when it is known. */
  readonly offer?: string;
}

/** Something to fit, with what it costs now and over its life. */
export interface PricedOffer {
  readonly offer: Offer;
  /** Price, and the minutes at the shop's rate: the way there and fitting it. */
  readonly cost: number;
  readonly lifeHours: number;
  /** What a thousand printing hours with it cost, when it is renewed as often as it ends. */
  readonly perThousandHours: number;
  /** Lives on record that speak. */
  readonly speak: number;
}

/** What a remedy offers; nothing when its own price and minutes say all there is. */
export const offersOf = (remedy: Remedy): readonly Offer[] => remedy.offers ?? [];

const startOf = (offer: Offer, material: Material): number =>
  material.traits.includes('abrasive') ? (offer.lifeHoursAbrasive ?? offer.lifeHours) : offer.lifeHours;

/** What is to be fitted, unless something else is picked: what costs least over its life, by the starting figures. */
export function offerFor(remedy: Remedy, material: Material, hourlyRate: number, own?: string): Offer | undefined {
  const offers = offersOf(remedy);
  const overLife = (offer: Offer): number =>
    (offer.price + (offer.minutes / 60) * hourlyRate) / startOf(offer, material);
  // Whether the box of spares has one is not known before it was looked through.
  const bought = offers.filter(({ kind }) => kind !== 'spare');
  return offers.find(({ id }) => id === own) ?? [...bought].sort((a, b) => overLife(a) - overLife(b))[0];
}

/**
 * Minutes that renewing counts with in the ladder: the least that any offer asks, its price at the hourly rate. What a part of
 * longer life costs more buys hours, not this cure.
 */
export function clearingMinutes(remedy: Remedy, hourlyRate: number): number | undefined {
  const offers = offersOf(remedy).filter(({ kind }) => kind !== 'spare');
  return offers.length === 0
    ? undefined
    : Math.min(...offers.map(({ price, minutes }) => minutes + (price * 60) / hourlyRate));
}

/** Lives that speak for an offer; those that do not say what it was speak for the first, the one that machines come with. */
export const livesOf = (remedy: Remedy, offer: Offer, lives: readonly PartLife[]): readonly PartLife[] =>
  lives.filter(
    (life) =>
      life.part === remedy.replaces &&
      (life.offer === undefined
        ? offersOf(remedy).find(({ kind }) => kind !== 'spare')?.id === offer.id
        : life.offer === offer.id),
  );

/**
 * Part, kit, assembly or upgrade: what each costs over its life, cheapest first. The way to the place is paid again at every
 * renewal, so a long life counts for more where it is far to get at.
 *
 * @param thereMin bench minutes to get there, whatever is fitted
 * @param lives on record
 */
export function pricedOffers(
  remedy: Remedy,
  material: Material,
  hourlyRate: number,
  thereMin: number,
  lives: readonly PartLife[],
): readonly PricedOffer[] {
  return offersOf(remedy)
    .map((offer): PricedOffer => {
      const own = livesOf(remedy, offer, lives);
      const lifeHours = halfLife(startOf(offer, material), own);
      const cost = offer.price + ((thereMin + offer.minutes) / 60) * hourlyRate;
      return { offer, cost, lifeHours, perThousandHours: (1000 * cost) / lifeHours, speak: own.length };
    })
    .sort((a, b) => a.perThousandHours - b.perThousandHours);
}

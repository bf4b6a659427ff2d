import type { Fastener } from '../path/machine';

/** One screw, clip or plug at its place on the part. */
export interface Pin {
  /** Its number on the map of the part. */
  readonly index: number;
  /** Which row of the part's fasteners it belongs to. */
  readonly group: number;
  /** Letter of its row: pins of one letter are alike. */
  readonly letter: string;
  /** Fractions of the part's width and height from the upper left. */
  readonly x: number;
  readonly y: number;
}

export interface PinGroup {
  readonly letter: string;
  readonly fastener: Fastener;
  readonly pins: readonly Pin[];
  /** Letters that it may be mistaken for: same kind and drive, almost the same length. */
  readonly lookAlikes: readonly string[];
}

/** Lengths closer than this are taken for one another on the mat (chosen). */
const ALIKE_MM = 4;
const EDGE = 0.14;

const across: Readonly<Record<string, number>> = { left: EDGE, right: 1 - EDGE };
const down: Readonly<Record<string, number>> = { upper: EDGE, top: EDGE, lower: 1 - EDGE, bottom: 1 - EDGE };

/** Where words put a hole: "upper left, lower right", "corners", "middle". Undefined when they do not say it of each. */
function fromWords(hole: string | undefined, count: number): readonly (readonly [number, number])[] | undefined {
  if (!hole) return undefined;
  const text = hole.toLowerCase();
  if (text.includes('corner') && count === 4)
    return [
      [EDGE, EDGE],
      [1 - EDGE, EDGE],
      [EDGE, 1 - EDGE],
      [1 - EDGE, 1 - EDGE],
    ];
  const places = text.split(/,| and /).map((part): readonly [number, number] | undefined => {
    const words = part.trim().split(/[\s-]+/);
    const x = words.map((word) => across[word]).find((at) => at !== undefined);
    const y = words.map((word) => down[word]).find((at) => at !== undefined);
    if (x === undefined && y === undefined && !words.some((word) => word === 'middle' || word === 'centre'))
      return undefined;
    return [x ?? 0.5, y ?? 0.5];
  });
  const known = places.filter((place): place is readonly [number, number] => place !== undefined);
  return known.length === count && places.length === count ? known : undefined;
}

/** Round the part, from the upper left, for holes of which nothing is said. */
const around = (i: number, n: number): readonly [number, number] => {
  const angle = -0.75 * Math.PI + (2 * Math.PI * i) / n;
  return [0.5 + 0.36 * Math.cos(angle), 0.5 + 0.36 * Math.sin(angle)];
};

const alike = (a: Fastener, b: Fastener): boolean =>
  a.what === b.what &&
  a.drive === b.drive &&
  a.lengthMm !== undefined &&
  b.lengthMm !== undefined &&
  a.lengthMm !== b.lengthMm &&
  Math.abs(a.lengthMm - b.lengthMm) <= ALIKE_MM;

/** The map of a part: each fastener at its place, lettered by kind, with those that may be mistaken for one another. */
export function fastenerMap(fasteners: readonly Fastener[]): readonly PinGroup[] {
  const letters = fasteners.map((_, g) => String.fromCharCode(65 + (g % 26)));
  const loose = fasteners.reduce((n, one) => n + ((one.at ?? fromWords(one.hole, one.count)) ? 0 : one.count), 0);
  let index = 0;
  let free = 0;
  return fasteners.map((fastener, group): PinGroup => {
    const letter = letters[group] ?? '';
    const places = fastener.at ?? fromWords(fastener.hole, fastener.count);
    const pins = Array.from({ length: fastener.count }, (_, i): Pin => {
      const [x, y] = places?.[i] ?? around(free++, loose);
      return { index: index++, group, letter, x, y };
    });
    const lookAlikes = fasteners.flatMap((other, o) =>
      o !== group && alike(fastener, other) ? [letters[o] ?? ''] : [],
    );
    return { letter, fastener, pins, lookAlikes };
  });
}

/** Whether a fastener comes out with its part: not one that is only loosened, or need not come out. */
const comesOut = ({ loosenOnly, stays }: Fastener): boolean => !loosenOnly && !stays;

/** Numbers, on the map, of the fasteners that come out with a part. */
export const pinsThatComeOut = (fasteners: readonly Fastener[]): readonly number[] =>
  fastenerMap(fasteners).flatMap(({ fastener, pins }) => (comesOut(fastener) ? pins.map(({ index }) => index) : []));

/** What has become of the fasteners of a part, by their number on its map. */
export type FastenerRecord = Readonly<Record<number, { readonly now: 'out' | 'in' | 'left'; readonly why?: string }>>;

/** Pins that came out and are neither back nor left out for a reason: they are still on the mat. */
export const onTheMat = (groups: readonly PinGroup[], record: FastenerRecord = {}): readonly Pin[] =>
  groups.flatMap(({ pins, fastener }) =>
    comesOut(fastener) ? pins.filter((pin) => record[pin.index]?.now === 'out') : [],
  );

import { dimensionsOf } from '../observation/looks';
import type { Evidence } from './evidence';

/** Result index that stands for: this check does not see this fault. */
export const UNSEEN = 255;

/** Observations whose looks share a side of how faults show; what they see of one fault hangs together. */
export interface Block {
  /** Looks at sides of this block alone. */
  readonly evidence: readonly number[];
  /** Looks that see sides of other blocks too: of all that they might find, they find what they look for first. */
  readonly links: readonly number[];
  readonly dimensions: ReadonlySet<string>;
  /** What is seen says the same of whichever fault shows it: no depth and no reading was recorded. */
  readonly uniform: boolean;
}

/** Blocks that hang together by a few looks alone, which are gone through by what they find. Most are one block. */
export interface Component {
  readonly blocks: readonly Block[];
  readonly links: readonly number[];
}

/** More sights than there can be: two of them are one exact number. */
const MOST_SIGHTS = 2 ** 26;
/** Pairs that are remembered at one time; a table takes no more than some 16 million. */
const MOST_KEPT = 2 ** 21;

/** What several observations see together, each distinct combination numbered; two faults show what either one shows first. */
export class Sights {
  readonly seen: Uint8Array[] = [];
  private readonly known = new Map<string, number>();
  private readonly both = new Map<number, number>();

  id(seen: Uint8Array, key = seen.join()): number {
    const before = this.known.get(key);
    if (before !== undefined) return before;
    this.known.set(key, this.seen.length);
    return this.seen.push(seen) - 1;
  }

  together(a: number, b: number): number {
    if (a === b) return a;
    const key = a < b ? a * MOST_SIGHTS + b : b * MOST_SIGHTS + a;
    const before = this.both.get(key);
    if (before !== undefined) return before;
    if (this.both.size >= MOST_KEPT) this.both.clear();
    const [x, y] = [this.seen[a] as Uint8Array, this.seen[b] as Uint8Array];
    const made = this.id(x.map((value, n) => Math.min(value, y[n] as number)));
    this.both.set(key, made);
    return made;
  }
}

/** With more ways than this in which faults may show, a component is taken apart, if it hangs by so few looks (chosen). */
export const MANY_WAYS = 64;
const MOST_LINKS = 3;
/** One side tells faults apart in so many ways at most, as far as this matters here. */
const MOST_VALUES = 12;

/** Observations that share a dimension, directly or by way of others, together. */
export function componentsOf(evidence: readonly Evidence[], manyWays = MANY_WAYS): readonly Component[] {
  const looked = evidence.flatMap(({ look }, e) => (look ? [e] : []));
  return joined(looked, evidence).map((part) => takenApart(part, evidence, manyWays));
}

interface Part {
  readonly evidence: readonly number[];
  readonly dimensions: ReadonlySet<string>;
}

const sidesOf = (e: number, evidence: readonly Evidence[]): readonly string[] => {
  const look = evidence[e]?.look;
  return look ? dimensionsOf(look) : [];
};

/** Looks that share a dimension, and dimensions that only `alone` looks at, each by itself. */
function joined(looks: readonly number[], evidence: readonly Evidence[], alone: readonly string[] = []): Part[] {
  const parts: { evidence: number[]; dimensions: Set<string> }[] = [];
  for (const e of looks) {
    const mine = { evidence: [e], dimensions: new Set(sidesOf(e, evidence)) };
    for (let i = parts.length - 1; i >= 0; i--) {
      const part = parts[i];
      if (!part || ![...part.dimensions].some((dimension) => mine.dimensions.has(dimension))) continue;
      mine.evidence.unshift(...part.evidence);
      part.dimensions.forEach((dimension) => mine.dimensions.add(dimension));
      parts.splice(i, 1);
    }
    parts.push(mine);
  }
  for (const dimension of new Set(alone))
    if (!parts.some(({ dimensions }) => dimensions.has(dimension)))
      parts.push({ evidence: [], dimensions: new Set([dimension]) });
  return parts;
}

/** A number was recorded that speaks of whichever fault is met first. */
const numbered = (e: number, evidence: readonly Evidence[]): boolean =>
  evidence[e]?.metFirst !== undefined && evidence[e]?.finding?.value !== undefined;

/** Takes a component with many ways apart where it hangs together by a few looks, those first whose loss leaves the fewest ways. */
function takenApart(whole: Part, evidence: readonly Evidence[], manyWays: number): Component {
  const ways = ({ dimensions }: Part): number => {
    const values = [...dimensions].map((dimension) => {
      const named = whole.evidence.flatMap((e) =>
        (evidence[e]?.look?.results ?? []).flatMap(({ when }) => when?.[dimension] ?? []),
      );
      return 1 + Math.min(MOST_VALUES, new Set(named).size);
    });
    return values.reduce((product, n) => product * n, 1);
  };
  const most = (parts: readonly Part[]): number => Math.max(...parts.map(ways));
  // Looks at the same sides hold the same blocks together.
  const groups = new Map<string, number[]>();
  for (const e of whole.evidence) {
    const sides = sidesOf(e, evidence);
    if (sides.length < 2 || numbered(e, evidence)) continue;
    const key = [...sides].sort().join();
    groups.set(key, [...(groups.get(key) ?? []), e]);
  }
  let links: readonly number[] = [];
  let parts: readonly Part[] = [whole];
  for (;;) {
    if (most(parts) <= manyWays) break;
    let best: { readonly links: readonly number[]; readonly parts: readonly Part[] } | undefined;
    for (const group of groups.values()) {
      if (links.length + group.length > MOST_LINKS || group.some((e) => links.includes(e))) continue;
      const cut = [...links, ...group];
      const left = whole.evidence.filter((e) => !cut.includes(e));
      const made = joined(
        left,
        evidence,
        cut.flatMap((e) => sidesOf(e, evidence)),
      );
      if (most(made) < most(best?.parts ?? parts)) best = { links: cut, parts: made };
    }
    if (!best) break;
    ({ links, parts } = best);
  }
  return {
    links,
    blocks: parts.map((part) => ({
      ...part,
      links: links.filter((e) => sidesOf(e, evidence).some((side) => part.dimensions.has(side))),
      uniform: !part.evidence.some((e) => numbered(e, evidence)),
    })),
  };
}

/** What a block looks at, its links last. */
export const columnsOf = ({ evidence, links }: Block): readonly number[] => [...evidence, ...links];

import type { Cause } from '../observation/causes';
import type { FailureMode } from '../catalogue/types';
import { dimensionsOf, facetsOf, lookTable, type Look } from '../observation/looks';
import { bounded } from '../quantities/keptWith';
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
/** Of what a fault shows to some looks together, so much is kept (chosen). */
const MOST_SHOWN = 100;

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

/** How one fault is seen by some looks, whoever else is there. */
export interface Shown {
  readonly seen: readonly Uint8Array[];
  readonly chance: readonly number[];
  /** The fault can show nothing at all to any of them. */
  readonly silent: boolean;
  /** Each sight as a text. */
  readonly keys: readonly string[];
  /** The whole as a text: faults of which it is the same show alike. */
  readonly text: string;
}

/** By fault, and by what looks at it: the same in every order, so worked out once. */
const shownBy = new WeakMap<FailureMode, Map<string, Shown>>();
/** Looks by number, as they come up. */
const numbers = new WeakMap<Look, number>();
let looks = 0;

const numberOf = (look: Look): number => {
  const known = numbers.get(look) ?? ++looks;
  numbers.set(look, known);
  return known;
};

/** All that what a block sees of faults depends on, as a text. */
export const blockKey = (block: Block, evidence: readonly Evidence[]): string =>
  [
    block.uniform,
    block.evidence.length,
    ...block.dimensions,
    ...columnsOf(block).map((e) => {
      const { look, place, epoch } = evidence[e] as Evidence;
      return `${look ? numberOf(look) : ''}:${place?.key ?? ''}:${epoch}`;
    }),
  ].join();

/** How a cause is seen by the looks of a block that came before it was taken away. */
export function shownOf(block: Block, evidence: readonly Evidence[], { mode, stop }: Cause, removed: number): Shown {
  const known = shownBy.get(mode) ?? new Map<string, Shown>();
  shownBy.set(mode, bounded(known, MOST_SHOWN));
  const seenBy = columnsOf(block).map((e) => {
    const { look, place, epoch } = evidence[e] as Evidence;
    return epoch <= removed && (!place || place.reach.has(stop.index)) ? look : undefined;
  });
  // Without links a block has all the sides that its looks look at.
  let key = block.links.length > 0 ? [...block.dimensions].join() : '';
  for (const look of seenBy) key += look ? `,${numberOf(look)}` : ',';
  let shown = known.get(key);
  if (!shown) known.set(key, (shown = shownTo(seenBy, mode, block.dimensions)));
  return shown;
}

/** The ways in which a fault may show to some looks; of a look that sees other sides too, only what it sees of these. */
function shownTo(seenBy: readonly (Look | undefined)[], mode: FailureMode, dimensions: ReadonlySet<string>): Shown {
  const all = facetsOf(mode);
  const tables = seenBy.map((look) => (look ? lookTable(look, mode) : undefined));
  const wanted = [...new Set(tables.flatMap((table) => table?.facets ?? []))].filter((facet) =>
    dimensions.has(all[facet]?.dimension ?? ''),
  );
  const shown = new Set(wanted);
  const rows = new Map<string, { seen: Uint8Array; chance: number }>();
  const value = new Map<number, number>();
  const visit = (k: number, chance: number): void => {
    if (chance <= 0) return;
    const facet = wanted[k];
    if (facet !== undefined) {
      all[facet]?.p.forEach((p, v) => {
        value.set(facet, v);
        visit(k + 1, chance * p);
      });
      return;
    }
    const seen = Uint8Array.from(tables, (table) => {
      if (!table?.facets.some((facet) => shown.has(facet))) return UNSEEN;
      let combination = 0;
      for (let i = table.facets.length - 1; i >= 0; i--) {
        const facet = table.facets[i] as number;
        const size = table.sizes[i] ?? 1;
        // The last value is that nothing shows there.
        combination = combination * size + (shown.has(facet) ? (value.get(facet) ?? 0) : size - 1);
      }
      return table.result[combination] ?? 0;
    });
    const key = seen.join();
    const known = rows.get(key);
    if (known) known.chance += chance;
    else rows.set(key, { seen, chance });
  };
  visit(0, 1);
  const list = [...rows.values()];
  const keys = [...rows.keys()];
  const chance = list.map((row) => row.chance);
  return {
    seen: list.map(({ seen }) => seen),
    chance,
    silent: wanted.length === 0,
    keys,
    text: `${keys.join(';')}|${chance.join()}`,
  };
}

import type { Cause } from '../observation/causes';
import { dimensionsOf, facetsOf, lookTable } from '../observation/looks';
import type { Evidence } from './evidence';
import type { Profile } from './profile';

/** Result index that stands for: this check does not see this fault. */
export const UNSEEN = 255;

/** Observations whose looks share a side of how faults show; what they see of one fault hangs together. */
export interface Component {
  readonly evidence: readonly number[];
  readonly dimensions: ReadonlySet<string>;
  /** What is seen says the same of whichever fault shows it: no depth and no reading was recorded. */
  readonly uniform: boolean;
}

/** What several observations see together, each distinct combination numbered; two faults show what either one shows first. */
export class Sights {
  readonly seen: Uint8Array[] = [];
  private readonly known = new Map<string, number>();
  private readonly both = new Map<number, number>();

  id(seen: Uint8Array): number {
    const key = seen.join();
    const before = this.known.get(key);
    if (before !== undefined) return before;
    this.known.set(key, this.seen.length);
    return this.seen.push(seen) - 1;
  }

  together(a: number, b: number): number {
    if (a === b) return a;
    const key = a < b ? a * 65536 + b : b * 65536 + a;
    const before = this.both.get(key);
    if (before !== undefined) return before;
    const [x, y] = [this.seen[a] as Uint8Array, this.seen[b] as Uint8Array];
    const made = this.id(x.map((value, n) => Math.min(value, y[n] as number)));
    this.both.set(key, made);
    return made;
  }
}

/** Observations that share a dimension, directly or by way of others, together. */
export function componentsOf(evidence: readonly Evidence[]): readonly Component[] {
  const parts: { evidence: number[]; dimensions: Set<string> }[] = [];
  evidence.forEach(({ look }, e) => {
    if (!look) return;
    const mine = { evidence: [e], dimensions: new Set(dimensionsOf(look)) };
    for (let i = parts.length - 1; i >= 0; i--) {
      const part = parts[i];
      if (!part || ![...part.dimensions].some((dimension) => mine.dimensions.has(dimension))) continue;
      mine.evidence.unshift(...part.evidence);
      part.dimensions.forEach((dimension) => mine.dimensions.add(dimension));
      parts.splice(i, 1);
    }
    parts.push(mine);
  });
  const numbered = (e: number): boolean => {
    const { metFirst, finding } = evidence[e] as Evidence;
    return metFirst !== undefined && finding?.value !== undefined;
  };
  return parts.map((part) => ({ ...part, uniform: !part.evidence.some(numbered) }));
}

const reaches = ({ place }: Evidence, cause: Cause): boolean => !place || place.reach.has(cause.stop.index);

export function profileOf(
  component: Component,
  evidence: readonly Evidence[],
  cause: Cause,
  removed: number,
  sights: Sights,
): Profile {
  const { mode } = cause;
  const all = facetsOf(mode);
  const tables = component.evidence.map((e) => {
    const item = evidence[e] as Evidence;
    return item.look && item.epoch <= removed && reaches(item, cause) ? lookTable(item.look, mode) : undefined;
  });
  const wanted = [...new Set(tables.flatMap((table) => table?.facets ?? []))];
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
      if (!table || table.facets.length === 0) return UNSEEN;
      let combination = 0;
      for (let i = table.facets.length - 1; i >= 0; i--)
        combination = combination * (table.sizes[i] ?? 1) + (value.get(table.facets[i] ?? 0) ?? 0);
      return table.result[combination] ?? 0;
    });
    const key = seen.join();
    const known = rows.get(key);
    if (known) known.chance += chance;
    else rows.set(key, { seen, chance });
  };
  visit(0, 1);
  const list = [...rows.values()];
  return {
    seen: list.map(({ seen }) => seen),
    chance: list.map(({ chance }) => chance),
    silent: wanted.length === 0,
    ids: component.uniform ? list.map(({ seen }) => sights.id(seen)) : [],
  };
}

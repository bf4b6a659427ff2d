import type { FailureMode } from '../catalogue/types';
import type { Cause } from '../observation/causes';
import { facetsOf, lookTable, type Look } from '../observation/looks';
import { bounded } from '../quantities/keptWith';
import { columnsOf, UNSEEN, type Block } from './components';
import type { Evidence } from './evidence';

/** Of what a fault shows to some looks together, so much is kept (chosen). */
const MOST_SHOWN = 100;

/** How one fault is seen by some looks, whoever else is there. */
export interface FaultSights {
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
const shownBy = new WeakMap<FailureMode, Map<string, FaultSights>>();
/** Looks by number, as they come up. */
const numbers = new WeakMap<Look, number>();
let looks = 0;

export const lookNumber = (look: Look): number => {
  const known = numbers.get(look) ?? ++looks;
  numbers.set(look, known);
  return known;
};

/** How a cause is seen by the looks of a block that came before it was taken away. */
export function shownOf(
  block: Block,
  evidence: readonly Evidence[],
  { mode, stop }: Cause,
  removed: number,
): FaultSights {
  const known = shownBy.get(mode) ?? new Map<string, FaultSights>();
  shownBy.set(mode, known);
  const seenBy = columnsOf(block).map((e) => {
    const { look, place, epoch } = evidence[e] as Evidence;
    return epoch <= removed && (!place || place.reach.has(stop.index)) ? look : undefined;
  });
  // Without links a block has all the sides that its looks look at.
  let key = block.links.length > 0 ? [...block.dimensions].join() : '';
  for (const look of seenBy) key += look ? `,${lookNumber(look)}` : ',';
  const before = known.get(key);
  if (before) return before;
  const made = shownTo(seenBy, mode, block.dimensions);
  bounded(known, MOST_SHOWN).set(key, made);
  return made;
}

/** The ways in which a fault may show to some looks; of a look that sees other sides too, only what it sees of these. */
function shownTo(
  seenBy: readonly (Look | undefined)[],
  mode: FailureMode,
  dimensions: ReadonlySet<string>,
): FaultSights {
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

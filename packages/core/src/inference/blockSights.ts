import type { Cause } from '../observation/causes';
import { bounded } from '../quantities/keptWith';
import { columnsOf, Sights, type Block } from './components';
import type { Evidence } from './evidence';
import { lookNumber } from './faultSights';
import type { Profile } from './profile';

/** A cause whose profile has not been asked for. */
export const UNKNOWN = -1;

/** What is seen of several faults: sights by number, with their chances. */
export interface Seen {
  readonly ids: readonly number[];
  readonly chances: readonly number[];
}

/** All that what a block sees of faults depends on, as a text. */
const blockKey = (block: Block, evidence: readonly Evidence[]): string =>
  [
    block.uniform,
    block.evidence.length,
    ...block.dimensions,
    ...columnsOf(block).map((e) => {
      const { look, place, epoch } = evidence[e] as Evidence;
      return `${look ? lookNumber(look) : ''}:${place?.key ?? ''}:${epoch}`;
    }),
  ].join();

/** What the looks of one block see of faults, whatever they say of it: the same from one finding to the next, where the block is. */
export class BlockSights {
  /** By how many of the block's moments a fault outlasts: the number of each cause's profile, 0 where it is silent. */
  readonly codes: readonly Int32Array[];
  /** Profiles as they have come up, from number 1. Causes that show alike have one between them. */
  readonly profiles: Profile[] = [];
  readonly numberOf = new Map<string, number>();
  readonly sights = new Sights();
  /** By profiles as one number: what is seen of them together, where it makes no difference whose they are. */
  readonly folded = new Map<number, Seen>();

  /** @param moments after how many different repairs something of the block was seen */
  constructor(moments: number, causes: number) {
    this.codes = Array.from({ length: moments + 1 }, () => new Int32Array(causes).fill(UNKNOWN));
  }
}

/** The causes that were asked of last, and what the blocks that came up with them see: one order at a time. */
let latest: { readonly causes: readonly Cause[]; readonly blocks: Map<string, BlockSights> } | undefined;
/** Blocks of one order that are kept (chosen). */
const MOST_BLOCKS = 60;

/** What a block sees of some causes, as far as it was worked out before. */
export function keptSights(
  block: Block,
  evidence: readonly Evidence[],
  causes: readonly Cause[],
  moments: number,
): BlockSights {
  if (latest?.causes !== causes) latest = { causes, blocks: new Map() };
  const key = blockKey(block, evidence);
  const known = latest.blocks.get(key);
  if (known) return known;
  const made = new BlockSights(moments, causes.length);
  bounded(latest.blocks, MOST_BLOCKS).set(key, made);
  return made;
}

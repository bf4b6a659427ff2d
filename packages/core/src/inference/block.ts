import type { Cause } from '../observation/causes';
import { keptSights, UNKNOWN, type BlockSights, type Seen } from './blockSights';
import { columnsOf, UNSEEN, type Block, type Sights } from './components';
import type { Evidence } from './evidence';
import { shownOf } from './faultSights';
import { LEAST_SUM, NEVER, type LogGiven } from './given';
import { BYTE, type ByLinks } from './links';
import { MOST_FAULTS } from './prior';
import { fewer, type Profile } from './profile';

const ALONE: readonly number[] = [1];
/** Of the ways in which several faults are seen together, so many are carried on, the likeliest (chosen). */
const MOST_SEEN = 256;
/** Profiles of the set at hand, used over and over. */
const NUMBERS = new Int32Array(MOST_FAULTS);

/** P(what the looks of one block saw | a set of faults). Keeps what it has worked out. */
export class BlockLikelihood {
  private readonly seen: BlockSights;
  private readonly codes: readonly Int32Array[];
  private readonly profiles: Profile[];
  private readonly numberOf: Map<string, number>;
  private readonly sights: Sights;
  private readonly folded: Map<number, Seen>;
  /** More than it can have profiles: several are one number, kept while it is an exact one. */
  private readonly base: number;
  /** By pattern of weights and sight: what it says. */
  private readonly saysOf: number[][] = [];
  /** By pattern of weights, and profiles as one number. */
  private readonly kept: Map<number, number>[] = [];
  private readonly keptBy: Map<number, ByLinks>[] = [];
  private readonly patterns = new Map<string, number>();
  /** After how many repairs something of it was seen, in order. */
  private readonly epochs: readonly number[];
  /** By repair: how many of those moments lay before it was done. */
  private readonly ranks: readonly number[];
  private readonly columns: readonly number[];
  /** Where each link of the component stands among the columns; −1 where it does not look here. */
  private readonly linksAt: readonly number[];

  /** @param seen what its looks see of the same causes, by whatever it was worked out before */
  constructor(
    private readonly block: Block,
    private readonly links: readonly number[],
    private readonly causes: readonly Cause[],
    private readonly evidence: readonly Evidence[],
    private readonly given: LogGiven,
    seen?: BlockSights,
  ) {
    this.columns = columnsOf(block);
    this.linksAt = links.map((e) => this.columns.lastIndexOf(e));
    this.epochs = [...new Set(this.columns.map((e) => evidence[e]?.epoch ?? 0))].sort((a, b) => a - b);
    this.ranks = Array.from(
      { length: (this.epochs.at(-1) ?? 0) + 1 },
      (_, gone) => this.epochs.filter((epoch) => epoch <= gone).length,
    );
    this.base = (this.epochs.length + 1) * causes.length + 1;
    this.seen = seen ?? keptSights(block, evidence, causes, this.epochs.length);
    ({
      codes: this.codes,
      profiles: this.profiles,
      numberOf: this.numberOf,
      sights: this.sights,
      folded: this.folded,
    } = this.seen);
  }

  /** The same looks at the same faults, with other likelihoods. */
  saying(evidence: readonly Evidence[], given: LogGiven): BlockLikelihood {
    return new BlockLikelihood(this.block, this.links, this.causes, evidence, given, this.seen);
  }

  /** Number of a pattern of weights, as far as they weigh what is seen here alone. */
  pattern(weights: readonly number[]): number {
    const key = this.block.evidence.map((e) => weights[e]).join();
    const id = this.patterns.get(key) ?? this.patterns.size;
    this.patterns.set(key, id);
    return id;
  }

  /** Natural logarithm; of a block without links. */
  log(
    set: readonly number[],
    removed: readonly number[] | undefined,
    weights: readonly number[],
    pattern: number,
  ): number {
    return this.recalled(this.kept, set, removed, pattern, (codes) => {
      let total = 0;
      if (this.block.uniform) total = this.uniform(codes, weights, pattern);
      else this.each(codes, weights, (p) => (total += p));
      return Math.log(Math.max(total, LEAST_SUM));
    });
  }

  /** By what the links find here. */
  byLinks(
    set: readonly number[],
    removed: readonly number[] | undefined,
    weights: readonly number[],
    pattern: number,
  ): ByLinks {
    return this.recalled(this.keptBy, set, removed, pattern, (codes) => {
      const made = new Map<number, number>();
      const add = (p: number, links: number): void => void made.set(links, (made.get(links) ?? 0) + p);
      if (this.block.uniform) this.uniformBy(codes, weights, pattern, add);
      else this.each(codes, weights, add);
      return made;
    });
  }

  /** What is known of the profiles of a set with a pattern of weights, or worked out now. */
  private recalled<T>(
    table: Map<number, T>[],
    set: readonly number[],
    removed: readonly number[] | undefined,
    pattern: number,
    work: (codes: readonly number[]) => T,
  ): T {
    const n = this.profilesOf(set, removed);
    const key = this.keyOf(n);
    const kept = (table[pattern] ??= new Map<number, T>());
    const exact = key <= Number.MAX_SAFE_INTEGER;
    const known = exact ? kept.get(key) : undefined;
    if (known !== undefined) return known;
    const made = work(Array.from(NUMBERS.subarray(0, n)));
    if (exact) kept.set(key, made);
    return made;
  }

  /**
   * Puts the profiles of a set into `NUMBERS`, and says how many there are. In order of number: the same profiles are the same question.
   * Where it matters whose they are, in path order.
   */
  private profilesOf(set: readonly number[], removed: readonly number[] | undefined): number {
    const whole = this.epochs.length;
    const { uniform } = this.block;
    let n = 0;
    for (let i = 0; i < set.length; i++) {
      // Repairs between which nothing was seen here are as good as one, and one after all that was seen as none.
      const gone = removed === undefined ? NEVER : (removed[i] as number);
      const code = this.code(set[i] as number, gone === NEVER ? whole : (this.ranks[gone] ?? whole));
      if (code === 0) continue;
      NUMBERS[n++] = code;
    }
    if (uniform && n > 1) NUMBERS.subarray(0, n).sort();
    return n;
  }

  /** Profiles in `NUMBERS` as one number. */
  private keyOf(n: number): number {
    let key = 0;
    for (let i = 0; i < n; i++) key = key * this.base + (NUMBERS[i] as number);
    return key;
  }

  /** Number of the profile of a cause that outlasts so many of the block's moments; 0: it shows nothing there. */
  private code(c: number, rank: number): number {
    const row = this.codes[rank] as Int32Array;
    const known = row[c] as number;
    return known === UNKNOWN ? (row[c] = this.coded(c, rank)) : known;
  }

  private coded(c: number, rank: number): number {
    const removed = rank === this.epochs.length ? NEVER : rank === 0 ? -1 : (this.epochs[rank - 1] as number);
    const shown = shownOf(this.block, this.evidence, this.causes[c] as Cause, removed);
    if (shown.silent) return 0;
    const { seen, chance } = shown;
    // Where it makes no difference which fault shows it, faults that show alike are one.
    if (!this.block.uniform) return this.profiles.push({ seen, chance, ids: [], cause: c });
    const known = this.numberOf.get(shown.text);
    if (known !== undefined) return known;
    this.numberOf.set(shown.text, this.profiles.length + 1);
    const ids = seen.map((sight, i) => this.sights.id(sight, shown.keys[i]));
    return this.profiles.push({ seen, chance, ids });
  }

  private profile(code: number | undefined): Profile | undefined {
    return this.profiles[(code ?? 0) - 1];
  }

  /** What is seen of profiles together, fault by fault, the earlier result before the later. */
  private seenOf(codes: readonly number[]): Seen {
    const profile = this.profile(codes.at(-1));
    if (!profile) return { ids: [this.sights.id(this.nothing())], chances: ALONE };
    if (codes.length === 1) return { ids: profile.ids, chances: profile.chance };
    const key = codes.reduce((sum, code) => sum * this.base + code, 0);
    const known = key <= Number.MAX_SAFE_INTEGER ? this.folded.get(key) : undefined;
    if (known) return known;
    const made = likeliest(this.together(this.seenOf(codes.slice(0, -1)), profile));
    if (key <= Number.MAX_SAFE_INTEGER) this.folded.set(key, made);
    return made;
  }

  private together(before: Seen, profile: Profile): Seen {
    const sum = new Map<number, number>();
    for (let i = 0; i < before.ids.length; i++)
      for (let j = 0; j < profile.ids.length; j++) {
        const id = this.sights.together(before.ids[i] as number, profile.ids[j] as number);
        sum.set(id, (sum.get(id) ?? 0) + (before.chances[i] as number) * (profile.chance[j] as number));
      }
    return { ids: [...sum.keys()], chances: [...sum.values()] };
  }

  private says(id: number, weights: readonly number[], pattern: number): number {
    return ((this.saysOf[pattern] ??= [])[id] ??= this.sightSays(this.sights.seen[id] as Uint8Array, weights));
  }

  /** How likely all that the block's own looks observed is, of what there was to be seen. */
  private sightSays(seen: Uint8Array, weights: readonly number[]): number {
    const logs = this.block.evidence.reduce(
      (sum, e, n) => sum + (weights[e] ?? 1) * this.given.any(e, seen[n] as number),
      0,
    );
    return Math.exp(logs);
  }

  /** Where it makes no difference which fault shows it: the whole. */
  private uniform(codes: readonly number[], weights: readonly number[], pattern: number): number {
    const last = this.profile(codes.at(-1));
    const { ids, chances } = this.seenOf(last ? codes.slice(0, -1) : codes);
    let total = 0;
    for (let i = 0; i < ids.length; i++) {
      const id = ids[i] as number;
      if (!last) {
        total += (chances[i] as number) * this.says(id, weights, pattern);
        continue;
      }
      let sum = 0;
      for (let j = 0; j < last.ids.length; j++)
        sum +=
          (last.chance[j] as number) * this.says(this.sights.together(id, last.ids[j] as number), weights, pattern);
      total += (chances[i] as number) * sum;
    }
    return total;
  }

  /** The same sight by sight, with what the links find. */
  private uniformBy(
    codes: readonly number[],
    weights: readonly number[],
    pattern: number,
    add: (p: number, links: number) => void,
  ): void {
    const { ids, chances } = this.seenOf(codes);
    ids.forEach((id, i) =>
      add((chances[i] as number) * this.says(id, weights, pattern), this.linksOf(this.sights.seen[id] as Uint8Array)),
    );
  }

  /** What the links find here, as one number; one that does not look here finds nothing. */
  private linksOf(seen: Uint8Array): number {
    let key = 0;
    for (let i = this.linksAt.length - 1; i >= 0; i--) {
      const at = this.linksAt[i] as number;
      key = key * BYTE + (at < 0 ? UNSEEN : (seen[at] as number));
    }
    return key;
  }

  private nothing(): Uint8Array {
    return new Uint8Array(this.columns.length).fill(UNSEEN);
  }

  /** Where it matters which fault it is: every combination of the ways in which they may show. */
  private each(codes: readonly number[], weights: readonly number[], add: (p: number, links: number) => void): void {
    const all = codes.map((code) => this.profile(code) as Profile);
    const members = all.map(({ cause }) => cause as number);
    const profiles = fewer(all);
    const { evidence } = this.block;
    const at = profiles.map(() => 0);
    for (;;) {
      let chance = 1;
      for (let q = 0; q < at.length; q++) chance *= (profiles[q] as Profile).chance[at[q] as number] as number;
      let logs = 0;
      for (let n = 0; n < evidence.length; n++) {
        const e = evidence[n] as number;
        logs += this.seenTogether(e, n, members, profiles, at) * (weights[e] ?? 1);
      }
      add(chance * Math.exp(logs), this.linksAt.length > 0 ? this.linksOf(this.seenFirst(profiles, at)) : 0);
      let q = 0;
      while (q < at.length && ++(at[q] as number) === (profiles[q] as Profile).chance.length) at[q++] = 0;
      if (q === at.length) break;
    }
  }

  /** Of several faults, by look the result that is looked for first. */
  private seenFirst(profiles: readonly Profile[], at: readonly number[]): Uint8Array {
    return profiles.reduce((seen, profile, q) => {
      const row = profile.seen[at[q] as number] as Uint8Array;
      return seen.map((value, n) => Math.min(value, row[n] as number));
    }, this.nothing());
  }

  /** Of several faults, the result that is looked for first; of equals, the fault that is met first. */
  private seenTogether(
    e: number,
    n: number,
    members: readonly number[],
    profiles: readonly Profile[],
    at: readonly number[],
  ): number {
    const { metFirst } = this.evidence[e] as Evidence;
    let best = UNSEEN;
    let who = -1;
    for (let q = 0; q < members.length; q++) {
      const seen = ((profiles[q] as Profile).seen[at[q] as number] as Uint8Array)[n] as number;
      const c = members[q] as number;
      const sooner = seen === best && who >= 0 && metFirst !== undefined && (metFirst[c] ?? 0) < (metFirst[who] ?? 0);
      if (seen < best || sooner) {
        best = seen;
        who = c;
      }
    }
    if (who < 0) return this.given.sound[e] as number;
    const g = this.given.of(e, who);
    return typeof g === 'number' ? g : (g[best] ?? 0);
  }
}

/** The likeliest of many ways, made whole. */
function likeliest(seen: Seen): Seen {
  if (seen.ids.length <= MOST_SEEN) return seen;
  const { ids, chances } = seen;
  const order = chances
    .map((_, i) => i)
    .sort((a, b) => (chances[b] as number) - (chances[a] as number))
    .slice(0, MOST_SEEN);
  const whole = order.reduce((sum, i) => sum + (chances[i] as number), 0);
  return { ids: order.map((i) => ids[i] as number), chances: order.map((i) => (chances[i] as number) / whole) };
}

import type { Cause } from '../observation/causes';
import { dimensionsOf, facetsOf, lookTable } from '../observation/looks';
import { sharedError, weightsOf } from '../observation/witness';
import { STILL_ILL, type Evidence } from './evidence';
import { fewer, type Profile } from './profile';

/** Likelihoods below this count as this: no observation rules anything out for good. */
export const LEAST = 1e-12;

/** When each fault of a set was taken away: the number of the repair, or never. */
export const NEVER = Infinity;

/** Result index that stands for: this check does not see this fault. */
const UNSEEN = 255;

/** Observations whose looks share a side of how faults show; what they see of one fault hangs together. */
interface Component {
  readonly evidence: readonly number[];
  readonly dimensions: ReadonlySet<string>;
  /** What is seen says the same of whichever fault shows it: no depth and no reading was recorded. */
  readonly uniform: boolean;
}

/** What several observations see together, each distinct combination numbered; two faults show what either one shows first. */
class Sights {
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
function componentsOf(evidence: readonly Evidence[]): readonly Component[] {
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

function profileOf(
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

const log = (x: number): number => Math.log(Math.max(x, LEAST));

/**
 * P(all evidence | a set of faults): each fault shows in one way, and all observations see that same way; of several faults
 * the result that is looked for first is the one found (noisy-or over the results in their order), and of faults that show
 * alike the one that is met first. Exact but for errors that observations share, which weigh as in `weightsOf`.
 */
export class Joint {
  private readonly components: readonly Component[];
  private readonly profiles: readonly Map<number, Profile>[];
  private readonly sights: readonly Sights[];
  /** By component and pattern of weights: logarithm of what a sight says. */
  private readonly logSight: readonly Map<number, number[]>[];
  private readonly logGiven: (readonly number[] | number)[][];
  private readonly logSound: readonly number[];
  private readonly numbers: readonly number[];
  private readonly weightsFor: (causes: readonly Cause[]) => readonly number[];
  /** What a component says of some of its faults: by component, pattern of weights, and faults as one number. */
  private readonly kept: readonly Map<number, number>[][];
  /** By component: its weights as they have come up, numbered. */
  private readonly patterns: readonly Map<string, number>[];
  /** By component: after how many repairs something of it was seen, in order. */
  private readonly epochs: readonly (readonly number[])[];
  /** By component and repair: how many of those moments lay before it was done. */
  private readonly ranks: readonly (readonly number[])[];
  private readonly patternOf = new Map<readonly number[], readonly number[]>();

  constructor(
    private readonly causes: readonly Cause[],
    private readonly evidence: readonly Evidence[],
  ) {
    this.components = componentsOf(evidence);
    this.profiles = this.components.map(() => new Map());
    this.sights = this.components.map(() => new Sights());
    this.logSight = this.components.map(() => new Map());
    this.logGiven = evidence.map(() => []);
    this.logSound = evidence.map(({ sound }) => log(sound));
    this.numbers = evidence.flatMap(({ look }, e) => (look ? [] : [e]));
    this.kept = this.components.map(() => []);
    this.patterns = this.components.map(() => new Map());
    this.epochs = this.components.map(({ evidence: of }) =>
      [...new Set(of.map((e) => evidence[e]?.epoch ?? 0))].sort((a, b) => a - b),
    );
    this.ranks = this.epochs.map((epochs) =>
      Array.from({ length: (epochs.at(-1) ?? 0) + 1 }, (_, gone) => epochs.filter((epoch) => epoch <= gone).length),
    );
    // Where no two observations share errors, weights are the same for every set.
    const kin = evidence.some((a, i) => evidence.some((b, j) => i < j && sharedError(a, b) > 0));
    const plain = evidence.map(({ trust }) => trust);
    this.weightsFor = kin ? weightsOf(evidence) : () => plain;
  }

  /** By component, the number of its pattern of weights. */
  private pattern(weights: readonly number[]): readonly number[] {
    const known = this.patternOf.get(weights);
    if (known) return known;
    const made = this.components.map(({ evidence }, k) => {
      const patterns = this.patterns[k] as Map<string, number>;
      const key = evidence.map((e) => weights[e]).join();
      const id = patterns.get(key) ?? patterns.size;
      patterns.set(key, id);
      return id;
    });
    this.patternOf.set(weights, made);
    return made;
  }

  private given(e: number, c: number): readonly number[] | number {
    const row = this.logGiven[e] as (readonly number[] | number)[];
    const known = row[c];
    if (known !== undefined) return known;
    const g = this.evidence[e]?.given[c] ?? LEAST;
    return (row[c] = typeof g === 'number' ? log(g) : g.map(log));
  }

  private profile(k: number, c: number, removed: number): Profile {
    const profiles = this.profiles[k] as Map<number, Profile>;
    const key = removed === NEVER ? c : (removed + 2) * this.causes.length + c;
    const known = profiles.get(key);
    if (known) return known;
    const component = this.components[k] as Component;
    const made = profileOf(component, this.evidence, this.causes[c] as Cause, removed, this.sights[k] as Sights);
    profiles.set(key, made);
    return made;
  }

  /** Natural logarithm. `removed[i]` is the repair in vain that took `set[i]` away, or `NEVER`; absent: all are still there. */
  logLikelihood(set: readonly number[], removed?: readonly number[]): number {
    const weights = this.weightsFor(set.map((c) => this.causes[c] as Cause));
    let sum = 0;
    for (const e of this.numbers) sum += this.number(e, set, removed) * (weights[e] ?? 1);
    const pattern = this.pattern(weights);
    for (let k = 0; k < this.components.length; k++)
      sum += this.component(k, set, removed, weights, pattern[k] as number);
    return sum;
  }

  /** An observation that does not hang on the way in which faults show. */
  private number(e: number, set: readonly number[], removed: readonly number[] | undefined): number {
    const { epoch, combine, repair } = this.evidence[e] as Evidence;
    let least = Infinity;
    let most = -Infinity;
    let total = 0;
    let n = 0;
    for (let i = 0; i < set.length; i++) {
      if (removed && epoch > (removed[i] ?? NEVER)) continue;
      n++;
      if (repair) continue;
      const g = this.given(e, set[i] as number) as number;
      if (g < least) least = g;
      if (g > most) most = g;
      total += Math.exp(g);
    }
    if (repair) return log(n > 0 ? STILL_ILL.left : STILL_ILL.none);
    if (n === 0) return this.logSound[e] ?? 0;
    return combine === 'all' ? least : combine === 'any' ? most : log(total / n);
  }

  private component(
    k: number,
    set: readonly number[],
    removed: readonly number[] | undefined,
    weights: readonly number[],
    pattern: number,
  ): number {
    const kept = ((this.kept[k] as Map<number, number>[])[pattern] ??= new Map());
    const profiles: Profile[] = [];
    const members: number[] = [];
    let key = 0;
    const epochs = this.epochs[k] as readonly number[];
    const ranks = this.ranks[k] as readonly number[];
    const base = (epochs.length + 1) * this.causes.length + 1;
    for (let i = 0; i < set.length; i++) {
      const c = set[i] as number;
      // Repairs between which nothing was seen here are as good as one, and one after all that was seen as none.
      const gone = removed?.[i] ?? NEVER;
      const rank = gone === NEVER ? epochs.length : (ranks[gone] ?? epochs.length);
      const profile = this.profile(
        k,
        c,
        rank === epochs.length ? NEVER : rank === 0 ? -1 : (epochs[rank - 1] as number),
      );
      if (profile.silent) continue;
      profiles.push(profile);
      members.push(c);
      key = key * base + rank * this.causes.length + c + 1;
    }
    const known = key < Number.MAX_SAFE_INTEGER ? kept.get(key) : undefined;
    if (known !== undefined) return known;
    const made = this.components[k]?.uniform
      ? this.uniform(k, profiles, weights, pattern)
      : this.each(k, members, profiles, weights);
    if (key < Number.MAX_SAFE_INTEGER) kept.set(key, made);
    return made;
  }

  /** Where it makes no difference which fault shows it: what is seen, fault by fault, the earlier result before the later. */
  private uniform(k: number, profiles: readonly Profile[], weights: readonly number[], pattern: number): number {
    const sights = this.sights[k] as Sights;
    const logs = (this.logSight[k] as Map<number, number[]>).get(pattern) ?? [];
    (this.logSight[k] as Map<number, number[]>).set(pattern, logs);
    let [ids, chances]: [readonly number[], readonly number[]] = [
      profiles[0]?.ids ?? [sights.id(this.nothing(k))],
      profiles[0]?.chance ?? [1],
    ];
    for (const profile of profiles.slice(1)) {
      const nextIds: number[] = [];
      const nextChances: number[] = [];
      for (let i = 0; i < ids.length; i++)
        for (let j = 0; j < profile.ids.length; j++) {
          const id = sights.together(ids[i] as number, profile.ids[j] as number);
          const p = (chances[i] as number) * (profile.chance[j] as number);
          const at = nextIds.indexOf(id);
          if (at < 0) {
            nextIds.push(id);
            nextChances.push(p);
          } else nextChances[at] = (nextChances[at] as number) + p;
        }
      ids = nextIds;
      chances = nextChances;
    }
    let total = 0;
    for (let i = 0; i < ids.length; i++) {
      const id = ids[i] as number;
      total +=
        (chances[i] as number) * Math.exp((logs[id] ??= this.sightLog(k, sights.seen[id] as Uint8Array, weights)));
    }
    return Math.log(Math.max(total, 1e-280));
  }

  private nothing(k: number): Uint8Array {
    return new Uint8Array((this.components[k] as Component).evidence.length).fill(UNSEEN);
  }

  private sightLog(k: number, seen: Uint8Array, weights: readonly number[]): number {
    return (this.components[k] as Component).evidence.reduce((sum, e, n) => {
      const at = seen[n] as number;
      const any = (this.evidence[e] as Evidence).given.find((g) => typeof g !== 'number');
      const l = at === UNSEEN || typeof any === 'number' ? undefined : any?.[at];
      return sum + (weights[e] ?? 1) * (l === undefined ? (this.logSound[e] as number) : log(l));
    }, 0);
  }

  /** Where it matters which fault it is: every combination of the ways in which they may show. */
  private each(k: number, members: readonly number[], all: readonly Profile[], weights: readonly number[]): number {
    const profiles = fewer(all);
    const evidence = (this.components[k] as Component).evidence;
    const at = profiles.map(() => 0);
    let total = 0;
    for (;;) {
      let chance = 1;
      for (let q = 0; q < at.length; q++) chance *= (profiles[q] as Profile).chance[at[q] as number] as number;
      let logs = 0;
      for (let n = 0; n < evidence.length; n++) {
        const e = evidence[n] as number;
        logs += this.seenTogether(e, n, members, profiles, at) * (weights[e] ?? 1);
      }
      total += chance * Math.exp(logs);
      let q = 0;
      while (q < at.length && ++(at[q] as number) === (profiles[q] as Profile).chance.length) at[q++] = 0;
      if (q === at.length) break;
    }
    return Math.log(Math.max(total, 1e-280));
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
    if (who < 0) return this.logSound[e] as number;
    const g = this.given(e, who);
    return typeof g === 'number' ? g : (g[best] ?? 0);
  }
}

import type { Cause } from '../observation/causes';
import { weightsOf } from '../observation/witness';
import { componentsOf, profileOf, Sights, UNSEEN, type Component } from './components';
import { STILL_ILL, type Evidence } from './evidence';
import { MOST_FAULTS } from './prior';
import { fewer, type Profile } from './profile';

/** Likelihoods below this count as this: no observation rules anything out for good. */
export const LEAST = 1e-12;

/** When each fault of a set was taken away: the number of the repair, or never. */
export const NEVER = Infinity;

/** What is seen of several faults: sights by number, with their chances. */
interface Seen {
  readonly ids: readonly number[];
  readonly chances: readonly number[];
}

const ALONE: readonly number[] = [1];
/** A cause whose profile has not been asked for. */
const UNKNOWN = -1;
/** Profiles of the set at hand, used over and over. */
const NUMBERS = new Int32Array(MOST_FAULTS);

const log = (x: number): number => Math.log(Math.max(x, LEAST));

/**
 * P(all evidence | a set of faults): each fault shows in one way, and all observations see that same way; of several faults
 * the result that is looked for first is the one found (noisy-or over the results in their order), and of faults that show
 * alike the one that is met first. Exact but for errors that observations share, which weigh as in `weightsOf`.
 */
export class Joint {
  private readonly components: readonly Component[];
  /** By component and by how many of its moments a fault outlasts: the number of each cause's profile, 0 where it is silent. */
  private readonly codes: readonly (readonly Int32Array[])[];
  /** By component: profiles as they have come up, from number 1. Causes that show alike have one between them. */
  private readonly profiles: readonly Profile[][];
  private readonly numberOf: readonly Map<string, number>[];
  /** By component, more than it can have profiles: several are one number, kept while it is an exact one. */
  private readonly bases: readonly number[];
  private readonly sights: readonly Sights[];
  /** By component, pattern of weights and sight: what it says. */
  private readonly saysOf: readonly number[][][];
  private readonly logGiven: (readonly number[] | number)[][];
  private readonly logSound: readonly number[];
  private readonly numbers: readonly number[];
  private readonly weightsFor: (causes: readonly Cause[]) => readonly number[];
  /** What a component says of some of its faults: by component, pattern of weights, and profiles as one number. */
  private readonly kept: readonly Map<number, number>[][];
  /** By uniform component and profiles as one number: what is seen of them together. */
  private readonly folded: readonly Map<number, Seen>[];
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
    this.profiles = this.components.map(() => []);
    this.numberOf = this.components.map(() => new Map());
    this.folded = this.components.map(() => new Map());
    this.sights = this.components.map(() => new Sights());
    this.saysOf = this.components.map(() => []);
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
    this.codes = this.epochs.map((epochs) =>
      Array.from({ length: epochs.length + 1 }, () => new Int32Array(causes.length).fill(UNKNOWN)),
    );
    this.bases = this.epochs.map((epochs) => (epochs.length + 1) * causes.length + 1);
    this.weightsFor = weightsOf(evidence);
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

  /** Number of the profile of a cause that outlasts so many of the component's moments; 0: it shows nothing there. */
  private code(k: number, c: number, rank: number): number {
    const row = (this.codes[k] as readonly Int32Array[])[rank] as Int32Array;
    const known = row[c] as number;
    return known === UNKNOWN ? (row[c] = this.coded(k, c, rank)) : known;
  }

  private coded(k: number, c: number, rank: number): number {
    const epochs = this.epochs[k] as readonly number[];
    const removed = rank === epochs.length ? NEVER : rank === 0 ? -1 : (epochs[rank - 1] as number);
    const component = this.components[k] as Component;
    const made = profileOf(component, this.evidence, this.causes[c] as Cause, removed, this.sights[k] as Sights);
    if (made.silent) return 0;
    const profiles = this.profiles[k] as Profile[];
    // Where it makes no difference which fault shows it, faults that show alike are one.
    if (!component.uniform) return profiles.push({ ...made, cause: c });
    const numbers = this.numberOf[k] as Map<string, number>;
    const key = `${made.ids.join()}|${made.chance.join()}`;
    const known = numbers.get(key);
    if (known !== undefined) return known;
    numbers.set(key, profiles.length + 1);
    return profiles.push(made);
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
    const ranks = this.ranks[k] as readonly number[];
    const whole = (this.epochs[k] as readonly number[]).length;
    const uniform = this.components[k]?.uniform === true;
    let n = 0;
    for (let i = 0; i < set.length; i++) {
      // Repairs between which nothing was seen here are as good as one, and one after all that was seen as none.
      const gone = removed === undefined ? NEVER : (removed[i] as number);
      const code = this.code(k, set[i] as number, gone === NEVER ? whole : (ranks[gone] ?? whole));
      if (code === 0) continue;
      // In order of number: the same profiles are the same question. Where it matters whose they are, in path order.
      let at = n++;
      while (uniform && at > 0 && (NUMBERS[at - 1] as number) > code) {
        NUMBERS[at] = NUMBERS[at - 1] as number;
        at--;
      }
      NUMBERS[at] = code;
    }
    let key = 0;
    for (let i = 0; i < n; i++) key = key * (this.bases[k] as number) + (NUMBERS[i] as number);
    const kept = ((this.kept[k] as Map<number, number>[])[pattern] ??= new Map());
    const known = key <= Number.MAX_SAFE_INTEGER ? kept.get(key) : undefined;
    if (known !== undefined) return known;
    const codes = Array.from(NUMBERS.subarray(0, n));
    const made = uniform
      ? this.uniform(k, codes, weights, pattern)
      : this.each(
          k,
          codes.map((code) => (this.profiles[k] as Profile[])[code - 1] as Profile),
          weights,
        );
    if (key <= Number.MAX_SAFE_INTEGER) kept.set(key, made);
    return made;
  }

  /** What is seen of profiles together, fault by fault, the earlier result before the later. */
  private seenOf(k: number, codes: readonly number[]): Seen {
    const sights = this.sights[k] as Sights;
    const last = codes.at(-1);
    if (last === undefined) return { ids: [sights.id(this.nothing(k))], chances: ALONE };
    const profile = (this.profiles[k] as Profile[])[last - 1] as Profile;
    if (codes.length === 1) return { ids: profile.ids, chances: profile.chance };
    const folded = this.folded[k] as Map<number, Seen>;
    const key = codes.reduce((sum, code) => sum * (this.bases[k] as number) + code, 0);
    const known = key <= Number.MAX_SAFE_INTEGER ? folded.get(key) : undefined;
    if (known) return known;
    const before = this.seenOf(k, codes.slice(0, -1));
    const ids: number[] = [];
    const chances: number[] = [];
    for (let i = 0; i < before.ids.length; i++)
      for (let j = 0; j < profile.ids.length; j++) {
        const id = sights.together(before.ids[i] as number, profile.ids[j] as number);
        const p = (before.chances[i] as number) * (profile.chance[j] as number);
        const at = ids.indexOf(id);
        if (at < 0) {
          ids.push(id);
          chances.push(p);
        } else chances[at] = (chances[at] as number) + p;
      }
    const made = { ids, chances };
    if (key <= Number.MAX_SAFE_INTEGER) folded.set(key, made);
    return made;
  }

  /** Where it makes no difference which fault shows it. */
  private uniform(k: number, codes: readonly number[], weights: readonly number[], pattern: number): number {
    const sights = this.sights[k] as Sights;
    const says = ((this.saysOf[k] as number[][])[pattern] ??= []);
    const say = (id: number): number => (says[id] ??= this.sightSays(k, sights.seen[id] as Uint8Array, weights));
    const last = (this.profiles[k] as Profile[])[(codes.at(-1) ?? 0) - 1];
    const { ids, chances } = this.seenOf(k, last ? codes.slice(0, -1) : codes);
    let total = 0;
    for (let i = 0; i < ids.length; i++) {
      const id = ids[i] as number;
      if (!last) {
        total += (chances[i] as number) * say(id);
        continue;
      }
      let sum = 0;
      for (let j = 0; j < last.ids.length; j++)
        sum += (last.chance[j] as number) * say(sights.together(id, last.ids[j] as number));
      total += (chances[i] as number) * sum;
    }
    return Math.log(Math.max(total, 1e-280));
  }

  private nothing(k: number): Uint8Array {
    return new Uint8Array((this.components[k] as Component).evidence.length).fill(UNSEEN);
  }

  /** How likely all that was observed is, of what there was to be seen. */
  private sightSays(k: number, seen: Uint8Array, weights: readonly number[]): number {
    const logs = (this.components[k] as Component).evidence.reduce((sum, e, n) => {
      const at = seen[n] as number;
      const any = (this.evidence[e] as Evidence).given.find((g) => typeof g !== 'number');
      const l = at === UNSEEN || typeof any === 'number' ? undefined : any?.[at];
      return sum + (weights[e] ?? 1) * (l === undefined ? (this.logSound[e] as number) : log(l));
    }, 0);
    return Math.exp(logs);
  }

  /** Where it matters which fault it is: every combination of the ways in which they may show. */
  private each(k: number, all: readonly Profile[], weights: readonly number[]): number {
    const members = all.map(({ cause }) => cause as number);
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

import type { Cause } from '../observation/causes';
import { weightsOf } from '../observation/witness';
import { BlockLikelihood } from './block';
import { componentsOf } from './components';
import { STILL_ILL, type Evidence } from './evidence';
import { LEAST_SUM, log, LogGiven, NEVER } from './given';
import { foundFirst, linkResult, type ByLinks } from './links';

/** What hangs together: one block, or several by way of a few looks. */
interface Part {
  readonly blocks: readonly BlockLikelihood[];
  readonly links: readonly number[];
  /** Number of its first block. */
  readonly from: number;
}

/**
 * P(all evidence | a set of faults): each fault shows in one way, and all observations see that same way; of several faults
 * the result that is looked for first is the one found (noisy-or over the results in their order), and of faults that show
 * alike the one that is met first. Exact but for errors that observations share, which weigh as in `weightsOf`, and for the rarest
 * of very many ways. What hangs together by few looks only is summed block by block, given what these found (cutset conditioning:
 * Pearl 1988, Probabilistic Reasoning in Intelligent Systems, 4.3).
 */
export class Joint {
  private readonly parts: readonly Part[];
  private readonly given: LogGiven;
  /** Observations that do not hang on the way in which faults show. */
  private readonly numbers: readonly number[];
  private readonly weightsFor: (causes: readonly Cause[]) => readonly number[];
  private readonly patternOf = new Map<readonly number[], readonly number[]>();

  /** @param like the same observations, where they say something else: what is seen of each fault is taken from there */
  constructor(
    private readonly causes: readonly Cause[],
    private readonly evidence: readonly Evidence[],
    manyWays?: number,
    like?: Joint,
  ) {
    this.given = new LogGiven(evidence);
    const { given } = this;
    let from = 0;
    this.parts = like
      ? like.parts.map((part) => ({ ...part, blocks: part.blocks.map((block) => block.saying(evidence, given)) }))
      : componentsOf(evidence, manyWays).map(({ blocks, links }) => {
          const made = blocks.map((block) => new BlockLikelihood(block, links, causes, evidence, given));
          from += blocks.length;
          return { links, blocks: made, from: from - blocks.length };
        });
    this.numbers = evidence.flatMap(({ look }, e) => (look ? [] : [e]));
    this.weightsFor = weightsOf(evidence);
  }

  /** The same observations of the same faults, with other likelihoods. */
  saying(evidence: readonly Evidence[]): Joint {
    return new Joint(this.causes, evidence, undefined, this);
  }

  /** By block, the number of its pattern of weights. */
  private patterns(weights: readonly number[]): readonly number[] {
    const known = this.patternOf.get(weights);
    if (known) return known;
    const made = this.parts.flatMap(({ blocks }) => blocks.map((block) => block.pattern(weights)));
    this.patternOf.set(weights, made);
    return made;
  }

  /** Natural logarithm. `removed[i]` is the repair in vain that took `set[i]` away, or `NEVER`; absent: all are still there. */
  logLikelihood(set: readonly number[], removed?: readonly number[]): number {
    const weights = this.weightsFor(set.map((c) => this.causes[c] as Cause));
    let sum = 0;
    for (const e of this.numbers) sum += this.number(e, set, removed) * (weights[e] ?? 1);
    const patterns = this.patterns(weights);
    for (const part of this.parts) {
      const [only] = part.blocks;
      sum +=
        only && part.blocks.length === 1
          ? only.log(set, removed, weights, patterns[part.from] as number)
          : this.linked(part, set, removed, weights, patterns);
    }
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
      const g = this.given.of(e, set[i] as number) as number;
      if (g < least) least = g;
      if (g > most) most = g;
      total += Math.exp(g);
    }
    if (repair) return log(n > 0 ? STILL_ILL.left : STILL_ILL.none);
    if (n === 0) return this.given.sound[e] ?? 0;
    return combine === 'all' ? least : combine === 'any' ? most : log(total / n);
  }

  /** Several blocks: whatever their links may have found in each, by what is found first. */
  private linked(
    { blocks, links, from }: Part,
    set: readonly number[],
    removed: readonly number[] | undefined,
    weights: readonly number[],
    patterns: readonly number[],
  ): number {
    const found = blocks
      .map((block, i) => block.byLinks(set, removed, weights, patterns[from + i] as number))
      .reduce((before, here): ByLinks => {
        const both = new Map<number, number>();
        for (const [a, p] of before)
          for (const [b, q] of here) {
            const key = foundFirst(a, b, links.length);
            both.set(key, (both.get(key) ?? 0) + p * q);
          }
        return both;
      });
    let total = 0;
    for (const [key, p] of found) {
      let logs = 0;
      links.forEach((e, i) => (logs += (weights[e] ?? 1) * this.given.any(e, linkResult(key, i))));
      total += p * Math.exp(logs);
    }
    return Math.log(Math.max(total, LEAST_SUM));
  }
}

import type { Pace } from '../decision/pace';

/**
 * What the shop's own closed orders have taught, as counts. Counts add up: of orders, of families, of shops. Published
 * schema: `docs/formats/learned.schema.json`.
 */
export interface ModeCount {
  /** Orders in which it was the cause. */
  readonly found: number;
  /** Orders in which it would have been by the catalogue's own weights. */
  readonly expected: number;
}

export interface CheckCount {
  /** Times there was something to be seen, and times it was missed. */
  readonly present: number;
  readonly missed: number;
  /** Times there was nothing to be seen, and times it was reported all the same. */
  readonly absent: number;
  readonly false: number;
}

export interface Counts {
  readonly orders: number;
  readonly modes: Readonly<Record<string, ModeCount>>;
  /** By mode, dimension and value; the normal value is the empty word. Readings stand as `reads:name`. */
  readonly shows: Readonly<Record<string, Readonly<Record<string, Readonly<Record<string, number>>>>>>;
  readonly checks: Readonly<Record<string, CheckCount>>;
  /** Absent while no closed order told its minutes. */
  readonly pace?: Pace;
}

export interface Learned {
  readonly format: 'zealous-tracer/learned';
  readonly version: 1;
  readonly shop: Counts;
  readonly families: Readonly<Record<string, Counts>>;
  readonly machines: Readonly<Record<string, Counts>>;
}

export const noCounts: Counts = { orders: 0, modes: {}, shows: {}, checks: {} };
export const nothingLearned: Learned = {
  format: 'zealous-tracer/learned',
  version: 1,
  shop: noCounts,
  families: {},
  machines: {},
};

type Tree = number | { readonly [key: string]: Tree };

/** Adds numbers leaf by leaf. */
function added<T extends Tree>(a: T | undefined, b: T | undefined): T {
  if (a === undefined || b === undefined) return (a ?? b) as T;
  if (typeof a === 'number' || typeof b === 'number') return (Number(a) + Number(b)) as T;
  const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
  return Object.fromEntries([...keys].map((key) => [key, added(a[key], b[key])])) as T;
}

export const addCounts = (a: Counts, b: Counts): Counts =>
  added(a as unknown as Tree, b as unknown as Tree) as unknown as Counts;

/** What one order taught, with where it belongs. */
export interface Lesson {
  readonly family: string;
  readonly machine: string;
  readonly counts: Counts;
}

const into = (of: Readonly<Record<string, Counts>>, id: string, counts: Counts): Readonly<Record<string, Counts>> => ({
  ...of,
  [id]: addCounts(of[id] ?? noCounts, counts),
});

export const learn = (learned: Learned, { family, machine, counts }: Lesson): Learned => ({
  ...learned,
  shop: addCounts(learned.shop, counts),
  families: into(learned.families, family, counts),
  machines: into(learned.machines, machine, counts),
});

const eachLeaf = (tree: Tree, of: (leaf: number) => number): Tree =>
  typeof tree === 'number'
    ? of(tree)
    : Object.fromEntries(Object.entries(tree).map(([key, leaf]) => [key, eachLeaf(leaf, of)]));

const leaves = (counts: Counts, of: (leaf: number) => number): Counts =>
  eachLeaf(counts as unknown as Tree, of) as unknown as Counts;

/** Counts in steps of 2^-36: sums of a hundred thousand such orders are exact, so that what is taken back is wholly gone. */
const STEPS = 2 ** 36;
export const inSteps = (counts: Counts): Counts => leaves(counts, (leaf) => Math.round(leaf * STEPS) / STEPS);

/** Without a pace that no order speaks of any more. */
function spokenPace(counts: Counts): Counts {
  const { pace, ...rest } = counts;
  return pace && pace.orders !== 0 ? counts : rest;
}

/** Takes back a lesson that was learned, with a machine or family that nothing else speaks of. */
export function unlearn(learned: Learned, { family, machine, counts }: Lesson): Learned {
  const taken = learn(learned, { family, machine, counts: leaves(counts, (leaf) => -leaf) });
  const next = { ...taken, shop: spokenPace(taken.shop) };
  const spoken = (of: Readonly<Record<string, Counts>>): Readonly<Record<string, Counts>> =>
    Object.fromEntries(
      Object.entries(of)
        .map(([id, kept]) => [id, spokenPace(kept)] as const)
        .filter(([, { orders, pace }]) => orders !== 0 || pace !== undefined),
    );
  return { ...next, families: spoken(next.families), machines: spoken(next.machines) };
}

/** Two shops, or what was imported and what was found here. */
export function together(a: Learned, b: Learned): Learned {
  const merged = (x: Readonly<Record<string, Counts>>, y: Readonly<Record<string, Counts>>) =>
    Object.entries(y).reduce((of, [id, counts]) => into(of, id, counts), x);
  return {
    ...a,
    shop: addCounts(a.shop, b.shop),
    families: merged(a.families, b.families),
    machines: merged(a.machines, b.machines),
  };
}

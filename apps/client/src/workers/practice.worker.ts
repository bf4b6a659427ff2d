import { FAMILIES } from '@zealous/core';
import {
  casesOf,
  nextCase,
  recordOf,
  reviewRound,
  seedFor,
  viewRound,
  type Level,
  type PracticeCase,
  type RoundMove,
  type RoundRecord,
} from '@zealous/core/practice';
import { expose } from 'comlink';

/** The cases from practice come with the application, so that a round needs no server. */
const files = require.context('../../../../cases', false, /\.json$/);
const cases = files.keys().map((name) => files<PracticeCase>(name));

/** A round as the device keeps it: what is hidden by its name only. */
export interface KeptRound {
  readonly id: string;
  readonly person: string;
  readonly hidden:
    | { readonly from: 'case'; readonly id: string }
    | { readonly from: 'catalogue'; readonly family: string; readonly seed: number };
  readonly level: Level;
  readonly moves: readonly RoundMove[];
}

function playedOf({ hidden, level, moves }: KeptRound) {
  if (hidden.from === 'catalogue') return { hidden, level, moves };
  const found = cases.find(({ id }) => id === hidden.id);
  if (!found) throw new Error('This round was begun with a case that the application no longer has. Begin another.');
  return { hidden: { from: 'case' as const, case: found }, level, moves };
}

/** Without a case of the family a fault is drawn from the catalogue; every third time it is drawn in any case (chosen). */
const DRAWN_SHARE = 1 / 3;
const SEEDS = 1_000_000;

const service = {
  families: () =>
    FAMILIES.map(({ id, name }) => ({ id, name, cases: cases.filter(({ family }) => family === id).length })),
  counts: (level: Level) => casesOf(cases, level).length,
  /** Begins a round: a case not done yet, or a fault drawn by a seed. `chances` are three numbers on [0, 1). */
  begin(
    id: string,
    person: string,
    level: Level,
    family: string | undefined,
    done: readonly string[],
    chances: readonly [number, number, number],
  ): KeptRound {
    const [which, pick, seed] = chances;
    const found = which < DRAWN_SHARE ? undefined : nextCase(cases, level, done, pick, family);
    const of = family ?? FAMILIES[Math.floor(pick * FAMILIES.length)]?.id ?? '';
    return {
      id,
      person,
      level,
      moves: [],
      hidden: found
        ? { from: 'case', id: found.id }
        : { from: 'catalogue', family: of, seed: seedFor(level, of, Math.floor(seed * SEEDS)) },
    };
  },
  view: (round: KeptRound) => viewRound(playedOf(round)),
  review: (round: KeptRound, onStep: (done: number) => void) => reviewRound(playedOf(round), onStep),
  record: (round: KeptRound, said: { readonly at: string; readonly tracerMinutes?: number }): RoundRecord =>
    recordOf(playedOf(round), { id: round.id, person: round.person, ...said }),
};

export type PracticeService = typeof service;

expose(service);

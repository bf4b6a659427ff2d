import stableStringify from 'fast-json-stable-stringify';
import {
  benchKey,
  benchToDecide,
  whatChanged,
  type Assessment,
  type Machine,
  type OrderState,
  type Sight,
} from '@zealous/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useClock } from '../data/useClock';
import { useAppSelector, useAppStore } from '../data/store';
import { orderSelector, type OpenOrder } from '../data/useOrder';
import { tracer } from '../workers/trace';

export interface AssessmentView {
  readonly assessment?: Assessment;
  /** What the strand shows: that of the last findings already, while the next check is still being looked for. */
  readonly seen?: Sight;
  /** Key of the check that was shown first for these findings: it stays under the thumb when a longer look prefers another. */
  readonly standing?: string;
  /** What the last finding changed. */
  readonly change?: string;
  /** It holds for the findings as they stand; while it does not, another tap would answer a check that is gone. */
  readonly fresh: boolean;
  readonly failure?: string;
}

interface Known {
  readonly findings: string;
  readonly assessment: Assessment;
}

/** So long the first answer is held back for the better one; longer, and it is shown alone. */
const PATIENCE_MS = 350;

const bestKey = (assessment: Assessment): string | undefined =>
  assessment.advice.kind === 'repair' ? undefined : assessment.checks.find((check) => !check.done)?.key;

/**
 * The check that stands in a situation of findings and bench: when a finding is taken back, the one that stood before it, as
 * long as a check is still worth doing and it is still to be done; otherwise the best one. `keep` writes it down.
 */
function standingAgain(
  shown: Map<string, string>,
  situation: string,
  assessment: Assessment,
  keep = true,
): string | undefined {
  const before = shown.get(situation);
  const best = bestKey(assessment);
  const open = assessment.checks.some((check) => check.key === before && !check.done);
  const standing = best !== undefined && open ? before : best;
  if (keep && standing !== undefined) shown.set(situation, standing);
  return standing;
}

/**
 * What of an order's entries the suspicion depends on, whatever the order of the fields: the server gives the taking-in back with
 * its fields in another, and a tap while all is weighed anew for that would be lost.
 */
const findingsOf = (state: OrderState): string =>
  stableStringify([
    state.intake,
    state.findings.map((f) => [f.id, f.innocent]),
    state.notDone.map((n) => n.id),
    state.failures.map((f) => f.id),
  ]);

/** The sight last asked for, and of what. */
interface Asked {
  readonly of: readonly unknown[];
  readonly answer: Promise<Sight>;
}

/**
 * How what is believed of an order is asked for: once for the same findings, shop and use of what was learned. It is asked at the tap
 * already, while that is still being drawn: on a slow phone drawing takes as long as weighing.
 */
function useSight(orderId: string): (machine: Machine, state: OrderState) => Promise<Sight> {
  const store = useAppStore();
  const last = useRef<Asked | undefined>(undefined);
  const ask = useCallback(
    (machine: Machine, state: OrderState): Promise<Sight> => {
      const { shop, settings } = store.getState();
      const of = [machine, findingsOf(state), shop, settings.useLearned];
      const known = last.current;
      if (known?.of.every((part, i) => part === of[i])) return known.answer;
      const answer = tracer().sight(machine, state);
      last.current = { of, answer };
      // What failed is asked anew.
      answer.catch(() => (last.current = undefined));
      return answer;
    },
    [store],
  );
  useEffect(() => {
    const select = orderSelector(orderId);
    let before = select(store.getState())?.state;
    return store.subscribe(() => {
      const order = select(store.getState());
      if (!order || order.state === before) return;
      const news = before === undefined || findingsOf(order.state) !== findingsOf(before);
      before = order.state;
      if (news && !order.state.closed) ask(order.machine, order.state).catch(() => undefined);
    });
  }, [ask, orderId, store]);
  return ask;
}

/**
 * The assessment of an order, worked out in the worker: one check ahead at once, two checks ahead as soon as may be; again
 * when a finding comes, another check is picked (`own`, which is then compared as far ahead), the shop's catalogue changes or the machine has cooled noticeably.
 */
export function useAssessment({ id, machine, state }: OpenOrder, own?: string): AssessmentView {
  const askSight = useSight(id);
  const now = useClock(15_000);
  const shop = useAppSelector((root) => root.shop);
  const useLearned = useAppSelector((root) => root.settings.useLearned);
  const [view, setView] = useState<AssessmentView & { readonly findings?: string }>({ fresh: false });
  const last = useRef<Known | undefined>(undefined);
  /** As it stood before the last finding. */
  const before = useRef<Known | undefined>(undefined);
  const firstShown = useRef(new Map<string, string>());
  const bench = benchToDecide(machine, state, now);
  const stands = benchKey(bench);
  const findings = findingsOf(state);

  useEffect(() => {
    let stale = false;
    let shown = false;
    // Emptying the path or raising the head is part of a check that asks for it: that check stays.
    const { temperatureC, power, off, heatSpoiled = false } = bench;
    const situation = `${temperatureC}|${power}|${heatSpoiled}|${[...off].join()}|${findings}`;
    const show = (found: Assessment): void => {
      if (stale) return;
      // A repair that is on the screen stays there: a longer look that would check on must not take it from under the thumb.
      const held = shown && last.current?.assessment.advice.kind === 'repair' && found.advice.kind === 'check';
      const assessment = held && last.current ? { ...found, advice: last.current.assessment.advice } : found;
      if (last.current && last.current.findings !== findings) before.current = last.current;
      // By the figures that are shown: a longer look tells them more nearly than the first one.
      const moved = before.current ? whatChanged(before.current.assessment, assessment) : undefined;
      last.current = { findings, assessment };
      const first = !shown;
      shown = true;
      setView((old) => {
        const standing = first ? standingAgain(firstShown.current, situation, assessment) : old.standing;
        const change = moved ?? old.change;
        return {
          assessment,
          seen: assessment,
          findings,
          fresh: true,
          ...(standing === undefined ? {} : { standing }),
          ...(change === undefined ? {} : { change }),
        };
      });
    };
    const fail = (error: unknown): void => {
      if (!stale) setView((old) => ({ ...old, failure: (error as Error).message }));
    };
    const also = own === undefined ? [] : [own];
    // What is suspected does not depend on what is decided: the strand moves under the finger.
    const sight = askSight(machine, state).then((seen) => {
      if (!stale) setView((old) => ({ ...old, seen }));
    });
    const deeper = tracer()
      .assess(machine, state, bench, also)
      .then((first) => {
        const late = setTimeout(() => show(first), PATIENCE_MS);
        const standing = standingAgain(firstShown.current, situation, first, false);
        return tracer()
          .assessDeeper(machine, state, bench, standing === undefined ? also : [...also, standing])
          .then((second) => {
            clearTimeout(late);
            show(second);
          });
      });
    sight.catch(fail);
    deeper.catch(fail);
    return () => {
      stale = true;
    };
    // `findings` and `stands` stand for everything in the state that the answer depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [machine, findings, stands, shop, useLearned, own]);
  return { ...view, fresh: view.findings === findings };
}

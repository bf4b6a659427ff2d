import { benchAt, whatChanged, type Assessment, type Machine, type OrderState } from '@zealous/core';
import { useEffect, useRef, useState } from 'react';
import { useClock } from '../data/useClock';
import { tracer } from '../workers/trace';

export interface AssessmentView {
  readonly assessment?: Assessment;
  /** What the last finding changed. */
  readonly change?: string;
  readonly working: boolean;
  /** It holds for the findings as they stand; while it does not, another tap would answer a check that is gone. */
  readonly fresh: boolean;
  readonly failure?: string;
}

interface Known {
  readonly findings: string;
  readonly assessment: Assessment;
}

/** The assessment of an order, worked out in the worker; again when a finding comes or the machine has cooled noticeably. */
export function useAssessment(machine: Machine, state: OrderState): AssessmentView {
  const now = useClock(15_000);
  const [view, setView] = useState<AssessmentView & { readonly findings?: string }>({ working: true, fresh: false });
  const last = useRef<Known | undefined>(undefined);
  const bench = benchAt(machine, state, now);
  // The machine cools all the time; the decision needs only a coarse step of it.
  const temperature = Math.round(bench.temperatureC / 10) * 10;
  const findings = JSON.stringify([
    state.intake,
    state.findings.map((f) => f.id),
    state.notDone.map((n) => n.id),
    state.failures.map((f) => f.id),
  ]);
  const benchKey = `${temperature}|${bench.power}|${state.off.join()}`;

  useEffect(() => {
    let stale = false;
    const at = { temperatureC: temperature, power: state.power, off: new Set(state.off) };
    tracer()
      .assess(machine, state, at)
      .then((assessment) => {
        if (stale) return;
        const before = last.current;
        const moved = before && before.findings !== findings ? whatChanged(before.assessment, assessment) : undefined;
        last.current = { findings, assessment };
        setView((old) => ({
          assessment,
          findings,
          working: false,
          fresh: true,
          ...((moved ?? old.change) ? { change: moved ?? old.change } : {}),
        }));
      })
      .catch((error: unknown) => {
        if (!stale) setView((old) => ({ ...old, working: false, failure: (error as Error).message }));
      });
    return () => {
      stale = true;
    };
    // `findings` and `benchKey` stand for everything in the state that the answer depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [machine, findings, benchKey]);
  return { ...view, fresh: view.findings === findings };
}

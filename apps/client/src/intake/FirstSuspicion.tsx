import { percent, reduceOrder, type Assessment, type Machine } from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { useEffect, useState } from 'react';
import type { TakeInDraft } from '../data/draftSlice';
import { Text } from '../ui/Text';
import { tracer } from '../workers/trace';
import { bodyOf } from './takeInBody';

const SHOWN = 3;

/** Where it probably sits, from what is filled in so far. */
export function FirstSuspicion({ machine, draft }: { readonly machine: Machine; readonly draft: TakeInDraft }) {
  const [assessment, setAssessment] = useState<Assessment | undefined>(undefined);
  const catalogue = useCatalogue();
  useEffect(() => {
    let stale = false;
    const at = new Date(0).toISOString();
    const event = { id: 'draft', at, by: 'draft', type: 'taken-in' as const, body: bodyOf(draft, machine.id, 'draft') };
    const state = reduceOrder(machine, catalogue, [event]);
    void tracer()
      .assess(machine, state, { temperatureC: machine.heat.ambientC, power: 'off', off: new Set() }, [])
      .then((answer) => {
        if (!stale) setAssessment(answer);
      });
    return () => {
      stale = true;
    };
  }, [machine, draft, catalogue]);
  if (!assessment) return null;
  const top = [...assessment.stations].sort((a, b) => b.suspicion - a.suspicion).slice(0, SHOWN);
  return (
    <Text testID="first-suspicion">
      <Text bold tone="doubt">
        {'First suspicion: '}
      </Text>
      {top.map((item) => `${item.name} ${percent(item.suspicion)}`).join(', ')}
    </Text>
  );
}

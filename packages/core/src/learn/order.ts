import type { Catalogue } from '../catalogue/types';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import { workOut } from '../decision/working';
import { inSteps, type Lesson } from './counts';
import { lessonOf } from './lesson';

/** What a closed order teaches; nothing unless it was cured, proved, and its cause is one of this machine's. */
export function lessonOfOrder(machine: Machine, catalogue: Catalogue, state: OrderState): Lesson | undefined {
  const { closed, cause } = state;
  if (closed?.outcome !== 'cured' || !cause) return undefined;
  // Seen from what was found before the cure: a repair that failed is a finding, the one that cured is the answer.
  const { model, evidence, suspicion } = workOut(machine, catalogue, state);
  const index = model.causes.findIndex((item) => item.stop.station.id === cause.station && item.mode.id === cause.mode);
  if (index < 0) return undefined;
  const { causes, prior } = model;
  const lesson = lessonOf({ machine, causes, prior, evidence, ways: suspicion.ways, cause: index });
  return { ...lesson, counts: inSteps(lesson.counts) };
}

import type { Catalogue } from '../catalogue/types';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import { workOut } from '../decision/working';
import { inSteps, noCounts, type Lesson } from './counts';
import { lessonOf } from './lesson';
import { expectedAtTakeIn, paceOf } from './pace';

/** What a closed order teaches; nothing unless it was cured. Its cause, where it is one of this machine's; its minutes, where told. */
export function lessonOfOrder(machine: Machine, catalogue: Catalogue, state: OrderState): Lesson | undefined {
  const { closed } = state;
  if (closed?.outcome !== 'cured') return undefined;
  const cause = causeLesson(machine, catalogue, state);
  const pace = closed.minutes ? paceOf(expectedAtTakeIn(machine, catalogue, state), closed.minutes) : undefined;
  if (!cause && !pace) return undefined;
  const counts = { ...(cause?.counts ?? noCounts), ...(pace ? { pace } : {}) };
  return { family: machine.family, machine: machine.id, counts: inSteps(counts) };
}

function causeLesson(machine: Machine, catalogue: Catalogue, state: OrderState): Lesson | undefined {
  const { cause } = state;
  if (!cause) return undefined;
  // Seen from what was found before the cure: a repair that failed is a finding, the one that cured is the answer.
  const { model, evidence, suspicion } = workOut(machine, catalogue, state);
  const index = model.causes.findIndex((item) => item.stop.station.id === cause.station && item.mode.id === cause.mode);
  if (index < 0) return undefined;
  const { causes, prior } = model;
  return lessonOf({ machine, causes, prior, evidence, ways: suspicion.waysOf(index), cause: index });
}

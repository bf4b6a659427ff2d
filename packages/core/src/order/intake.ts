import type { Catalogue } from '../catalogue/types';
import { allStations, type Machine } from '../path/machine';
import { routeOf } from '../path/route';
import type { Intake, OrderEvent } from './events';
import { refuse } from './refuse';
import type { OrderState } from './state';

/** Everything named in it is there. @throws RefusedEvent */
function knownIntake(body: Intake, machine: Machine, catalogue: Catalogue): void {
  try {
    routeOf(machine, body.lane);
  } catch (error) {
    refuse('/body/lane', (error as Error).message);
  }
  const known = (path: string, ids: readonly string[], list: readonly { readonly id: string }[]): void =>
    ids.forEach(
      (id, i) => list.some((item) => item.id === id) || refuse(`${path}/${i}`, `The catalogue has no "${id}".`),
    );
  known('/body/symptoms', body.symptoms, catalogue.symptoms);
  known('/body/before', body.before, catalogue.before);
  if (body.onset !== undefined) known('/body/onset', [body.onset], catalogue.onsets);
  known('/body/onsets', body.onsets ?? [], catalogue.onsets);
  known('/body/notLooked', body.notLooked ?? [], catalogue.symptoms);
  known(
    '/body/tried',
    (body.tried ?? []).map(({ id }) => id),
    catalogue.before,
  );
  known('/body/converted', body.converted ?? [], allStations(machine));
  if (body.noticedAt !== undefined) known('/body/noticedAt', [body.noticedAt], allStations(machine));
  if (body.material !== undefined) known('/body/material', [body.material], catalogue.materials);
}

/** What was given at the taking-in, put right; the lane only while nothing was found on it. */
export function putRight(
  state: OrderState,
  { body, at }: OrderEvent & { type: 'intake-corrected' },
  machine: Machine,
  catalogue: Catalogue,
): OrderState {
  const { intake } = state;
  if (!intake) refuse('/type', 'The order has not been taken in yet.');
  knownIntake(body, machine, catalogue);
  if (body.lane !== intake?.lane && state.findings.length + state.notDone.length > 0)
    refuse('/body/lane', 'Findings were recorded on this lane already: take them back first, or take in anew.');
  return intake
    ? {
        ...state,
        intake: {
          ...body,
          number: intake.number,
          machineId: intake.machineId,
          at: intake.at,
          by: intake.by,
          askedAt: at,
        },
      }
    : state;
}

/** What is said and shown when the machine comes in. @throws RefusedEvent */
export const takeIn = (
  state: OrderState,
  event: OrderEvent & { type: 'taken-in' },
  machine: Machine,
  catalogue: Catalogue,
): OrderState => {
  const { body } = event;
  if (state.intake) refuse('/type', 'The order was taken in already.');
  if (body.machineId !== machine.id) refuse('/body/machineId', `The order belongs to machine "${machine.id}".`);
  knownIntake(body, machine, catalogue);
  return {
    ...state,
    intake: { ...body, at: event.at, by: event.by, askedAt: event.at },
    heat: { ...state.heat, atMs: Date.parse(event.at) },
  };
};

import type { EventBodies, Machine, OrderState } from '@zealous/core';
import type { Recorder } from '../data/useOrder';
import { Button } from './Button';

/** What is recorded when all screws of a part are in again, by each way in which it came off. */
function screwsIn({ fasteners }: OrderState, part: string): readonly EventBodies['fasteners-moved'][] {
  return Object.entries(fasteners).flatMap(([key, record]) => {
    const [id, way] = key.split('/');
    const out = Object.entries(record).flatMap(([index, { now }]) => (now === 'out' ? [Number(index)] : []));
    return id === part && out.length ? [{ part, ...(way === undefined ? {} : { way }), in: out }] : [];
  });
}

/** Says in one tap that a part which is on is tight again. */
export function ScrewsIn({
  machine,
  state,
  part,
  record,
}: {
  readonly machine: Machine;
  readonly state: OrderState;
  readonly part: string;
  readonly record: Recorder;
}) {
  const name = machine.parts.find(({ id }) => id === part)?.name ?? part;
  return (
    <Button
      label={`All screws of ${name} are in`}
      icon="check"
      onPress={() => screwsIn(state, part).forEach((body) => record('fasteners-moved', body))}
    />
  );
}

import { routeOf, type Machine } from '@zealous/core';
import { useState } from 'react';
import type { TakeInDraft } from '../data/draftSlice';
import { Choice } from '../ui/Choice';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';

export interface StationsProps {
  readonly machine: Machine;
  readonly lane?: string;
  readonly draft: Pick<TakeInDraft, 'noticedAt' | 'converted'>;
  readonly onChange: (change: Partial<Pick<TakeInDraft, 'noticedAt' | 'converted'>>) => void;
}

/** Two questions that name places of the path; folded away until one of them applies. */
export function Stations({ machine, lane, draft, onChange }: StationsProps) {
  const { noticedAt, converted = [] } = draft;
  const [message, setMessage] = useState(noticedAt !== undefined);
  const [changed, setChanged] = useState(converted.length > 0);
  const options = routeOf(machine, lane).stops.map(({ station }) => ({ id: station.id, label: station.name }));
  return (
    <>
      {message ? (
        <>
          <Text>A message names where the fault was noticed. It often lies ahead of that place.</Text>
          <Choice
            label="Place that the message names"
            options={options}
            chosen={noticedAt === undefined ? [] : [noticedAt]}
            onToggle={(id) => onChange({ noticedAt: noticedAt === id ? undefined : id })}
          />
        </>
      ) : (
        <Button label="A message names a place" onPress={() => setMessage(true)} />
      )}
      {changed ? (
        <>
          <Text>Which places are not as they were delivered?</Text>
          <Choice
            label="Not as delivered"
            several
            options={options}
            chosen={converted}
            onToggle={(id) =>
              onChange({
                converted: converted.includes(id) ? converted.filter((item) => item !== id) : [...converted, id],
              })
            }
          />
        </>
      ) : (
        <Button label="Something was converted" onPress={() => setChanged(true)} />
      )}
    </>
  );
}

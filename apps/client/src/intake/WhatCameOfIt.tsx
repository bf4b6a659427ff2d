import type { Before, EventBodies } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import type { TakeInDraft } from '../data/draftSlice';
import { Choice } from '../ui/Choice';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

type Tried = NonNullable<EventBodies['taken-in']['tried']>;
const RESULTS = [
  { id: 'same', label: 'Same as before' },
  { id: 'better', label: 'Better' },
  { id: 'cured', label: 'Cured for a while' },
  { id: 'worse', label: 'Worse' },
  { id: 'unknown', label: 'Don’t know' },
] as const;

export interface WhatCameOfItProps {
  readonly before: readonly Before[];
  readonly draft: Pick<TakeInDraft, 'before' | 'tried'>;
  readonly onChange: (tried: Tried) => void;
}

/** For each thing that was tried as a cure: what came of it. "The same" speaks too. */
export function WhatCameOfIt({ before, draft, onChange }: WhatCameOfItProps) {
  const tried = draft.tried ?? [];
  const asked = before.filter(({ id, finding, tried: cures }) => draft.before.includes(id) && (finding ?? cures));
  return (
    <>
      {asked.map(({ id, label }) => (
        <View key={id} style={styles.column}>
          <Text bold>{`${label}: what came of it?`}</Text>
          <Choice
            label={`${label}: what came of it`}
            options={RESULTS}
            chosen={[tried.find((item) => item.id === id)?.result ?? 'unknown']}
            onToggle={(result) => {
              const others = tried.filter((item) => item.id !== id);
              onChange(result === 'unknown' ? others : [...others, { id, result }]);
            }}
          />
        </View>
      ))}
    </>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s, marginTop: space.m } });

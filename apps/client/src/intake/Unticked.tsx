import type { Symptom } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import type { TakeInDraft } from '../data/draftSlice';
import { Choice } from '../ui/Choice';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const ASKED = [
  { id: 'nobody', label: 'Nobody asked' },
  { id: 'all', label: 'Looked for and not seen' },
  { id: 'some', label: 'Some were not looked at' },
] as const;

export interface UntickedProps {
  readonly symptoms: readonly Symptom[];
  readonly draft: Pick<TakeInDraft, 'symptoms' | 'notLooked'>;
  readonly onChange: (notLooked: readonly string[] | undefined) => void;
}

/** What "not ticked" means: a sign that was looked for and is not there speaks too; one that nobody looked for says nothing. */
export function Unticked({ symptoms, draft, onChange }: UntickedProps) {
  const { notLooked } = draft;
  const rest = symptoms.filter(({ id }) => !draft.symptoms.includes(id));
  const asked = notLooked === undefined ? 'nobody' : notLooked.length === 0 ? 'all' : 'some';
  const toggle = (id: string): void => {
    const list = notLooked ?? [];
    onChange(list.includes(id) ? list.filter((item) => item !== id) : [...list, id]);
  };
  return (
    <View style={styles.column}>
      <Text bold>What is not ticked:</Text>
      <Choice
        label="What is not ticked"
        options={ASKED}
        chosen={[asked]}
        onToggle={(id) => onChange(id === 'nobody' ? undefined : id === 'all' ? [] : rest.map((item) => item.id))}
      />
      {asked === 'some' ? (
        <>
          <Text kind="small" tone="soft">
            Tick those that nobody looked at; the others were looked for and not seen.
          </Text>
          <Choice
            label="Not looked at"
            paired
            several
            options={rest}
            chosen={rest.filter(({ id }) => notLooked?.includes(id)).map(({ id }) => id)}
            onToggle={toggle}
          />
        </>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s, marginTop: space.m } });

import { whatMoved, type Learned, type Moved } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { problemText, useForgetImportsMutation, useImportLearnedMutation, useMachinesQuery } from '../data/api';
import { settingsChanged } from '../data/settingsSlice';
import { useAppDispatch, useAppSelector } from '../data/store';
import { useCatalogue } from '../data/useCatalogue';
import { Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { pickFile } from '../ui/pickFile';
import { saveFile } from '../ui/saveFile';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** What the shop's own closed and proved orders have taught: how many speak, what moved, and whether it counts. */
export function Learning() {
  const dispatch = useAppDispatch();
  const { learned, imports } = useAppSelector((root) => root.shop);
  const useLearned = useAppSelector((root) => root.settings.useLearned);
  const catalogue = useCatalogue();
  const machines = useMachinesQuery();
  const [bring] = useImportLearnedMutation();
  const [forget] = useForgetImportsMutation();
  const [id, setId] = useState<string | undefined>(undefined);
  const [failure, setFailure] = useState<string | undefined>(undefined);
  const machine = machines.data?.find((item) => item.id === id) ?? { id: '', family: '' };
  const { orders, modes, checks } = whatMoved(catalogue, learned, machine);
  const fromFile = async (): Promise<void> => {
    const text = await pickFile('application/json,.json');
    if (text === undefined) return;
    try {
      await bring(JSON.parse(text) as Learned).unwrap();
      setFailure(undefined);
    } catch (error) {
      const why = error instanceof SyntaxError ? `it is not JSON: ${error.message}` : problemText(error);
      setFailure(`The file was not taken: ${why}`);
    }
  };
  return (
    <Section title="What this shop has learned">
      <Text>
        {orders === 0
          ? 'No closed and proved order speaks yet. Each one that is closed as cured moves the weights a little.'
          : `${Math.round(orders)} closed and proved ${orders === 1 ? 'order speaks' : 'orders speak'}. Nothing of it leaves the shop.`}
      </Text>
      <Choice
        label="Does it count?"
        options={[
          { id: 'yes', label: 'It moves the weights' },
          { id: 'no', label: 'Leave it out' },
        ]}
        chosen={[useLearned ? 'yes' : 'no']}
        onToggle={(answer) => dispatch(settingsChanged({ useLearned: answer === 'yes' }))}
      />
      {orders > 0 ? (
        <>
          <Text bold>What moved</Text>
          <Choice
            label="For which machine"
            options={[
              { id: '', label: 'The whole shop' },
              ...(machines.data ?? []).map((item) => ({ id: item.id, label: item.name })),
            ]}
            chosen={[id ?? '']}
            onToggle={(next) => setId(next === '' ? undefined : next)}
          />
          <MovedList title="Weights" moved={modes} format={(x) => x.toFixed(1)} />
          <MovedList title="How often a check misses" moved={checks} format={(x) => `${(100 * x).toFixed(1)} %`} />
        </>
      ) : null}
      <View style={styles.row}>
        <Button
          label="Save the counts"
          icon="save"
          kind="quiet"
          onPress={() => saveFile('learned.json', 'application/json', JSON.stringify(learned, null, 2))}
        />
        <Button label="Counts from a file" kind="quiet" onPress={() => void fromFile()} />
        {imports > 0 ? (
          <Button label={`Forget what was brought in (${imports})`} kind="quiet" onPress={() => void forget()} />
        ) : null}
      </View>
      {failure ? (
        <Text tone="fault" bold live>
          {failure}
        </Text>
      ) : null}
    </Section>
  );
}

function MovedList({
  title,
  moved,
  format,
}: {
  readonly title: string;
  readonly moved: readonly Moved[];
  readonly format: (x: number) => string;
}) {
  if (moved.length === 0)
    return <Text kind="small" tone="soft">{`${title}: nothing moved by more than a twentieth yet.`}</Text>;
  return (
    <View role="list" aria-label={title}>
      <Text kind="small" tone="soft">
        {title}
      </Text>
      {moved.slice(0, 8).map((item) => (
        <View role="listitem" key={item.id} style={styles.row}>
          <Text kind="small" style={styles.grow}>
            {item.name.replace(/ ?\{[a-z]+\},?/g, '')}
          </Text>
          <Text kind="smallFigure">{`${format(item.from)} → ${format(item.to)}`}</Text>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, alignItems: 'baseline' },
  grow: { flex: 1 },
});

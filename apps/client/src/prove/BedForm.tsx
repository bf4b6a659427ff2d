import { bedDrift, type BedPoint, type Proof } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Recorder } from '../data/useOrder';
import { NumberField } from '../ui/form/NumberField';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const POINTS = ['front left', 'front right', 'back right', 'back left', 'middle'] as const;
const fits = (n: number): boolean => Math.abs(n) <= 5;
const ADVICE = {
  good: 'Even: it is good.',
  'another round': 'Not even yet: go round once more, and enter that as the second round.',
  'look for play': 'A point moved by itself: look for play in the bed, its springs or the head.',
} as const;
const mm = (value: number): string => `${value >= 0 ? '+' : '−'}${Math.abs(value).toFixed(2)}`;

/** What two rounds said, point by point. */
export function BedResult({ points }: { readonly points: readonly BedPoint[] }) {
  const { points: list, worstMm, spreadMm, advice } = bedDrift(points);
  return (
    <View style={styles.column}>
      {list.map(({ name, first, second, drift }) => (
        <Text key={name} kind="small">{`${name}: ${mm(first)} → ${mm(second)} mm, drift ${mm(drift)}`}</Text>
      ))}
      <Text kind="small" bold tone={advice === 'good' ? 'clear' : 'fault'}>
        {`${ADVICE[advice]} Largest drift ${worstMm.toFixed(2)} mm, points ${spreadMm.toFixed(2)} mm apart.`}
      </Text>
    </View>
  );
}

/** Bed or nozzle height, point by point in two rounds: above paper that only just still pulls. */
export function BedForm({
  proof,
  record,
  onNotCured,
}: {
  readonly proof: Proof;
  readonly record: Recorder;
  readonly onNotCured: () => void;
}) {
  const [rounds, setRounds] = useState<Readonly<Record<string, readonly [number | undefined, number | undefined]>>>({});
  const points = POINTS.flatMap((name): BedPoint[] => {
    const [first, second] = rounds[name] ?? [];
    return first === undefined || second === undefined ? [] : [{ name, first, second }];
  });
  const good = points.length >= 3 && bedDrift(points).advice === 'good';
  return (
    <View style={styles.column}>
      <Text kind="small" tone="soft">
        Gap to where paper only just still pulls, in mm; 0 is right. Three points at least.
      </Text>
      {POINTS.map((name) => {
        const [first, second] = rounds[name] ?? [undefined, undefined];
        return (
          <View key={name} style={styles.row}>
            <NumberField
              label={`${name}, first round`}
              value={first}
              fits={fits}
              style={styles.grow}
              onChange={(n) => setRounds({ ...rounds, [name]: [n, second] })}
            />
            <NumberField
              label={`${name}, second round`}
              value={second}
              fits={fits}
              style={styles.grow}
              onChange={(n) => setRounds({ ...rounds, [name]: [first, n] })}
            />
          </View>
        );
      })}
      {points.length > 0 ? <BedResult points={points} /> : null}
      <Tap
        label="Even in the second round"
        kind="main"
        disabled={!good}
        onPress={() => record('proof-recorded', { proof: proof.id, passed: true, points })}
      />
      <Tap
        label="Checked without numbers: paper pulls alike everywhere"
        onPress={() => record('proof-recorded', { proof: proof.id, passed: true })}
      />
      <Tap label="It cannot be set: not cured" kind="quiet" onPress={onNotCured} />
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s },
  grow: { flex: 1 },
});

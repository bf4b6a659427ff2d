import { bedDrift, type BedPoint, type Proof } from '@zealous/core';
import { useWatch } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import type { Recorder } from '../data/useOrder';
import { FormNumber } from '../ui/form/FormFields';
import { useEntryForm } from '../ui/form/useEntryForm';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const POINTS = ['front left', 'front right', 'back right', 'back left', 'middle'] as const;
/** More than this is no gap of a bed that can be set, mm; the contract of the proof says the same. */
const MOST_MM = 5;

interface Gap {
  readonly first?: number | string | undefined;
  readonly second?: number | string | undefined;
}
interface Values {
  readonly gaps: readonly Gap[];
}
const gap = (value: number | string | undefined): value is number =>
  typeof value === 'number' && Math.abs(value) <= MOST_MM;

/** Points that were measured in both rounds. */
const pointsOf = (gaps: readonly Gap[]): readonly BedPoint[] =>
  POINTS.flatMap((name, i): BedPoint[] => {
    const { first, second } = gaps[i] ?? {};
    return gap(first) && gap(second) ? [{ name, first, second }] : [];
  });
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
  orderId,
  proof,
  record,
}: {
  readonly orderId: string;
  readonly proof: Proof;
  readonly record: Recorder;
}) {
  const form = useEntryForm<'proof-recorded', Values>({
    type: 'proof-recorded',
    keep: `bed:${orderId}:${proof.id}`,
    defaults: { gaps: POINTS.map(() => ({ first: undefined, second: undefined })) },
    toBody: ({ gaps }) => ({ proof: proof.id, passed: true, points: pointsOf(gaps) }),
  });
  const points = pointsOf(useWatch({ control: form.control, name: 'gaps' }));
  const good = points.length >= 3 && bedDrift(points).advice === 'good';
  return (
    <View style={styles.column}>
      <Text kind="small" tone="soft">
        Gap to where paper only just still pulls, in mm; 0 is right. Three points at least.
      </Text>
      {POINTS.map((name, i) => (
        <View key={name} style={styles.row}>
          <FormNumber
            control={form.control}
            name={`gaps.${i}.first`}
            label={`${name}, first round`}
            style={styles.grow}
          />
          <FormNumber
            control={form.control}
            name={`gaps.${i}.second`}
            label={`${name}, second round`}
            style={styles.grow}
          />
        </View>
      ))}
      {points.length > 0 ? <BedResult points={points} /> : null}
      <Button
        label="Even in the second round"
        kind="main"
        disabled={!good}
        onPress={() => form.submit((body) => record('proof-recorded', body))}
      />
      <Button
        label="Checked without numbers: paper pulls alike everywhere"
        onPress={() => record('proof-recorded', { proof: proof.id, passed: true })}
      />
      <Button
        label="It cannot be set: the bed itself is at fault"
        kind="quiet"
        onPress={() => record('proof-recorded', { proof: proof.id, passed: false })}
      />
      <Text kind="small" tone="soft">
        That does not say that what was repaired is back. It stands as not passed: have the bed mended, then take it
        again.
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  row: { flexDirection: 'row', gap: space.s },
  grow: { flex: 1 },
});

import { calibrateFeed, type FeedCalibration, type Proof } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Recorder } from '../data/useOrder';
import { Field } from '../ui/Field';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** New steps/mm with its uncertainty, and whether the change is more than the reading can show. */
export function FeedResult({ calibration }: { readonly calibration: FeedCalibration }) {
  const { stepsPerMm, uncertainty, change, significant, resolvable, longerFeedMm } = calibration;
  return (
    <View>
      <Text kind="figure" testID="steps">{`${stepsPerMm.toFixed(2)} ± ${uncertainty.toFixed(2)} steps/mm`}</Text>
      <Text kind="small">
        {significant
          ? `A change of ${(change * 100).toFixed(1)} %: more than the reading error of ± ${(resolvable * 100).toFixed(1)} %. Store the new value.`
          : `A change of ${(change * 100).toFixed(1)} %: within the reading error of ± ${(resolvable * 100).toFixed(1)} %. Keep the old value${longerFeedMm ? `; to see such a change ask ${longerFeedMm} mm` : ''}.`}
      </Text>
    </View>
  );
}

const number = (text: string): number => (text.trim() === '' ? NaN : Number(text.replace(',', '.')));

export function FeedForm({
  steps,
  record,
  proof,
  onNotCured,
}: {
  readonly steps: number | undefined;
  readonly record: Recorder;
  readonly proof: Proof;
  readonly onNotCured: () => void;
}) {
  const [asked, setAsked] = useState('100');
  const [left, setLeft] = useState('');
  const [old, setOld] = useState(steps === undefined ? '' : String(steps));
  const askedMm = number(asked);
  const fedMm = askedMm + 20 - number(left);
  const oldSteps = number(old);
  const possible = askedMm >= 10 && askedMm <= 1000 && fedMm > 0 && fedMm <= 1500 && oldSteps >= 1 && oldSteps <= 20000;
  const calibration = possible ? calibrateFeed(askedMm, fedMm, oldSteps) : undefined;
  const body = {
    proof: proof.id,
    askedMm,
    fedMm: Math.round(fedMm * 100) / 100,
    oldStepsPerMm: oldSteps,
    readingMm: 0.5,
  };
  return (
    <View style={styles.column}>
      <View style={styles.row}>
        <Field label="Asked, mm" value={asked} onChange={setAsked} number style={styles.grow} />
        <Field label="Left to the mark, mm" value={left} onChange={setLeft} number style={styles.grow} />
      </View>
      <Field label="Present steps/mm" value={old} onChange={setOld} number style={styles.grow} />
      <Text
        kind="small"
        tone="soft"
      >{`Mark set ${Number.isFinite(askedMm) ? askedMm + 20 : 120} mm ahead of the extruder. Fed: ${possible ? `${fedMm.toFixed(1)} mm` : 'enter what is left to the mark'}.`}</Text>
      {calibration ? <FeedResult calibration={calibration} /> : null}
      <View style={styles.row}>
        <Tap
          label="Feed is right, or set right"
          kind="main"
          disabled={!calibration}
          onPress={() => record('proof-recorded', { ...body, passed: true })}
          style={styles.grow}
        />
        <Tap label="Still short: not cured" disabled={!calibration} onPress={onNotCured} style={styles.grow} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  column: { gap: space.s },
});

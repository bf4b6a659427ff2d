import { calibrateFeed, type FeedCalibration, type Proof } from '@zealous/core';
import { useWatch } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import type { Recorder } from '../data/useOrder';
import { ByMachine } from '../link/ByMachine';
import { FormNumber } from '../ui/form/FormFields';
import { useEntryForm } from '../ui/form/useEntryForm';
import { Button } from '../ui/Button';
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

interface Values {
  readonly askedMm?: number | string;
  /** Left to the mark, which is set this much further than what is asked. */
  readonly leftMm?: number | string;
  readonly oldStepsPerMm?: number | string | undefined;
}
const MARK_AHEAD = 20;
/** Half a millimetre: what a steel rule is read to. */
const READING_MM = 0.5;

export function FeedForm({
  orderId,
  steps,
  record,
  proof,
  onNotCured,
}: {
  readonly orderId: string;
  readonly steps: number | undefined;
  readonly record: Recorder;
  readonly proof: Proof;
  readonly onNotCured: () => void;
}) {
  const fedOf = ({ askedMm, leftMm }: Values): number | undefined =>
    typeof askedMm === 'number' && typeof leftMm === 'number'
      ? Math.round((askedMm + MARK_AHEAD - leftMm) * 100) / 100
      : undefined;
  const form = useEntryForm<'proof-recorded', Values>({
    type: 'proof-recorded',
    keep: `feed:${orderId}`,
    defaults: { askedMm: 100, leftMm: undefined, oldStepsPerMm: steps } as Values,
    toBody: (values) => ({
      proof: proof.id,
      passed: true,
      askedMm: values.askedMm,
      fedMm: fedOf(values),
      oldStepsPerMm: values.oldStepsPerMm,
      readingMm: READING_MM,
    }),
  });
  const values = useWatch({ control: form.control }) as Values;
  const { askedMm, oldStepsPerMm } = values;
  const fedMm = fedOf(values);
  // More than the whole way to the mark cannot be left, and past the mark there is nothing to read.
  const possible = fedMm !== undefined && fedMm > 0 && typeof askedMm === 'number' && fedMm <= askedMm + MARK_AHEAD;
  const calibration =
    possible && typeof oldStepsPerMm === 'number' && oldStepsPerMm >= 1
      ? calibrateFeed(askedMm, fedMm, oldStepsPerMm)
      : undefined;
  return (
    <View style={styles.column}>
      <ByMachine label="Have the machine feed it" />
      <View style={styles.row}>
        <FormNumber control={form.control} name="askedMm" label="Asked, mm" style={styles.grow} />
        <FormNumber control={form.control} name="leftMm" label="Left to the mark, mm" style={styles.grow} />
      </View>
      <FormNumber control={form.control} name="oldStepsPerMm" label="Present steps/mm" />
      <Text
        kind="small"
        tone={fedMm !== undefined && !possible ? 'fault' : 'soft'}
      >{`Mark set ${typeof askedMm === 'number' ? askedMm + MARK_AHEAD : 100 + MARK_AHEAD} mm ahead of the extruder. ${
        fedMm === undefined
          ? 'Enter what is left to the mark.'
          : possible
            ? `Fed: ${fedMm.toFixed(1)} mm.`
            : 'What is left to the mark lies between 0 and the way to the mark: measure again.'
      }`}</Text>
      {calibration ? <FeedResult calibration={calibration} /> : null}
      <View style={styles.row}>
        <Button
          label="Feed is right, or set right"
          kind="main"
          disabled={!calibration}
          onPress={() => form.submit((body) => record('proof-recorded', body))}
          style={styles.grow}
        />
        <Button label="Still short: not cured" disabled={!calibration} onPress={onNotCured} style={styles.grow} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  column: { gap: space.s },
});

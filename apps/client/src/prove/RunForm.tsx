import type { ProofAsked } from '@zealous/core';
import { useWatch } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import type { Recorder } from '../data/useOrder';
import { FormNumber } from '../ui/form/FormFields';
import { filled, useEntryForm } from '../ui/form/useEntryForm';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

interface Values {
  readonly ranMinutes?: number | string;
  readonly reachedMm?: number | string;
}

/** A print that must run past where it had failed. */
export function RunForm({
  orderId,
  proof,
  record,
  onNotCured,
}: {
  readonly orderId: string;
  readonly proof: ProofAsked;
  readonly record: Recorder;
  readonly onNotCured: () => void;
}) {
  const form = useEntryForm<'proof-recorded', Values>({
    type: 'proof-recorded',
    keep: `run:${orderId}:${proof.id}`,
    defaults: {},
    toBody: (values) => ({ proof: proof.id, passed: true, ...filled(values) }),
  });
  const { ranMinutes: ran, reachedMm: reached } = useWatch({ control: form.control }) as Values;
  const { longerThanMin, pastMm } = proof;
  const past = (value: number | string | undefined, least: number): boolean =>
    typeof value === 'number' && value > least;
  const long = longerThanMin === undefined ? past(ran, 0) || pastMm !== undefined : past(ran, longerThanMin);
  const enough = long && (pastMm === undefined || past(reached, pastMm));
  return (
    <View style={styles.column}>
      <Text>
        {longerThanMin === undefined
          ? 'Past the height or the time at which it had failed.'
          : `It needed ${longerThanMin} min to show: only more than that proves it.`}
        {pastMm === undefined ? '' : ` It showed at ${pastMm} mm: only past that height.`}
      </Text>
      {pastMm === undefined ? null : (
        <FormNumber control={form.control} name="reachedMm" label="It reached a height of, mm" />
      )}
      <FormNumber control={form.control} name="ranMinutes" label="It ran sound for, minutes" />
      <Button
        label="It ran past that, sound"
        kind="main"
        disabled={!enough}
        onPress={() => form.submit((body) => record('proof-recorded', body))}
      />
      {longerThanMin === undefined && pastMm === undefined ? null : (
        <Button
          label="The whole job that had failed came out sound"
          onPress={() => record('proof-recorded', { proof: proof.id, passed: true, wholeJob: true })}
        />
      )}
      <Button label="The fault is back: stop it, not cured" onPress={onNotCured} />
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s } });

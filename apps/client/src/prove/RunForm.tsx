import type { ProofAsked } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Recorder } from '../data/useOrder';
import { NumberField } from '../ui/form/NumberField';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** A print that must run past where it had failed. */
export function RunForm({
  proof,
  record,
  onNotCured,
}: {
  readonly proof: ProofAsked;
  readonly record: Recorder;
  readonly onNotCured: () => void;
}) {
  const [ran, setRan] = useState<number | undefined>(undefined);
  const [reached, setReached] = useState<number | undefined>(undefined);
  const { longerThanMin, pastMm } = proof;
  const long =
    longerThanMin === undefined ? ran !== undefined || pastMm !== undefined : ran !== undefined && ran > longerThanMin;
  const high = pastMm === undefined || (reached !== undefined && reached > pastMm);
  const enough = long && high;
  return (
    <View style={styles.column}>
      <Text>
        {longerThanMin === undefined
          ? 'Past the height or the time at which it had failed.'
          : `It needed ${longerThanMin} min to show: only more than that proves it.`}
        {pastMm === undefined ? '' : ` It showed at ${pastMm} mm: only past that height.`}
      </Text>
      {pastMm === undefined ? null : (
        <NumberField label="It reached a height of, mm" value={reached} fits={(n) => n >= 0} onChange={setReached} />
      )}
      <NumberField label="It ran sound for, minutes" value={ran} fits={(n) => n >= 0} onChange={setRan} />
      <Tap
        label="It ran past that, sound"
        kind="main"
        disabled={!enough}
        onPress={() =>
          record('proof-recorded', {
            proof: proof.id,
            passed: true,
            ...(ran === undefined ? {} : { ranMinutes: ran }),
            ...(reached === undefined ? {} : { reachedMm: reached }),
          })
        }
      />
      <Tap label="The fault is back: stop it, not cured" onPress={onNotCured} />
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s } });

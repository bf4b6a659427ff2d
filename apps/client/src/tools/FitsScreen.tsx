import { FitFigures, figureFault } from '@zealous/contracts/tools';
import { inLbfFromNm, KNOWN_DRILLS, nmFromInLbf, numberDrillMm, tapDrillMm, THREADS, travelMm } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { FormNumber } from '../ui/form/FormFields';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { ShareAddress } from './ShareAddress';
import { sideBySide } from './sideBySide';
import { useAddressedChoice, useAddressedFigures } from './useAddressed';

const NAMES = THREADS.map(({ mm }) => `M${mm}`);
const DRILLS = KNOWN_DRILLS.map((n) => ({ id: String(n), label: `No. ${n}` }));

type Name = 'pitch' | 'turns' | 'nm' | 'inlbf';
const fault = (name: Name, n: number) => figureFault(FitFigures, name, n);
const of = (x: number, digits = 2): string => x.toFixed(digits);

/** Drill, thread and torque. */
export function FitsScreen() {
  const [name, setName] = useAddressedChoice('thread', 'M3', NAMES);
  const [drill, setDrill] = useAddressedChoice(
    'drill',
    '29',
    DRILLS.map(({ id }) => id),
  );
  const [figures, control] = useAddressedFigures<Name>(
    { pitch: undefined, turns: undefined, nm: undefined, inlbf: undefined },
    fault,
  );
  const thread = THREADS.find(({ mm }) => `M${mm}` === name) ?? THREADS[0];
  if (!thread) return null;
  const pitch = figures.pitch ?? thread.pitchMm;
  const field = (label: string, which: Name) => (
    <FormNumber control={control} name={which} label={label} style={sideBySide.field} />
  );
  return (
    <Page title="Which drill, and how tight?" back="/tools">
      <View style={styles.column}>
        <Text tone="soft">
          Figures of the standards, from memory. What the machine’s maker says of a screw goes before them.
        </Text>
        <Section title="Thread">
          <Choice label="Thread" options={NAMES.map((id) => ({ id, label: id }))} chosen={[name]} onToggle={setName} />
          <View style={sideBySide.row}>
            {field(`Pitch, mm (else ${thread.pitchMm}, coarse)`, 'pitch')}
            {field('Turns', 'turns')}
          </View>
          <Text bold testID="thread">
            {pitch < thread.mm
              ? `Drill ${of(tapDrillMm(thread.mm, pitch))} mm before the thread is cut; a hole of ${of(thread.clearanceMm, 1)} mm clears it.`
              : 'A pitch is smaller than its thread.'}
          </Text>
          {figures.turns === undefined ? null : (
            <Text testID="travel">{`${figures.turns} ${figures.turns === 1 ? 'turn' : 'turns'}: ${of(travelMm(figures.turns, pitch))} mm.`}</Text>
          )}
        </Section>
        <Section title="Torque">
          <View style={sideBySide.row}>
            {field('N·m', 'nm')}
            {field('in·lbf', 'inlbf')}
          </View>
          {figures.nm === undefined ? null : (
            <Text bold>{`${figures.nm} N·m is ${of(inLbfFromNm(figures.nm), 1)} in·lbf.`}</Text>
          )}
          {figures.inlbf === undefined ? null : (
            <Text bold testID="torque">{`${figures.inlbf} in·lbf is ${of(nmFromInLbf(figures.inlbf), 3)} N·m.`}</Text>
          )}
        </Section>
        <Section title="Number drill">
          <Choice label="Number drill" options={DRILLS} chosen={[drill]} onToggle={setDrill} />
          <Text bold testID="drill">{`No. ${drill} is ${of(numberDrillMm(Number(drill)) ?? 0, 3)} mm.`}</Text>
        </Section>
        <ShareAddress />
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s, maxWidth: 760, width: '100%', alignSelf: 'center' } });

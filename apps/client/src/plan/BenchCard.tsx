import {
  heaterOff,
  laneRuns,
  looseConnectors,
  type Bench,
  type Machine,
  type OrderState,
  type Strand,
} from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Chip } from 'react-native-paper';
import type { Recorder } from '../data/useOrder';
import { Card } from '../ui/Card';
import { ScrewsIn } from '../ui/ScrewsIn';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const STRANDS: readonly (readonly [Strand, string])[] = [
  ['out', 'empty'],
  ['in', 'loaded'],
  ['tube', 'in the tube only'],
  ['remnant', 'a piece left, place known'],
];

/**
 * The bench as it is recorded, and the way to put it right: what was done out of order or by hand is said in one tap, and the
 * plan goes on from there.
 */
export function BenchCard({
  machine,
  state,
  bench,
  record,
}: {
  readonly machine: Machine;
  readonly state: OrderState;
  readonly bench: Bench;
  readonly record: Recorder;
}) {
  const [open, setOpen] = useState(false);
  const lanes = laneRuns(machine).map(({ id }) => id);
  const lane = state.intake?.lane ?? lanes[0] ?? '';
  const strand = state.strand[lane];
  const name = (id: string): string => machine.parts.find((part) => part.id === id)?.name ?? id;
  const loose = looseConnectors(machine, bench);
  const away = heaterOff(machine, bench);
  const slack = [...(bench.loosened ?? [])];
  const said = [
    state.off.length > 0 ? `parts off: ${state.off.map(name).join(', ')}` : 'everything closed',
    slack.length > 0 ? `screws out: ${slack.map(name).join(', ')}` : '',
    loose.length > 0 ? `unplugged: ${loose.map((one) => one.name).join(', ')}` : '',
    `filament: ${STRANDS.find(([id]) => id === strand)?.[1] ?? 'not known'}`,
    state.supported ? 'head supported' : '',
    state.wet.length > 0 ? `wet: ${state.wet.map(name).join(', ')}` : '',
    away.length > 0 ? 'no heat: the hot end is off' : '',
  ].filter(Boolean);
  return (
    <Card>
      <Text kind="small">{`As recorded: ${said.join(' · ')}.`}</Text>
      {slack.map((id) => (
        <ScrewsIn key={id} machine={machine} state={state} part={id} record={record} />
      ))}
      <Button
        label={open ? 'That is right now' : 'It stands differently …'}
        kind="quiet"
        icon={open ? 'chevron-up' : 'chevron-down'}
        onPress={() => setOpen(!open)}
        style={styles.start}
      />
      {open ? (
        <View style={styles.column}>
          <Text kind="small" bold>
            What is off? A tap says that it came off, or is on again.
          </Text>
          <View style={styles.chips}>
            {machine.parts.map((part) => {
              const off = state.off.includes(part.id);
              return (
                <Chip
                  key={part.id}
                  mode="outlined"
                  selected={off}
                  showSelectedCheck
                  accessibilityLabel={`${part.name}: ${off ? 'off' : 'on'}`}
                  onPress={() => record('parts-moved', off ? { on: [part.id] } : { off: [part.id] })}
                  textStyle={styles.chip}
                >
                  {part.name}
                </Chip>
              );
            })}
          </View>
          <Text kind="small" bold>
            Filament in the path
          </Text>
          <View style={styles.chips}>
            {STRANDS.map(([id, label]) => (
              <Chip
                key={id}
                mode="outlined"
                selected={strand === id}
                showSelectedCheck
                accessibilityLabel={`Filament: ${label}`}
                onPress={() => record('bench-changed', { strand: { [lane]: id } })}
                textStyle={styles.chip}
              >
                {label}
              </Chip>
            ))}
            {lanes.length > 1 ? (
              <Chip
                mode="outlined"
                selected={lanes.every((id) => state.strand[id] === 'out')}
                showSelectedCheck
                accessibilityLabel="Filament: empty in every lane"
                onPress={() =>
                  record('bench-changed', { strand: Object.fromEntries(lanes.map((id) => [id, 'out' as const])) })
                }
                textStyle={styles.chip}
              >
                empty in every lane
              </Chip>
            ) : null}
            <Chip
              mode="outlined"
              selected={state.supported}
              showSelectedCheck
              accessibilityLabel={`Head supported: ${state.supported ? 'yes' : 'no'}`}
              onPress={() => record('bench-changed', { supported: !state.supported })}
              textStyle={styles.chip}
            >
              head raised and supported
            </Chip>
          </View>
        </View>
      ) : null}
    </Card>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  start: { alignSelf: 'flex-start' },
  /** With it a chip is 48 px high. */
  chip: { marginVertical: 13 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});

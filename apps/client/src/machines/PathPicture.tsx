import { laneRuns, routeOf, type Machine, type StationSuspicion } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Strand } from '../ui/strand/Strand';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** The strand of a machine, one lane at a time; drawn as far as the description holds together. */
export function PathPicture({
  machine,
  chosen,
  onStation,
  most = 350,
}: {
  readonly machine: Machine;
  readonly chosen?: string;
  readonly onStation: (id: string) => void;
  /** Widest that it may be drawn, px; on a narrower screen it takes what there is. */
  readonly most?: number;
}) {
  const width = Math.min(most, useWindowDimensions().width - 2 * space.l);
  const lanes = laneRuns(machine);
  const [wanted, setLane] = useState<string | undefined>(undefined);
  const lane = lanes.find((run) => run.id === wanted)?.id ?? lanes[0]?.id;
  let route: ReturnType<typeof routeOf> | undefined;
  try {
    route = lane === undefined ? undefined : routeOf(machine, lane);
  } catch {
    route = undefined;
  }
  const plain: readonly StationSuspicion[] = (route?.stops ?? []).map(({ station }) => ({
    station: station.id,
    name: station.name,
    suspicion: 0,
    prior: 0,
    anywhere: 0,
  }));
  const long = route?.stops.at(-1)?.toMm;
  return (
    <Section title="Path">
      {lanes.length > 1 ? (
        <Choice
          label="Lane"
          options={lanes.map(({ id, name }) => ({ id, label: name }))}
          chosen={lane === undefined ? [] : [lane]}
          onToggle={setLane}
        />
      ) : null}
      {route ? (
        <View style={styles.path}>
          <Text
            kind="small"
            tone="soft"
          >{`${route.stops.length} stations, ${Math.round(long ?? 0)} mm from spool to end`}</Text>
          <Strand
            machine={machine}
            route={route}
            stations={plain}
            roomy
            cleared={[]}
            width={width}
            onStation={onStation}
            {...(chosen ? { chosen } : {})}
          />
        </View>
      ) : (
        <Text tone="soft">The path cannot be drawn as it stands.</Text>
      )}
    </Section>
  );
}

const styles = StyleSheet.create({ path: { gap: space.s } });

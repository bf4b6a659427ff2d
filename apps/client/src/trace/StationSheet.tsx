import {
  percent,
  type Assessment,
  type Machine,
  type OrderState,
  type StationCase,
  causesUnderWork,
} from '@zealous/core';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Card } from '../ui/Card';
import { Sheet } from '../ui/Sheet';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { tracer } from '../workers/trace';
import { ByTheWay } from './ByTheWay';

export interface StationSheetProps {
  readonly machine: Machine;
  readonly state: OrderState;
  readonly assessment: Assessment;
  readonly station: string;
  readonly onClose: () => void;
  readonly onCheck: (key: string) => void;
  readonly onCause: (station: string, mode: string) => void;
  readonly onSeen: (key: string, result: string, innocent: boolean) => void;
}

const STRONGEST = 5;
const CHECKS = 3;

/** What can fail at a station, what speaks for and against each, what reaches it, and what its access costs now. */
export function StationSheet({
  machine,
  state,
  assessment,
  station,
  onClose,
  onCheck,
  onCause,
  onSeen,
}: StationSheetProps) {
  const [view, setView] = useState<StationCase | undefined>(undefined);
  useEffect(() => {
    let stale = false;
    void tracer()
      .stationCase(machine, state, station)
      .then((answer) => {
        if (!stale) setView(answer);
      });
    return () => {
      stale = true;
    };
  }, [machine, state, station]);
  const here = assessment.stations.find((item) => item.station === station);
  const reaching = assessment.checks.filter((check) => check.tells.includes(station)).slice(0, CHECKS);
  return (
    <Sheet title={here?.name ?? station} open onClose={onClose}>
      {here?.clearedBy ? (
        <Card edge="clear">
          <Text bold tone="clear">
            Cleared
          </Text>
          <Text>{`by: ${here.clearedBy}`}</Text>
        </Card>
      ) : null}
      {!view ? <Text tone="soft">Weighing …</Text> : null}
      {view?.causes.map((cause) => (
        <Card key={cause.mode} edge={cause.suspicion >= 0.04 ? 'doubt' : 'line'}>
          <View style={styles.row}>
            <Text bold style={styles.grow}>
              {cause.name}
            </Text>
            <Text bold tone="doubt">
              {percent(cause.suspicion)}
            </Text>
          </View>
          {cause.forAgainst.slice(0, STRONGEST).map((item) => (
            <View key={item.evidence} style={styles.row}>
              <Text kind="small" style={styles.grow}>
                {item.label}
              </Text>
              <Text
                kind="small"
                bold
                tone={Math.abs(item.decibans) < 1 ? 'soft' : item.decibans > 0 ? 'doubt' : 'clear'}
              >
                {item.words}
              </Text>
            </View>
          ))}
          {cause.raisedBy.map((why) => (
            <Text key={why} kind="small" tone="soft">{`Likelier from the start: ${why}`}</Text>
          ))}
          {state.closed ||
          causesUnderWork(state).some((own) => own.station === station && own.mode === cause.mode) ? null : (
            <Button
              label={state.cause ? 'Take this on in the same opening' : 'Take this as the cause'}
              onPress={() => onCause(cause.station, cause.mode)}
              style={styles.start}
            />
          )}
        </Card>
      ))}
      {view && view.causes.length === 0 ? <Text tone="soft">Nothing in the catalogue fails here.</Text> : null}
      {state.closed || state.cause ? null : (
        <ByTheWay
          key={station}
          machine={machine}
          {...(state.intake?.lane ? { lane: state.intake.lane } : {})}
          station={station}
          onSeen={onSeen}
        />
      )}
      {reaching.length > 0 && !state.closed ? (
        <View style={styles.column}>
          <Text bold>What reaches it</Text>
          {reaching.map((check) => (
            <Button key={check.key} label={check.name} onPress={() => onCheck(check.key)}>
              <Text kind="small" tone="soft" style={styles.centre}>
                {check.priceParts.join(' + ')}
              </Text>
            </Button>
          ))}
        </View>
      ) : null}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.s, alignItems: 'baseline' },
  column: { gap: space.s },
  grow: { flex: 1 },
  start: { alignSelf: 'flex-start' },
  centre: { textAlign: 'center' },
});

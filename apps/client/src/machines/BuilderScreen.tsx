import {
  addStation,
  changeStation,
  KIND_NAMES,
  laneRuns,
  machineFaults,
  placeInMachine,
  moveStation,
  removeLane,
  removeStation,
  STATION_KINDS,
  stationById,
  type Machine,
  type Run,
  type StationKind,
} from '@zealous/core';
import { useRouter, type Href } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { problemText, useAddMachineMutation, useChangeMachineMutation } from '../data/api';
import { ABOUT, PLUGS, buildingEnded, built, pieceTyped } from '../data/builderSlice';
import { useAppDispatch, useAppSelector } from '../data/store';
import { Card, Notice, Section } from '../ui/Card';
import type { Loose } from '../ui/form/fields';
import { Page } from '../ui/Page';
import { useWide } from '../ui/useWide';
import { Sheet } from '../ui/Sheet';
import { SortableList } from '../ui/SortableList';
import { AskFirst } from '../ui/AskFirst';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { AboutTheMachine } from './AboutMachine';
import { Parts } from './PartEditor';
import { NewLane } from './NewLane';
import { Plugs } from './Plugs';
import { PathPicture } from './PathPicture';
import { StationEditor } from './StationEditor';

/** Describes a machine: its stations in order with their parameters, what comes off, and what is impossible about it. */
export function BuilderScreen() {
  const router = useRouter();
  const wide = useWide();
  const dispatch = useAppDispatch();
  const { machine, was, typed = {} } = useAppSelector((root) => root.builder);
  const [add, adding] = useAddMachineMutation();
  const [change, changing] = useChangeMachineMutation();
  const [station, setStation] = useState<string | undefined>(undefined);
  const [part, setPart] = useState<string | undefined>(undefined);
  const [failure, setFailure] = useState<string | undefined>(undefined);
  if (!machine)
    return (
      <Page title="Describe a machine" back="/machines">
        <Notice
          title="Nothing is being described"
          text="Begin with a template, a file, or a machine that is there."
          action="To the machines"
          onAction={() => router.replace('/machines')}
        />
      </Page>
    );
  const set = (next: Machine): void => {
    setFailure(undefined);
    dispatch(built(next));
  };
  const piece = (next: Machine, id: string, kept: Loose | undefined): void => {
    setFailure(undefined);
    dispatch(pieceTyped({ machine: next, id, typed: kept }));
  };
  const faults = machineFaults(machine);
  const unfit = Object.keys(typed);
  const toMend = faults.length + unfit.length;
  const edited = station === undefined ? undefined : stationById(machine, station);
  const store = async (): Promise<void> => {
    try {
      await (was ? change({ machine, was }) : add(machine)).unwrap();
      dispatch(buildingEnded());
      router.replace(`/machines/${machine.id}` as Href);
    } catch (error) {
      setFailure(problemText(error, (path) => placeInMachine(machine, path)));
    }
  };
  return (
    <Page
      title={was ? `Change ${was.name}` : 'Describe a machine'}
      back="/machines"
      foot={
        <View style={styles.foot}>
          {failure ? (
            <Text tone="fault" bold live>
              {failure}
            </Text>
          ) : null}
          <View style={styles.row}>
            <AskFirst
              label="Give up"
              question="What was described since is lost."
              yes="Lose it"
              no="Go on"
              onYes={() => {
                dispatch(buildingEnded());
                router.replace('/machines');
              }}
            />
            <Button
              label={toMend > 0 ? `Cannot be stored yet: ${toMend} to mend` : 'Store this machine'}
              kind="main"
              icon="save"
              disabled={toMend > 0 || adding.isLoading || changing.isLoading}
              onPress={() => void store()}
              style={styles.grow}
            />
          </View>
        </View>
      }
    >
      <View style={wide ? styles.sideways : undefined}>
        <View style={styles.grow}>
          <Faults machine={machine} faults={faults} onStation={setStation} />
          <Unfit machine={machine} ids={unfit} onStation={setStation} onPart={setPart} />
          <AboutTheMachine
            machine={machine}
            fixed={was !== undefined}
            typed={typed[ABOUT]}
            onChange={(next, kept) => piece(next, ABOUT, kept)}
          />
          {machine.runs.map((run) => (
            <Stations key={run.id} machine={machine} run={run} onChange={set} onStation={setStation} />
          ))}
          <NewLane machine={machine} onChange={set} />
          <Parts machine={machine} open={part} typed={typed} onOpen={setPart} onTyped={piece} />
          <Plugs machine={machine} typed={typed[PLUGS]} onChange={(next, kept) => piece(next, PLUGS, kept)} />
        </View>
        <View style={wide ? styles.picture : undefined}>
          <PathPicture machine={machine} onStation={setStation} {...(station ? { chosen: station } : {})} />
        </View>
      </View>
      {edited ? (
        <StationEditor
          key={edited.id}
          machine={machine}
          station={edited}
          typed={typed[edited.id]}
          onChange={(next, kept) => piece(changeStation(machine, edited.id, next), edited.id, kept)}
          onRemove={() => {
            setStation(undefined);
            piece(removeStation(machine, edited.id), edited.id, undefined);
          }}
          onClose={() => setStation(undefined)}
        />
      ) : null}
    </Page>
  );
}

function Faults({
  machine,
  faults,
  onStation,
}: {
  readonly machine: Machine;
  readonly faults: ReturnType<typeof machineFaults>;
  readonly onStation: (id: string) => void;
}) {
  const palette = usePalette();
  if (faults.length === 0) return null;
  const at = (path: string): string | undefined => {
    const [, , run, list, index] = path.split('/');
    return list === 'stations' ? machine.runs[Number(run)]?.stations[Number(index)]?.id : undefined;
  };
  return (
    <Card edge="fault" style={{ backgroundColor: palette.faultWash }}>
      <Text bold tone="fault" live>
        Impossible as it stands
      </Text>
      {faults.map((fault) => {
        const station = at(fault.path);
        return station ? (
          <Button
            key={fault.path + fault.message}
            label={fault.message}
            kind="quiet"
            listed
            onPress={() => onStation(station)}
          />
        ) : (
          <Text key={fault.path + fault.message}>{fault.message}</Text>
        );
      })}
    </Card>
  );
}

/** Pieces whose forms hold something that does not fit yet; the machine has there what stood before. */
function Unfit({
  machine,
  ids,
  onStation,
  onPart,
}: {
  readonly machine: Machine;
  readonly ids: readonly string[];
  readonly onStation: (id: string) => void;
  readonly onPart: (id: string) => void;
}) {
  const palette = usePalette();
  if (ids.length === 0) return null;
  return (
    <Card edge="fault" style={{ backgroundColor: palette.faultWash }}>
      <Text bold tone="fault" live>
        What was typed does not fit yet
      </Text>
      {ids.map((id) => {
        const station = stationById(machine, id);
        const found = station ?? machine.parts.find((item) => item.id === id);
        return found ? (
          <Button
            key={id}
            label={found.name}
            hint="Open"
            kind="quiet"
            listed
            onPress={() => (station ? onStation : onPart)(id)}
          />
        ) : (
          <Text key={id}>{id === PLUGS ? 'The plugs: see below.' : 'The machine itself: see its fields below.'}</Text>
        );
      })}
    </Card>
  );
}

function Stations({
  machine,
  run,
  onChange,
  onStation,
}: {
  readonly machine: Machine;
  readonly run: Run;
  readonly onChange: (machine: Machine) => void;
  readonly onStation: (id: string) => void;
}) {
  const [adding, setAdding] = useState(false);
  const into = run.into === undefined ? undefined : stationById(machine, run.into)?.name;
  const index = (id: string): number => run.stations.findIndex((station) => station.id === id);
  const add = (kind: StationKind): void => {
    setAdding(false);
    const order = STATION_KINDS.indexOf(kind);
    const at = run.stations.findIndex((station) => STATION_KINDS.indexOf(station.kind) > order);
    onChange(addStation(machine, run.id, kind, KIND_NAMES[kind], at < 0 ? run.stations.length : at));
  };
  return (
    <Section title={into ? `${run.name}, into ${into}` : run.name}>
      <SortableList
        label={run.name}
        items={run.stations.map(({ id, name }) => ({ id, name }))}
        onMove={(from, to) => onChange(moveStation(machine, run.id, from, to))}
      >
        {(id) => {
          const station = run.stations[index(id)];
          if (!station) return null;
          return (
            <View style={styles.station}>
              <Button
                label={station.name}
                hint="Change it"
                kind="quiet"
                onPress={() => onStation(id)}
                listed
                style={styles.grow}
              >
                <Text kind="small" tone="soft">
                  {KIND_NAMES[station.kind]}
                </Text>
              </Button>
              <Text kind="smallFigure" tone="soft">
                {station.params?.lengthMm === undefined ? '' : `${station.params.lengthMm} mm`}
              </Text>
            </View>
          );
        }}
      </SortableList>
      <View style={styles.row}>
        <Button label="Add a station" icon="plus" kind="quiet" onPress={() => setAdding(true)} />
        {run.into !== undefined && laneRuns(machine).length > 1 ? (
          <Button
            label="Take this lane away"
            icon="remove"
            kind="quiet"
            onPress={() => onChange(removeLane(machine, run.id))}
          />
        ) : null}
      </View>
      {adding ? (
        <Sheet title="Which kind of station?" open onClose={() => setAdding(false)}>
          {STATION_KINDS.map((kind) => (
            <Button key={kind} label={KIND_NAMES[kind]} onPress={() => add(kind)} />
          ))}
        </Sheet>
      ) : null}
    </Section>
  );
}

const styles = StyleSheet.create({
  sideways: { flexDirection: 'row', gap: space.xl },
  picture: { width: 400 },
  grow: { flex: 1 },
  row: { flexDirection: 'row', gap: space.s, flexWrap: 'wrap' },
  station: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  foot: { padding: space.m, gap: space.s, maxWidth: 1112, width: '100%', alignSelf: 'center' },
});

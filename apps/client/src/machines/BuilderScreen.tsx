import {
  addStation,
  changeStation,
  familyName,
  FAMILIES,
  KIND_NAMES,
  laneRuns,
  machineFaults,
  placeInMachine,
  moveStation,
  OTHER_FAMILY,
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
import { buildingEnded, built } from '../data/builderSlice';
import { useAppDispatch, useAppSelector } from '../data/store';
import { Card, Notice, Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Page } from '../ui/Page';
import { useWide } from '../ui/useWide';
import { Sheet } from '../ui/Sheet';
import { SortableList } from '../ui/SortableList';
import { AskFirst } from '../ui/AskFirst';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { Parts } from './PartEditor';
import { MachineFigures } from './MachineFigures';
import { NewLane } from './NewLane';
import { PathPicture } from './PathPicture';
import { StationEditor } from './StationEditor';

/** Describes a machine: its stations in order with their parameters, what comes off, and what is impossible about it. */
export function BuilderScreen() {
  const router = useRouter();
  const wide = useWide();
  const dispatch = useAppDispatch();
  const { machine, was } = useAppSelector((root) => root.builder);
  const [add, adding] = useAddMachineMutation();
  const [change, changing] = useChangeMachineMutation();
  const [station, setStation] = useState<string | undefined>(undefined);
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
  const faults = machineFaults(machine);
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
              label={faults.length > 0 ? `Cannot be stored yet: ${faults.length} to mend` : 'Store this machine'}
              kind="main"
              icon="save"
              disabled={faults.length > 0 || adding.isLoading || changing.isLoading}
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
          <About machine={machine} fixed={was !== undefined} onChange={set} />
          {machine.runs.map((run) => (
            <Stations key={run.id} machine={machine} run={run} onChange={set} onStation={setStation} />
          ))}
          <NewLane machine={machine} onChange={set} />
          <Parts machine={machine} onChange={set} />
        </View>
        <View style={wide ? styles.picture : undefined}>
          <PathPicture machine={machine} onStation={setStation} {...(station ? { chosen: station } : {})} />
        </View>
      </View>
      {edited ? (
        <StationEditor
          machine={machine}
          station={edited}
          onChange={(next) => set(changeStation(machine, edited.id, next))}
          onRemove={() => {
            setStation(undefined);
            set(removeStation(machine, edited.id));
          }}
          onClose={() => setStation(undefined)}
        />
      ) : null}
    </Page>
  );
}

function About({
  machine,
  fixed,
  onChange,
}: {
  readonly machine: Machine;
  readonly fixed: boolean;
  readonly onChange: (machine: Machine) => void;
}) {
  const [open, setOpen] = useState(false);
  const id = (name: string): string =>
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '') || 'machine';
  return (
    <Section title="The machine">
      <Field
        label="Name"
        value={machine.name}
        most={60}
        onChange={(name) => onChange({ ...machine, name, ...(fixed ? {} : { id: id(name) }) })}
      />
      <Field
        label="What it is"
        value={machine.summary}
        onChange={(summary) => onChange({ ...machine, summary })}
        most={500}
        lines
      />
      <MachineFigures machine={machine} onChange={onChange} />
      <Button
        label={`Family: ${familyName(machine.family)}`}
        hint="Change"
        icon="chevron-down"
        kind="quiet"
        listed
        onPress={() => setOpen(!open)}
      />
      {open ? (
        <Choice
          label="Family"
          options={[
            ...FAMILIES.map(({ id: family, name }) => ({ id: family, label: name })),
            { id: OTHER_FAMILY, label: familyName(OTHER_FAMILY) },
          ]}
          chosen={[machine.family]}
          onToggle={(family) => {
            setOpen(false);
            onChange({ ...machine, family });
          }}
        />
      ) : null}
    </Section>
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

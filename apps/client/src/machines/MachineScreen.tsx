import {
  DEGREES_A_RADIAN,
  familyName,
  PARAM_FIELDS,
  RADIANS,
  stationById,
  type Machine,
  type StationKind,
} from '@zealous/core';
import { useRouter, type Href } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useLinksQuery, useMachineQuery, useOrdersQuery, useRetiredMachinesQuery } from '../data/api';
import { draftChanged } from '../data/draftSlice';
import { buildingBegun } from '../data/builderSlice';
import { useAppDispatch } from '../data/store';
import { LinkCard } from '../link/LinkCard';
import { orderHref } from '../orders/links';
import { Card, Notice, Section } from '../ui/Card';
import { Page } from '../ui/Page';
import { useWide } from '../ui/useWide';
import { saveFile } from '../ui/saveFile';
import { Sheet } from '../ui/Sheet';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { PathPicture } from './PathPicture';
import { Retire } from './Retire';

/** A machine: its path, what came of its visits, its description to take along. */
export function MachineScreen({ id }: { readonly id: string }) {
  const wide = useWide();
  const router = useRouter();
  const dispatch = useAppDispatch();
  const { data: machine, isError, isLoading, refetch } = useMachineQuery(id);
  const { data: retired, isLoading: leavingUnknown } = useRetiredMachinesQuery();
  const { isLoading: lineUnknown } = useLinksQuery();
  const { isLoading: visitsUnknown } = useOrdersQuery({ machine: id });
  const left = retired?.find((item) => item.id === id)?.retiredAt;
  const [station, setStation] = useState<string | undefined>(undefined);
  if (!machine)
    return (
      <Page title="Machine" back="/machines">
        {isLoading ? <Notice title="Fetching the machine …" /> : null}
        {isError ? (
          <Notice
            title="This machine could not be fetched"
            text="It may have been removed, or the server does not answer."
            action="Try again"
            onAction={() => void refetch()}
          />
        ) : null}
      </Page>
    );
  return (
    <Page title={machine.name} back="/machines">
      <View style={styles.actions}>
        {left ? null : (
          <Button
            label="Take it in"
            icon="plus"
            kind="main"
            onPress={() => {
              dispatch(draftChanged({ machineId: machine.id, lane: undefined }));
              router.push('/take-in' as Href);
            }}
          />
        )}
        <Button
          label="Change"
          icon="edit"
          kind="quiet"
          onPress={() => {
            dispatch(buildingBegun({ machine, was: machine }));
            router.push('/machines/builder' as Href);
          }}
        />
        <Button
          label="Describe one like it"
          icon="plus"
          kind="quiet"
          onPress={() => {
            dispatch(buildingBegun({ machine: { ...machine, id: `${machine.id}-2`, name: `${machine.name} 2` } }));
            router.push('/machines/builder' as Href);
          }}
        />
        <Button
          label="Save JSON"
          icon="save"
          onPress={() => saveFile(`${machine.id}.json`, 'application/json', JSON.stringify(machine, null, 2))}
        />
      </View>
      {left ? <Text bold>{`It left the shop on ${left.slice(0, 10)}. Its visits are kept.`}</Text> : null}
      <Text>{machine.summary}</Text>
      <Text
        kind="small"
        tone="soft"
      >{`${familyName(machine.family)}; strand ${machine.strandMm} mm; path up to ${machine.heat.limitC} °C`}</Text>
      <View style={wide ? styles.sideways : undefined}>
        <View style={styles.path}>
          <PathPicture
            machine={machine}
            onStation={setStation}
            {...(wide ? { most: 420 } : {})}
            {...(station ? { chosen: station } : {})}
          />
        </View>
        <View style={styles.grow}>
          <LinkCard machine={id} />
          <History id={id} />
          {/* Only once what stands above it is there: it would slip away under the finger, and a tap would meet something else. */}
          {leavingUnknown || lineUnknown || visitsUnknown ? null : <Retire id={id} retired={left !== undefined} />}
        </View>
      </View>
      {station ? <StationData machine={machine} station={station} onClose={() => setStation(undefined)} /> : null}
    </Page>
  );
}

function History({ id }: { readonly id: string }) {
  const router = useRouter();
  const { data } = useOrdersQuery({ machine: id });
  return (
    <Section title="Visits">
      {data?.items.map((order) => (
        <Button
          key={order.id}
          label={`${order.status === 'open' && order.lead?.share !== undefined ? 'Likeliest: ' : ''}${order.lead?.name ?? 'Just taken in'}`}
          onPress={() => router.push(orderHref(order.id, order.status === 'closed' ? 'record' : order.phase))}
        >
          <Text kind="small" tone="soft" style={styles.centre}>
            {`${order.openedAt.slice(0, 10)} · ${order.number} · ${order.status === 'closed' ? (order.outcome ?? 'closed') : 'open'}`}
          </Text>
        </Button>
      ))}
      {data?.items.length === 0 ? <Text tone="soft">It has not been on the bench yet.</Text> : null}
    </Section>
  );
}

/** A figure of a station in the words in which it is asked for; a bend as an angle that can be pictured. */
function figureText(kind: StationKind, name: string, value: string | number | boolean): string {
  const field = PARAM_FIELDS[kind].find((one) => one.name === name);
  const said = field?.values?.find(({ id }) => id === String(value))?.label ?? String(value);
  if (field?.unit === RADIANS && typeof value === 'number')
    return `${field.label}: ${Math.round(value * DEGREES_A_RADIAN)}°`;
  return `${field?.label ?? name}: ${said}${field?.unit ? ` ${field.unit}` : ''}`;
}

function StationData({
  machine,
  station: id,
  onClose,
}: {
  readonly machine: Machine;
  readonly station: string;
  readonly onClose: () => void;
}) {
  const station = stationById(machine, id);
  if (!station) return null;
  const parts = (ids: readonly string[] | undefined): string | undefined =>
    ids?.map((part) => machine.parts.find((item) => item.id === part)?.name ?? part).join(', ');
  const { open, mouth } = station.access ?? {};
  return (
    <Sheet title={station.name} open onClose={onClose}>
      <Card>
        {Object.entries(station.params ?? {}).map(([key, value]) => (
          <Text key={key}>{figureText(station.kind, key, value)}</Text>
        ))}
        {Object.keys(station.params ?? {}).length === 0 ? <Text tone="soft">No figures noted.</Text> : null}
      </Card>
      {open?.length ? <Text>{`To see inside, off first: ${parts(open)}.`}</Text> : null}
      {mouth ? (
        <Text>
          {mouth.length ? `A strand goes in here once off: ${parts(mouth)}.` : 'A strand goes in here as it stands.'}
        </Text>
      ) : null}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  actions: { flexDirection: 'row', gap: space.s, flexWrap: 'wrap', marginBottom: space.s },
  sideways: { flexDirection: 'row', gap: space.xl },
  path: { flexShrink: 0 },
  grow: { flex: 1 },
  centre: { textAlign: 'center' },
});

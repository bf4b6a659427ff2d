import {
  KIND_NAMES,
  PARAM_FIELDS,
  setParam,
  STATION_KINDS,
  type Machine,
  type Station,
  type StationParams,
} from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { NumberField } from '../ui/form/NumberField';
import { Sheet } from '../ui/Sheet';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** One station: its name, kind, parameters, and what must come off to reach it. */
export function StationEditor({
  machine,
  station,
  onChange,
  onRemove,
  onClose,
}: {
  readonly machine: Machine;
  readonly station: Station;
  readonly onChange: (station: Station) => void;
  readonly onRemove: () => void;
  readonly onClose: () => void;
}) {
  const set = (name: keyof StationParams, value: StationParams[keyof StationParams]): void =>
    onChange(setParam(station, name, value));
  const [kinds, setKinds] = useState(false);
  const { access = {} } = station;
  const toggled = (list: readonly string[] | undefined, id: string): readonly string[] =>
    list?.includes(id) ? list.filter((item) => item !== id) : [...(list ?? []), id];
  const parts = machine.parts.map(({ id, name }) => ({ id, label: name }));
  return (
    <Sheet title={station.name} open onClose={onClose}>
      <Field label="Name" value={station.name} onChange={(name) => onChange({ ...station, name })} most={60} />
      <Button
        label={`Kind: ${KIND_NAMES[station.kind]}`}
        hint="Change"
        icon="chevron-down"
        kind="quiet"
        listed
        onPress={() => setKinds(!kinds)}
      />
      {kinds ? (
        <Choice
          label="Kind"
          options={STATION_KINDS.map((id) => ({ id, label: KIND_NAMES[id] }))}
          chosen={[station.kind]}
          onToggle={(kind) => {
            setKinds(false);
            onChange({ ...station, kind });
          }}
        />
      ) : null}
      <View style={styles.fields}>
        {PARAM_FIELDS[station.kind].map((field) =>
          field.values ? (
            <View key={field.name} style={styles.whole}>
              <Text kind="small" tone="soft">
                {field.label}
              </Text>
              <Choice
                label={field.label}
                options={field.values}
                chosen={[String(station.params?.[field.name] ?? '')]}
                onToggle={(id) => set(field.name, station.params?.[field.name] === id ? undefined : id)}
              />
            </View>
          ) : (
            <NumberField
              key={`${station.kind}${field.name}${field.unit ?? ''}`}
              label={field.unit ? `${field.label}, ${field.unit}` : field.label}
              style={styles.half}
              value={station.params?.[field.name] as number | undefined}
              onChange={(value) => set(field.name, value)}
            />
          ),
        )}
      </View>
      <Text bold>Off before its inside can be seen</Text>
      {parts.length === 0 ? <Text tone="soft">No part is described yet.</Text> : null}
      <Choice
        label="Off to open"
        several
        options={parts}
        chosen={access.open ?? []}
        onToggle={(id) => onChange({ ...station, access: { ...access, open: toggled(access.open, id) } })}
      />
      <Text bold>Can a strand be put in here?</Text>
      <Choice
        label="Mouth"
        options={[
          { id: 'yes', label: 'Yes' },
          { id: 'no', label: 'No' },
        ]}
        chosen={[access.mouth ? 'yes' : 'no']}
        onToggle={(id) => {
          const { mouth, ...rest } = access;
          onChange({ ...station, access: id === 'yes' ? { ...rest, mouth: mouth ?? [] } : rest });
        }}
      />
      {access.mouth && parts.length > 0 ? (
        <>
          <Text kind="small" tone="soft">
            Off for that:
          </Text>
          <Choice
            label="Off for the mouth"
            several
            options={parts}
            chosen={access.mouth}
            onToggle={(id) => onChange({ ...station, access: { ...access, mouth: toggled(access.mouth, id) } })}
          />
        </>
      ) : null}
      <Button label="Take this station away" icon="remove" kind="quiet" onPress={onRemove} style={styles.start} />
    </Sheet>
  );
}

const styles = StyleSheet.create({
  fields: { flexDirection: 'row', flexWrap: 'wrap', gap: space.m },
  half: { flexGrow: 1, minWidth: 140 },
  whole: { width: '100%', gap: space.xs },
  start: { alignSelf: 'flex-start' },
});

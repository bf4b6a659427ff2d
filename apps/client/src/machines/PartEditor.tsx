import { freeId, type AccessPart, type Machine } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const HEAT = [
  { id: 'any', label: 'At any heat' },
  { id: 'cold', label: 'Cold to touch' },
  { id: 'hot', label: 'Hot' },
] as const;
const POWER = [
  { id: 'any', label: 'On or off' },
  { id: 'off', label: 'Off and unplugged' },
] as const;

/** What comes off: each part with its minutes, what must be off before it, and how. */
export function Parts({
  machine,
  onChange,
}: {
  readonly machine: Machine;
  readonly onChange: (machine: Machine) => void;
}) {
  const [open, setOpen] = useState<string | undefined>(undefined);
  const part = machine.parts.find((item) => item.id === open);
  const setPart = (next: AccessPart): void =>
    onChange({ ...machine, parts: machine.parts.map((item) => (item.id === next.id ? next : item)) });
  const add = (): void => {
    const id = freeId(machine, 'part');
    const fresh: AccessPart = {
      id,
      name: 'New part',
      minutesOff: 2,
      minutesOn: 2,
      heat: 'cold',
      power: 'any',
      off: 'As the maker’s manual says.',
      on: 'In reverse.',
    };
    onChange({ ...machine, parts: [...machine.parts, fresh] });
    setOpen(id);
  };
  const remove = (id: string): void => {
    const without = (list: readonly string[] | undefined): readonly string[] | undefined =>
      list?.filter((item) => item !== id);
    onChange({
      ...machine,
      parts: machine.parts
        .filter((item) => item.id !== id)
        .map((item) => ({ ...item, ...(item.after ? { after: without(item.after) ?? [] } : {}) })),
      runs: machine.runs.map((run) => ({
        ...run,
        stations: run.stations.map((station) => ({
          ...station,
          access: {
            ...(station.access?.open ? { open: without(station.access.open) ?? [] } : {}),
            ...(station.access?.mouth ? { mouth: without(station.access.mouth) ?? [] } : {}),
          },
        })),
      })),
    });
    setOpen(undefined);
  };
  return (
    <Section title="What comes off">
      <View style={styles.list}>
        {machine.parts.map((item) => (
          <Tap key={item.id} label={item.name} listed onPress={() => setOpen(item.id)}>
            <Text kind="small" tone="soft">{`${item.minutesOff} min off, ${item.minutesOn} min on`}</Text>
          </Tap>
        ))}
        <Tap label="Add a part" icon="plus" kind="quiet" onPress={add} />
      </View>
      {part ? (
        <Sheet title={part.name} open onClose={() => setOpen(undefined)}>
          <Field label="Name" value={part.name} onChange={(name) => setPart({ ...part, name })} most={80} />
          <View style={styles.row}>
            <Minutes
              label="Minutes off"
              value={part.minutesOff}
              onChange={(minutesOff) => setPart({ ...part, minutesOff })}
            />
            <Minutes
              label="Minutes on"
              value={part.minutesOn}
              onChange={(minutesOn) => setPart({ ...part, minutesOn })}
            />
          </View>
          <Choice label="Heat" options={HEAT} chosen={[part.heat]} onToggle={(heat) => setPart({ ...part, heat })} />
          <Choice
            label="Power"
            options={POWER}
            chosen={[part.power]}
            onToggle={(power) => setPart({ ...part, power })}
          />
          <Text bold>Must be off before it</Text>
          <Choice
            label="Off before"
            several
            options={machine.parts.filter((item) => item.id !== part.id).map(({ id, name }) => ({ id, label: name }))}
            chosen={part.after ?? []}
            onToggle={(id) =>
              setPart({
                ...part,
                after: part.after?.includes(id)
                  ? part.after.filter((item) => item !== id)
                  : [...(part.after ?? []), id],
              })
            }
          />
          <Field
            label="How it comes off"
            value={part.off}
            onChange={(off) => setPart({ ...part, off })}
            most={400}
            lines
          />
          <Field
            label="How it goes back"
            value={part.on}
            onChange={(on) => setPart({ ...part, on })}
            most={400}
            lines
          />
          <Tap label="Take this part away" icon="remove" kind="quiet" onPress={() => remove(part.id)} />
        </Sheet>
      ) : null}
    </Section>
  );
}

function Minutes({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: number;
  readonly onChange: (value: number) => void;
}) {
  const [text, setText] = useState(String(value));
  return (
    <Field
      label={label}
      value={text}
      number
      most={6}
      style={styles.grow}
      onChange={(next) => {
        setText(next);
        const number = Number(next.replace(',', '.'));
        if (next.trim() !== '' && number >= 0 && number <= 600) onChange(number);
      }}
    />
  );
}

const styles = StyleSheet.create({
  list: { gap: space.s },
  row: { flexDirection: 'row', gap: space.m },
  grow: { flex: 1 },
});

import { freeId, type AccessPart, type Machine, removePart } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Section } from '../ui/Card';
import { flag, number, one, several, text, type Loose, type RecordField } from '../ui/form/fields';
import { RecordForm } from '../ui/form/RecordForm';
import { Sheet } from '../ui/Sheet';
import { AskFirst } from '../ui/AskFirst';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** How something comes off: asked of a part, and of each other way. */
const removalFields = (machine: Machine, part: AccessPart): readonly RecordField[] => [
  number('minutesOff', 'Minutes off', 0, 600),
  number('minutesOn', 'Minutes on', 0, 600),
  one('heat', 'Heat', { any: 'At any heat', cold: 'Cold to touch', hot: 'Hot' }),
  one('power', 'Power', { any: 'On or off', off: 'Off and unplugged' }),
  several(
    'after',
    'Must be off before it',
    machine.parts.filter((item) => item.id !== part.id).map(({ id, name }) => ({ id, label: name })),
  ),
  text('tool', 'Tool', false, 80),
  {
    name: 'fasteners',
    label: 'What holds it',
    kind: {
      type: 'rows',
      add: 'Add screws, clips or plugs',
      fresh: { count: 1, what: 'screw' },
      fields: [
        number('count', 'How many', 1, 40),
        text('what', 'What: screw, clip, plug, magnet …', false, 40),
        text('drive', 'Drive', false, 40),
        number('lengthMm', 'Length, mm', 0.5, 200),
        text('hole', 'Hole: upper left, corners, middle …', false, 60),
        text('mate', 'Mate: square nut, plastic …', false, 60),
        flag('loosenOnly', 'Only loosened'),
        text('note', 'Note', false, 160),
      ],
    },
  },
  text('off', 'How it comes off', true, 400),
  text('on', 'How it goes back', true, 400),
];

const fieldsOf = (machine: Machine, part: AccessPart): readonly RecordField[] => [
  text('name', 'Name', false, 80),
  text('side', 'Side, on a machine with mirror-image sides', false, 40),
  ...removalFields(machine, part),
  {
    name: 'ways',
    label: 'Other ways in which it comes off',
    kind: {
      type: 'rows',
      add: 'Add another way',
      fresh: {
        id: 'other',
        name: 'from below',
        minutesOff: 5,
        minutesOn: 5,
        heat: 'cold',
        power: 'off',
        off: '…',
        on: '…',
      },
      fields: [
        text('id', 'Short name, without spaces', false, 40),
        text('name', 'Name: from below, from the side …', false, 60),
        ...removalFields(machine, part),
      ],
    },
  },
];

/** What a part cannot be without, while a field is empty. */
const NEEDED = { name: '', minutesOff: 0, minutesOn: 0, off: '', on: '' };

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
  const remove = (id: string): void => onChange(removePart(machine, id));
  return (
    <Section title="What comes off">
      <View style={styles.list}>
        {machine.parts.map((item) => (
          <Button key={item.id} label={item.name} listed onPress={() => setOpen(item.id)}>
            <Text kind="small" tone="soft">{`${item.minutesOff} min off, ${item.minutesOn} min on`}</Text>
          </Button>
        ))}
        <Button label="Add a part" icon="plus" kind="quiet" onPress={add} />
      </View>
      {part ? (
        <Sheet title={part.name} open onClose={() => setOpen(undefined)}>
          <RecordForm
            fields={fieldsOf(machine, part)}
            record={part as unknown as Loose}
            onChange={(next) => setPart({ ...NEEDED, ...next } as unknown as AccessPart)}
          />
          <AskFirst
            label="Take this part away"
            icon="remove"
            question={`${part.name} goes, with its screws and plugs, from every access that names it.`}
            yes="Take it away"
            no="Leave it"
            onYes={() => remove(part.id)}
          />
        </Sheet>
      ) : null}
    </Section>
  );
}

const styles = StyleSheet.create({
  list: { gap: space.s },
});

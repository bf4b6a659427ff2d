import { freeId, type LOSSES, removePart, type AccessPart, type Machine } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Section } from '../ui/Card';
import { flag, number, one, several, text, type Loose, type RecordField } from '../ui/form/fields';
import { RecordForm } from '../ui/form/RecordForm';
import { Sheet } from '../ui/Sheet';
import { AskFirst } from '../ui/AskFirst';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { fieldsOfPiece, usePieceForm } from './usePieceForm';

const LOST: Readonly<Record<(typeof LOSSES)[number], string>> = {
  spring: 'A spring jumps out',
  bearing: 'A bearing falls out',
  nut: 'A nut falls out',
  clip: 'A clip jumps off',
  falling: 'It falls by itself',
};

/** How something comes off: asked of a part, and of each other way. */
const removalFields = (machine: Machine, part: AccessPart): readonly RecordField[] => [
  number('minutesOff', 'Minutes off'),
  number('minutesOn', 'Minutes on'),
  one('heat', 'Heat', { any: 'At any heat', cold: 'Cold to touch', hot: 'Hot' }),
  one('power', 'Power', { any: 'On or off', off: 'Off and unplugged' }),
  several(
    'after',
    'Must be off before it',
    machine.parts.filter((item) => item.id !== part.id).map(({ id, name }) => ({ id, label: name })),
  ),
  ...(machine.connectors.length > 0
    ? [
        several(
          'unplug',
          'Plugs that must be off for it',
          machine.connectors.map(({ id, name }) => ({ id, label: name })),
        ),
      ]
    : []),
  text('tool', 'Tool'),
  {
    name: 'fasteners',
    label: 'What holds it',
    kind: {
      type: 'rows',
      add: 'Add screws, clips or plugs',
      fresh: { count: 1, what: 'screw' },
      fields: [
        number('count', 'How many'),
        text('what', 'What: screw, clip, plug, magnet …'),
        text('drive', 'Drive'),
        number('lengthMm', 'Length, mm'),
        text('hole', 'Hole: upper left, corners, middle …'),
        text('mate', 'Mate: square nut, plastic …'),
        text('hidden', 'Hidden: under which label, behind what'),
        flag('loosenOnly', 'Only loosened'),
        flag('stays', 'Looks as if it had to come out, and stays'),
        text('note', 'Note'),
      ],
    },
  },
  {
    name: 'loses',
    label: 'What is easily lost with it',
    kind: {
      type: 'rows',
      add: 'Add something that is easily lost',
      fresh: { what: 'spring', name: 'Spring' },
      fields: [one('what', 'How', LOST), text('name', 'Name'), text('note', 'Note')],
    },
  },
  text('off', 'How it comes off', true),
  text('on', 'How it goes back', true),
  text('aside', 'Where it lies meanwhile'),
  text('trial', 'How it is tried before it is screwed on', true),
  flag('parked', 'It hangs on its cable, supported'),
];

const fieldsOf = (machine: Machine, part: AccessPart): readonly RecordField[] =>
  fieldsOfPiece('part', [
    text('name', 'Name'),
    text('side', 'Side, on a machine with mirror-image sides'),
    ...removalFields(machine, part),
    flag('severs', 'With it off the path is parted'),
    flag('hot', 'It lies against the heat block'),
    flag('heats', 'With it off nothing is heated'),
    text('service', 'How it is held where it may be heated all the same', true),
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
          text('id', 'Short name, without spaces'),
          text('name', 'Name: from below, from the side …'),
          ...removalFields(machine, part),
        ],
      },
    },
  ]);

/** What came of typing in a part: the machine with what fits, and what was typed where that is something else. */
type OnTyped = (machine: Machine, id: string, typed: Loose | undefined) => void;

/** What comes off: each part with its minutes, what must be off before it, and how. */
export function Parts({
  machine,
  open,
  typed = {},
  onOpen,
  onTyped,
}: {
  readonly machine: Machine;
  /** The part whose form is open. */
  readonly open: string | undefined;
  /** By part, what was typed and does not fit, from before. */
  readonly typed?: Readonly<Record<string, Loose>> | undefined;
  readonly onOpen: (id: string | undefined) => void;
  readonly onTyped: OnTyped;
}) {
  const part = machine.parts.find((item) => item.id === open);
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
    onTyped({ ...machine, parts: [...machine.parts, fresh] }, id, undefined);
    onOpen(id);
  };
  return (
    <Section title="What comes off">
      <View style={styles.list}>
        {machine.parts.map((item) => (
          <Button key={item.id} label={item.name} listed onPress={() => onOpen(item.id)}>
            <Text kind="small" tone="soft">{`${item.minutesOff} min off, ${item.minutesOn} min on`}</Text>
          </Button>
        ))}
        <Button label="Add a part" icon="plus" kind="quiet" onPress={add} />
      </View>
      {part ? (
        <PartSheet
          key={part.id}
          machine={machine}
          part={part}
          typed={typed[part.id]}
          onTyped={onTyped}
          onClose={() => onOpen(undefined)}
        />
      ) : null}
    </Section>
  );
}

function PartSheet({
  machine,
  part,
  typed,
  onTyped,
  onClose,
}: {
  readonly machine: Machine;
  readonly part: AccessPart;
  readonly typed: Loose | undefined;
  readonly onTyped: OnTyped;
  readonly onClose: () => void;
}) {
  const fields = fieldsOf(machine, part);
  const form = usePieceForm({
    kind: 'part',
    fields,
    piece: part,
    typed,
    onChange: (fits, unfit) =>
      onTyped(
        {
          ...machine,
          parts: machine.parts.map((item) => (item.id === part.id ? (fits as unknown as AccessPart) : item)),
        },
        part.id,
        unfit,
      ),
  });
  return (
    <Sheet title={part.name} open onClose={onClose}>
      <RecordForm form={form} fields={fields} />
      <AskFirst
        label="Take this part away"
        icon="remove"
        question={`${part.name} goes, with its screws and plugs, from every access that names it.`}
        yes="Take it away"
        no="Leave it"
        onYes={() => onTyped(removePart(machine, part.id), part.id, undefined)}
      />
    </Sheet>
  );
}

const styles = StyleSheet.create({
  list: { gap: space.s },
});

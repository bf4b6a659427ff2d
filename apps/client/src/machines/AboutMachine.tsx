import { FAMILIES, familyName, OTHER_FAMILY, slugOf, type Machine } from '@zealous/core';
import { Section } from '../ui/Card';
import { FoldedChoice } from '../ui/FoldedChoice';
import { number, text, type Loose, type RecordField } from '../ui/form/fields';
import { RecordForm } from '../ui/form/RecordForm';
import { fieldsOfPiece, usePieceForm } from './usePieceForm';

const FIELDS: readonly RecordField[] = fieldsOfPiece('about', [
  text('name', 'Name'),
  text('summary', 'What it is', true),
  number('strandMm', 'Filament diameter, mm'),
  {
    name: 'heat',
    label: 'Heat',
    kind: {
      type: 'part',
      fresh: {},
      needed: true,
      fields: [
        number('limitC', 'Hottest that it may get, °C'),
        number('ambientC', 'Usual room temperature, °C'),
        number('heatUpCPerS', 'Heats by, °C a second'),
        number('coolTauS', 'Cools with a time constant of, s'),
        number('shortLimitC', 'For a short while it may get, °C'),
        number('shortMinutes', 'Such a while, at most, min'),
      ],
    },
  },
]);

const FAMILY_OPTIONS = [
  ...FAMILIES.map(({ id, name }) => ({ id, label: name })),
  { id: OTHER_FAMILY, label: familyName(OTHER_FAMILY) },
];

/** What of the machine is told as a whole. */
export function AboutTheMachine({
  machine,
  fixed,
  typed,
  onChange,
}: {
  readonly machine: Machine;
  /** Its short name stays: it is stored under it. */
  readonly fixed: boolean;
  readonly typed: Loose | undefined;
  readonly onChange: (machine: Machine, typed: Loose | undefined) => void;
}) {
  const { format: _format, version: _version, runs: _runs, parts: _parts, connectors: _plugs, ...about } = machine;
  const form = usePieceForm({
    kind: 'about',
    fields: FIELDS,
    piece: about,
    typed,
    onChange: (fits, unfit) => {
      const next = { ...machine, ...fits } as Machine;
      onChange({ ...next, family: machine.family, id: fixed ? machine.id : slugOf(next.name, 'machine') }, unfit);
    },
  });
  return (
    <Section title="The machine">
      <RecordForm form={form} fields={FIELDS} />
      <FoldedChoice
        label="Family"
        options={FAMILY_OPTIONS}
        chosen={machine.family}
        onChoose={(family) => onChange({ ...machine, family }, typed)}
      />
    </Section>
  );
}

import { FAMILIES, familyName, OTHER_FAMILY, type Machine } from '@zealous/core';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
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

const idFrom = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || 'machine';

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
  const [open, setOpen] = useState(false);
  const { format: _format, version: _version, runs: _runs, parts: _parts, connectors: _plugs, ...about } = machine;
  const form = usePieceForm({
    kind: 'about',
    fields: FIELDS,
    piece: about,
    typed,
    onChange: (fits, unfit) => {
      const next = { ...machine, ...fits } as Machine;
      onChange({ ...next, family: machine.family, id: fixed ? machine.id : idFrom(next.name) }, unfit);
    },
  });
  return (
    <Section title="The machine">
      <RecordForm form={form} fields={FIELDS} />
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
            onChange({ ...machine, family }, typed);
          }}
        />
      ) : null}
    </Section>
  );
}

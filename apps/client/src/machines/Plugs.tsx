import type { CONNECTOR_KINDS, Machine } from '@zealous/core';
import { useState } from 'react';
import { Section } from '../ui/Card';
import { Fold } from '../ui/Fold';
import { one, text, type Loose, type RecordField } from '../ui/form/fields';
import { RecordForm } from '../ui/form/RecordForm';
import { fieldsOfPiece, usePieceForm } from './usePieceForm';

const CONNECTORS: Readonly<Record<(typeof CONNECTOR_KINDS)[number], string>> = {
  heater: 'Heater',
  thermistor: 'Temperature sensor',
  'hot-end-fan': 'Hot-end fan',
  'part-fan': 'Part fan',
  motor: 'Motor',
  sensor: 'Sensor',
  data: 'Data',
  power: 'Power',
};

const fieldsOf = (machine: Machine): readonly RecordField[] =>
  fieldsOfPiece('plugs', [
    {
      name: 'connectors',
      label: 'Plugs',
      kind: {
        type: 'rows',
        add: 'Add a plug',
        needed: true,
        fresh: { id: 'plug', name: 'Plug', kind: 'motor' },
        fields: [
          text('id', 'Short name, without spaces'),
          text('name', 'Name: plug of the heater …'),
          one('kind', 'What it feeds', CONNECTORS),
          one(
            'of',
            'Part that hangs on its cable',
            Object.fromEntries(machine.parts.map(({ id, name }) => [id, name])),
          ),
        ],
      },
    },
  ]);

/** The plugs that parts hang on, and that must be off before some of them come off. */
export function Plugs({
  machine,
  typed,
  onChange,
}: {
  readonly machine: Machine;
  readonly typed: Loose | undefined;
  readonly onChange: (machine: Machine, typed: Loose | undefined) => void;
}) {
  const [open, setOpen] = useState(typed !== undefined);
  const { connectors } = machine;
  const fields = fieldsOf(machine);
  const form = usePieceForm({
    kind: 'plugs',
    fields,
    piece: { connectors },
    typed,
    onChange: (fits, unfit) => onChange({ ...machine, ...fits } as Machine, unfit),
  });
  return (
    <Section title="Plugs">
      <Fold
        title="What is plugged in"
        said={connectors.length === 0 ? 'nothing is described yet' : connectors.map(({ name }) => name).join(', ')}
        open={open}
        onToggle={() => setOpen(!open)}
      >
        <RecordForm form={form} fields={fields} />
      </Fold>
    </Section>
  );
}

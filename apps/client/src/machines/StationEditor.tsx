import {
  DEGREES_A_RADIAN,
  KIND_NAMES,
  PARAM_FIELDS,
  RADIANS,
  STATION_KINDS,
  type Machine,
  type ParamField,
  type Station,
} from '@zealous/core';
import { useController } from 'react-hook-form';
import { AskFirst } from '../ui/AskFirst';
import { Choice } from '../ui/Choice';
import { FoldedChoice } from '../ui/FoldedChoice';
import { number, numberAs, one, several, text, type Loose, type Option, type RecordField } from '../ui/form/fields';
import { RecordForm } from '../ui/form/RecordForm';
import type { RecordOfForm } from '../ui/form/useRecordForm';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';
import { fieldsOfPiece, usePieceForm } from './usePieceForm';

const OPEN = 'Off before its inside can be seen';

/** One figure of a station; nobody measures a bend in radians. */
function figure({ name, label, unit, values }: ParamField): RecordField {
  if (values) return one(name, label, Object.fromEntries(values.map(({ id, label: words }) => [id, words])));
  if (unit === RADIANS) return numberAs(name, `${label}, degrees (a quarter turn is 90)`, DEGREES_A_RADIAN);
  return number(name, unit ? `${label}, ${unit}` : label);
}

/** The fields of a station, as far as its kind has them. */
function fieldsOf(machine: Machine, station: Station): readonly RecordField[] {
  const parts = machine.parts.map(({ id, name }) => ({ id, label: name }));
  return fieldsOfPiece('station', [
    text('name', 'Name'),
    {
      name: 'params',
      label: 'Figures',
      kind: {
        type: 'part',
        fresh: {},
        fields: PARAM_FIELDS[station.kind].map(figure),
      },
    },
    { name: 'access', label: 'Access', kind: { type: 'part', fresh: {}, fields: [several('open', OPEN, parts)] } },
  ]);
}

const inside = (fields: readonly RecordField[], name: string): readonly RecordField[] => {
  const kind = fields.find((field) => field.name === name)?.kind;
  return kind?.type === 'part' ? kind.fields : [];
};

/** One station: its name, kind, parameters, and what must come off to reach it. */
export function StationEditor({
  machine,
  station,
  typed,
  onChange,
  onRemove,
  onClose,
}: {
  readonly machine: Machine;
  readonly station: Station;
  /** What was typed here and does not fit, from before. */
  readonly typed: Loose | undefined;
  readonly onChange: (station: Station, typed: Loose | undefined) => void;
  readonly onRemove: () => void;
  readonly onClose: () => void;
}) {
  const fields = fieldsOf(machine, station);
  const form = usePieceForm({
    kind: 'station',
    fields,
    piece: station,
    typed,
    onChange: (fits, unfit) => onChange(fits as unknown as Station, unfit),
  });
  return (
    <Sheet title={station.name} open onClose={onClose}>
      <RecordForm form={form} fields={fields.filter(({ name }) => name === 'name')} />
      <Kind form={form} />
      <RecordForm key={station.kind} form={form} fields={inside(fields, 'params')} at="params." />
      {machine.parts.length === 0 ? <Text tone="soft">No part is described yet.</Text> : null}
      <RecordForm form={form} fields={inside(fields, 'access')} at="access." />
      <Mouth form={form} parts={machine.parts.map(({ id, name }) => ({ id, label: name }))} />
      <AskFirst
        label="Take this station away"
        icon="remove"
        question={`${station.name} goes, with its figures and its access.`}
        yes="Take it away"
        no="Leave it"
        onYes={onRemove}
      />
    </Sheet>
  );
}

function Kind({ form }: { readonly form: RecordOfForm }) {
  const { field } = useController({ control: form.control, name: 'kind' });
  return (
    <FoldedChoice
      label="Kind"
      options={STATION_KINDS.map((id) => ({ id, label: KIND_NAMES[id] }))}
      chosen={field.value as Station['kind']}
      onChoose={field.onChange}
    />
  );
}

/** Whether a strand can be put in, and what is off for it: no mouth is no list, one that is always open an empty one. */
function Mouth({ form, parts }: { readonly form: RecordOfForm; readonly parts: readonly Option[] }) {
  const { field } = useController({ control: form.control, name: 'access.mouth' });
  const off = field.value as readonly string[] | undefined;
  return (
    <>
      <Text bold>Can a strand be put in here?</Text>
      <Choice
        label="Mouth"
        options={[
          { id: 'yes', label: 'Yes' },
          { id: 'no', label: 'No' },
        ]}
        chosen={[off ? 'yes' : 'no']}
        onToggle={(id) => field.onChange(id === 'yes' ? (off ?? []) : undefined)}
      />
      {off && parts.length > 0 ? (
        <>
          <Text kind="small" tone="soft">
            Off for that:
          </Text>
          <Choice
            label="Off for the mouth"
            several
            options={parts}
            chosen={off}
            onToggle={(id) => field.onChange(off.includes(id) ? off.filter((item) => item !== id) : [...off, id])}
          />
        </>
      ) : null}
    </>
  );
}

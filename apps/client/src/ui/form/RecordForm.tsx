import type { ReactNode } from 'react';
import { useController, useFieldArray, useFormState, useWatch, get } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../Choice';
import { Button } from '../Button';
import { Text } from '../Text';
import { usePalette } from '../theme';
import { radius, space } from '../tokens';
import type { FieldKind, Option, RecordField } from './fields';
import { FormNumber, FormText } from './FormFields';
import { Listed } from './Listed';
import { NumberField } from './NumberField';
import { valuesOf } from './recordValues';
import type { RecordOfForm } from './useRecordForm';

/** Shows a field that only its feature knows. */
export type OwnField = (name: string, label: string, value: unknown, onChange: (value: unknown) => void) => ReactNode;

interface Shown {
  readonly form: RecordOfForm;
  readonly own?: OwnField | undefined;
}

export interface RecordFormProps extends Shown {
  readonly fields: readonly RecordField[];
  /** Where the record stands within that of the form, with a point behind it. */
  readonly at?: string;
}

/** The fields of a record, or of a part of it. */
export function RecordForm({ form, own, fields, at = '' }: RecordFormProps) {
  return (
    <View style={styles.form}>
      {fields.map(({ name, label, kind }) => (
        <OneField key={name} form={form} own={own} name={`${at}${name}`} label={label} kind={kind} />
      ))}
      {at === '' ? <Wrong form={form} name="root" label="What is not asked for here" /> : null}
    </View>
  );
}

/** A range that a person would not guess is said. */
const ranged = (label: string, min = 0, max = 0): string =>
  min < 0 || min % 1 !== 0 || max > 1000 ? `${label} (${min} to ${max})` : label;

interface OneFieldProps<K extends FieldKind = FieldKind> extends Shown {
  /** As the form knows it. */
  readonly name: string;
  readonly label: string;
  readonly kind: K;
}

type Of<T extends FieldKind['type']> = OneFieldProps<Extract<FieldKind, { readonly type: T }>>;

function OneField({ kind, ...field }: OneFieldProps): ReactNode {
  const { form, name, label } = field;
  const { control } = form;
  switch (kind.type) {
    case 'text':
      return (
        <FormText
          control={control}
          name={name}
          label={label}
          style={styles.whole}
          {...(kind.most === undefined ? {} : { most: kind.most })}
          {...(kind.lines ? { lines: true } : {})}
        />
      );
    case 'number':
      return (
        <FormNumber
          control={control}
          name={name}
          label={kind.asked === undefined ? ranged(label, kind.min, kind.max) : label}
          style={styles.number}
          {...(kind.asked === undefined ? {} : { unit: { ...kind, asked: kind.asked } })}
        />
      );
    case 'part':
      return <PartField {...field} kind={kind} />;
    case 'rows':
      return <RowsField {...field} kind={kind} />;
    default:
      return <PlainField {...field} kind={kind} />;
  }
}

/** What does not fit here, under it. */
function Wrong({ form, name, label }: Omit<OneFieldProps, 'kind' | 'own'>) {
  const { errors } = useFormState({ control: form.control, name });
  const error = get(errors, name) as { readonly message?: string; readonly root?: { readonly message?: string } };
  const message = error?.root?.message ?? error?.message;
  return typeof message === 'string' ? (
    <Text kind="small" tone="fault" bold live>
      {`${label}: ${message.charAt(0).toLowerCase()}${message.slice(1)}`}
    </Text>
  ) : null;
}

/** A field whose value is set as a whole. */
function PlainField({
  form,
  own,
  name,
  label,
  kind,
}: Of<Exclude<FieldKind['type'], 'text' | 'number' | 'part' | 'rows'>>) {
  const { field } = useController({ control: form.control, name });
  const value: unknown = field.value;
  const set: (value: unknown) => void = field.onChange;
  const shown = (): ReactNode => {
    switch (kind.type) {
      case 'words':
      case 'numbers':
        return <Listed label={label} numbers={kind.type === 'numbers'} value={value} onChange={set} />;
      case 'flag':
        return (
          <Choice
            label={label}
            several
            options={[{ id: 'on', label }]}
            chosen={value === true ? ['on'] : []}
            onToggle={() => set(value === true ? undefined : true)}
          />
        );
      case 'one':
        return (
          <Named label={label}>
            <Choice
              label={label}
              options={kind.options}
              chosen={typeof value === 'string' ? [value] : []}
              onToggle={(id) => set(kind.optional && id === value ? undefined : id)}
            />
          </Named>
        );
      case 'several': {
        const chosen = (value ?? []) as readonly string[];
        return (
          <Named label={label}>
            <Choice
              label={label}
              several
              options={kind.options}
              chosen={chosen}
              onToggle={(id) => set(chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id])}
            />
          </Named>
        );
      }
      case 'weights':
        return (
          <Weights
            label={label}
            options={kind.options}
            usual={kind.usual}
            fits={(n) => n >= (kind.min ?? 0) && n <= (kind.max ?? Infinity)}
            value={(value ?? {}) as Readonly<Record<string, number>>}
            onChange={set}
          />
        );
      case 'own':
        return own?.(kind.name, label, value, set) ?? null;
    }
  };
  return (
    <View style={styles.group}>
      {shown()}
      <Wrong form={form} name={name} label={label} />
    </View>
  );
}

function Named({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    <View style={styles.group}>
      <Text bold>{label}</Text>
      {children}
    </View>
  );
}

function Boxed({
  remove,
  onRemove,
  children,
}: {
  readonly remove: string;
  readonly onRemove: () => void;
  readonly children: ReactNode;
}) {
  const palette = usePalette();
  return (
    <View style={[styles.box, { borderColor: palette.line }]}>
      {children}
      <Button label={remove} icon="remove" kind="quiet" style={styles.start} onPress={onRemove} />
    </View>
  );
}

function PartField({ form, own, name, label, kind }: Of<'part'>) {
  const value: unknown = useWatch({ control: form.control, name });
  if (kind.needed) return <RecordForm form={form} own={own} fields={kind.fields} at={`${name}.`} />;
  return (
    <Named label={label}>
      {value === undefined ? (
        <Button
          label={`Set: ${label}`}
          icon="plus"
          kind="quiet"
          style={styles.start}
          onPress={() => form.setValue(name, valuesOf(kind.fields, kind.fresh), { shouldDirty: true })}
        />
      ) : (
        <Boxed remove={`Remove: ${label}`} onRemove={() => form.unregister(name)}>
          <RecordForm form={form} own={own} fields={kind.fields} at={`${name}.`} />
        </Boxed>
      )}
      <Wrong form={form} name={name} label={label} />
    </Named>
  );
}

function RowsField({ form, own, name, label, kind }: Of<'rows'>) {
  // A mark of its own: rows of the open formats have ids.
  const rows = useFieldArray({ control: form.control, name: name as never, keyName: 'mark' });
  return (
    <Named label={label}>
      {(rows.fields as readonly { readonly mark: string }[]).map(({ mark }, i) => (
        <Boxed key={mark} remove={`Remove ${i + 1} of: ${label}`} onRemove={() => rows.remove(i)}>
          <RecordForm form={form} own={own} fields={kind.fields} at={`${name}.${i}.`} />
        </Boxed>
      ))}
      <Button
        label={kind.add}
        icon="plus"
        kind="quiet"
        style={styles.start}
        onPress={() => rows.append(valuesOf(kind.fields, kind.fresh) as never, { shouldFocus: false })}
      />
      <Wrong form={form} name={name} label={label} />
    </Named>
  );
}

function Weights({
  label,
  options,
  usual,
  value,
  fits,
  onChange,
}: {
  readonly label: string;
  readonly options: readonly Option[];
  readonly usual: number;
  readonly fits: (value: number) => boolean;
  readonly value: Readonly<Record<string, number>>;
  readonly onChange: (value: Readonly<Record<string, number>>) => void;
}) {
  const chosen = Object.keys(value);
  const without = (id: string) => Object.fromEntries(Object.entries(value).filter(([key]) => key !== id));
  return (
    <Named label={label}>
      <Choice
        label={label}
        several
        options={options}
        chosen={chosen}
        onToggle={(id) => onChange(chosen.includes(id) ? without(id) : { ...value, [id]: usual })}
      />
      <View style={styles.row}>
        {chosen.map((id) => (
          <View key={id} style={styles.small}>
            <NumberField
              label={options.find((option) => option.id === id)?.label ?? id}
              value={value[id]}
              fits={fits}
              onChange={(n) => n !== undefined && onChange({ ...value, [id]: n })}
            />
          </View>
        ))}
      </View>
    </Named>
  );
}

const styles = StyleSheet.create({
  // Numbers stand side by side where there is room; all else takes a line of its own.
  form: { width: '100%', flexDirection: 'row', flexWrap: 'wrap', gap: space.l },
  number: { flexGrow: 1, flexBasis: 150 },
  whole: { width: '100%' },
  group: { width: '100%', gap: space.s },
  box: { borderWidth: 1, borderRadius: radius.m, padding: space.m, gap: space.m },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.m },
  small: { width: 130 },
  start: { alignSelf: 'flex-start' },
});

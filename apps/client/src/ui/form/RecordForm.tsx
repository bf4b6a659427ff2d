import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../Choice';
import { Field } from '../Field';
import { Button } from '../Button';
import { Text } from '../Text';
import { usePalette } from '../theme';
import { radius, space } from '../tokens';
import type { FieldKind, Loose, Option, RecordField } from './fields';
import { NumberField } from './NumberField';

/** Shows a field that only its feature knows. */
export type OwnField = (name: string, label: string, value: unknown, onChange: (value: unknown) => void) => ReactNode;

export interface RecordFormProps {
  readonly fields: readonly RecordField[];
  readonly record: Loose;
  readonly onChange: (record: Loose) => void;
  readonly own?: OwnField;
  /** What does not fit, each with its JSON pointer within the record; said at its field. */
  readonly faults?: readonly FieldFault[];
}

export interface FieldFault {
  readonly path: string;
  readonly reason: string;
}

/** Faults of one field, their pointers from there on. */
const below = (faults: readonly FieldFault[], name: string): readonly FieldFault[] =>
  faults.flatMap(({ path, reason }) =>
    path === `/${name}` || path.startsWith(`/${name}/`) ? [{ path: path.slice(name.length + 1), reason }] : [],
  );

/** The fields of a record. What is emptied is taken out of it; what the form does not ask for stays. */
export function RecordForm({ fields, record, onChange, own, faults = [] }: RecordFormProps) {
  const set = (name: string, value: unknown): void => {
    const { [name]: _old, ...rest } = record;
    onChange(value === undefined || value === '' ? rest : { ...rest, [name]: value });
  };
  return (
    <View style={styles.form}>
      {fields.map(({ name, label, kind }) => {
        const wrong = below(faults, name);
        // A part shows its own faults at its own fields; the rest is said here.
        const here = kind.type === 'part' || kind.type === 'rows' ? wrong.filter(({ path }) => path === '') : wrong;
        return (
          <View key={name} style={styles.group}>
            <OneField
              name={name}
              label={label}
              kind={kind}
              value={record[name]}
              onChange={(value) => set(name, value)}
              faults={wrong}
              {...(own ? { own } : {})}
            />
            {here[0] ? (
              <Text kind="small" tone="fault" bold live>
                {`${label}: ${here[0].reason}.`}
              </Text>
            ) : null}
          </View>
        );
      })}
    </View>
  );
}

/** A range that a person would not guess is said. */
const ranged = (label: string, min: number, max: number): string =>
  min < 0 || min % 1 !== 0 || max > 1000 ? label : `${label} (${min} to ${max})`;

interface OneFieldProps {
  readonly name: string;
  readonly label: string;
  readonly kind: FieldKind;
  readonly value: unknown;
  readonly onChange: (value: unknown) => void;
  readonly own?: OwnField;
  readonly faults: readonly FieldFault[];
}

function OneField({ label, kind, value, onChange, own, faults }: OneFieldProps): ReactNode {
  switch (kind.type) {
    case 'text':
      return (
        <Field
          label={label}
          value={typeof value === 'string' ? value : ''}
          onChange={onChange}
          {...(kind.most === undefined ? {} : { most: kind.most })}
          {...(kind.lines ? { lines: true } : {})}
        />
      );
    case 'number':
      return (
        <NumberField
          label={ranged(label, kind.min ?? 0, kind.max ?? 0)}
          value={value as number | undefined}
          fits={(n) => n >= (kind.min ?? -Infinity) && n <= (kind.max ?? Infinity)}
          onChange={onChange}
        />
      );
    case 'words':
    case 'numbers':
      return <Listed label={label} numbers={kind.type === 'numbers'} value={value} onChange={onChange} />;
    case 'flag':
      return (
        <Choice
          label={label}
          several
          options={[{ id: 'on', label }]}
          chosen={value === true ? ['on'] : []}
          onToggle={() => onChange(value === true ? undefined : true)}
        />
      );
    case 'one':
      return (
        <Named label={label}>
          <Choice
            label={label}
            options={kind.options}
            chosen={typeof value === 'string' ? [value] : []}
            onToggle={(id) => onChange(kind.optional && id === value ? undefined : id)}
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
            onToggle={(id) => onChange(chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id])}
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
          onChange={onChange}
        />
      );
    case 'part':
      return (
        <Named label={label}>
          {value === undefined ? (
            <Button
              label={`Set: ${label}`}
              icon="plus"
              kind="quiet"
              style={styles.start}
              onPress={() => onChange(kind.fresh)}
            />
          ) : (
            <Boxed remove={`Remove: ${label}`} onRemove={() => onChange(undefined)}>
              <RecordForm
                fields={kind.fields}
                record={value as Loose}
                onChange={onChange}
                faults={faults}
                {...(own ? { own } : {})}
              />
            </Boxed>
          )}
        </Named>
      );
    case 'rows':
      return (
        <Rows label={label} kind={kind} value={value} onChange={onChange} faults={faults} {...(own ? { own } : {})} />
      );
    case 'own':
      return own?.(kind.name, label, value, onChange) ?? null;
  }
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

function Rows({
  label,
  kind,
  value,
  onChange,
  own,
  faults,
}: Pick<OneFieldProps, 'label' | 'value' | 'onChange' | 'own' | 'faults'> & {
  readonly kind: Extract<FieldKind, { readonly type: 'rows' }>;
}) {
  const { key } = kind;
  const [rows, setRows] = useState<readonly { readonly mark: number; readonly row: Loose }[]>(() =>
    (key
      ? Object.entries((value ?? {}) as Readonly<Record<string, Loose>>).map(([id, row]): Loose => ({
          [key]: id,
          ...row,
        }))
      : ((value ?? []) as readonly Loose[])
    ).map((row, mark) => ({ mark, row })),
  );
  const put = (next: typeof rows): void => {
    setRows(next);
    const list = next.map(({ row }) => row);
    // A row that has no name yet waits in the form.
    const named = key ? list.filter((row) => typeof row[key] === 'string' && row[key] !== '') : list;
    const made = key ? Object.fromEntries(named.map(({ [key]: id, ...row }) => [id as string, row])) : list;
    onChange(named.length === 0 ? undefined : made);
  };
  return (
    <Named label={label}>
      {rows.map(({ mark, row }, i) => (
        <Boxed
          key={mark}
          remove={`Remove ${i + 1} of: ${label}`}
          onRemove={() => put(rows.filter((other) => other.mark !== mark))}
        >
          <RecordForm
            fields={kind.fields}
            record={row}
            onChange={(next) => put(rows.map((other) => (other.mark === mark ? { mark, row: next } : other)))}
            faults={below(faults, key ? String(row[key]) : String(i))}
            {...(own ? { own } : {})}
          />
        </Boxed>
      ))}
      <Button
        label={kind.add}
        icon="plus"
        kind="quiet"
        style={styles.start}
        onPress={() => put([...rows, { mark: Math.max(-1, ...rows.map(({ mark }) => mark)) + 1, row: kind.fresh }])}
      />
    </Named>
  );
}

/** Words or numbers with commas between them. */
function Listed({
  label,
  numbers,
  value,
  onChange,
}: Pick<OneFieldProps, 'label' | 'value' | 'onChange'> & { readonly numbers: boolean }) {
  const [typed, setTyped] = useState(((value ?? []) as readonly (string | number | boolean)[]).map(String).join(', '));
  const parts = typed.split(/[,;]/).flatMap((part) => part.trim() || []);
  const wrong = numbers && parts.some((part) => !Number.isFinite(Number(part)));
  return (
    <View>
      <Field
        label={`${label}, with commas between`}
        value={typed}
        most={300}
        onChange={(next) => {
          setTyped(next);
          const list = next.split(/[,;]/).flatMap((part) => part.trim() || []);
          if (!numbers) onChange(list.length ? list.map(asValue) : undefined);
          else if (list.every((part) => Number.isFinite(Number(part)))) onChange(list.map(Number));
        }}
      />
      {wrong ? (
        <Text kind="small" tone="fault">
          Not taken: numbers with commas between, and a point for decimals.
        </Text>
      ) : null}
    </View>
  );
}

/** "true" and "false" are yes and no in the open format. */
const asValue = (word: string): string | boolean => (word === 'true' ? true : word === 'false' ? false : word);

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
  form: { gap: space.l },
  group: { gap: space.s },
  box: { borderWidth: 1, borderRadius: radius.m, padding: space.m, gap: space.m },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.m },
  small: { width: 130 },
  start: { alignSelf: 'flex-start' },
});

import type { Catalogue, CheckResult } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { Effects, Results, type Shows } from './EffectFields';
import type { Option, RecordField } from './fields';
import { NumberField } from './NumberField';

type Loose = Readonly<Record<string, unknown>>;

export interface RecordFormProps {
  readonly catalogue: Catalogue;
  readonly fields: readonly RecordField[];
  readonly record: Loose;
  readonly onChange: (record: Loose) => void;
}

/** The fields of one record of the catalogue. */
export function RecordForm({ catalogue, fields, record, onChange }: RecordFormProps) {
  const set = (name: string, value: unknown): void => {
    const { [name]: _old, ...rest } = record;
    onChange(value === undefined || value === '' ? rest : { ...rest, [name]: value });
  };
  return (
    <View style={styles.form}>
      {fields.map(({ name, label, kind }) => {
        const value = record[name];
        switch (kind.type) {
          case 'text':
            return (
              <Field
                key={name}
                label={label}
                value={typeof value === 'string' ? value : ''}
                onChange={(text) => set(name, text)}
                most={kind.most}
                {...(kind.lines ? { lines: true } : {})}
              />
            );
          case 'number':
            return (
              <NumberField
                key={name}
                label={`${label} (${kind.min} to ${kind.max})`}
                value={value as number | undefined}
                fits={(n) => n >= kind.min && n <= kind.max}
                onChange={(n) => set(name, n)}
              />
            );
          case 'one':
          case 'several': {
            const several = kind.type === 'several';
            const chosen = (several ? (value ?? []) : [value]) as readonly string[];
            return (
              <View key={name} style={styles.group}>
                <Text bold>{label}</Text>
                <Choice
                  label={label}
                  several={several}
                  options={kind.options}
                  chosen={chosen}
                  onToggle={(id) =>
                    set(name, !several ? id : chosen.includes(id) ? chosen.filter((x) => x !== id) : [...chosen, id])
                  }
                />
              </View>
            );
          }
          case 'weights':
            return (
              <Weights
                key={name}
                label={label}
                options={kind.options}
                usual={kind.usual}
                value={(value ?? {}) as Readonly<Record<string, number>>}
                onChange={(next) => set(name, next)}
              />
            );
          case 'shows':
            return (
              <Effects
                key={name}
                label={label}
                catalogue={catalogue}
                value={(value ?? {}) as Shows}
                onChange={(next) => set(name, next)}
              />
            );
          case 'results':
            return (
              <Results
                key={name}
                label={label}
                catalogue={catalogue}
                value={(value ?? []) as readonly CheckResult[]}
                onChange={(next) => set(name, next)}
              />
            );
        }
      })}
    </View>
  );
}

function Weights({
  label,
  options,
  usual,
  value,
  onChange,
}: {
  readonly label: string;
  readonly options: readonly Option[];
  readonly usual: number;
  readonly value: Readonly<Record<string, number>>;
  readonly onChange: (value: Readonly<Record<string, number>>) => void;
}) {
  const chosen = Object.keys(value);
  const without = (id: string) => Object.fromEntries(Object.entries(value).filter(([key]) => key !== id));
  return (
    <View style={styles.group}>
      <Text bold>{label}</Text>
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
              fits={(n) => n > 0 && n <= 100}
              onChange={(n) => n !== undefined && onChange({ ...value, [id]: n })}
            />
          </View>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  form: { gap: space.l },
  group: { gap: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.m },
  small: { width: 130 },
});

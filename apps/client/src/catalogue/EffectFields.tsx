import type { Catalogue, CheckResult } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../ui/Choice';
import type { OwnField } from '../ui/form/RecordForm';
import { Field } from '../ui/Field';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';
import { NumberField } from '../ui/form/NumberField';

/** By dimension and value, the chance that a failure shows it. */
type Shows = Readonly<Record<string, Readonly<Record<string, number>>>>;

/** The fields that only the catalogue knows. */
export const catalogueFields = (catalogue: Catalogue): OwnField =>
  function Own(name, label, value, onChange) {
    if (name === 'when')
      return <Seen label={label} catalogue={catalogue} value={(value ?? {}) as SeenValues} onChange={onChange} />;
    return name === 'shows' ? (
      <Effects label={label} catalogue={catalogue} value={(value ?? {}) as Shows} onChange={onChange} />
    ) : (
      <Results
        label={label}
        catalogue={catalogue}
        value={(value ?? []) as readonly CheckResult[]}
        onChange={onChange}
      />
    );
  };

/** Chooses one value of one dimension. */
function PickValue({
  catalogue,
  onPick,
}: {
  readonly catalogue: Catalogue;
  readonly onPick: (dimension: string, value: string) => void;
}) {
  const [dimension, setDimension] = useState<string | undefined>(undefined);
  const values = catalogue.dimensions.find((item) => item.id === dimension)?.values.slice(1) ?? [];
  return (
    <View style={styles.group}>
      <Choice
        label="Dimension"
        options={catalogue.dimensions.map(({ id, name }) => ({ id, label: name }))}
        chosen={dimension ? [dimension] : []}
        onToggle={setDimension}
      />
      {dimension ? (
        <Choice
          label="Value"
          options={values.map((id) => ({ id, label: id }))}
          chosen={[]}
          onToggle={(value) => {
            onPick(dimension, value);
            setDimension(undefined);
          }}
        />
      ) : null}
    </View>
  );
}

const nameOf = (catalogue: Catalogue, dimension: string): string =>
  catalogue.dimensions.find((item) => item.id === dimension)?.name ?? dimension;

/** What a failure shows, row by row. */
function Effects({
  label,
  catalogue,
  value,
  onChange,
}: {
  readonly label: string;
  readonly catalogue: Catalogue;
  readonly value: Shows;
  readonly onChange: (value: Shows) => void;
}) {
  const [adding, setAdding] = useState(false);
  const set = (dimension: string, shown: string, p: number): void =>
    onChange({ ...value, [dimension]: { ...value[dimension], [shown]: p } });
  const drop = (dimension: string, shown: string): void => {
    const left = Object.fromEntries(Object.entries(value[dimension] ?? {}).filter(([key]) => key !== shown));
    const rest = Object.fromEntries(Object.entries(value).filter(([key]) => key !== dimension));
    onChange(Object.keys(left).length > 0 ? { ...rest, [dimension]: left } : rest);
  };
  return (
    <View style={styles.group}>
      <Text bold>{label}</Text>
      {Object.entries(value).flatMap(([dimension, shows]) =>
        Object.entries(shows).map(([shown, p]) => (
          <View key={`${dimension}/${shown}`} style={styles.effect}>
            <Text style={styles.grow}>{`${nameOf(catalogue, dimension)}: ${shown}`}</Text>
            <View style={styles.small}>
              <NumberField
                label="Chance"
                value={p}
                fits={(n) => n >= 0 && n <= 1}
                onChange={(n) => n !== undefined && set(dimension, shown, n)}
              />
            </View>
            <Button label="Remove" kind="quiet" onPress={() => drop(dimension, shown)} />
          </View>
        )),
      )}
      {adding ? (
        <PickValue
          catalogue={catalogue}
          onPick={(dimension, shown) => {
            set(dimension, shown, 0.5);
            setAdding(false);
          }}
        />
      ) : (
        <Button
          label="Add what it shows"
          icon="plus"
          kind="quiet"
          onPress={() => setAdding(true)}
          style={styles.start}
        />
      )}
    </View>
  );
}

/** By dimension, the values that it looks for. */
type SeenValues = Readonly<Record<string, readonly string[]>>;

/** What is looked for: dimensions with their values. */
function Seen({
  label,
  catalogue,
  value,
  onChange,
}: {
  readonly label: string;
  readonly catalogue: Catalogue;
  readonly value: SeenValues;
  readonly onChange: (value: SeenValues) => void;
}) {
  const [adding, setAdding] = useState(false);
  return (
    <View style={styles.group}>
      <Text bold>{label}</Text>
      {Object.entries(value).map(([dimension, values]) => (
        <View key={dimension} style={styles.effect}>
          <Text kind="small" tone="soft" style={styles.grow}>
            {`${nameOf(catalogue, dimension)}: ${values.join(' or ')}`}
          </Text>
          <Button
            label="Remove"
            kind="quiet"
            onPress={() => onChange(Object.fromEntries(Object.entries(value).filter(([key]) => key !== dimension)))}
          />
        </View>
      ))}
      {adding ? (
        <PickValue
          catalogue={catalogue}
          onPick={(dimension, shown) => {
            onChange({ ...value, [dimension]: [...new Set([...(value[dimension] ?? []), shown])] });
            setAdding(false);
          }}
        />
      ) : (
        <Button
          label="Add what is seen"
          icon="plus"
          kind="quiet"
          onPress={() => setAdding(true)}
          style={styles.start}
        />
      )}
    </View>
  );
}

/** The results of a check, each with what calls for it. */
function Results({
  label,
  catalogue,
  value,
  onChange,
}: {
  readonly label: string;
  readonly catalogue: Catalogue;
  readonly value: readonly CheckResult[];
  readonly onChange: (value: readonly CheckResult[]) => void;
}) {
  const palette = usePalette();
  const [adding, setAdding] = useState<number | undefined>(undefined);
  const set = (i: number, result: CheckResult): void => onChange(value.map((item, k) => (k === i ? result : item)));
  return (
    <View style={styles.group}>
      <Text bold>{label}</Text>
      {value.map((result, i) => (
        <View key={result.id} style={[styles.result, { borderColor: palette.line }]}>
          <Field
            label="Result"
            value={result.label}
            onChange={(text) => set(i, { ...result, label: text })}
            most={80}
          />
          <Choice
            label="Comes with the depth at which the strand stopped"
            options={[{ id: 'depth', label: 'With a depth in mm' }]}
            chosen={result.depth ? ['depth'] : []}
            onToggle={() => {
              const { depth, ...rest } = result;
              set(i, depth ? rest : { ...rest, depth: true });
            }}
          />
          {Object.entries(result.when ?? {}).map(([dimension, values]) => (
            <View key={dimension} style={styles.effect}>
              <Text kind="small" tone="soft" style={styles.grow}>
                {`when ${nameOf(catalogue, dimension)} is ${values.join(' or ')}`}
              </Text>
              <Button
                label="Remove"
                kind="quiet"
                onPress={() =>
                  set(i, {
                    ...result,
                    when: Object.fromEntries(Object.entries(result.when ?? {}).filter(([key]) => key !== dimension)),
                  })
                }
              />
            </View>
          ))}
          {adding === i ? (
            <PickValue
              catalogue={catalogue}
              onPick={(dimension, shown) => {
                const known = result.when?.[dimension] ?? [];
                set(i, { ...result, when: { ...result.when, [dimension]: [...new Set([...known, shown])] } });
                setAdding(undefined);
              }}
            />
          ) : i < value.length - 1 ? (
            <View style={styles.effect}>
              <Button label="Add when it is given" icon="plus" kind="quiet" onPress={() => setAdding(i)} />
              {value.length > 2 ? (
                <Button
                  label="Remove this result"
                  kind="quiet"
                  onPress={() => onChange(value.filter((_, k) => k !== i))}
                />
              ) : null}
            </View>
          ) : null}
        </View>
      ))}
      <Button
        label="Add a result"
        icon="plus"
        kind="quiet"
        style={styles.start}
        onPress={() => {
          let n = value.length;
          while (value.some((item) => item.id === `r${n}`)) n++;
          onChange([...value.slice(0, -1), { id: `r${n}`, label: 'New result' }, ...value.slice(-1)]);
        }}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  group: { gap: space.s },
  effect: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.s },
  small: { width: 130 },
  grow: { flexGrow: 1, flexShrink: 1, flexBasis: 100 },
  start: { alignSelf: 'flex-start' },
  result: { borderWidth: 1, borderRadius: radius.m, padding: space.m, gap: space.s },
});

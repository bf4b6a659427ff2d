import { useState } from 'react';
import { View } from 'react-native';
import { Field } from '../Field';
import { Text } from '../Text';

/** "true" and "false" are yes and no in the open format. */
const asValue = (word: string): string | boolean => (word === 'true' ? true : word === 'false' ? false : word);

const partsOf = (typed: string): readonly string[] => typed.split(/[,;]/).flatMap((part) => part.trim() || []);

/** Words or numbers with commas between them. */
export function Listed({
  label,
  numbers,
  value,
  onChange,
}: {
  readonly label: string;
  readonly numbers: boolean;
  readonly value: unknown;
  readonly onChange: (value: unknown) => void;
}) {
  const [typed, setTyped] = useState(((value ?? []) as readonly (string | number | boolean)[]).map(String).join(', '));
  const wrong = numbers && partsOf(typed).some((part) => !Number.isFinite(Number(part)));
  return (
    <View>
      <Field
        label={`${label}, with commas between`}
        value={typed}
        most={300}
        onChange={(next) => {
          setTyped(next);
          const list = partsOf(next);
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

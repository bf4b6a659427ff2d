import { useState } from 'react';
import { View } from 'react-native';
import { Field } from '../ui/Field';
import { Text } from '../ui/Text';

/** A number as it is typed; what does not fit is not taken, and the field says so. */
export function NumberField({
  label,
  value,
  fits,
  onChange,
}: {
  readonly label: string;
  readonly value: number | undefined;
  readonly fits: (value: number) => boolean;
  readonly onChange: (value: number | undefined) => void;
}) {
  const [text, setText] = useState(value === undefined ? '' : String(value));
  const number = Number(text.replace(',', '.'));
  const wrong = text.trim() !== '' && !(Number.isFinite(number) && fits(number));
  return (
    <View>
      <Field
        label={label}
        value={text}
        number
        most={10}
        onChange={(next) => {
          setText(next);
          const typed = Number(next.replace(',', '.'));
          if (next.trim() === '') onChange(undefined);
          else if (Number.isFinite(typed) && fits(typed)) onChange(typed);
        }}
      />
      {wrong ? (
        <Text kind="small" tone="fault">
          Not taken: out of range.
        </Text>
      ) : null}
    </View>
  );
}

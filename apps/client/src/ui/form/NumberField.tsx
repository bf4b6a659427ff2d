import { useState } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';
import { Field } from '../Field';
import { Text } from '../Text';

export interface NumberFieldProps {
  readonly label: string;
  readonly value: number | undefined;
  readonly fits?: (value: number) => boolean;
  readonly onChange: (value: number | undefined) => void;
  readonly style?: StyleProp<ViewStyle>;
}

/** A number as it is typed, with comma or point; what does not fit is not taken, and the field says so. */
export function NumberField({ label, value, fits = () => true, onChange, style }: NumberFieldProps) {
  const [text, setText] = useState(value === undefined ? '' : String(value));
  const numberIn = (typed: string): number | undefined => {
    const number = Number(typed.replace(',', '.'));
    return typed.trim() !== '' && Number.isFinite(number) && fits(number) ? number : undefined;
  };
  return (
    <View style={style}>
      <Field
        label={label}
        value={text}
        number
        most={12}
        onChange={(next) => {
          setText(next);
          if (next.trim() === '' || numberIn(next) !== undefined) onChange(numberIn(next));
        }}
      />
      {text.trim() !== '' && numberIn(text) === undefined ? (
        <Text kind="small" tone="fault">
          Not taken: out of range.
        </Text>
      ) : null}
    </View>
  );
}

import { useState } from 'react';
import type { StyleProp, ViewStyle } from 'react-native';
import { Field } from '../Field';
import { numberIn } from './numberIn';

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
  const taken = (typed: string): number | undefined => {
    const number = numberIn(typed);
    return number !== undefined && fits(number) ? number : undefined;
  };
  return (
    <Field
      label={label}
      value={text}
      number
      most={12}
      error={text.trim() !== '' && taken(text) === undefined ? 'Not taken: out of range.' : undefined}
      onChange={(next) => {
        setText(next);
        if (next.trim() === '' || taken(next) !== undefined) onChange(taken(next));
      }}
      style={style}
    />
  );
}

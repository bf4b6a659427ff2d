import { useState } from 'react';
import type { StyleProp, ViewStyle } from 'react-native';
import { useController, type Control, type FieldPath, type FieldValues } from 'react-hook-form';
import { Choice, type ChoiceProps } from '../Choice';
import { Field } from '../Field';
import { numberIn } from './numberIn';

interface Placed<T extends FieldValues> {
  readonly control: Control<T>;
  readonly name: FieldPath<T>;
  readonly label: string;
  readonly style?: StyleProp<ViewStyle>;
}

/** Text of a form. */
export function FormText<T extends FieldValues>({
  control,
  name,
  label,
  style,
  ...more
}: Placed<T> & { readonly lines?: boolean; readonly most?: number }) {
  const { field, fieldState } = useController({ control, name });
  return (
    <Field
      label={label}
      value={(field.value as string | undefined) ?? ''}
      onChange={field.onChange}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={fieldState.error?.message}
      style={style}
      {...more}
    />
  );
}

/** Another unit than the one in which a number is kept. */
export interface AskedIn {
  /** So many of it make one of those in which it is kept. */
  readonly asked: number;
  readonly min?: number;
  readonly max?: number;
}

/** Kept to the fourth place, asked to the first: there and back is the same for degrees. */
const keptFrom = (typed: number, asked: number): number => Math.round((typed / asked) * 1e4) / 1e4;
const askedFrom = (kept: number, asked: number): number => Math.round(kept * asked * 10) / 10;

/** A number of a form, typed with comma or point; what is no number stays as it was typed, and is refused with its error. */
export function FormNumber<T extends FieldValues>({
  control,
  name,
  label,
  style,
  unit,
}: Placed<T> & { readonly unit?: AskedIn }) {
  const { field, fieldState } = useController({ control, name });
  const value = field.value as number | string | undefined;
  const words = (kept: number | string | undefined): string =>
    unit && typeof kept === 'number' ? String(askedFrom(kept, unit.asked)) : String(kept ?? '');
  const taken = (typed: string): number | string | undefined => {
    const number = numberIn(typed);
    if (number === undefined) return typed.trim() === '' ? undefined : typed;
    return unit ? keptFrom(number, unit.asked) : number;
  };
  const [text, setText] = useState(words(value));
  // Emptied or filled from outside.
  const shown = taken(text) === value ? text : words(value);
  // The contract speaks of the unit in which it is kept.
  const bounds =
    unit?.min === undefined || unit.max === undefined
      ? undefined
      : [unit.min, unit.max].map((kept) => askedFrom(kept, unit.asked));
  const error = fieldState.error?.message;
  return (
    <Field
      label={label}
      value={shown}
      number
      most={12}
      onChange={(next) => {
        setText(next);
        field.onChange(taken(next));
      }}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={error && bounds ? `Must be a number from ${bounds.join(' to ')}.` : error}
      style={style}
    />
  );
}

/** One answer of a form; with `loose`, a second tap takes it back. */
export function FormChoice<T extends FieldValues, Id extends string>({
  control,
  name,
  label,
  options,
  loose = false,
}: Placed<T> & { readonly options: ChoiceProps<Id>['options']; readonly loose?: boolean }) {
  const { field } = useController({ control, name });
  const value = field.value as Id | undefined;
  return (
    <Choice
      label={label}
      options={options}
      chosen={value === undefined ? [] : [value]}
      onToggle={(id) => field.onChange(loose && id === value ? undefined : id)}
    />
  );
}

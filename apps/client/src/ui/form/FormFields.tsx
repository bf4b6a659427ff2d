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

/** A number of a form, typed with comma or point; what is no number stays as it was typed, and is refused with its error. */
export function FormNumber<T extends FieldValues>({ control, name, label, style }: Placed<T>) {
  const { field, fieldState } = useController({ control, name });
  const value = field.value as number | string | undefined;
  const [text, setText] = useState(value === undefined ? '' : String(value));
  // Emptied or filled from outside.
  const shown = (numberIn(text) ?? (text.trim() === '' ? undefined : text)) === value ? text : String(value ?? '');
  return (
    <Field
      label={label}
      value={shown}
      number
      most={12}
      onChange={(next) => {
        setText(next);
        field.onChange(next.trim() === '' ? undefined : (numberIn(next) ?? next));
      }}
      onBlur={field.onBlur}
      inputRef={field.ref}
      error={fieldState.error?.message}
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

import { fittingText } from '@zealous/core/first';
import type { Ref } from 'react';
import { StyleSheet, View, type StyleProp, type TextInput as NativeInput, type ViewStyle } from 'react-native';
import { HelperText, TextInput } from 'react-native-paper';
import { Text } from './Text';
import { space } from './tokens';

export interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly number?: boolean;
  readonly lines?: boolean;
  readonly most?: number;
  /** What does not fit, and what to do. */
  readonly error?: string | undefined;
  readonly onBlur?: () => void;
  readonly inputRef?: Ref<NativeInput>;
  readonly style?: StyleProp<ViewStyle>;
}

/** A field with its label above it, where the whole of it stays readable while something is typed, and its error below. */
export function Field({
  label,
  value,
  onChange,
  number = false,
  lines = false,
  most = 200,
  error,
  onBlur,
  inputRef,
  style,
}: FieldProps) {
  return (
    <View style={[styles.field, style]}>
      <Text kind="small" tone="soft">
        {label}
      </Text>
      <TextInput
        mode="outlined"
        dense
        accessibilityLabel={label}
        {...(number ? { inputMode: 'decimal' as const } : {})}
        multiline={lines}
        value={value}
        error={error !== undefined}
        {...(onBlur ? { onBlur } : {})}
        {...(inputRef ? { ref: inputRef as never } : {})}
        {...(error === undefined ? {} : { 'aria-invalid': true })}
        onChangeText={(text) => onChange(fittingText(text, most))}
      />
      {error === undefined ? null : (
        <HelperText type="error" padding="none" aria-live="polite">
          {error}
        </HelperText>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ field: { gap: space.xs } });

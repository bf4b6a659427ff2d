import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { TextInput } from 'react-native-paper';
import { Text } from './Text';
import { space } from './tokens';

export interface FieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly number?: boolean;
  readonly lines?: boolean;
  readonly most?: number;
  readonly style?: StyleProp<ViewStyle>;
}

/** A field with its label above it, where it stays readable while something is typed. */
export function Field({ label, value, onChange, number = false, lines = false, most = 200, style }: FieldProps) {
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
        onChangeText={onChange}
        maxLength={most}
      />
    </View>
  );
}

const styles = StyleSheet.create({ field: { gap: space.xs } });

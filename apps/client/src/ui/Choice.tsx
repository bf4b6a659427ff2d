import { Pressable, StyleSheet, View } from 'react-native';
import { Icon } from './Icon';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, TARGET } from './tokens';

export interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly options: readonly { readonly id: T; readonly label: string; readonly swatch?: string }[];
  readonly chosen: readonly T[];
  readonly onToggle: (id: T) => void;
  readonly several?: boolean;
}

/** Answers as large chips; a chosen one carries a tick, not only a tone. */
export function Choice<T extends string>({ label, options, chosen, onToggle, several = false }: ChoiceProps<T>) {
  const palette = usePalette();
  return (
    <View role={several ? 'group' : 'radiogroup'} aria-label={label} style={styles.row}>
      {options.map((option) => {
        const on = chosen.includes(option.id);
        return (
          <Pressable
            key={option.id}
            role={several ? 'checkbox' : 'radio'}
            aria-checked={on}
            aria-label={option.label}
            onPress={() => onToggle(option.id)}
            style={[
              styles.chip,
              { borderColor: on ? palette.deed : palette.line, backgroundColor: on ? palette.deedWash : palette.card },
            ]}
          >
            {on ? <Icon name="check" size={18} color={palette.deed} /> : null}
            {option.swatch ? (
              <View style={[styles.swatch, { backgroundColor: option.swatch, borderColor: palette.housing }]} />
            ) : null}
            <Text bold={on}>{option.label}</Text>
          </Pressable>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  chip: {
    minHeight: TARGET,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.xs,
    paddingHorizontal: space.m,
    borderRadius: radius.m,
    borderWidth: 1,
  },
  swatch: { width: 16, height: 16, borderRadius: 8, borderWidth: 1 },
});

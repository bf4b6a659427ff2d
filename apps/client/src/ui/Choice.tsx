import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
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
  /** Many answers, two in a row where they would be one below the other. */
  readonly paired?: boolean;
}

const STEPS: Readonly<Record<string, number>> = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };

interface Key {
  readonly key: string;
  readonly preventDefault: () => void;
}

/**
 * Answers side by side; a chosen one carries a tick, not only a tone. One of several is one stop of the Tab key, and arrows go on
 * to the next, as in every radio group; the kit's own groups know no arrows and stand one below the other. Space ticks.
 */
export function Choice<T extends string>({
  label,
  options,
  chosen,
  onToggle,
  several = false,
  paired = false,
}: ChoiceProps<T>) {
  const palette = usePalette();
  const places = useRef<(View | null)[]>([]);
  const at = options.findIndex(({ id }) => chosen.includes(id));
  const onKey = (event: Key, i: number): void => {
    const option = options[i];
    if (event.key === ' ' && option) {
      event.preventDefault();
      onToggle(option.id);
    }
    const step = several ? undefined : STEPS[event.key];
    if (step === undefined) return;
    event.preventDefault();
    const next = (i + step + options.length) % options.length;
    (places.current[next] as unknown as HTMLElement | null)?.focus();
    const target = options[next];
    if (target && !chosen.includes(target.id)) onToggle(target.id);
  };
  return (
    <View role={several ? 'group' : 'radiogroup'} aria-label={label} style={styles.row}>
      {options.map((option, i) => {
        const on = chosen.includes(option.id);
        return (
          <TouchableRipple
            key={option.id}
            ref={(place: View | null) => {
              places.current[i] = place;
            }}
            role={several ? 'checkbox' : 'radio'}
            aria-checked={on}
            aria-label={option.label}
            tabIndex={several || i === Math.max(0, at) ? 0 : -1}
            onPress={() => onToggle(option.id)}
            {...{ onKeyDown: (event: Key) => onKey(event, i) }}
            style={[
              styles.chip,
              paired && styles.paired,
              {
                borderColor: on ? palette.deed : palette.housing,
                backgroundColor: on ? palette.deedWash : palette.card,
              },
            ]}
          >
            <View style={styles.face}>
              {on ? <Icon name="check" size={18} color={palette.deed} /> : null}
              {option.swatch ? (
                <View style={[styles.swatch, { backgroundColor: option.swatch, borderColor: palette.housing }]} />
              ) : null}
              <Text bold={on} style={styles.words}>
                {option.label}
              </Text>
            </View>
          </TouchableRipple>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  chip: {
    minHeight: TARGET,
    minWidth: TARGET + 8,
    maxWidth: '100%',
    justifyContent: 'center',
    paddingHorizontal: space.m,
    borderRadius: radius.m,
    borderWidth: 1,
  },
  paired: { flexBasis: '47%', flexGrow: 1, paddingHorizontal: space.s },
  face: { flexDirection: 'row', alignItems: 'center', gap: space.xs },
  words: { flexShrink: 1, minWidth: 0 },
  swatch: { width: 16, height: 16, borderRadius: 8, borderWidth: 1 },
});

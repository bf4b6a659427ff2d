import { useEffect, useRef } from 'react';
import { Platform, StyleSheet, View } from 'react-native';
import { useKept } from '../data/useKept';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { useTextScale } from '../ui/textSize';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';

export interface NumberPadProps {
  readonly label: string;
  /** Under this name what is typed outlives a reload. */
  readonly keep: string;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  /** What would be usual, said beside the field. */
  readonly usual?: string | undefined;
  readonly onEnter: (value: number) => void;
  readonly onCancel?: () => void;
  /** It was seen, and not measured. */
  readonly onSkip?: () => void;
}

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫'] as const;
const NAMES: Readonly<Record<string, string>> = { '.': 'point', '⌫': 'erase' };

/** A number with its unit and range, on keys that a greasy thumb hits. A keyboard works too. */
export function NumberPad({ label, keep, unit, min, max, usual, onEnter, onCancel, onSkip }: NumberPadProps) {
  const palette = usePalette();
  const scale = useTextScale();
  const [text, setText, forget] = useKept(`pad:${keep}`, '');
  const enter = (entered: number): void => {
    forget();
    onEnter(entered);
  };
  const value = Number(text);
  const entered = text !== '' && Number.isFinite(value);
  const fits = entered && value >= min && value <= max;
  const press = (key: string): void => {
    // From the latest text, not the drawn one: two quick taps must not lose a digit on a slow machine.
    setText((was) => {
      if (key === '⌫') return was.slice(0, -1);
      return (key === '.' && was.includes('.')) || was.length >= 7 ? was : was + key;
    });
  };
  const keys = useRef<(key: string) => void>(() => undefined);
  useEffect(() => {
    keys.current = (key) => {
      if (key === 'Enter') {
        if (fits) enter(value);
      } else if (key === 'Escape') onCancel?.();
      else if (key === 'Backspace') press('⌫');
      else if (key === ',' || key === '.') press('.');
      else if (/^[0-9]$/.test(key)) press(key);
    };
  });
  useEffect(() => {
    if (Platform.OS !== 'web' || typeof document === 'undefined') return undefined;
    const onKey = (event: KeyboardEvent): void => {
      const { target } = event;
      if (event.ctrlKey || event.metaKey || event.altKey || document.querySelector('[role="dialog"]')) return;
      if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) return;
      // Enter on a key of the pad presses that key.
      if (event.key === 'Enter' && target instanceof HTMLElement && target.getAttribute('role') === 'button') return;
      keys.current(event.key);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  return (
    <View style={styles.pad}>
      <View
        style={[
          styles.field,
          { borderColor: entered && !fits ? palette.fault : palette.housing, backgroundColor: palette.card },
        ]}
      >
        <Text kind="small" tone="soft" style={styles.grow}>
          {label}
        </Text>
        <Text kind="figure" style={{ fontSize: 24 * scale, lineHeight: 40 * scale }} testID="number">
          {text || '–'}
        </Text>
        <Text tone="soft">{unit}</Text>
      </View>
      <Text
        kind="small"
        tone={entered && !fits ? 'fault' : 'soft'}
      >{`${entered && !fits ? 'Must lie between' : 'Between'} ${min} and ${max} ${unit}${usual ? `; ${usual}` : ''}`}</Text>
      <View style={styles.keys}>
        {KEYS.map((key) => (
          <Button key={key} label={NAMES[key] ?? key} onPress={() => press(key)} style={styles.key}>
            {null}
          </Button>
        ))}
      </View>
      <View style={styles.row}>
        {onCancel ? <Button label="Back" kind="quiet" onPress={onCancel} /> : null}
        {onSkip ? <Button label="Not measured" kind="quiet" onPress={onSkip} /> : null}
        <Button
          label={fits ? `Enter ${value} ${unit}` : 'Enter'}
          kind="main"
          disabled={!fits}
          onPress={() => enter(value)}
          style={styles.grow}
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  pad: { gap: space.xs },
  field: {
    flexDirection: 'row',
    alignItems: 'baseline',
    gap: space.s,
    borderWidth: 1,
    borderRadius: radius.m,
    paddingHorizontal: space.m,
    minHeight: 44,
  },
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: space.xs },
  key: { width: '32.5%', paddingVertical: 0 },
  row: { flexDirection: 'row', gap: space.s },
  grow: { flex: 1 },
});

import { useEffect, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space, TARGET } from '../ui/tokens';

/**
 * Runs as long as it is held: a little is done, and when that has come to rest and the finger is still there, a little more. Let go,
 * moved off, hidden or gone, nothing further is asked.
 */
export function HoldButton({
  label,
  disabled,
  step,
}: {
  readonly label: string;
  readonly disabled: boolean;
  /** Does a little; false when it may not go on. */
  readonly step: () => Promise<boolean>;
}) {
  const palette = usePalette();
  const held = useRef(false);
  const running = useRef(false);
  useEffect(() => {
    const release = (): void => {
      held.current = false;
    };
    document.addEventListener('visibilitychange', release);
    window.addEventListener('blur', release);
    return () => {
      release();
      document.removeEventListener('visibilitychange', release);
      window.removeEventListener('blur', release);
    };
  }, []);
  const run = async (): Promise<void> => {
    held.current = true;
    if (running.current) return;
    running.current = true;
    while (held.current && (await step()));
    running.current = false;
  };
  const letGo = (): void => {
    held.current = false;
  };
  return (
    <TouchableRipple
      role="button"
      aria-label={`${label}. Runs while it is held`}
      aria-disabled={disabled}
      disabled={disabled}
      onPressIn={() => void run()}
      onPressOut={letGo}
      // Held long is what it is for: no other meaning of it.
      onLongPress={() => undefined}
      onPress={letGo}
      style={[styles.button, { borderColor: palette.housing, backgroundColor: palette.card }, disabled && styles.off]}
    >
      <View style={styles.face}>
        <Text>{label}</Text>
        <Text kind="small" tone="soft">
          hold
        </Text>
      </View>
    </TouchableRipple>
  );
}

const styles = StyleSheet.create({
  button: { minHeight: TARGET, borderWidth: 1, borderRadius: radius.m, paddingHorizontal: space.m },
  face: { flex: 1, alignItems: 'center', justifyContent: 'center', paddingVertical: space.xs },
  off: { opacity: 0.5 },
});

import type { PlanStep } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import Svg, { Defs, Line, Pattern, Rect } from 'react-native-svg';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';

const HEIGHT = 34;
const WIDTH = 600;

const minutesOf = (minutes: number): string =>
  minutes >= 90 ? `${(minutes / 60).toFixed(1)} h` : `${Math.round(minutes)} min`;

/** What is left, as it lies in time: solid where hands are needed, hatched where the machine works by itself. */
export function Timeline({ steps }: { readonly steps: readonly PlanStep[] }) {
  const palette = usePalette();
  const hands = steps.reduce((sum, step) => sum + step.minutes, 0);
  // A soak of a day would leave nothing to be seen of the rest.
  const shown = (wait: number): number => Math.min(wait, Math.max(10, hands));
  const waits = steps.reduce((sum, step) => sum + step.waitMinutes, 0);
  const whole = steps.reduce((sum, step) => sum + step.minutes + shown(step.waitMinutes), 0);
  if (whole === 0) return null;
  const bars = steps.map((step, i) => {
    const before = steps.slice(0, i).reduce((sum, one) => sum + one.minutes + shown(one.waitMinutes), 0);
    return {
      key: step.id,
      at: (before / whole) * WIDTH,
      hand: (step.minutes / whole) * WIDTH,
      wait: (shown(step.waitMinutes) / whole) * WIDTH,
      hot: step.need.heat === 'hot' || (step.sets?.targetC ?? 0) > 0,
    };
  });
  const said = `${minutesOf(hands)} of work and ${minutesOf(waits)} of waiting are left, in ${steps.length} steps`;
  return (
    <View style={styles.column}>
      <View role="img" aria-label={said}>
        <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
          <Defs>
            <Pattern id="wait" width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <Line x1={0} y1={0} x2={0} y2={6} stroke={palette.housing} strokeWidth={2} />
            </Pattern>
          </Defs>
          {bars.map(({ key, at, hand, wait, hot }) => [
            <Rect
              key={key}
              x={at + 0.5}
              y={4}
              width={Math.max(1, hand - 1)}
              height={HEIGHT - 8}
              rx={2}
              fill={hot ? palette.warm : palette.deed}
            />,
            wait > 0 ? (
              <Rect
                key={`${key}-wait`}
                x={at + hand}
                y={9}
                width={wait}
                height={HEIGHT - 18}
                fill="url(#wait)"
                stroke={palette.housing}
              />
            ) : null,
          ])}
        </Svg>
      </View>
      <Text kind="small" tone="soft">
        {`Left: ${minutesOf(hands)} of work${waits >= 1 ? `, ${minutesOf(waits)} of waiting (hatched)` : ''}.`}
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.xs } });

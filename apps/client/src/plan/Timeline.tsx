import type { OrderState, PlanStep } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import Svg, { Defs, Line, Pattern, Rect } from 'react-native-svg';
import { timeText } from '../ui/format';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';

const HEIGHT = 34;
const WIDTH = 600;
const MINUTE = 60_000;

const minutesOf = (minutes: number): string =>
  minutes >= 90 ? `${Number((minutes / 60).toFixed(1))} h` : `${Math.round(minutes)} min`;

export interface TimelineProps {
  /** What is left. */
  readonly steps: readonly PlanStep[];
  readonly done: OrderState['steps'];
  readonly now: number;
}

/**
 * The work as it lies in time: what was done as it was recorded, a mark where each step ended; then what is left, solid
 * where hands are needed, hatched where the machine works by itself.
 */
export function Timeline({ steps, done, now }: TimelineProps) {
  const palette = usePalette();
  const hands = steps.reduce((sum, step) => sum + step.minutes, 0);
  // A soak of a day, or a night since the last step, would leave nothing to be seen of the rest.
  const most = Math.max(10, hands);
  const shown = (wait: number): number => Math.min(wait, most);
  const waits = steps.reduce((sum, step) => sum + step.waitMinutes, 0);
  const ends = Object.entries(done).map(([id, { at }]): readonly [string, number] => [id, Date.parse(at)]);
  const begun = Math.min(now, ...ends.map(([, end]) => end));
  const past = shown((now - begun) / MINUTE);
  const whole = past + steps.reduce((sum, step) => sum + step.minutes + shown(step.waitMinutes), 0);
  if (steps.length === 0 || whole === 0) return null;
  const scale = WIDTH / whole;
  const bars = steps.map((step, i) => {
    const before = steps.slice(0, i).reduce((sum, one) => sum + one.minutes + shown(one.waitMinutes), past);
    return {
      key: step.id,
      at: before * scale,
      hand: step.minutes * scale,
      wait: shown(step.waitMinutes) * scale,
      hot: step.need.heat === 'hot' || (step.sets?.targetC ?? 0) > 0,
    };
  });
  const finish = now + (hands + waits) * MINUTE;
  const clock = `${ends.length > 0 ? `Begun ${timeText(begun)} · ` : ''}now ${timeText(now)} · done about ${timeText(finish, now)}`;
  const said = `${minutesOf(hands)} of work${waits >= 1 ? ` and ${minutesOf(waits)} of waiting (hatched)` : ''} left`;
  return (
    <View style={styles.column}>
      <View role="img" aria-label={`${said}, in ${steps.length} steps. ${clock}`}>
        <Svg aria-hidden width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
          <Defs>
            <Pattern id="wait" width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <Line x1={0} y1={0} x2={0} y2={6} stroke={palette.housing} strokeWidth={2} />
            </Pattern>
          </Defs>
          {past > 0 ? <Rect x={0} y={HEIGHT / 2 - 2} width={past * scale} height={4} fill={palette.clear} /> : null}
          {ends.map(([id, end]) => {
            const x = past > 0 ? ((end - begun) / (now - begun)) * past * scale : 0;
            return <Line key={id} x1={x} y1={8} x2={x} y2={HEIGHT - 8} stroke={palette.clear} strokeWidth={3} />;
          })}
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
      <Text kind="small" tone="soft">{`${clock} · ${said}.`}</Text>
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.xs } });

import type { DrawnLine, PrintFile, PrintLayer } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Line as SvgLine, Path } from 'react-native-svg';
import { Chart, ChartText } from '../ui/Chart';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space, type Palette } from '../ui/tokens';

/** A line across a picture over height: at a height, or at a value. */
export interface Line {
  readonly zMm?: number | undefined;
  readonly value?: number;
  readonly label: string;
  readonly tone: keyof Palette;
}

const MOST_STEPS = 300;

/** The most of some neighbouring layers, where there are more than a picture can show. */
function steps(
  layers: readonly PrintLayer[],
  of: (layer: PrintLayer) => number,
): readonly (readonly [number, number])[] {
  const each = Math.max(1, Math.ceil(layers.length / MOST_STEPS));
  return Array.from({ length: Math.ceil(layers.length / each) }, (_, i) => {
    const list = layers.slice(i * each, (i + 1) * each);
    return [list[0]?.zMm ?? 0, Math.max(...list.map(of))] as const;
  });
}

export function OverHeight({
  title,
  label,
  print,
  of,
  lines,
  colour,
}: {
  readonly title: string;
  readonly label: string;
  readonly print: PrintFile;
  readonly of: (layer: PrintLayer) => number;
  readonly lines: readonly Line[];
  readonly colour: string;
}) {
  const palette = usePalette();
  const list = steps(print.layers, of);
  const top = Math.max(1, ...list.map(([, v]) => v), ...lines.map(({ value = 0 }) => value)) * 1.15;
  const highest = Math.max(...print.layers.map(({ zMm }) => zMm));
  return (
    <View style={styles.chart}>
      <Text bold>{title}</Text>
      <Chart
        label={label}
        across={{ from: 0, to: highest, words: (v) => `${v} mm` }}
        up={{ from: 0, to: top, words: String }}
        height={170}
      >
        {(x, y) => [
          <Path
            key="steps"
            d={list.map(([z, v], i) => `${i ? 'L' : 'M'}${x(z).toFixed(1)} ${y(v).toFixed(1)}`).join('')}
            stroke={colour}
            strokeWidth={2}
            fill="none"
          />,
          ...lines.flatMap(({ zMm, value, label: word, tone }) => {
            if (value !== undefined)
              return [
                <SvgLine
                  key={word}
                  x1={x(0)}
                  x2={x(highest)}
                  y1={y(value)}
                  y2={y(value)}
                  stroke={palette[tone]}
                  strokeWidth={2}
                  strokeDasharray="6 4"
                />,
                <ChartText key={`${word}-t`} x={x(highest)} y={y(value) - 4} anchor="end">
                  {word}
                </ChartText>,
              ];
            if (zMm === undefined) return [];
            const right = zMm > highest / 2;
            return [
              <SvgLine
                key={word}
                x1={x(zMm)}
                x2={x(zMm)}
                y1={y(0)}
                y2={y(top)}
                stroke={palette[tone]}
                strokeWidth={2}
              />,
              <ChartText
                key={`${word}-t`}
                x={x(zMm) + (right ? -5 : 5)}
                y={y(top) + 10}
                anchor={right ? 'end' : 'start'}
              >
                {word}
              </ChartText>,
            ];
          }),
        ]}
      </Chart>
    </View>
  );
}

const SIZE = 320;

/** One layer from above: lines by the flow they ask, places where strand is drawn back as rings. */
export function LayerDrawing({
  title,
  lines,
  melts,
}: {
  readonly title: string;
  readonly lines: readonly DrawnLine[];
  readonly melts: number | undefined;
}) {
  const palette = usePalette();
  const xs = lines.flatMap(({ x1, x2 }) => [x1, x2]);
  const ys = lines.flatMap(({ y1, y2 }) => [y1, y2]);
  const least = (list: readonly number[]): number => list.reduce((a, b) => Math.min(a, b), Infinity);
  const most = (list: readonly number[]): number => list.reduce((a, b) => Math.max(a, b), -Infinity);
  const [left, low] = [least(xs), least(ys)];
  const scale = (SIZE - 20) / Math.max(1, most(xs) - left, most(ys) - low);
  const at = (x: number, y: number): string =>
    `${(10 + (x - left) * scale).toFixed(1)} ${(SIZE - 10 - (y - low) * scale).toFixed(1)}`;
  const path = (list: readonly DrawnLine[]): string =>
    list.map(({ x1, y1, x2, y2 }) => `M${at(x1, y1)}L${at(x2, y2)}`).join('');
  const laid = lines.filter(({ flow }) => flow > 0);
  const limit = melts ?? Infinity;
  const back = lines.filter(({ retracted }) => retracted);
  return (
    <View style={styles.chart}>
      <Text bold>{title}</Text>
      <View
        role="img"
        aria-label={`${title}, from above: ${laid.length} lines, ${laid.filter(({ flow }) => flow > limit).length} ask more than it melts, strand drawn back at ${back.length} places`}
      >
        <Svg width="100%" height={SIZE} viewBox={`0 0 ${SIZE} ${SIZE}`}>
          <Path
            d={path(laid.filter(({ flow }) => flow <= limit))}
            stroke={palette.deed}
            strokeWidth={1.2}
            fill="none"
          />
          <Path
            d={path(laid.filter(({ flow }) => flow > limit))}
            stroke={palette.fault}
            strokeWidth={2.4}
            fill="none"
          />
          {back.slice(0, 2000).map(({ x1, y1 }, i) => {
            const [cx = '0', cy = '0'] = at(x1, y1).split(' ');
            return <Circle key={i} cx={cx} cy={cy} r={3} stroke={palette.warm} strokeWidth={1.5} fill="none" />;
          })}
        </Svg>
      </View>
      <Text kind="small" tone="soft">
        {melts === undefined
          ? 'Rings: strand is drawn back there.'
          : 'Thick: asks more than it melts. Rings: strand is drawn back there.'}
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({ chart: { gap: space.xs, flex: 1, minWidth: 0 } });

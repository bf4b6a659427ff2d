import { scaleLinear, type ScaleLinear } from 'd3-scale';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import Svg, { Line, Text as SvgText } from 'react-native-svg';
import { useTextScale } from './textSize';
import { usePalette } from './theme';

const WIDTH = 340;
const PAD = { left: 44, right: 14, top: 10, bottom: 26 };
const TICK = 11;

export type Scale = ScaleLinear<number, number>;

export interface Axis {
  readonly from: number;
  readonly to: number;
  /** How a number beside it is written. */
  readonly words: (value: number) => string;
  /** About so many numbers stand beside it. */
  readonly ticks?: number;
}

export interface ChartProps {
  /** What it shows, said for those who do not see it. */
  readonly label: string;
  readonly across: Axis;
  readonly up: Axis;
  readonly height?: number;
  readonly children: (x: Scale, y: Scale) => ReactNode;
}

export interface ChartTextProps {
  readonly x: number;
  readonly y: number;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly soft?: boolean;
  readonly children: string;
}

/** A word in a drawing, as much higher than designed as all other text. */
export function ChartText({ x, y, anchor, soft = false, children }: ChartTextProps) {
  const palette = usePalette();
  const scale = useTextScale();
  return (
    <SvgText x={x} y={y} fontSize={TICK * scale} textAnchor={anchor} fill={soft ? palette.soft : palette.ink}>
      {children}
    </SvgText>
  );
}

/** The one frame of all charts: scales and round numbers are d3's, lines across at the numbers of the upright axis. */
export function Chart({ label, across, up, height: designed = 180, children }: ChartProps) {
  const palette = usePalette();
  const scale = useTextScale();
  // Higher words take room at the sides, and fewer of them stand beside each other.
  const height = designed * (1 + (scale - 1) / 3);
  const left = PAD.left * scale;
  const x = scaleLinear([across.from, across.to], [left, WIDTH - PAD.right]);
  const y = scaleLinear([up.from, up.to], [height - PAD.bottom * scale, PAD.top * scale]);
  return (
    <View role="img" aria-label={`Chart: ${label}`}>
      <Svg width="100%" height={height} viewBox={`0 0 ${WIDTH} ${height}`}>
        {y.ticks(up.ticks ?? 4).map((value) => [
          <Line key={value} x1={left} x2={WIDTH - PAD.right} y1={y(value)} y2={y(value)} stroke={palette.line} />,
          <ChartText key={`t${value}`} x={left - 6} y={y(value) + 4 * scale} anchor="end" soft>
            {up.words(value)}
          </ChartText>,
        ])}
        {x.ticks(Math.max(2, Math.round((across.ticks ?? 5) / scale))).map((value) => (
          <ChartText key={`x${value}`} x={x(value)} y={height - 9 * scale} anchor="middle" soft>
            {across.words(value)}
          </ChartText>
        ))}
        {children(x, y)}
      </Svg>
    </View>
  );
}

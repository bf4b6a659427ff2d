import { scaleLinear, type ScaleLinear } from 'd3-scale';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import Svg, { Line, Text as SvgText } from 'react-native-svg';
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

/** The one frame of all charts: scales and round numbers are d3's, lines across at the numbers of the upright axis. */
export function Chart({ label, across, up, height = 180, children }: ChartProps) {
  const palette = usePalette();
  const x = scaleLinear([across.from, across.to], [PAD.left, WIDTH - PAD.right]);
  const y = scaleLinear([up.from, up.to], [height - PAD.bottom, PAD.top]);
  return (
    <View role="img" aria-label={`Chart: ${label}`}>
      <Svg width="100%" height={height} viewBox={`0 0 ${WIDTH} ${height}`}>
        {y.ticks(up.ticks ?? 4).map((value) => [
          <Line key={value} x1={PAD.left} x2={WIDTH - PAD.right} y1={y(value)} y2={y(value)} stroke={palette.line} />,
          <SvgText
            key={`t${value}`}
            x={PAD.left - 6}
            y={y(value) + 4}
            fontSize={TICK}
            textAnchor="end"
            fill={palette.soft}
          >
            {up.words(value)}
          </SvgText>,
        ])}
        {x.ticks(across.ticks ?? 5).map((value) => (
          <SvgText
            key={`x${value}`}
            x={x(value)}
            y={height - 9}
            fontSize={TICK}
            textAnchor="middle"
            fill={palette.soft}
          >
            {across.words(value)}
          </SvgText>
        ))}
        {children(x, y)}
      </Svg>
    </View>
  );
}

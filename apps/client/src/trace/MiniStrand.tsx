import { area, curveMonotoneX } from 'd3-shape';
import Svg, { Path } from 'react-native-svg';
import { usePalette } from '../ui/theme';

/** The strand lying on its side, small: where suspicion would sit. Spool left, nozzle right. */
export function MiniStrand({
  stations,
  width = 132,
  height = 28,
}: {
  readonly stations: readonly number[];
  readonly width?: number;
  readonly height?: number;
}) {
  const palette = usePalette();
  const middle = height / 2;
  const step = width / Math.max(1, stations.length);
  const points = stations.flatMap((share, i) => [
    { x: i * step, w: 1.5 },
    { x: (i + 0.5) * step, w: 1.5 + (middle - 2) * Math.sqrt(Math.min(1, share)) },
  ]);
  const outline =
    area<{ x: number; w: number }>()
      .x((point) => point.x)
      .y0((point) => middle - point.w)
      .y1((point) => middle + point.w)
      .curve(curveMonotoneX)([...points, { x: width, w: 1.5 }]) ?? '';
  return (
    <Svg width={width} height={height} aria-hidden>
      <Path d={outline} fill={palette.doubt} />
    </Svg>
  );
}

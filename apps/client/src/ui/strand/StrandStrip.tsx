import { percent, type Route, type StationSuspicion, type RankedCheck } from '@zealous/core';
import { area, curveMonotoneX } from 'd3-shape';
import { StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import Svg, { ClipPath, Defs, G, Line, Path, Pattern } from 'react-native-svg';
import { Text } from '../Text';
import { usePalette } from '../theme';
import { filamentColour, space } from '../tokens';
import { useTween } from '../useTween';
import { Housings } from './Housings';
import { layoutStrip } from './layout';
import { flagSpan, WORTH_A_NUMBER } from './Strand';

export interface StrandStripProps {
  readonly route: Route;
  readonly stations: readonly StationSuspicion[];
  readonly colour?: string;
  readonly next?: RankedCheck;
  readonly width: number;
  /** Height that it may take, px: where there is more than it needs, it is drawn thicker and names more places. */
  readonly room?: number;
  /** Shows the whole strand. */
  readonly onOpen: () => void;
}

/** Height of the drawing, and of the strip with its words, px. */
const DRAWN = 58;
export const STRIP = 92;
const MIDDLE = 27;
/** At most so many times as thick; thicker, it would be a wheel rather than a strand. */
const THICKEST = 2;
/** Left and right of it, px: half a spool. */
const EDGE = 14;
/** Names of the leading places that fit under it, in a line. */
const NAMED = 2;

/** The whole path on its side, where there is no room for the strand with its names; a tap shows that. */
export function StrandStrip({ onOpen, room = STRIP, ...drawn }: StrandStripProps) {
  const thick = Math.min(THICKEST, Math.max(1, (room - STRIP + DRAWN) / DRAWN));
  const lines = thick < THICKEST ? 1 : 2;
  const words =
    drawn.stations
      .filter(({ suspicion, clearedBy }) => suspicion >= WORTH_A_NUMBER && clearedBy === undefined)
      .sort((a, b) => b.suspicion - a.suspicion)
      .slice(0, NAMED * lines)
      .map(({ name, suspicion }) => `${name} ${percent(suspicion)}`)
      .join(' · ') || 'Nothing is suspected much';
  return (
    <TouchableRipple role="button" aria-label={`${words}. Show the whole strand`} onPress={onOpen} style={styles.strip}>
      <View>
        <Drawing {...drawn} thick={thick} />
        <View style={styles.words}>
          <Text kind="small" bold tone="doubt" lines={lines} style={styles.grow}>
            {words}
          </Text>
          <Text kind="small" tone="deed">
            whole strand
          </Text>
        </View>
      </View>
    </TouchableRipple>
  );
}

/** Apart from its frame, so that only it is drawn anew at every frame while the strand moves. */
function Drawing({
  route,
  stations,
  colour,
  next,
  width: room,
  thick,
}: Omit<StrandStripProps, 'onOpen' | 'room'> & { readonly thick: number }) {
  const width = room - 2 * EDGE;
  const height = DRAWN * thick;
  const middle = MIDDLE * thick;
  const palette = usePalette();
  const suspicions = useTween(stations.map((station) => station.suspicion));
  const all = layoutStrip(route, stations, suspicions, width);
  const flagged = flagSpan(all, next);
  const inside = (id: string): boolean => {
    const at = all.findIndex((row) => row.id === id);
    return flagged !== undefined && at >= all.indexOf(flagged[0]) && at <= all.indexOf(flagged[1]);
  };
  const rows = flagged ? layoutStrip(route, stations, suspicions, width, inside) : all;
  const span = flagSpan(rows, next);
  const outline =
    area<{ x: number; w: number }>()
      .x((point) => point.x)
      .y0((point) => middle - point.w)
      .y1((point) => middle + point.w)
      .curve(curveMonotoneX)([
      ...rows.flatMap((row) => [
        { x: row.top, w: Math.min(row.swell, 4) * thick },
        { x: row.middle, w: Math.min(row.swell, MIDDLE - 5) * thick },
      ]),
      { x: width, w: 1.5 },
    ]) ?? '';
  const doubted = rows.filter((row) => row.suspicion >= WORTH_A_NUMBER && row.clearedBy === undefined);
  return (
    <Svg width={room} height={height} viewBox={`${-EDGE} 0 ${room} ${height}`} aria-hidden>
      <Defs>
        <Pattern id="doubt-strip" patternUnits="userSpaceOnUse" width={7} height={7} patternTransform="rotate(45)">
          <Line x1={0} y1={0} x2={0} y2={7} stroke={palette.doubt} strokeWidth={4} />
        </Pattern>
        <ClipPath id="strip">
          <Path d={outline} />
        </ClipPath>
      </Defs>
      <G transform={`translate(0 ${middle}) rotate(-90)`}>
        <Housings rows={rows} x={0} across={0.85 * thick} stroke={palette.housing} fill={palette.card} />
      </G>
      <Path d={outline} fill={filamentColour(colour)} stroke={palette.ink} strokeWidth={1.2} />
      <G clipPath="url(#strip)">
        <Path
          d={doubted.map((row) => `M${row.top} 0h${row.height}v${height}h${-row.height}Z`).join('') || 'M0 0'}
          fill="url(#doubt-strip)"
        />
      </G>
      {doubted.length > 0 ? <Path d={outline} fill="none" stroke={palette.ink} strokeWidth={1.2} /> : null}
      <Path
        d={
          rows
            .filter((row) => row.clearedBy !== undefined)
            .map((row) => `M${row.middle - 4} ${middle + 12 * thick}l3 3l5.5 -7`)
            .join('') || 'M0 0'
        }
        fill="none"
        stroke={palette.clear}
        strokeWidth={2.2}
      />
      {span ? (
        <G>
          <Path
            d={`M${span[0].top + 2} ${height - 9} v6 H${span[1].top + span[1].height - 2} v-6`}
            fill="none"
            stroke={palette.deed}
            strokeWidth={2.5}
            strokeLinejoin="round"
          />
          <Path d={`M${span[0].top + 2} ${height - 3} v-15 h13 l-4 4 l4 4 h-13`} fill={palette.deed} />
        </G>
      ) : null}
    </Svg>
  );
}

const styles = StyleSheet.create({
  strip: { minHeight: STRIP, justifyContent: 'center' },
  words: { flexDirection: 'row', gap: space.s, paddingHorizontal: space.l },
  grow: { flex: 1 },
});

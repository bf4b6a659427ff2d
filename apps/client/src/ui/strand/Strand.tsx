import type { ClearedSpan, Machine, RankedCheck, Route, StationSuspicion } from '@zealous/core';
import { area, curveMonotoneY } from 'd3-shape';
import { Pressable, StyleSheet, View } from 'react-native';
import Svg, { ClipPath, Defs, G, Line, Path, Pattern, Rect } from 'react-native-svg';
import { Text } from '../Text';
import { useTextScale } from '../textSize';
import { usePalette } from '../theme';
import { filamentColour, fonts, space, TARGET } from '../tokens';
import { useTween } from '../useTween';
import { Housings } from './Housings';
import { layoutStrand, type Label, type Row } from './layout';

export interface StrandProps {
  readonly machine: Machine;
  readonly route: Route;
  readonly stations: readonly StationSuspicion[];
  readonly cleared: readonly ClearedSpan[];
  readonly colour?: string;
  /** The check that is next; its flag stands at its place. */
  readonly next?: RankedCheck;
  /** Where repair begins, once checking stops. */
  readonly repairAt?: string;
  readonly chosen?: string;
  readonly onStation?: (id: string) => void;
  readonly width: number;
  /** Height to fit into on a small screen, px. */
  readonly fit?: number;
  /** Each line is high enough for a finger. */
  readonly roomy?: boolean;
}

/** The strand runs here; the other lanes to its left, the names to its right. */
const AXIS = 74;
const NAMES = 124;
/** From here on a percentage stands beside the name. */
export const WORTH_A_NUMBER = 0.04;
/** Height of a line of small type, px. */
const SMALL_LINE = 18;
/** Letters of a name that still fits beside "repair here" in large type on a phone. */
const LONG_NAME = 12;

/** Stations that the next check sees, as first and last row. */
export function flagSpan(rows: readonly Row[], next: RankedCheck | undefined): readonly [Row, Row] | undefined {
  if (!next) return undefined;
  const first = rows.findIndex((row) => row.id === next.station);
  const to = next.key.split('>')[1];
  const end =
    to === undefined
      ? first
      : to === 'end'
        ? rows.findLastIndex((row) => row.kind === 'heat-break')
        : rows.findIndex((row) => row.id === to) - 1;
  const [a, b] = [rows[first], rows[Math.max(first, end)]];
  return a && b ? [a, b] : undefined;
}

/**
 * The filament path as one strand, spool at the top: it swells and is hatched where it may be stuck, and is thin and
 * straight where it is proved clear.
 */
export function Strand({
  machine,
  route,
  stations,
  cleared,
  colour,
  next,
  repairAt,
  chosen,
  onStation,
  width,
  fit,
  roomy = false,
}: StrandProps) {
  const palette = usePalette();
  const scale = useTextScale();
  const suspicions = useTween(stations.map((station) => station.suspicion));
  const { rows, labels, height } = layoutStrand(
    route,
    stations,
    suspicions,
    fit === undefined ? { scale, ...(roomy ? { row: TARGET } : {}) } : { scale, fit },
  );
  const most = Math.max(...stations.map((station) => (station.clearedBy === undefined ? station.suspicion : 0)), 0);
  const span = flagSpan(rows, next);
  const fill = filamentColour(colour);
  const points = rows.flatMap((row) => [
    { y: row.top, w: Math.min(row.swell, 4.5) },
    { y: row.middle, w: row.swell },
  ]);
  const last = rows.at(-1);
  if (last) points.push({ y: last.top + last.height, w: 1.5 });
  const outline =
    area<{ y: number; w: number }>()
      .y((point) => point.y)
      .x0((point) => AXIS - point.w)
      .x1((point) => AXIS + point.w)
      .curve(curveMonotoneY)(points) ?? '';
  const marked = rows.find((row) => row.id === chosen);
  const doubted = rows.filter((row) => row.suspicion >= WORTH_A_NUMBER && row.clearedBy === undefined);

  return (
    <View style={{ width, height }} role="group" aria-label={`Filament path of ${machine.name}`}>
      <Svg width={width} height={height} aria-hidden>
        <Defs>
          <Pattern id="doubt" patternUnits="userSpaceOnUse" width={7} height={7} patternTransform="rotate(45)">
            <Line x1={0} y1={0} x2={0} y2={7} stroke={palette.doubt} strokeWidth={4} />
          </Pattern>
          <ClipPath id="strand">
            <Path d={outline} />
          </ClipPath>
        </Defs>
        {marked ? <Rect x={0} y={marked.top} width={width} height={marked.height} fill={palette.doubtWash} /> : null}
        <OtherLanes machine={machine} route={route} rows={rows} stroke={palette.housing} />
        <Housings rows={rows} x={AXIS} stroke={palette.housing} fill={palette.card} />
        <Path d={outline} fill={fill} stroke={palette.ink} strokeWidth={1.2} />
        <G clipPath="url(#strand)">
          <Path
            d={doubted.map((row) => `M${AXIS - 40} ${row.top}h80v${row.height}h-80Z`).join('') || 'M0 0'}
            fill="url(#doubt)"
          />
        </G>
        {doubted.length > 0 ? <Path d={outline} fill="none" stroke={palette.ink} strokeWidth={1.2} /> : null}
        {cleared.map((item) => (
          <ClearedMark key={item.from} rows={rows} span={item} stroke={palette.clear} />
        ))}
        {span ? (
          <G>
            <Path
              d={`M${AXIS - 36} ${span[0].top + 3} h-9 V${span[1].top + span[1].height - 3} h9`}
              fill="none"
              stroke={palette.deed}
              strokeWidth={2.5}
              strokeLinejoin="round"
            />
            <Path d={`M${AXIS - 45} ${span[0].top + 3} h-24 l6 8 l-6 8 h24 Z`} fill={palette.deed} />
          </G>
        ) : null}
      </Svg>
      <View style={StyleSheet.absoluteFill} testID={roomy ? 'strand-names-roomy' : 'strand-names'}>
        {labels.map((label) => (
          <StationLine
            key={label.rows[0]?.id}
            label={label}
            most={most}
            flag={next !== undefined && label.rows.some((row) => row.id === next.station)}
            repair={label.rows.some((row) => row.id === repairAt)}
            {...(onStation ? { onStation } : {})}
          />
        ))}
      </View>
    </View>
  );
}

/** A line beside the strand, from the first to the last station of a cleared span, with a tick at each. */
function ClearedMark({
  rows,
  span,
  stroke,
}: {
  readonly rows: readonly Row[];
  readonly span: ClearedSpan;
  readonly stroke: string;
}) {
  const inside = rows.filter((row) => span.stations.includes(row.id));
  return (
    <Path
      d={inside.map((row) => `M${AXIS + 32} ${row.middle}l3 3l5.5 -7`).join('') || 'M0 0'}
      fill="none"
      stroke={stroke}
      strokeWidth={2.2}
    />
  );
}

/** What is not in use: lanes that merge into this path where they merge, and another head as a path of its own. */
function OtherLanes({
  machine,
  route,
  rows,
  stroke,
}: {
  readonly machine: Machine;
  readonly route: Route;
  readonly rows: readonly Row[];
  readonly stroke: string;
}) {
  const top = rows[0]?.top ?? 0;
  const last = rows.at(-1);
  const bottom = last ? last.top + last.height : top;
  const used = new Set(route.stops.map((stop) => stop.run));
  const others = machine.runs.filter((run) => !used.has(run.id));
  return (
    <G>
      {others.map((run, i) => {
        const x = 8 + i * 9;
        const merge = run.into === undefined ? undefined : rows.find((row) => row.id === run.into);
        const pen = { fill: 'none', stroke, strokeWidth: 1.5, strokeDasharray: '5 3' };
        if (merge) {
          // Where the merge lies near the top there is little room for the bend.
          const bend = Math.min(22, merge.top - top);
          return (
            <Path
              key={run.id}
              d={`M${x} ${top} V${merge.top - bend} C${x} ${merge.top - 6} ${AXIS - 20} ${merge.top - 14} ${AXIS - 16 + i * 5} ${merge.top + 3}`}
              {...pen}
            />
          );
        }
        const tip = bottom - 12;
        return run.into === undefined ? (
          <G key={run.id}>
            <Path d={`M${x + 4} ${top} V${tip - 10}`} {...pen} />
            <Path
              d={`M${x - 3} ${tip - 10} h14 v6 l-5 7 h-4 l-5 -7 Z`}
              fill="none"
              stroke={stroke}
              strokeWidth={1.5}
              strokeLinejoin="round"
            />
          </G>
        ) : null;
      })}
    </G>
  );
}

interface StationLineProps {
  readonly label: Label;
  /** Suspicion of the leading station; those near it stand out. */
  readonly most: number;
  readonly flag: boolean;
  readonly repair: boolean;
  readonly onStation?: (id: string) => void;
}

/** Name and suspicion beside the strand; quiet neighbours share a line, a tap then opens the most suspected of them. */
function StationLine({ label, most, flag, repair, onStation }: StationLineProps) {
  const row = [...label.rows].sort((a, b) => b.suspicion - a.suspicion)[0] as Row;
  const cleared = row.clearedBy !== undefined;
  const worth = row.suspicion >= WORTH_A_NUMBER && !cleared;
  const share = `${Math.round(row.suspicion * 100)}\u202f%`;
  const words = cleared ? 'cleared' : worth ? `suspicion ${share}` : 'little suspicion';
  const leading = worth && row.suspicion >= 0.75 * most;
  // Beside "repair here" a long name in large type would be cut off.
  const crowded = repair && label.text.length > LONG_NAME;
  const scale = useTextScale();
  return (
    <Pressable
      role="button"
      aria-label={`${label.text}: ${words}${flag ? ', the next check is here' : ''}${repair ? ', repair begins here' : ''}`}
      onPress={() => onStation?.(row.id)}
      disabled={!onStation}
      style={[styles.line, { top: label.top, height: label.height }]}
    >
      <Text
        kind={leading && !crowded ? 'large' : 'small'}
        bold={leading || flag}
        tone={cleared ? 'clear' : worth ? 'ink' : 'soft'}
        lines={crowded && label.height >= 2 * SMALL_LINE * scale ? 2 : 1}
        style={styles.name}
      >
        {label.text}
      </Text>
      {repair ? (
        <Text kind="small" bold tone="deed">
          repair here
        </Text>
      ) : null}
      {worth ? (
        <Text
          tone="doubt"
          bold
          style={{
            fontFamily: fonts.figure,
            fontSize: (leading ? 20 : 14) * scale,
            lineHeight: (leading ? 24 : SMALL_LINE) * scale,
            letterSpacing: -1,
          }}
        >
          {share}
        </Text>
      ) : null}
    </Pressable>
  );
}

const styles = StyleSheet.create({
  line: {
    position: 'absolute',
    left: 0,
    right: space.s,
    paddingLeft: NAMES,
    flexDirection: 'row',
    alignItems: 'center',
    gap: space.s,
  },
  name: { flexShrink: 1, flexGrow: 1 },
});

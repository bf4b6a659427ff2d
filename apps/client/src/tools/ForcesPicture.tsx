import type { PathForces } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Line, Path, Rect } from 'react-native-svg';
import { Chart, ChartText } from '../ui/Chart';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';

export const newtons = (n: number): string => `${n < 10 ? n.toFixed(1) : n.toFixed(0)} N`;

/** Force on the strand from spool to nozzle: drawn up to the gears, pushed behind them. */
export function AlongPath({ found, gripN }: { readonly found: PathForces; readonly gripN: number }) {
  const palette = usePalette();
  const { stations, buckles, pullN, pushN } = found;
  const pulled = stations.filter(({ side }) => side === 'pull');
  const pushed = stations.filter(({ side }) => side === 'push');
  // Each station takes the same room: a tube of a metre would leave the hot end a dot.
  const high = Math.max(pullN, pushN) * 1.25;
  const limit = Math.min(buckles.forceN, gripN - pullN);
  return (
    <View style={styles.side}>
      <Chart
        label={`Force along the path: ${stations
          .map(({ stop, side, fromN, toN }) => `${stop.station.name} ${newtons(side === 'pull' ? toN : fromN)}`)
          .join(', ')}; the gears pull with ${newtons(pullN)} and push with ${newtons(pushN)}`}
        across={{ from: 0, to: stations.length + 1, words: () => '', ticks: 1 }}
        up={{ from: 0, to: high, words: (n) => `${n} N` }}
        height={240}
      >
        {(x, y) => {
          const bars = [
            ...pulled.map((one, i) => ({ one, at: i, n: one.toN })),
            ...pushed.map((one, i) => ({ one, at: pulled.length + 1 + i, n: one.fromN })),
          ];
          const step = (list: typeof bars): string =>
            list.map(({ at, n }, i) => `${i ? 'L' : 'M'}${x(at)} ${y(n)}L${x(at + 1)} ${y(n)}`).join('');
          return [
            <Rect
              key="gears"
              x={x(pulled.length)}
              y={y(high)}
              width={x(1) - x(0)}
              height={y(0) - y(high)}
              fill={palette.deedWash}
            />,
            ...(limit > 0 && limit < high
              ? [
                  <Line
                    key="limit"
                    x1={x(pulled.length + 1)}
                    x2={x(stations.length + 1)}
                    y1={y(limit)}
                    y2={y(limit)}
                    stroke={palette.fault}
                    strokeWidth={2}
                    strokeDasharray="6 4"
                  />,
                ]
              : []),
            <Path
              key="pull"
              d={step(bars.slice(0, pulled.length))}
              stroke={palette.housing}
              strokeWidth={2}
              fill="none"
            />,
            <Path key="push" d={step(bars.slice(pulled.length))} stroke={palette.deed} strokeWidth={4} fill="none" />,
            <ChartText key="word" x={x(pulled.length + 0.5)} y={y(high) + 14} anchor="middle">
              gears
            </ChartText>,
          ];
        }}
      </Chart>
      <Text kind="small" tone="soft">
        {`Thin line: drawn from the spool. Strong line: pushed to the nozzle. Each station takes the same room.${limit > 0 && limit < high ? ' Broken line: where the weakest link gives way.' : ''}`}
      </Text>
      {stations.map(({ stop, side, fromN, toN, addsN }) => (
        <View key={stop.station.id} style={styles.entry}>
          <Text style={styles.name}>{stop.station.name}</Text>
          <Text kind="figure">{newtons(side === 'pull' ? toN : fromN)}</Text>
          <Text kind="small" tone="soft" style={styles.adds}>{`adds ${newtons(addsN)}`}</Text>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  side: { gap: space.s },
  entry: { flexDirection: 'row', alignItems: 'baseline', gap: space.s },
  name: { flex: 1, minWidth: 0 },
  adds: { width: 92, textAlign: 'right' },
});

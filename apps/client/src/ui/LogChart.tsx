import type { LogLine, LogSummary } from '@zealous/core';
import { Circle, Polyline } from 'react-native-svg';
import { Chart } from './Chart';
import { usePalette } from './theme';

/** More points than this no screen shows: of each stretch the coldest and the hottest line stand for it. */
const MOST_STRETCHES = 240;

/** Lines that draw the same picture: coldest and hottest of each stretch, in order. */
export function thinned(log: readonly LogLine[], stretches = MOST_STRETCHES): readonly LogLine[] {
  if (log.length <= 2 * stretches) return log;
  const each = Math.ceil(log.length / stretches);
  return Array.from({ length: Math.ceil(log.length / each) }, (_, i) => log.slice(i * each, (i + 1) * each)).flatMap(
    (part) => {
      const least = part.reduce((a, b) => (b.temperatureC < a.temperatureC ? b : a));
      const most = part.reduce((a, b) => (b.temperatureC > a.temperatureC ? b : a));
      return least === most ? [least] : least.atS < most.atS ? [least, most] : [most, least];
    },
  );
}

/** A temperature log over time, with its target, and where it jumps or drops. */
export function LogChart({ log, summary }: { readonly log: readonly LogLine[]; readonly summary: LogSummary }) {
  const palette = usePalette();
  const from = log[0]?.atS ?? 0;
  const to = Math.max(from + 1, log.at(-1)?.atS ?? 0);
  const high = 1.05 * Math.max(summary.highestC, ...log.map(({ targetC }) => targetC ?? 0), 1);
  const low = Math.min(0, ...log.map(({ temperatureC }) => temperatureC));
  const drawn = thinned(log);
  return (
    <Chart
      label={`temperature over ${Math.round((to - from) / 60)} min, highest ${summary.highestC.toFixed(0)} °C, ${summary.jumpsAtS.length} jumps, ${summary.drops.length} ${summary.drops.length === 1 ? 'drop' : 'drops'}`}
      across={{ from: 0, to: (to - from) / 60, words: (min) => `${min} min`, ticks: 4 }}
      up={{ from: low, to: high, words: (c) => `${c}°` }}
      height={170}
    >
      {(x, y) => {
        const at = (s: number): number => x((s - from) / 60);
        const temperature = (s: number): number =>
          log.reduce((near, line) => (Math.abs(line.atS - s) < Math.abs(near.atS - s) ? line : near)).temperatureC;
        return [
          <Polyline
            key="target"
            points={drawn.map((line) => `${at(line.atS)},${y(line.targetC ?? 0)}`).join(' ')}
            fill="none"
            stroke={palette.housing}
            strokeWidth={1.5}
            strokeDasharray="6 4"
          />,
          <Polyline
            key="is"
            points={drawn.map((line) => `${at(line.atS)},${y(line.temperatureC)}`).join(' ')}
            fill="none"
            stroke={palette.deed}
            strokeWidth={2.5}
          />,
          ...[...summary.jumpsAtS, ...summary.drops.map(({ atS }) => atS)].map((s) => (
            <Circle
              key={s}
              cx={at(s)}
              cy={y(temperature(s))}
              r={5}
              fill="none"
              stroke={palette.fault}
              strokeWidth={2}
            />
          )),
        ];
      }}
    </Chart>
  );
}

import { fitFeedCurve, type FedAt, type FeedCurve, type Machine } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Circle, Line, Polyline } from 'react-native-svg';
import type { Recorder } from '../data/useOrder';
import { Chart } from '../ui/Chart';
import { Card } from '../ui/Card';
import { NumberField } from '../ui/form/NumberField';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';

const START: readonly number[] = [1, 2, 3, 4, 5, 6];
const HEIGHT = 180;

/** Fed length at several speeds: where the hot end no longer melts what is asked. */
export function FeedCurveCard({
  machine,
  curve,
  record,
}: {
  readonly machine: Machine;
  readonly curve: readonly FedAt[] | undefined;
  readonly record: Recorder;
}) {
  const [open, setOpen] = useState(false);
  const [speeds, setSpeeds] = useState(curve ? curve.map((p) => p.mmPerS) : START);
  const [fed, setFed] = useState<Readonly<Record<number, number>>>(
    Object.fromEntries((curve ?? []).map((p) => [p.mmPerS, (100 * p.fedMm) / p.askedMm])),
  );
  if (!open)
    return (
      <Button
        label="What does this hot end melt? Feed at several speeds"
        kind="quiet"
        icon="chevron-down"
        onPress={() => setOpen(true)}
        style={styles.start}
      />
    );
  const points = speeds.flatMap((mmPerS): FedAt[] => {
    const fedMm = fed[mmPerS];
    return fedMm === undefined ? [] : [{ mmPerS, askedMm: 100, fedMm }];
  });
  const fit = points.length >= 4 ? fitFeedCurve(points, machine.strandMm) : undefined;
  return (
    <Card edge="deed">
      <Text bold heading={2}>
        Feed at several speeds
      </Text>
      <Text kind="small" tone="soft">
        Ask 100 mm each time, hot, into free air; enter what went in. Four speeds at least.
      </Text>
      <View style={styles.row}>
        {speeds.map((speed) => (
          <NumberField
            key={speed}
            label={`at ${speed} mm/s, fed mm`}
            value={fed[speed]}
            fits={(n) => n >= 0 && n <= 200}
            style={styles.field}
            onChange={(n) => {
              const { [speed]: _old, ...rest } = fed;
              setFed(n === undefined ? rest : { ...rest, [speed]: n });
            }}
          />
        ))}
      </View>
      <Button
        label="A faster one"
        icon="plus"
        kind="quiet"
        style={styles.start}
        onPress={() => setSpeeds([...speeds, (speeds.at(-1) ?? 0) + 2])}
      />
      {fit ? <Curve points={points} fit={fit} /> : null}
      {fit ? (
        <Text bold testID="five-percent">
          {sayCurve(fit)}
        </Text>
      ) : null}
      {fit ? (
        <Button
          label={curve === undefined ? 'Keep it in the record' : 'Keep the new one in the record'}
          icon="check"
          style={styles.start}
          onPress={() => record('curve-measured', { points })}
        />
      ) : null}
    </Card>
  );
}

function sayCurve(fit: FeedCurve): string {
  if (fit.fivePercentMmPerS === undefined)
    return fit.kneeMmPerS === undefined
      ? `No fall-off up to ${fit.fastestMmPerS} mm/s: ${(fit.level * 100).toFixed(1)} % is fed at every speed.`
      : `It begins to fall off at ${fit.kneeMmPerS.toFixed(1)} mm/s; 5 % lies beyond ${fit.fastestMmPerS} mm/s.`;
  return `5 % is lost at ${fit.fivePercentMmPerS.toFixed(1)} ± ${(fit.standardError ?? 0).toFixed(1)} mm/s of strand, ${(fit.flowMm3PerS ?? 0).toFixed(1)} mm³/s.`;
}

function Curve({ points, fit }: { readonly points: readonly FedAt[]; readonly fit: FeedCurve }) {
  const palette = usePalette();
  const fastest = Math.max(...points.map((p) => p.mmPerS));
  const lowest = Math.min(0.8, ...points.map((p) => p.fedMm / p.askedMm)) - 0.02;
  const knee = fit.kneeMmPerS ?? fastest;
  const end = fit.level - (fit.slope ?? 0) * (fastest - knee);
  return (
    <View>
      <Chart
        label={sayCurve(fit)}
        across={{ from: 0, to: fastest, words: String }}
        up={{ from: lowest, to: 1.03, words: (share) => `${Math.round(share * 100)} %` }}
        height={HEIGHT}
      >
        {(x, y) => (
          <>
            <Polyline
              points={`${x(0)},${y(fit.level)} ${x(knee)},${y(fit.level)} ${x(fastest)},${y(end)}`}
              fill="none"
              stroke={palette.deed}
              strokeWidth={2.5}
            />
            {fit.fivePercentMmPerS === undefined ? null : (
              <Line
                x1={x(fit.fivePercentMmPerS)}
                x2={x(fit.fivePercentMmPerS)}
                y1={y(1.03)}
                y2={y(lowest)}
                stroke={palette.warm}
                strokeWidth={2}
                strokeDasharray="5 4"
              />
            )}
            {points.map((p) => (
              <Circle key={p.mmPerS} cx={x(p.mmPerS)} cy={y(p.fedMm / p.askedMm)} r={4} fill={palette.ink} />
            ))}
          </>
        )}
      </Chart>
      <Text kind="small" tone="soft">
        Share fed against the speed of the strand, mm/s.
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  start: { alignSelf: 'flex-start' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  field: { flexGrow: 1, flexBasis: 140, minWidth: 0 },
});

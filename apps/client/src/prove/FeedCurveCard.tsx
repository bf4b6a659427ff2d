import { fitFeedCurve, type FedAt, type FeedCurve, type Machine } from '@zealous/core';
import { useState } from 'react';
import { useFieldArray, useWatch, type FieldErrors } from 'react-hook-form';
import { StyleSheet, View } from 'react-native';
import { Circle, Line, Polyline } from 'react-native-svg';
import type { Recorder } from '../data/useOrder';
import { Chart } from '../ui/Chart';
import { Card } from '../ui/Card';
import { FormNumber } from '../ui/form/FormFields';
import { useEntryForm } from '../ui/form/useEntryForm';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';

/** A speed and what went in at it; what is empty was not tried. */
interface Speed {
  readonly mmPerS: number;
  readonly fedMm?: number | string | undefined;
}
interface Values {
  readonly speeds: readonly Speed[];
}
const START: readonly Speed[] = [1, 2, 3, 4, 5, 6].map((mmPerS) => ({ mmPerS }));
/** Asked at every speed, mm. */
const ASKED_MM = 100;
const LEAST_SPEEDS = 4;
const HEIGHT = 180;

const pointsOf = ({ speeds }: Values) =>
  speeds.flatMap(({ mmPerS, fedMm }) => (fedMm === undefined ? [] : [{ mmPerS, askedMm: ASKED_MM, fedMm }]));
const numbers = (point: { readonly fedMm: number | string }): point is FedAt =>
  typeof point.fedMm === 'number' && point.fedMm >= 0;

/** What is wrong with a point stands at its speed: speeds that were not tried are no points. */
function placed(errors: FieldErrors, { speeds }: Values): FieldErrors<Values> {
  const wrong = (errors as FieldErrors<{ points: { fedMm: unknown }[] }>).points;
  const tried = speeds.flatMap(({ fedMm }, at) => (fedMm === undefined ? [] : [at]));
  const at: FieldErrors[] = [];
  tried.forEach((speed, i) => {
    const point = wrong?.[i];
    if (point) at[speed] = point as FieldErrors;
  });
  return { speeds: at } as FieldErrors<Values>;
}

/** Fed length at several speeds: where the hot end no longer melts what is asked. */
export function FeedCurveCard({
  orderId,
  machine,
  curve,
  record,
}: {
  readonly orderId: string;
  readonly machine: Machine;
  readonly curve: readonly FedAt[] | undefined;
  readonly record: Recorder;
}) {
  const [open, setOpen] = useState(false);
  const form = useEntryForm<'curve-measured', Values>({
    type: 'curve-measured',
    keep: `curve:${orderId}`,
    defaults: {
      speeds: curve ? curve.map((p) => ({ mmPerS: p.mmPerS, fedMm: (ASKED_MM * p.fedMm) / p.askedMm })) : START,
    },
    toBody: (values) => ({ points: pointsOf(values) }),
    toFields: placed,
  });
  const { fields, append } = useFieldArray({ control: form.control as never, name: 'speeds' as never });
  const values = useWatch({ control: form.control }) as Values;
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
  const points = pointsOf(values).filter(numbers);
  const fit = points.length >= LEAST_SPEEDS ? fitFeedCurve(points, machine.strandMm) : undefined;
  return (
    <Card edge="deed">
      <Text bold heading={2}>
        Feed at several speeds
      </Text>
      <Text kind="small" tone="soft">
        Ask 100 mm each time, hot, into free air; enter what went in. Four speeds at least.
      </Text>
      <View style={styles.row}>
        {fields.map(({ id }, i) => (
          <FormNumber
            key={id}
            control={form.control}
            name={`speeds.${i}.fedMm` as never}
            label={`at ${values.speeds[i]?.mmPerS ?? 0} mm/s, fed mm`}
            style={styles.field}
          />
        ))}
      </View>
      <Button
        label="A faster one"
        icon="plus"
        kind="quiet"
        style={styles.start}
        onPress={() => append({ mmPerS: (values.speeds.at(-1)?.mmPerS ?? 0) + 2 } as never)}
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
          onPress={() => form.submit((body) => record('curve-measured', body))}
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

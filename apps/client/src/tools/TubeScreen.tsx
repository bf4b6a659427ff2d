import { figureFault, TubeFigures } from '@zealous/contracts/tools';
import { couplerTravel, retractionChange, type Point3, type TubePlan, type TubeTask } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Line, Polyline, Rect } from 'react-native-svg';
import { Card, Section } from '../ui/Card';
import { ChartText } from '../ui/Chart';
import { Choice } from '../ui/Choice';
import { FormNumber } from '../ui/form/FormFields';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { tracer } from '../workers/trace';
import { ShareAddress } from './ShareAddress';
import { useAddressedChoice, useAddressedFigures } from './useAddressed';
import { useWorkedOut } from './useWorkedOut';

/** Figures of a usual open frame, to begin from. */
const START = {
  fromX: -60,
  fromZ: 250,
  lean: 20,
  travelX: 220,
  travelY: 0,
  travelZ: 250,
  headX: 20,
  headZ: 60,
  seatFixed: 12,
  seatMoving: 45,
  radius: 35,
  margin: 8,
  boreNew: 1.9,
  boreOld: 2,
  oldLength: 430,
};
type Figures = Readonly<Record<keyof typeof START, number | undefined>>;
const fault = (name: string, n: number) => figureFault(TubeFigures, name, n);

const FIELDS: readonly (readonly [keyof typeof START, string])[] = [
  ['fromX', 'Extruder mouth, across, mm'],
  ['fromZ', 'Extruder mouth, height, mm'],
  ['lean', 'Extruder mouth leans to the right, degrees'],
  ['headX', 'Hot-end mouth with the head at 0, across'],
  ['headZ', 'Hot-end mouth with the head at 0, height'],
  ['travelX', 'Travel across, mm'],
  ['travelY', 'Travel to the back, mm (0 when the bed moves)'],
  ['travelZ', 'Travel up, mm'],
  ['seatFixed', 'Seat depth at the extruder, mm'],
  ['seatMoving', 'Seat depth at the hot end, mm'],
  ['radius', 'Least bend radius, mm'],
  ['margin', 'Spare over the shortest, mm'],
  ['boreNew', 'Bore of the new tube, mm'],
  ['boreOld', 'Bore of the old tube, mm'],
  ['oldLength', 'Length of the old piece, mm'],
];

const CUTS = [
  { id: 'square', label: 'Square at both ends' },
  { id: 'bevel', label: 'Small inner bevel at the entry' },
] as const;

function taskOf(figures: Figures): TubeTask {
  const at = (name: keyof typeof START): number => figures[name] ?? 0;
  const lean = (at('lean') * Math.PI) / 180;
  return {
    fixed: { at: { x: at('fromX'), y: 0, z: at('fromZ') }, towards: { x: Math.sin(lean), y: 0, z: Math.cos(lean) } },
    moving: { at: { x: at('headX'), y: 0, z: at('headZ') }, towards: { x: 0, y: 0, z: 1 } },
    travel: { x: at('travelX'), y: at('travelY'), z: at('travelZ') },
    seatFixedMm: at('seatFixed'),
    seatMovingMm: at('seatMoving'),
    leastRadiusMm: at('radius'),
    marginMm: at('margin'),
  };
}

/** How long a tube must be, and how it lies at the corners of travel. */
export function TubeScreen() {
  const [figures, control] = useAddressedFigures(START, fault);
  const [cut, setCut] = useAddressedChoice<'square' | 'bevel'>('cut', 'square', ['square', 'bevel']);
  const { found: plan, problem } = useWorkedOut(figures, (of) => tracer().planTube(taskOf(of)));
  return (
    <Page title="How long must the tube be?" back="/tools">
      <View style={styles.column}>
        <Text tone="soft">
          The shortest tube that reaches every corner of travel without a bend that is too tight. Keep the original
          piece for good: it is the length reference.
        </Text>
        {problem ? (
          <Text bold tone="fault">
            {problem}
          </Text>
        ) : null}
        {!plan && !problem ? <Text tone="soft">Working it out …</Text> : null}
        {plan ? <Result plan={plan} figures={figures} cut={cut} /> : null}
        <Text bold heading={2}>
          Figures of this machine
        </Text>
        <View style={styles.row}>
          {FIELDS.map(([name, label]) => (
            <FormNumber key={name} control={control} name={name} label={label} style={styles.field} />
          ))}
        </View>
        <Text bold>Cut</Text>
        <Choice label="Cut" options={CUTS} chosen={[cut]} onToggle={setCut} />
        <ShareAddress />
      </View>
    </Page>
  );
}

function Result({
  plan,
  figures,
  cut,
}: {
  readonly plan: TubePlan;
  readonly figures: Figures;
  readonly cut: 'square' | 'bevel';
}) {
  const { boreNew = 0, boreOld = 0, oldLength = 0 } = figures;
  const bendRad = plan.slackest.bendRad;
  const change =
    boreNew >= 1.75 && boreOld >= 1.75
      ? retractionChange(1.75, { boreMm: boreOld, bendRad }, { boreMm: boreNew, bendRad })
      : undefined;
  const difference = plan.cutMm - oldLength;
  return (
    <View style={styles.column}>
      <Card edge={plan.fits ? 'clear' : 'fault'}>
        <Text kind="large" bold testID="cut-length">
          {`Cut ${Math.ceil(plan.cutMm)} mm, up to ${Math.round(plan.toleranceMm)} mm more, never less.`}
        </Text>
        <Text>
          {`Tightest bend ${Math.round(plan.tightest.radiusMm)} mm, at ${cornerText(plan.tightest.corner)}; slackest at ${cornerText(plan.slackest.corner)}, ${Math.round(plan.slackest.slackMm)} mm to spare.`}
        </Text>
        {plan.fits ? null : (
          <Text bold tone="fault">
            No length reaches every corner without a tighter bend: move a mouth, or accept a smaller radius.
          </Text>
        )}
        <Text>
          {Math.abs(difference) < 3
            ? 'As long as the old piece.'
            : `${Math.abs(Math.round(difference))} mm ${difference > 0 ? 'longer' : 'shorter'} than the old piece.`}
        </Text>
        {change === undefined ? null : (
          <Text>
            {Math.abs(change) < 0.02
              ? 'Retraction stays as it was.'
              : `Retraction: about ${Math.abs(change).toFixed(2)} mm ${change < 0 ? 'less' : 'more'} (clearance times bend).`}
          </Text>
        )}
        <Text>
          {cut === 'square'
            ? 'Guillotine cutter, square at both ends; off-square: cut again.'
            : 'Square at the seat; at the entry side a small inner bevel, turned by hand.'}
        </Text>
      </Card>
      <Drawing plan={plan} />
      <Section title="Coupler">
        <Text>
          {`Hot-end side: to the bottom, three quarters of a turn back, tube home at 200 °C, three quarters in: it presses the tube end ${couplerTravel('M10', 0.75).toFixed(2)} mm at most (M10 × 1). Extruder side: hand tight, then a quarter to half a turn: ${couplerTravel('M6', 0.25).toFixed(2)} to ${couplerTravel('M6', 0.5).toFixed(2)} mm (M6 × 1). That is travel, not force.`}
        </Text>
      </Section>
    </View>
  );
}

const cornerText = ({ x, y, z }: Point3): string =>
  [x > 0 ? 'far right' : 'left', y > 0 ? 'back' : '', z > 0 ? 'top' : 'bottom'].filter(Boolean).join(' ');

const WIDTH = 360;
const HEIGHT = 300;

/** Seen from the front: the tube at every corner, the tightest and the slackest drawn strong. */
function Drawing({ plan }: { readonly plan: TubePlan }) {
  const palette = usePalette();
  const all = plan.corners.flatMap(({ curve }) => curve);
  const [left, right] = [Math.min(...all.map((p) => p.x)), Math.max(...all.map((p) => p.x))];
  const [low, high] = [Math.min(...all.map((p) => p.z)), Math.max(...all.map((p) => p.z))];
  const scale = Math.min((WIDTH - 40) / Math.max(1, right - left), (HEIGHT - 50) / Math.max(1, high - low));
  const x = (p: Point3): number => 20 + (p.x - left) * scale;
  const y = (p: Point3): number => HEIGHT - 30 - (p.z - low) * scale;
  const line = (curve: readonly Point3[]): string => curve.map((p) => `${x(p)},${y(p)}`).join(' ');
  const start = all[0];
  return (
    <View
      role="img"
      aria-label={`The tube at ${plan.corners.length} corners of travel, from the front; tightest bend ${Math.round(plan.tightest.radiusMm)} mm`}
    >
      <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`}>
        <Rect x={4} y={4} width={WIDTH - 8} height={HEIGHT - 8} rx={8} fill="none" stroke={palette.line} />
        {plan.corners.map((corner, i) => {
          const strong = corner === plan.tightest ? palette.warm : corner === plan.slackest ? palette.deed : undefined;
          return (
            <Polyline
              key={i}
              points={line(corner.curve)}
              fill="none"
              stroke={strong ?? palette.housing}
              strokeWidth={strong ? 3 : 1.5}
              {...(corner === plan.slackest ? { strokeDasharray: '7 5' } : {})}
            />
          );
        })}
        {plan.corners.map((corner, i) => {
          const end = corner.curve.at(-1);
          return end ? <Circle key={i} cx={x(end)} cy={y(end)} r={4} fill={palette.ink} /> : null;
        })}
        {start ? <Circle cx={x(start)} cy={y(start)} r={6} fill={palette.deed} /> : null}
        <Line x1={20} y1={HEIGHT - 14} x2={20 + 100 * scale} y2={HEIGHT - 14} stroke={palette.soft} strokeWidth={2} />
        <ChartText x={26 + 100 * scale} y={HEIGHT - 10} anchor="start" soft>
          100 mm
        </ChartText>
      </Svg>
      <Text kind="small" tone="soft">
        Solid warm: the tightest bend. Dashed: the slackest. The large dot is the extruder’s mouth.
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.m, maxWidth: 860, width: '100%', alignSelf: 'center' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  field: { flexGrow: 1, flexBasis: 150 },
});

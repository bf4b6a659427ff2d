import { gestureOf, type Gesture, type CheckAtPlace, type Route } from '@zealous/core';
import { View } from 'react-native';
import Svg, { Circle, G, Line, Path } from 'react-native-svg';
import { Housings } from '../ui/strand/Housings';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';

/** One station, and the whole drawing, px. */
const CELL = 42;
const HEIGHT = 40;
const MIDDLE = HEIGHT / 2;
/** Room for an arrow at either end. */
const END = 20;

interface Drawn {
  readonly kind: string;
  readonly name: string;
}

/** The station of a check, or the first and the last of the stretch that it tries. */
function stretchOf(place: CheckAtPlace, route: Route, act: Gesture): readonly Drawn[] {
  const own = route.stops.find(({ station }) => station.id === place.station);
  const seen = route.stops.filter(({ index }) => place.reach.has(index));
  const along = act === 'push' || act === 'pull' || act === 'from-below';
  const stops = along && !place.wholePath && seen.length > 1 ? [seen[0], seen.at(-1)] : [own ?? seen[0]];
  return stops.flatMap((stop) => (stop ? [{ kind: stop.station.kind, name: stop.station.name }] : []));
}

const SAYS: Readonly<Record<Exclude<Gesture, 'ask'>, (from: string, to: string) => string>> = {
  push: (from, to) => `a strand goes in at ${from}, towards ${to}`,
  pull: (from, to) => `pull at ${to}, and feel what comes from ${from}`,
  'from-below': (from, to) => `from ${to} upwards, towards ${from}`,
  swap: (from) => `another one in the place of ${from}`,
  measure: (from) => `measure at ${from}`,
  look: (from) => `look at ${from}`,
};

/** What the hands do for a check, drawn from the machine's own stations; of a question there is nothing to draw. */
export function CheckSketch({ place, route }: { readonly place: CheckAtPlace; readonly route: Route }) {
  const palette = usePalette();
  const act = gestureOf(place.check);
  if (act === 'ask')
    return (
      <Text kind="small" tone="soft">
        A question: a drawing would not help.
      </Text>
    );
  const stretch = stretchOf(place, route, act);
  const [from, to = from] = stretch;
  if (!from || !to) return null;
  const inner = CELL * stretch.length + (stretch.length > 1 ? END : 0);
  const width = inner + 2 * END;
  const last = width - END - CELL / 2;
  const first = END + CELL / 2;
  return (
    <View role="img" aria-label={`Drawing: ${SAYS[act](from.name, to.name)}`}>
      <Svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden>
        {stretch.map(({ kind }, i) => (
          <G key={i} transform={`translate(${i === 0 ? END : width - END - CELL} ${MIDDLE}) rotate(-90) scale(0.62 1)`}>
            <Housings rows={[{ kind, top: 3, height: CELL - 6 }]} x={0} stroke={palette.housing} fill={palette.card} />
          </G>
        ))}
        <Line x1={8} x2={width - 8} y1={MIDDLE} y2={MIDDLE} stroke={palette.ink} strokeWidth={3} />
        {stretch.length > 1 ? (
          <Line
            x1={END + CELL + 4}
            x2={END + CELL + END - 4}
            y1={MIDDLE}
            y2={MIDDLE}
            stroke={palette.paper}
            strokeWidth={4}
            strokeDasharray="3 4"
          />
        ) : null}
        <Mark act={act} first={first} last={last} width={width} />
      </Svg>
    </View>
  );
}

function Mark({
  act,
  first,
  last,
  width,
}: {
  readonly act: Exclude<Gesture, 'ask'>;
  readonly first: number;
  readonly last: number;
  readonly width: number;
}) {
  const { deed } = usePalette();
  const pen = { stroke: deed, strokeWidth: 3, fill: 'none', strokeLinecap: 'round', strokeLinejoin: 'round' } as const;
  const right = (x: number) => `M${x} ${MIDDLE - 9} h14 m-6 -5 l6 5 l-6 5`;
  const left = (x: number) => `M${x} ${MIDDLE - 9} h-14 m6 -5 l-6 5 l6 5`;
  if (act === 'push') return <Path d={right(4)} {...pen} />;
  if (act === 'pull') return <Path d={right(width - 20)} {...pen} />;
  if (act === 'from-below') return <Path d={left(width - 4)} {...pen} />;
  if (act === 'swap')
    return (
      <Path
        d={`M${first - 34} ${MIDDLE - 8} h12 m-5 -5 l5 5 l-5 5 M${last + 34} ${MIDDLE + 8} h-12 m5 -5 l-5 5 l5 5`}
        {...pen}
      />
    );
  if (act === 'measure')
    return (
      <Path
        d={`M${first - 18} ${HEIGHT - 3} h36 ${[-18, -9, 0, 9, 18].map((dx) => `M${first + dx} ${HEIGHT - 3} v-7`).join(' ')}`}
        {...pen}
        strokeWidth={2}
      />
    );
  return (
    <G>
      <Circle cx={first} cy={MIDDLE} r={17} {...pen} strokeWidth={2.5} />
      <Line x1={first + 12} y1={MIDDLE + 12} x2={first + 22} y2={MIDDLE + 19} {...pen} />
    </G>
  );
}

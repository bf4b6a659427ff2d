import { heaterOhms, routeOf, steinhartHart, thermistorC, thermistorOhms } from '@zealous/core';
import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useOrder } from '../data/useOrder';
import { Card, Section } from '../ui/Card';
import { NumberField } from '../ui/form/NumberField';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const TITLE = 'What should the meter read?';
/** A usual sensor and heater, to begin from. */
const START = { kohm: 100, b: 3950, volts: 24, watts: 40 };
const TABLE_C = [20, 25, 60, 100, 150, 200, 220, 250] as const;

const inOhm = (ohms: number): string =>
  ohms >= 10_000
    ? `${(ohms / 1000).toFixed(1)} kΩ`
    : ohms >= 1000
      ? `${(ohms / 1000).toFixed(2)} kΩ`
      : `${ohms.toFixed(0)} Ω`;

type Points = Readonly<Record<number, { readonly c?: number | undefined; readonly ohm?: number | undefined }>>;

/** What a meter should read on a sound sensor and heater, and what a reading means. */
export function MeterScreen() {
  const { order } = useLocalSearchParams<{ readonly order?: string }>();
  return order ? <ForOrder order={order} /> : <Asked from={START} back="/tools" />;
}

/** With the heater that the order's machine states. */
function ForOrder({ order: id }: { readonly order: string }) {
  const { order, failure } = useOrder(id);
  if (!order)
    return (
      <Page title={TITLE} back="/tools">
        <Text tone="soft">{failure ?? 'Opening the order …'}</Text>
      </Page>
    );
  const heater = routeOf(order.machine, order.state.intake?.lane).stops.find(({ station }) => station.params?.heaterW);
  const { heaterV = START.volts, heaterW = START.watts } = heater?.station.params ?? {};
  return <Asked from={{ ...START, volts: heaterV, watts: heaterW }} back={`/order/${id}/trace`} />;
}

function Asked({ from, back }: { readonly from: typeof START; readonly back: string }) {
  const [figures, setFigures] = useState<Readonly<Record<keyof typeof START, number | undefined>>>(from);
  const [read, setRead] = useState<number | undefined>(undefined);
  const [points, setPoints] = useState<Points>({});
  const of = (name: keyof typeof START): number => figures[name] ?? from[name];
  const set = (name: keyof typeof START) => (n: number | undefined) => setFigures({ ...figures, [name]: n });
  const r25 = of('kohm') * 1000;
  const three = [0, 1, 2].flatMap((i) => {
    const { c, ohm } = points[i] ?? {};
    return c === undefined || ohm === undefined ? [] : [[c, ohm] as const];
  });
  let constants: ReturnType<typeof steinhartHart> | undefined;
  let problem = '';
  try {
    const [p, q, r] = three;
    if (p && q && r) constants = steinhartHart([p, q, r]);
  } catch (error) {
    problem = (error as Error).message;
  }
  // Without a table the sensor's rating serves: the same equation through three points of it.
  const rated = (c: number): readonly [number, number] => [c, thermistorOhms(c, r25, of('b'))];
  const known = constants ?? steinhartHart([rated(25), rated(150), rated(250)]);
  const field = (label: string, name: keyof typeof START, least: number, most: number) => (
    <NumberField
      label={label}
      value={figures[name]}
      fits={(n) => n >= least && n <= most}
      onChange={set(name)}
      style={styles.field}
    />
  );
  return (
    <Page title={TITLE} back={back}>
      <View style={styles.column}>
        <Text tone="soft">
          Power off, plug pulled, both wires on the meter. A reading that jumps when the cable is moved means a break,
          whatever its figure; the maker’s own table goes before this one.
        </Text>
        <Section title="Heater">
          <View style={styles.row}>
            {field('Supply, V', 'volts', 1, 60)}
            {field('Heater, W', 'watts', 1, 200)}
          </View>
          <Text
            bold
            testID="heater"
          >{`Should read ${heaterOhms(of('volts'), of('watts')).toFixed(1)} Ω cold, and more by a little when hot.`}</Text>
        </Section>
        <Section title="Temperature sensor">
          <View style={styles.row}>
            {field('At 25 °C, kΩ', 'kohm', 0.1, 1000)}
            {field('B value, K', 'b', 1000, 6000)}
            <NumberField
              label="The meter reads, Ω"
              value={read}
              fits={(n) => n > 0 && n <= 1e7}
              onChange={setRead}
              style={styles.field}
            />
          </View>
          {read === undefined ? null : (
            <Card>
              <Text
                bold
                testID="shows"
              >{`${inOhm(read)} stands for ${thermistorC(read, known).toFixed(1)} °C${constants ? ', by its own table' : ''}.`}</Text>
            </Card>
          )}
          {TABLE_C.map((c) => (
            <View key={c} style={styles.entry}>
              <Text style={styles.name}>{`${c} °C`}</Text>
              <Text kind="figure">{inOhm(thermistorOhms(c, r25, of('b')))}</Text>
            </View>
          ))}
          <Text tone="soft">
            With three points of the sensor’s own table a reading is told by them (Steinhart and Hart).
          </Text>
          {[0, 1, 2].map((i) => (
            <View key={i} style={styles.row}>
              <NumberField
                label={`Point ${i + 1}, °C`}
                value={points[i]?.c}
                fits={(n) => n > -50 && n <= 400}
                onChange={(c) => setPoints({ ...points, [i]: { ...points[i], c } })}
                style={styles.field}
              />
              <NumberField
                label={`Point ${i + 1}, Ω`}
                value={points[i]?.ohm}
                fits={(n) => n > 0 && n <= 1e8}
                onChange={(ohm) => setPoints({ ...points, [i]: { ...points[i], ohm } })}
                style={styles.field}
              />
            </View>
          ))}
          {problem ? (
            <Text bold tone="fault">
              {problem}
            </Text>
          ) : null}
        </Section>
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.m, maxWidth: 760, width: '100%', alignSelf: 'center' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  field: { flexGrow: 1, flexBasis: 150 },
  entry: { flexDirection: 'row', gap: space.s },
  name: { flex: 1 },
});

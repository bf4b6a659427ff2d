import { figureFault, MeterFigures } from '@zealous/contracts/tools';
import { heaterOhms, routeOf, steinhartHart, thermistorC, thermistorOhms } from '@zealous/core';
import { useLocalSearchParams } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useOrder } from '../data/useOrder';
import { Card, Section } from '../ui/Card';
import { FormNumber } from '../ui/form/FormFields';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { ShareAddress } from './ShareAddress';
import { useAddressedFigures } from './useAddressed';

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

/** What nothing stands for to begin with: the reading, and three points of the sensor's own table. */
const ASKED = {
  read: undefined,
  c1: undefined,
  ohm1: undefined,
  c2: undefined,
  ohm2: undefined,
  c3: undefined,
  ohm3: undefined,
} as const;
type Name = keyof typeof START | keyof typeof ASKED;
const POINTS = [
  ['c1', 'ohm1'],
  ['c2', 'ohm2'],
  ['c3', 'ohm3'],
] as const;

/** What each figure may be, from and to. */
const fault = (name: Name, n: number) => figureFault(MeterFigures, name, n);

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
  const [figures, control] = useAddressedFigures<Name>({ ...from, ...ASKED }, fault);
  const of = (name: keyof typeof START): number => figures[name] ?? from[name];
  const { read } = figures;
  const r25 = of('kohm') * 1000;
  const three = POINTS.flatMap(([c, ohm]) =>
    figures[c] === undefined || figures[ohm] === undefined ? [] : [[figures[c], figures[ohm]] as const],
  );
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
  const field = (label: string, name: Name) => (
    <FormNumber control={control} name={name} label={label} style={styles.field} />
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
            {field('Supply, V', 'volts')}
            {field('Heater, W', 'watts')}
          </View>
          <Text
            bold
            testID="heater"
          >{`Should read ${heaterOhms(of('volts'), of('watts')).toFixed(1)} Ω cold, and more by a little when hot.`}</Text>
        </Section>
        <Section title="Temperature sensor">
          <View style={styles.row}>
            {field('At 25 °C, kΩ', 'kohm')}
            {field('B value, K', 'b')}
            {field('The meter reads, Ω', 'read')}
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
          {POINTS.map(([c, ohm], i) => (
            <View key={c} style={styles.row}>
              {field(`Point ${i + 1}, °C`, c)}
              {field(`Point ${i + 1}, Ω`, ohm)}
            </View>
          ))}
          {problem ? (
            <Text bold tone="fault">
              {problem}
            </Text>
          ) : null}
        </Section>
        <ShareAddress />
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

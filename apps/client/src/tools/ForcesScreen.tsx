import { figureFault, ForceFigures, GaugeReading } from '@zealous/contracts/tools';
import {
  allStations,
  equivalentBore,
  laneRuns,
  materialOf,
  mostFlow,
  pathForces,
  readSpans,
  routeOf,
  usualBearing,
  weakestSentence,
  type Machine,
  type Span,
} from '@zealous/core';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { View } from 'react-native';
import { useMachineQuery, useMachinesQuery } from '../data/api';
import { useCatalogue } from '../data/useCatalogue';
import { Card, Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { FormNumber } from '../ui/form/FormFields';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { useWide } from '../ui/useWide';
import { AlongPath, newtons } from './ForcesPicture';
import { ShareAddress } from './ShareAddress';
import { sideBySide } from './sideBySide';
import { useAddressedChoice, useAddressedFigures } from './useAddressed';
import { GaugeToOrder, useGaugeOrder, type GaugeOrder } from './GaugeToOrder';

const TITLE = 'Why does it grind?';
/** Flow of an ordinary print, mm³/s (chosen). */
const USUAL_FLOW = 6;
/** A stretch this many spreads above what it should be is said to drag. */
const DRAGS = 2;
const NOTHING = { flow: undefined, grip: undefined, gap: undefined, comes: undefined };
const fault = (name: string, n: number) => figureFault(ForceFigures, name, n);
const readingFault = (_name: string, n: number) => figureFault(GaugeReading, 'newtons', n);
/** A reading of the gauge stands in the address under this and its station. */
const readingAt = (station: string): string => `at-${station}`;
const noReadings = (machine: Machine): Readonly<Record<string, undefined>> =>
  Object.fromEntries(allStations(machine).map(({ id }) => [readingAt(id), undefined]));

/** What the strand must be pulled and pushed with along the whole path, and what gives way first. */
export function ForcesScreen() {
  const { order, check } = useLocalSearchParams<{ readonly order?: string; readonly check?: string }>();
  return order && check ? <ForOrder order={order} check={check} /> : <OfMachine />;
}

function ForOrder({ order, check }: { readonly order: string; readonly check: string }) {
  const { found, failure } = useGaugeOrder(order, check);
  return found ? (
    <Asked key={order} machine={found.machine} lane={found.lane} filament={found.material} order={found} />
  ) : (
    <Page title={TITLE} back="/tools">
      <Text tone="soft">{failure ?? 'Opening the order …'}</Text>
    </Page>
  );
}

function OfMachine() {
  const { machine: chosen } = useLocalSearchParams<{ readonly machine?: string }>();
  const router = useRouter();
  const { data: machines } = useMachinesQuery();
  const first = chosen ?? machines?.[0]?.id;
  const { data: machine } = useMachineQuery(first ?? '', { skip: first === undefined });
  if (machines?.length === 0)
    return (
      <Page title={TITLE} back="/tools">
        <Text>There is no machine yet. Describe one under Machines: its path is what is reckoned here.</Text>
      </Page>
    );
  return machines && machine && machine.id === first ? (
    <Asked
      key={machine.id}
      machine={machine}
      machines={machines}
      onMachine={(next) => router.setParams({ machine: next })}
    />
  ) : (
    <Page title={TITLE} back="/tools">
      <Text tone="soft">Looking for the machines …</Text>
    </Page>
  );
}

function Asked({
  machine,
  machines = [],
  onMachine = () => undefined,
  lane: firstLane,
  filament,
  order,
}: {
  readonly machine: Machine;
  readonly machines?: readonly { readonly id: string; readonly name: string }[];
  readonly onMachine?: (id: string) => void;
  readonly lane?: string | undefined;
  readonly filament?: string | undefined;
  readonly order?: GaugeOrder;
}) {
  const catalogue = useCatalogue();
  const wide = useWide();
  // A finding of the order is one on its own lane.
  const lanes = laneRuns(machine).filter(({ id }) => order?.lane === undefined || id === order.lane);
  const [lane, setLane] = useAddressedChoice(
    'lane',
    firstLane ?? lanes[0]?.id ?? '',
    lanes.map(({ id }) => id),
  );
  const [material, setMaterial] = useAddressedChoice(
    'filament',
    filament ?? catalogue.materials[0]?.id ?? '',
    catalogue.materials.map(({ id }) => id),
  );
  const [{ flow, grip, gap, comes }, control] = useAddressedFigures(NOTHING, fault);
  const [readings, gauge, setReading] = useAddressedFigures(noReadings(machine), readingFault);
  const route = routeOf(machine, lane || undefined);
  const kind = materialOf(catalogue, material);
  const gears = route.stops.findIndex(({ station }) => station.kind === 'extruder');
  if (gears < 0)
    return (
      <Page title={TITLE} back="/tools">
        <Text>{`${machine.name} has no extruder on this path: nothing pulls or pushes on it.`}</Text>
      </Page>
    );
  const usual = usualBearing(route, machine.strandMm, kind);
  const bearing = { ...usual, gripN: grip ?? usual.gripN, gapMm: gap ?? usual.gapMm };
  const asked = flow ?? USUAL_FLOW;
  const found = pathForces(route, asked, bearing);
  const read = route.stops.flatMap(({ station }) => {
    const n = readings[readingAt(station.id)];
    return n === undefined ? [] : [{ station: station.id, n }];
  });
  const spans = readSpans(route, read);
  const last = route.stops[gears - 1]?.station;
  const atGears = last && readings[readingAt(last.id)];
  return (
    <Page title={TITLE} back={order ? `/order/${order.id}/trace` : '/tools'}>
      <View style={sideBySide.column}>
        <Text tone="soft">
          What the strand is drawn and pushed with at every station, reckoned from the machine’s own path. Friction and
          melts are typical figures, not measured: a force may be half as much again, either way, and near the flow that
          the hot end can just melt the push is well above this.
        </Text>
        <Card edge={found.margin < 1 ? 'fault' : found.margin < 1.5 ? 'warm' : 'clear'}>
          <Text bold testID="weakest">
            {weakestSentence(found, asked, mostFlow(route, bearing))}
          </Text>
          {found.worst ? (
            <Text>{`Beside the nozzle, ${found.worst.stop.station.name} costs most: ${newtons(found.worst.addsN)}.`}</Text>
          ) : null}
          {found.slackMm > 0 ? (
            <Text>{`Turning from pull to push loses ${found.slackMm.toFixed(1)} mm in the tubes behind the gears: retraction must make up for it.`}</Text>
          ) : null}
        </Card>
        <View style={wide ? sideBySide.pair : sideBySide.column}>
          <View style={[sideBySide.side, wide && sideBySide.half]}>
            <AlongPath found={found} gripN={bearing.gripN} />
          </View>
          <View style={[sideBySide.side, wide && sideBySide.half]}>
            <Section title="Where the gauge says it drags">
              <Text tone="soft">
                Pull the strand steadily with a gauge where it leaves a station ahead of the gears. Two readings tell
                the stretch between them from what lies ahead of it.
              </Text>
              <View style={sideBySide.row}>
                {route.stops.slice(0, gears).map(({ station }) => (
                  <FormNumber
                    key={`${lane} ${station.id}`}
                    control={gauge}
                    name={readingAt(station.id)}
                    label={`After ${station.name}, N`}
                    style={sideBySide.field}
                  />
                ))}
              </View>
              {spans.map((span) => (
                <SpanRead key={span.to} span={span} />
              ))}
              {order && atGears !== undefined ? <GaugeToOrder order={order} newtons={atGears} /> : null}
            </Section>
          </View>
        </View>
        <Section title="What it is reckoned for">
          {order ? (
            <Text>{`${machine.name}, as in the order.`}</Text>
          ) : (
            <Choice
              label="Machine"
              options={machines.map(({ id, name }) => ({ id, label: name }))}
              chosen={[machine.id]}
              onToggle={onMachine}
            />
          )}
          {lanes.length > 1 ? (
            <Choice
              label="Lane"
              options={lanes.map(({ id, name }) => ({ id, label: name }))}
              chosen={lane ? [lane] : []}
              onToggle={(next) => {
                setLane(next);
                for (const { station } of route.stops) setReading(readingAt(station.id), undefined);
              }}
            />
          ) : null}
          <Choice
            label="Filament"
            options={catalogue.materials.map(({ id, name }) => ({ id, label: name }))}
            chosen={[material]}
            onToggle={setMaterial}
          />
          {usual.assumed ? (
            <Text tone="soft">{`${kind.name} states no figures of its own: PLA’s stand in.`}</Text>
          ) : null}
          <View style={sideBySide.row}>
            <FormNumber
              control={control}
              name="flow"
              label={`Flow, mm³/s (else ${USUAL_FLOW})`}
              style={sideBySide.field}
            />
            <FormNumber
              control={control}
              name="grip"
              label={`The gears hold, N (else ${usual.gripN})`}
              style={sideBySide.field}
            />
            <FormNumber
              control={control}
              name="gap"
              label={`Open gap behind the gears, mm (else ${usual.gapMm})`}
              style={sideBySide.field}
            />
            <FormNumber control={control} name="comes" label="Of 100 mm asked comes, mm" style={sideBySide.field} />
          </View>
          {comes === undefined ? null : (
            <Text testID="bore">
              {`As if the nozzle’s ${bearing.nozzle.boreMm} mm were ${equivalentBore(bearing.nozzle.boreMm, comes / 100, bearing.melt.thinning).toFixed(2)} mm, if a narrow bore is all that is wrong.`}
            </Text>
          )}
        </Section>
        <ShareAddress />
      </View>
    </Page>
  );
}

function SpanRead({ span }: { readonly span: Span }) {
  const { from, to, expectedN, readN, excess, friction } = span;
  const stretch = from === undefined ? `Up to ${to}` : `From ${from} to ${to}`;
  const should = `should be about ${newtons(expectedN)}, reads ${newtons(readN)}`;
  if (excess < DRAGS) return <Text>{`${stretch}: ${should}. Sound.`}</Text>;
  return (
    <Card edge="fault">
      <Text bold>{`${stretch} drags: ${should}.`}</Text>
      {friction === undefined ? null : (
        <Text>{`As if friction in its bends were ${friction.toFixed(2)}; usual is 0.1 in PTFE, 0.2 elsewhere.`}</Text>
      )}
    </Card>
  );
}

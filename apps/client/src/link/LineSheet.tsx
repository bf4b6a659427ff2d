import type { LinkResult } from '@zealous/contracts/messages';
import {
  cautionById,
  cautionsFor,
  hazardsOf,
  lineCheck,
  resultOfSign,
  routeOf,
  type CheckAtPlace,
  type LineIntent,
  type LineSign,
  type Machine,
  type OrderState,
} from '@zealous/core';
import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { problemText, useLinkAskMutation, useLinkDoMutation } from '../data/api';
import { useAppSelector } from '../data/store';
import { useCatalogue } from '../data/useCatalogue';
import type { Recorder } from '../data/useOrder';
import { Button } from '../ui/Button';
import { CautionLine } from '../ui/CautionLine';
import { openFile } from '../ui/saveFile';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { HoldButton } from './HoldButton';
import { FEED_MM, Feed, Sensor, Steps, Watch } from './LineParts';
import type { Line } from './useLine';

export interface LineSheetProps {
  readonly line: Line;
  readonly orderId: string;
  readonly machine: Machine;
  readonly state: OrderState;
  readonly record: Recorder;
  readonly printC: number;
  /** What the step or check asks for, °C. */
  readonly wantedC?: number;
  readonly onStop: () => void;
  readonly onClose: () => void;
}

/** Slow enough that a sound hot end follows. */
const FEED_MM_PER_S = 2;
/** Into and out of the head: further than the gears’ way to the nozzle. */
const BEYOND_MM = 30;
const LOAD_MM_PER_S = 5;
/** Within this of print heat it is hot. */
const NEAR_C = 15;
/** What a held button does at once. */
const BIT_MM = 2;
const BIT_MM_PER_S = 3;
/** Readings of the sensor with the strand in, and with it out. */
const READ_TIMES = 5;

/** What the machine can do by itself, and what came back, into the order. What it cannot know is asked. */
export function LineSheet({ line, orderId, machine, state, record, printC, wantedC, onStop, onClose }: LineSheetProps) {
  const catalogue = useCatalogue();
  const by = useAppSelector((root) => root.settings.by);
  const [askOf, { isLoading: asking }] = useLinkAskMutation();
  const [act] = useLinkDoMutation();
  const [said, setSaid] = useState('');
  const [problem, setProblem] = useState('');
  const { status, mine, phone } = line;
  const lane = state.intake?.lane;
  const route = routeOf(machine, lane);
  const up = status.state === 'up' && !line.stale;
  const able = up && mine && !asking;
  const hot = (status.temperatureC ?? 0) > printC - NEAR_C && (status.targetC ?? 0) > 0;
  const failed = (error: unknown): undefined => {
    setSaid('');
    setProblem(problemText(error));
    return undefined;
  };
  const ask = async (intent: LineIntent, words: (result: LinkResult) => string): Promise<LinkResult | undefined> => {
    setProblem('');
    try {
      const result = await askOf({ machine: machine.id, phone, order: orderId, intent }).unwrap();
      setSaid(
        [words(result), result.atTheBench ? `At the bench: ${result.atTheBench}.` : ''].filter(Boolean).join(' '),
      );
      return result;
    } catch (error) {
      return failed(error);
    }
  };
  const does = (what: 'take' | 'start-again' | 'stand-in', body: object, words = ''): void => {
    setProblem('');
    act({ machine: machine.id, what, body })
      .unwrap()
      .then(() => setSaid(words), failed);
  };
  const target = async (c: number): Promise<void> => {
    const result = await ask({ do: 'target', c }, () =>
      c > 0 ? `Heating to ${c} °C.` : 'Target is zero; it cools with its fans on.',
    );
    if (result)
      record('bench-changed', {
        targetC: c,
        power: 'on',
        ...(result.temperatureC === undefined ? {} : { readingC: Math.round(result.temperatureC * 10) / 10 }),
      });
  };
  const written = ({ key, name, check }: CheckAtPlace, result: string, value?: number): boolean => {
    record('finding-recorded', { key, result, ...(value === undefined ? {} : { value }) });
    const label = check.results.find((one) => one.id === result)?.label ?? result;
    setSaid(`In the order: ${name}: ${label}${value === undefined ? '' : ` ${value}`}.`);
    return true;
  };
  const signed = (what: 'sensor' | 'temperature' | 'steps', sign: LineSign): boolean => {
    const place = lineCheck(catalogue, machine, lane, what);
    const result = place && resultOfSign(place.check, sign);
    return place !== undefined && result !== undefined && written(place, result);
  };
  const fed = (mm: number): boolean => {
    const place = lineCheck(catalogue, machine, lane, 'feed');
    return place !== undefined && written(place, place.check.results[0]?.id ?? '', mm);
  };
  const cautions = cautionsFor(catalogue, hazardsOf(route, { heat: 'hot' })).flatMap(
    (id) => cautionById(catalogue, id) ?? [],
  );
  const gears = route.stops.find(({ station }) => station.kind === 'extruder');
  const nozzle = route.stops.find(({ station }) => station.kind === 'nozzle');
  const headMm = Math.round((nozzle?.toMm ?? 100) - (gears?.fromMm ?? 0)) + BEYOND_MM;
  const strand = async (mm: number, to: 'in' | 'tube'): Promise<void> => {
    const done = await ask({ do: 'feed', mm, mmPerS: LOAD_MM_PER_S }, () =>
      mm > 0 ? `Loaded: ${mm} mm fed.` : `Unloaded: ${-mm} mm drawn back. Draw the rest out by hand.`,
    );
    if (done) record('bench-changed', { strand: { [route.lane]: to } });
  };
  return (
    <Sheet
      title="The machine on its line"
      open
      onClose={onClose}
      foot={
        <View style={styles.foot}>
          <Button label="Stop the machine at once" icon="alert" onPress={onStop} />
        </View>
      }
    >
      <InHand line={line} by={by} onTake={(force) => does('take', { phone, by, ...(force ? { force } : {}) })} />
      {status.state === 'halted' ? (
        <Button
          label="I stand at it: start it again"
          onPress={() => does('start-again', { phone, by }, 'It starts again.')}
        />
      ) : null}
      {up && state.power === 'off' ? (
        <View style={styles.part}>
          <Text>The order says that it is switched off, and it answers.</Text>
          <Button label="It is on: note that" onPress={() => record('bench-changed', { power: 'on' })} />
        </View>
      ) : null}
      {problem ? (
        <Text bold tone="fault" live testID="line-problem">
          {problem}
        </Text>
      ) : null}
      {said ? (
        <Text bold live testID="line-said">
          {said}
        </Text>
      ) : null}
      {asking ? <Text tone="soft">The machine is working …</Text> : null}
      <Part title="Heat">
        {cautions.map((caution) => (
          <CautionLine key={caution.id} caution={caution} />
        ))}
        <View style={styles.row}>
          {[...new Set([printC, wantedC ?? printC].map(Math.round))].map((c) => (
            <Button key={c} label={`Heat to ${c} °C`} icon="heat" disabled={!able} onPress={() => void target(c)} />
          ))}
          <Button label="Target to zero" icon="cold" disabled={!able} onPress={() => void target(0)} />
        </View>
        <Watch able={able && hot} machine={machine} onResult={(sign) => signed('temperature', sign)} />
        <Text kind="small" tone="soft">
          {state.heat.cooling
            ? `Cools with a time constant of ${Math.round(state.heat.cooling.tauS)} ± ${Math.round(state.heat.cooling.tauSd)} s, from what the machine reported.`
            : 'While it cools, its time constant is fitted to what it reports.'}
        </Text>
      </Part>
      <Part title="Feed">
        <Feed
          able={able}
          hot={hot}
          onFeed={() =>
            ask({ do: 'feed', mm: FEED_MM, mmPerS: FEED_MM_PER_S }, () => `${FEED_MM} mm were asked of the gears.`)
          }
          onCame={fed}
        />
        <View style={styles.row}>
          <HoldButton
            label="Feed"
            disabled={!up || !mine}
            step={async () => (await ask({ do: 'feed', mm: BIT_MM, mmPerS: BIT_MM_PER_S }, () => 'Fed.')) !== undefined}
          />
          <HoldButton
            label="Draw back"
            disabled={!up || !mine}
            step={async () =>
              (await ask({ do: 'feed', mm: -BIT_MM, mmPerS: BIT_MM_PER_S }, () => 'Drawn back.')) !== undefined
            }
          />
          <Button label="Load" hint={`${headMm} mm`} disabled={!able} onPress={() => void strand(headMm, 'in')} />
          <Button
            label="Unload"
            hint={`${headMm} mm back`}
            disabled={!able}
            onPress={() => void strand(-headMm, 'tube')}
          />
          <Button
            label="Motors off"
            disabled={!able}
            onPress={() => void ask({ do: 'motors-off' }, () => 'The motors are off.')}
          />
        </View>
      </Part>
      {lineCheck(catalogue, machine, lane, 'sensor') ? (
        <Part title="Filament sensor">
          <Sensor
            able={able}
            standIn={status.standIn}
            onMove={(to) => does('stand-in', { strand: to }, `The strand is ${to}.`)}
            onRead={async () => {
              const read: boolean[] = [];
              for (let i = 0; i < READ_TIMES; i++) {
                const result = await ask({ do: 'sensors' }, ({ filament }) =>
                  filament === undefined
                    ? 'It reports no filament sensor.'
                    : `It says: ${filament ? 'filament' : 'empty'}.`,
                );
                if (result?.filament === undefined) return undefined;
                read.push(result.filament);
              }
              return read;
            }}
            onResult={(sign) => signed('sensor', sign)}
          />
        </Part>
      ) : null}
      <Part title="Steps a millimetre">
        <Steps
          able={able}
          described={gears?.station.params?.stepsPerMm}
          onAsk={ask}
          onDiffers={(sign) => signed('steps', sign)}
        />
      </Part>
      <Part title="The line">
        <Button
          label="Save the log of the line"
          icon="save"
          kind="quiet"
          onPress={() => openFile(`/api/link/${encodeURIComponent(machine.id)}/log`)}
        />
        {status.standIn ? (
          <>
            <Text kind="small" tone="soft">
              This is a simulated printer with a hidden fault. Its line can be made worse:
            </Text>
            <View style={styles.row}>
              <Button
                label="Slow answers"
                kind="quiet"
                onPress={() => does('stand-in', { delayMs: 800 }, 'Answers come late now.')}
              />
              <Button
                label="Prompt answers"
                kind="quiet"
                onPress={() => does('stand-in', { delayMs: 0 }, 'Answers are prompt again.')}
              />
              <Button
                label="Garble two lines"
                kind="quiet"
                onPress={() => does('stand-in', { garble: 2 }, 'The next two lines come garbled.')}
              />
              <Button
                label="What was wrong is repaired"
                kind="quiet"
                onPress={() => does('stand-in', { repaired: true }, 'The simulated printer is sound now.')}
              />
              <Button
                label="Drop the line for 10 s"
                kind="quiet"
                onPress={() => does('stand-in', { dropS: 10 }, 'The line is dropped.')}
              />
            </View>
          </>
        ) : null}
      </Part>
    </Sheet>
  );
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <View style={styles.part}>
      <Text bold heading={3}>
        {title}
      </Text>
      {children}
    </View>
  );
}

function InHand({
  line,
  by,
  onTake,
}: {
  readonly line: Line;
  readonly by: string;
  readonly onTake: (force: boolean) => void;
}) {
  const { mine, status } = line;
  if (mine) return <Text>{`In your hands (${by}). Another phone that looks sees it, and cannot move it.`}</Text>;
  const other = status.holder?.by;
  return (
    <View style={styles.part}>
      <Text>
        {other
          ? `${other} has it in hand. What is done here would come in between.`
          : 'Take it in hand first: then only this phone moves it.'}
      </Text>
      <Button
        label={other ? `Take it over from ${other}` : 'Take it in hand'}
        kind={other ? 'plain' : 'main'}
        disabled={status.state === 'lost'}
        onPress={() => onTake(other !== undefined)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  part: { gap: space.s, marginTop: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, alignItems: 'flex-end' },
  foot: { padding: space.m },
});

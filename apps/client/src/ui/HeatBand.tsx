import {
  benchAt,
  openAgainst,
  SWITCH_OFF_BELOW_C,
  fitCooling,
  liftAxis,
  lastCooling,
  looseConnectors,
  parseTemperatureLog,
  summariseLog,
  type Bench,
  temperatureAt,
  type LogLine,
  type LogSummary,
  type Machine,
  type OrderState,
} from '@zealous/core';
import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { TextInput } from 'react-native-paper';
import type { Recorder } from '../data/useOrder';
import { useClock } from '../data/useClock';
import { pickFile } from './pickFile';
import { Icon } from './Icon';
import { Button } from './Button';
import { LogChart } from './LogChart';
import { readHeat } from './readHeat';
import { Sheet } from './Sheet';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space } from './tokens';

export interface HeatBandProps {
  readonly machine: Machine;
  readonly state: OrderState;
  readonly record: Recorder;
  readonly printC: number;
  /** The way back, and what order it is; they share the band's line. */
  readonly back?: ReactNode;
  readonly title?: string;
  readonly more?: ReactNode;
  /** Opens what switching off hot would do to the strand. */
  readonly onWhatIf?: () => void;
}

/** Slower than this share of the machine's own rate is worth a look at heater and plug (chosen). */
const SLOW = 0.6;

/** What a log says of heater and sensor, in words; `usual` is the machine's own rate of heating. */
export function logWords(log: LogSummary, usual: number): readonly string[] {
  const { highestC, overshootC, swingC, heatUpCPerS, jumpsAtS, drops } = log;
  const jumps = jumpsAtS.length;
  const deepest = Math.max(0, ...drops.map(({ deepC }) => deepC));
  const figures = [
    `highest ${highestC.toFixed(0)} °C`,
    overshootC === undefined ? '' : `overshoot ${overshootC.toFixed(1)} °C`,
    swingC === undefined ? '' : `swing ${swingC.toFixed(1)} °C`,
    heatUpCPerS === undefined ? '' : `heats at ${heatUpCPerS.toFixed(1)} °C a second`,
  ].filter(Boolean);
  return [
    `In the log: ${figures.join(', ')}.`,
    ...(jumps > 0
      ? [`${jumps} ${jumps === 1 ? 'jump' : 'jumps'} that no heater makes: look at the sensor’s wire and plug.`]
      : []),
    ...(drops.length > 0
      ? [
          `It drops below its target ${drops.length === 1 ? 'once' : `${drops.length} times`}, by up to ${deepest.toFixed(0)} °C: more flow than the heater follows, a fan that blows on the block, or a loose heater or sensor.`,
        ]
      : []),
    ...(heatUpCPerS !== undefined && heatUpCPerS < SLOW * usual
      ? [`This machine usually heats at ${usual} °C a second: look at the heater, its plug and its supply.`]
      : []),
  ];
}

/** What else of the bench must be seen at once: the heating at fault, plugs loose, a part wet, the support under the head. */
function standing(machine: Machine, bench: Bench): readonly string[] {
  const loose = looseConnectors(machine, bench);
  return [
    ...(bench.heatSpoiled ? ['heating at fault'] : []),
    ...(loose.length > 0 ? [`unplugged: ${loose.map(({ name }) => name.toLowerCase()).join(', ')}`] : []),
    ...((bench.wet?.size ?? 0) > 0 ? ['a part is wet with solvent'] : []),
    ...(bench.loosened?.size ? ['screws are out'] : []),
    ...(bench.supported ? [liftAxis(bench) === 'held' ? 'head supported' : 'head on its support'] : []),
  ];
}

/** Across the top of every order screen: what state the machine is in, one tap to change it. */
export function HeatBand({ machine, state, record, printC, back, title, more, onWhatIf }: HeatBandProps) {
  const palette = usePalette();
  const now = useClock(1000);
  const [open, setOpen] = useState(false);
  const [reading, setReading] = useState('');
  const [problem, setProblem] = useState('');
  const [logged, setLogged] = useState<readonly string[]>([]);
  const [log, setLog] = useState<readonly LogLine[]>([]);
  const heat = readHeat(machine, state, now);
  const temperature = temperatureAt(machine, state.heat, now);
  const bench = benchAt(machine, state, now);
  const noHeat = openAgainst({ heat: 'hot', power: 'on' }, bench, machine);
  const noPower = openAgainst({ heat: 'any', power: 'on' }, bench, machine);
  const tooHot = temperature > SWITCH_OFF_BELOW_C;
  const value = Number(reading.replace(',', '.'));
  const fits = reading.trim() !== '' && Number.isFinite(value) && value >= -30 && value <= 700;
  const fromLog = async (): Promise<void> => {
    const text = await pickFile('.txt,.log,.csv,text/plain,text/csv');
    if (text === undefined) return;
    try {
      const read = parseTemperatureLog(text);
      const fit = fitCooling(machine.heat, lastCooling(read));
      const cools = fit.readings >= 2;
      if (cools) record('cooling-measured', { tauS: fit.tauS, tauSd: fit.tauSd, readings: fit.readings });
      setLogged([
        ...logWords(summariseLog(read), machine.heat.heatUpCPerS),
        ...(cools
          ? []
          : ['No stretch in which it cools by 20 °C or more with target 0: the countdown stays as it was.']),
      ]);
      setLog(read);
      setProblem('');
    } catch (error) {
      setLogged([]);
      setLog([]);
      setProblem((error as Error).message);
    }
  };
  const change = (body: Parameters<typeof record<'bench-changed'>>[1]): void => {
    record('bench-changed', body);
    setOpen(false);
    setReading('');
  };
  // It goes on heating to nobody knows what: that is stopped before anything else.
  const stops = bench.heatSpoiled === true && state.power === 'on' && state.heat.targetC > 0;
  return (
    <View
      role="banner"
      style={[
        styles.frame,
        {
          backgroundColor: heat.warm ? palette.warmWash : palette.card,
          borderColor: heat.warm ? palette.warm : palette.line,
        },
      ]}
    >
      <View style={styles.band}>
        {back}
        <View style={styles.lines}>
          {title === undefined ? null : (
            <Text kind="large" bold heading={1}>
              {title}
            </Text>
          )}
          <View style={styles.words}>
            <Icon name={heat.icon} size={16} color={heat.warm ? palette.warm : palette.soft} />
            <Text kind="small" tone={heat.warm ? 'warm' : 'ink'} bold style={styles.grow} testID="heat">
              {[heat.words, ...standing(machine, bench)].join(' · ')}
            </Text>
          </View>
        </View>
        <Button label="Change" hint="Heat and power of the machine" kind="quiet" onPress={() => setOpen(true)} />
        {more}
      </View>
      {stops ? (
        <View style={styles.stop}>
          <Text kind="small" tone="fault" bold style={styles.grow}>
            The heating is at fault. Set the target to zero: nothing is heated before it is mended.
          </Text>
          <Button label="Target is zero" icon="cold" kind="main" onPress={() => change({ targetC: 0 })} />
        </View>
      ) : null}
      <Sheet title="What is the machine doing?" open={open} onClose={() => setOpen(false)}>
        <Button
          label={`Heating to ${printC} °C, print heat`}
          icon="heat"
          disabled={noHeat !== undefined}
          onPress={() => change({ targetC: printC, power: 'on' })}
        />
        <Button
          label="Target to zero, cooling with fans on"
          icon="cold"
          onPress={() => change({ targetC: 0, power: 'on' })}
        />
        {state.power === 'off' ? (
          <Button
            label="Switched on, not heating"
            icon="power"
            disabled={noPower !== undefined}
            onPress={() => change({ power: 'on', targetC: 0 })}
          />
        ) : null}
        <Button
          label={
            tooHot
              ? `Off: not above ${SWITCH_OFF_BELOW_C} °C, about ${Math.round(temperature)} °C now`
              : 'Switched off and unplugged'
          }
          icon="power"
          disabled={tooHot}
          onPress={() => change({ power: 'off' })}
        />
        {noHeat ? <Text kind="small" tone="fault">{`No heat now: it ${noHeat}.`}</Text> : null}
        {tooHot ? (
          <Text kind="small" tone="soft">
            Heat left in the block would soften the strand in the cold zone. Cool it first, or enter a reading if it is
            colder than reckoned.
          </Text>
        ) : null}
        {onWhatIf ? (
          <Button
            label="What would it do to the strand?"
            kind="quiet"
            onPress={() => {
              setOpen(false);
              onWhatIf();
            }}
          />
        ) : null}
        <View style={styles.reading}>
          <TextInput
            mode="outlined"
            label="It reads, °C"
            accessibilityLabel="Temperature reading in degrees Celsius"
            inputMode="decimal"
            value={reading}
            onChangeText={setReading}
            style={styles.grow}
          />
          <Button label="Note reading" disabled={!fits} onPress={() => change({ readingC: value })} />
        </View>
        <Text kind="small" tone="soft">
          {state.heat.cooling
            ? `Cools with a time constant of ${Math.round(state.heat.cooling.tauS)} ± ${Math.round(state.heat.cooling.tauSd)} s, from ${state.heat.cooling.readings} readings.`
            : 'Two readings while it cools, or a temperature log, fit the countdown to this machine.'}
        </Text>
        <Button label="From a temperature log …" kind="quiet" icon="save" onPress={() => void fromLog()} />
        {logged.map((line) => (
          <Text key={line} kind="small">
            {line}
          </Text>
        ))}
        {log.length > 0 ? <LogChart log={log} summary={summariseLog(log)} /> : null}
        {problem ? (
          <Text kind="small" tone="fault">
            {problem}
          </Text>
        ) : null}
      </Sheet>
    </View>
  );
}

const styles = StyleSheet.create({
  frame: { borderBottomWidth: 2, paddingLeft: space.m },
  band: { flexDirection: 'row', alignItems: 'center', minHeight: 56 },
  stop: { flexDirection: 'row', alignItems: 'center', gap: space.s, paddingRight: space.m, paddingBottom: space.s },
  lines: { flex: 1, paddingVertical: space.xs },
  words: { flexDirection: 'row', alignItems: 'center', gap: space.xs },
  grow: { flex: 1 },
  reading: { flexDirection: 'row', alignItems: 'center', gap: space.s, borderRadius: radius.m },
});

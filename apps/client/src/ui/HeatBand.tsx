import {
  benchAt,
  openAgainst,
  SAFE_TO_TOUCH_C,
  SWITCH_OFF_BELOW_C,
  fitCooling,
  lastCooling,
  looseConnectors,
  parseTemperatureLog,
  summariseLog,
  timeLeft,
  temperatureAt,
  type LogSummary,
  type Machine,
  type OrderState,
} from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Dialog, Portal, TextInput } from 'react-native-paper';
import type { Recorder } from '../data/useOrder';
import { useClock } from '../data/useClock';
import { clockText } from './format';
import { pickFile } from './pickFile';
import { Icon } from './Icon';
import { Tap } from './Tap';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space } from './tokens';

export interface HeatBandProps {
  readonly machine: Machine;
  readonly state: OrderState;
  readonly record: Recorder;
  readonly printC: number;
}

interface Reading {
  readonly icon: string;
  readonly words: string;
  readonly warm: boolean;
}

/** The machine's recorded heat and power in words, with the time to the next threshold while it cools. */
export function readHeat(
  machine: Pick<Machine, 'heat'>,
  { heat, power }: Pick<OrderState, 'heat' | 'power'>,
  now: number,
): Reading {
  const t = temperatureAt(machine, heat, now);
  const degrees = `${Math.round(t)} °C`;
  if (heat.targetC > 0 && t < heat.targetC - 3)
    return { icon: 'heat', words: `Heating: ${degrees} of ${heat.targetC} °C`, warm: true };
  if (heat.targetC > 0) return { icon: 'heat', words: `Hot at ${degrees}`, warm: true };
  if (t > SAFE_TO_TOUCH_C) {
    const to = t > SWITCH_OFF_BELOW_C ? SWITCH_OFF_BELOW_C : SAFE_TO_TOUCH_C;
    const { seconds, sd } = timeLeft(machine, heat, now, to);
    const left = `${clockText(seconds)}${sd >= 5 ? ` ± ${clockText(sd)}` : ''}`;
    const what = to === SWITCH_OFF_BELOW_C ? `below ${to} °C in` : 'safe to touch in';
    return { icon: 'heat', words: `Cooling, about ${degrees}: ${what} ${left}`, warm: true };
  }
  if (heat.coldSure === false)
    return { icon: 'cold', words: `Cold by the clock, about ${degrees}: a reading has to say so`, warm: true };
  return power === 'on'
    ? { icon: 'power', words: 'Switched on, cold', warm: false }
    : { icon: 'cold', words: 'Cold and off', warm: false };
}

/** Slower than this share of the machine's own rate is worth a look at heater and plug (chosen). */
const SLOW = 0.6;

/** What a log says of heater and sensor, in words; `usual` is the machine's own rate of heating. */
export function logWords(log: LogSummary, usual: number): readonly string[] {
  const { highestC, overshootC, swingC, heatUpCPerS, jumps } = log;
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
    ...(heatUpCPerS !== undefined && heatUpCPerS < SLOW * usual
      ? [`This machine usually heats at ${usual} °C a second: look at the heater, its plug and its supply.`]
      : []),
  ];
}

/** What else of the bench must be seen at once: plugs loose, a part wet, the support under the head. */
function standing(machine: Machine, state: OrderState): readonly string[] {
  const loose = looseConnectors(machine, { off: new Set(state.off), ways: state.ways, pulled: new Set(state.pulled) });
  return [
    ...(loose.length > 0 ? [`unplugged: ${loose.map(({ name }) => name.toLowerCase()).join(', ')}`] : []),
    ...(state.wet.length > 0 ? ['a part is wet with solvent'] : []),
    ...(state.supported ? ['head supported'] : []),
  ];
}

/** Across the top of every order screen: what state the machine is in, one tap to change it. */
export function HeatBand({ machine, state, record, printC }: HeatBandProps) {
  const palette = usePalette();
  const now = useClock(1000);
  const [open, setOpen] = useState(false);
  const [reading, setReading] = useState('');
  const [problem, setProblem] = useState('');
  const [logged, setLogged] = useState<readonly string[]>([]);
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
      const log = parseTemperatureLog(text);
      const fit = fitCooling(machine.heat, lastCooling(log));
      const cools = fit.readings >= 2;
      if (cools) record('cooling-measured', { tauS: fit.tauS, tauSd: fit.tauSd, readings: fit.readings });
      setLogged([
        ...logWords(summariseLog(log), machine.heat.heatUpCPerS),
        ...(cools
          ? []
          : ['No stretch in which it cools by 20 °C or more with target 0: the countdown stays as it was.']),
      ]);
      setProblem('');
    } catch (error) {
      setLogged([]);
      setProblem((error as Error).message);
    }
  };
  const change = (body: Parameters<typeof record<'bench-changed'>>[1]): void => {
    record('bench-changed', body);
    setOpen(false);
    setReading('');
  };
  return (
    <View
      style={[
        styles.band,
        {
          backgroundColor: heat.warm ? palette.warmWash : palette.card,
          borderColor: heat.warm ? palette.warm : palette.line,
        },
      ]}
    >
      <View style={styles.words}>
        <Icon name={heat.icon} color={heat.warm ? palette.warm : palette.soft} />
        <Text tone={heat.warm ? 'warm' : 'ink'} bold style={styles.grow} testID="heat">
          {[heat.words, ...standing(machine, state)].join(' · ')}
        </Text>
      </View>
      <Tap label="Change" hint="Heat and power of the machine" kind="quiet" onPress={() => setOpen(true)} />
      <Portal>
        <Dialog
          visible={open}
          onDismiss={() => setOpen(false)}
          style={{ backgroundColor: palette.card, maxWidth: 460, alignSelf: 'center', width: '92%' }}
        >
          <Dialog.Title>What is the machine doing?</Dialog.Title>
          <Dialog.Content style={styles.dialog}>
            <Tap
              label={`Heating to ${printC} °C, print heat`}
              icon="heat"
              disabled={noHeat !== undefined}
              onPress={() => change({ targetC: printC, power: 'on' })}
            />
            <Tap
              label="Target to zero, cooling with fans on"
              icon="cold"
              onPress={() => change({ targetC: 0, power: 'on' })}
            />
            {state.power === 'off' ? (
              <Tap
                label="Switched on, not heating"
                icon="power"
                disabled={noPower !== undefined}
                onPress={() => change({ power: 'on', targetC: 0 })}
              />
            ) : null}
            <Tap
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
                Heat left in the block would soften the strand in the cold zone. Cool it first, or enter a reading if it
                is colder than reckoned.
              </Text>
            ) : null}
            <View style={styles.reading}>
              <TextInput
                mode="outlined"
                dense
                label="It reads, °C"
                accessibilityLabel="Temperature reading in degrees Celsius"
                inputMode="decimal"
                value={reading}
                onChangeText={setReading}
                style={styles.grow}
              />
              <Tap label="Note reading" disabled={!fits} onPress={() => change({ readingC: value })} />
            </View>
            <Text kind="small" tone="soft">
              {state.heat.cooling
                ? `Cools with a time constant of ${Math.round(state.heat.cooling.tauS)} ± ${Math.round(state.heat.cooling.tauSd)} s, from ${state.heat.cooling.readings} readings.`
                : 'Two readings while it cools, or a temperature log, fit the countdown to this machine.'}
            </Text>
            <Tap label="From a temperature log …" kind="quiet" icon="save" onPress={() => void fromLog()} />
            {logged.map((line) => (
              <Text key={line} kind="small">
                {line}
              </Text>
            ))}
            {problem ? (
              <Text kind="small" tone="fault">
                {problem}
              </Text>
            ) : null}
          </Dialog.Content>
          <Dialog.Actions>
            <Tap label="Leave as it is" kind="quiet" onPress={() => setOpen(false)} />
          </Dialog.Actions>
        </Dialog>
      </Portal>
    </View>
  );
}

const styles = StyleSheet.create({
  band: {
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'space-between',
    borderBottomWidth: 2,
    paddingLeft: space.m,
  },
  words: { flexDirection: 'row', alignItems: 'center', gap: space.s, flex: 1 },
  grow: { flex: 1 },
  dialog: { gap: space.s },
  reading: { flexDirection: 'row', alignItems: 'center', gap: space.s, borderRadius: radius.m },
});

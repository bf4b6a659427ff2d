import {
  cautionById,
  checksFor,
  heaterOff,
  looseConnectors,
  SAFE_TO_TOUCH_C,
  NOT_SURE,
  routeOf,
  unmet,
  type Bench,
  type CheckAtPlace,
  type Machine,
  type RankedCheck,
} from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { CautionLine } from '../ui/CautionLine';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';
import { NumberPad } from './NumberPad';

export interface ResultPadProps {
  readonly machine: Machine;
  readonly lane?: string;
  readonly check: RankedCheck;
  readonly bench: Bench;
  readonly onResult: (result: string, value?: number) => void;
  readonly onNotDone: (why: string) => void;
  readonly onHeat: (targetC: number) => void;
  readonly onReadsCold: () => void;
  readonly onSupported: () => void;
  readonly onAnother: () => void;
  /** Opens the reasons; where they stand beside the check there is no need. */
  readonly onWhy?: () => void;
  /** Takes the last finding back; there until this check is begun. */
  readonly onUndo?: () => void;
}

const WHY_NOT = ['No tool for it', 'Cannot reach it', 'Stuck or too risky', 'Not on this machine'] as const;

export function useCheckPlace(machine: Machine, lane: string | undefined, key: string): CheckAtPlace | undefined {
  const catalogue = useCatalogue();
  const places = useMemo(() => checksFor(catalogue, machine, routeOf(machine, lane)), [catalogue, machine, lane]);
  return places.find((place) => place.key === key);
}

/** One check: what to do, why, what it needs, and its results within reach of the thumb. */
export function ResultPad({
  machine,
  lane,
  check,
  bench,
  onResult,
  onNotDone,
  onHeat,
  onReadsCold,
  onSupported,
  onAnother,
  onWhy,
  onUndo,
}: ResultPadProps) {
  const palette = usePalette();
  const catalogue = useCatalogue();
  const place = useCheckPlace(machine, lane, check.key);
  const [number, setNumber] = useState<string | undefined>(undefined);
  const [notDone, setNotDone] = useState(false);
  if (!place) return null;
  const { quantity, results, asks } = place.check;
  const held = unmet({ heat: place.check.heat, power: place.check.power, hotC: check.hotC }, bench, machine);
  const answers = asks
    ? catalogue.onsets.map((onset) => ({ id: onset.id, label: onset.label, depth: false }))
    : results;
  const pushes = check.cautions.some((id) => cautionById(catalogue, id)?.marks?.includes('push'));
  const back = (check.backIds ?? []).map((id) => machine.parts.find((part) => part.id === id)?.name ?? id);
  const longest = Math.round((place.reachMm?.[1] ?? 0) - (place.entryMm ?? 0));
  const minutes = [
    `${Math.max(1, Math.round(check.handsOnMinutes))} min`,
    check.waitingMinutes >= 0.5 ? `+ ${Math.round(check.waitingMinutes)} min wait` : undefined,
  ]
    .filter(Boolean)
    .join(' ');

  if (number !== undefined)
    return (
      <View style={styles.pad}>
        <NumberPad
          key={check.key}
          label={quantity ? (results[0]?.label ?? 'Value') : 'Depth from the entry'}
          unit={quantity?.unit ?? 'mm'}
          min={quantity?.min ?? 0}
          max={quantity?.max ?? longest + 50}
          usual={
            quantity ? `sound: about ${quantity.normal.mean}` : 'mark the strand at the entry, draw it out, measure'
          }
          onEnter={(value) => onResult(number, value)}
          onCancel={() => setNumber(undefined)}
        />
      </View>
    );
  if (notDone)
    return (
      <View style={[styles.column, styles.pad]}>
        <Text bold>Why could it not be done?</Text>
        <View style={styles.grid}>
          {WHY_NOT.map((reason) => (
            <Tap key={reason} label={reason} onPress={() => onNotDone(reason)} style={styles.half} />
          ))}
        </View>
        <Tap label="Back" kind="quiet" onPress={() => setNotDone(false)} />
      </View>
    );
  return (
    <View style={styles.whole}>
      <ScrollView
        style={styles.words}
        contentContainerStyle={styles.column}
        tabIndex={0}
        role="region"
        aria-label="The check"
      >
        <View style={styles.head}>
          <View style={styles.grow}>
            <Text kind="small" bold tone="deed">
              {check.done ? 'Look here again' : 'Look here next'}
            </Text>
            <Text kind="large" bold heading={2} testID="check-name">
              {check.name}
            </Text>
          </View>
          {onUndo ? <Tap label="Undo" icon="undo" kind="quiet" onPress={onUndo} style={styles.slim} /> : null}
          <Text kind="figure" style={[styles.minutes, { borderColor: palette.housing }]}>
            {minutes}
          </Text>
        </View>
        {check.cautions.map((id) => {
          const caution = cautionById(catalogue, id);
          return caution ? <CautionLine key={id} caution={caution} /> : null;
        })}
        {held ? (
          <View style={[styles.held, { backgroundColor: palette.warmWash }]}>
            <Text kind="small" style={styles.grow}>{`It ${held}.`}</Text>
            {place.check.heat === 'hot' &&
            looseConnectors(machine, bench).length === 0 &&
            heaterOff(machine, bench).length === 0 &&
            bench.temperatureC < check.hotC - 10 ? (
              <Tap
                label={`Heating to ${Math.round(check.hotC)} °C`}
                icon="heat"
                onPress={() => onHeat(Math.round(check.hotC))}
              />
            ) : null}
            {place.check.heat === 'cold' && bench.coldSure === false && bench.temperatureC <= SAFE_TO_TOUCH_C ? (
              <Tap label={`It reads below ${SAFE_TO_TOUCH_C} °C`} icon="cold" onPress={onReadsCold} />
            ) : null}
          </View>
        ) : null}
        {pushes && !bench.supported ? (
          <Tap label="Head raised and supported" icon="check" onPress={onSupported} />
        ) : null}
        {back.length > 0 ? <Text bold>{`Put back first: ${back.join(', ')}.`}</Text> : null}
        {check.opens.length > 0 ? <Text bold>{`Take off first: ${check.opens.join(', ')}.`}</Text> : null}
        <Text>{check.how}</Text>
        <View>
          <Text kind="small" tone="soft">{`Because: ${check.because[0] ?? ''}`}</Text>
        </View>
      </ScrollView>
      <View style={[styles.grid, styles.foot]}>
        {quantity ? (
          <Tap
            label={`Enter ${quantity.unit}`}
            kind="main"
            onPress={() => setNumber(results[0]?.id ?? 'mm')}
            style={styles.half}
          />
        ) : (
          answers.map((answer) => (
            <Tap
              key={answer.id}
              label={answer.label}
              onPress={() => (answer.depth ? setNumber(answer.id) : onResult(answer.id))}
              style={[
                answers.length > 4 ? styles.third : styles.half,
                { backgroundColor: palette.deedWash, borderColor: palette.deed },
              ]}
            />
          ))
        )}
      </View>
      <View style={styles.row}>
        <Tap label="Not sure" kind="quiet" onPress={() => onResult(NOT_SURE)} style={styles.slim} />
        <Tap label="Could not do it" kind="quiet" onPress={() => setNotDone(true)} style={styles.slim} />
        {onWhy ? <Tap label="Why" hint="Why this check" kind="quiet" onPress={onWhy} style={styles.slim} /> : null}
        <Tap label="Other" hint="Choose another check" kind="quiet" onPress={onAnother} style={styles.slim} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  head: { flexDirection: 'row', alignItems: 'flex-start', justifyContent: 'space-between', gap: space.s },
  grow: { flex: 1 },
  minutes: { borderWidth: 1, borderRadius: radius.s, paddingHorizontal: space.s, paddingVertical: space.xs },
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  half: { flexBasis: '47%', flexGrow: 1 },
  pad: { paddingHorizontal: space.l, paddingBottom: space.s },
  third: { flexBasis: '30%', flexGrow: 1 },
  whole: { flexShrink: 1, paddingHorizontal: space.l },
  words: { flexShrink: 1 },
  foot: { paddingTop: space.s },
  row: { flexDirection: 'row', justifyContent: 'space-between' },
  slim: { paddingHorizontal: space.xs },
  held: { flexDirection: 'row', alignItems: 'center', gap: space.s, padding: space.s, borderRadius: radius.m },
});

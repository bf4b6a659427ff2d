import {
  routeOf,
  cautionById,
  checksOnLane,
  heaterOff,
  looksAtHeat,
  looseConnectors,
  looseHeaters,
  SAFE_TO_TOUCH_C,
  NOT_SURE,
  strandSettled,
  unmet,
  type Bench,
  type CheckAtPlace,
  type Machine,
  type RankedCheck,
} from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { CautionLine } from '../ui/CautionLine';
import { Button } from '../ui/Button';
import { MoreBelow } from '../ui/MoreBelow';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';
import { ItemFoot, ItemTicks, type ItemsSeen } from './ItemPad';
import { CheckSketch } from './CheckSketch';
import { NumberPad } from './NumberPad';

export interface ResultPadProps {
  readonly machine: Machine;
  readonly lane?: string;
  readonly check: RankedCheck;
  readonly bench: Bench;
  readonly onResult: (result: string, value?: number, more?: ItemsSeen) => void;
  readonly onNotDone: (why: string) => void;
  readonly onHeat: (targetC: number) => void;
  readonly onReadsCold: () => void;
  readonly onSupported: () => void;
  /** The strand of the lanes that the check wants clear is out, or a piece of it is left at a known place. */
  readonly onStrand: (lanes: readonly string[], to: 'out' | 'remnant') => void;
  readonly onAnother: () => void;
  /** Opens the tool that works the answer out. */
  readonly onTool?: (page: ToolPage) => void;
  /** Says that a loose part is tight again, beside what holds the check. */
  readonly tight?: ReactNode;
  /** What else is to be said of it, after its words. */
  readonly beside?: ReactNode;
  /** Opens the reasons; where they stand beside the check there is no need. */
  readonly onWhy?: () => void;
}

/** Where a tool of the application is opened, and what the button says. */
const TOOLS = {
  'print-file': { page: '/tools/print', label: 'Read it from the print file' },
  'path-forces': { page: '/tools/forces', label: 'What it should be, station by station' },
  meter: { page: '/tools/meter', label: 'What the meter should read' },
} as const;
export type ToolPage = (typeof TOOLS)[keyof typeof TOOLS]['page'];

/** Largest numbers that make sense, by unit. */
const MEASURED_MOST: Readonly<Record<string, number>> = { mm: 2000, degrees: 90, 'mm³/s': 100, times: 1000 };
const WHY_NOT = ['No tool for it', 'Cannot reach it', 'Stuck or too risky', 'Not on this machine'] as const;

function ToolButton({
  tool,
  onTool,
}: {
  readonly tool: keyof typeof TOOLS;
  readonly onTool: (page: ToolPage) => void;
}) {
  const { page, label } = TOOLS[tool];
  return <Button label={label} icon="repair" onPress={() => onTool(page)} />;
}

export function useCheckPlace(machine: Machine, lane: string | undefined, key: string): CheckAtPlace | undefined {
  const catalogue = useCatalogue();
  return checksOnLane(catalogue, machine, lane).find((place) => place.key === key);
}

/** What must be known of the strand before the path is opened or something is put into it. */
function strandFirst(machine: Machine, lanes: readonly string[], bench: Bench): string {
  const several = lanes.length > 1;
  const where = several ? 'these lanes' : 'the path';
  const named = several
    ? ` (${lanes.map((id) => machine.runs.find((run) => run.id === id)?.name ?? id).join(', ')})`
    : '';
  const loaded = lanes.some((lane) => bench.strand?.[lane] === 'in' || bench.strand?.[lane] === 'tube');
  return loaded
    ? `Take the filament out of ${where} first${named}. If it does not come, cut it, hold the end, and note what is left.`
    : `Is filament in ${where}${named}? Take it out first. If it does not come, cut it, hold the end, and note what is left.`;
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
  onStrand,
  onAnother,
  onTool,
  tight,
  beside,
  onWhy,
}: ResultPadProps) {
  const palette = usePalette();
  const catalogue = useCatalogue();
  const place = useCheckPlace(machine, lane, check.key);
  const [number, setNumber] = useState<string | undefined>(undefined);
  const [notDone, setNotDone] = useState(false);
  const [ticked, setTicked] = useState<readonly string[]>([]);
  if (!place) return null;
  const { quantity, results, asks } = place.check;
  const ofHeat = looksAtHeat(place.check);
  const held = unmet({ heat: place.check.heat, power: place.check.power, hotC: check.hotC, ofHeat }, bench, machine);
  const answers = asks
    ? catalogue.onsets.map((onset) => ({ id: onset.id, label: onset.label, depth: false }))
    : results;
  const pushes = place.check.push === 'head';
  const strands = (place.clear ?? []).filter((lane) => !strandSettled(bench, lane));
  const back = (check.backIds ?? []).map((id) => machine.parts.find((part) => part.id === id)?.name ?? id);
  const longest = Math.round((place.reachMm?.[1] ?? 0) - (place.entryMm ?? 0));
  const minutes = [
    `${Math.max(1, Math.round(check.handsOnMinutes))} min`,
    check.waitingMinutes >= 0.5 ? `+ ${Math.round(check.waitingMinutes)} min wait` : undefined,
  ]
    .filter(Boolean)
    .join(' ');

  const measured = results.find(({ id, measured: unit }) => id === number && unit !== undefined);
  if (number !== undefined)
    return (
      <View style={styles.pad}>
        <NumberPad
          key={check.key}
          keep={check.key}
          label={quantity ? (results[0]?.label ?? 'Value') : (measured?.label ?? 'Depth from the entry')}
          unit={quantity?.unit ?? measured?.measured ?? 'mm'}
          min={quantity?.min ?? 0}
          max={quantity?.max ?? (measured ? (MEASURED_MOST[measured.measured ?? 'mm'] ?? 1000) : longest + 50)}
          usual={
            quantity
              ? `sound: about ${quantity.normal.mean}`
              : measured
                ? undefined
                : 'mark the strand where it goes in, draw it out, measure'
          }
          onEnter={(value) => onResult(number, value)}
          onCancel={() => setNumber(undefined)}
          {...(quantity ? {} : { onSkip: () => onResult(number) })}
        />
      </View>
    );
  if (notDone)
    return (
      <View style={[styles.column, styles.pad]}>
        <Text bold>Why could it not be done?</Text>
        <View style={styles.grid}>
          {WHY_NOT.map((reason) => (
            <Button key={reason} label={reason} onPress={() => onNotDone(reason)} style={styles.half} />
          ))}
        </View>
        <Button label="Back" kind="quiet" onPress={() => setNotDone(false)} />
      </View>
    );
  return (
    <View style={styles.whole}>
      <MoreBelow label="The check" style={styles.words} contentStyle={styles.column}>
        <View style={styles.head}>
          <Text kind="small" bold tone="deed" style={styles.next}>
            {check.done ? 'Look here again' : 'Look here next'}
          </Text>
          <CheckSketch place={place} route={routeOf(machine, lane)} />
          <Text kind="figure" style={[styles.minutes, { borderColor: palette.housing }]}>
            {minutes}
          </Text>
        </View>
        <Text kind="large" bold heading={2} testID="check-name">
          {check.name}
        </Text>
        {check.cautions.map((id) => {
          const caution = cautionById(catalogue, id);
          return caution ? <CautionLine key={id} caution={caution} /> : null;
        })}
        {held ? (
          <View style={[styles.held, { backgroundColor: palette.warmWash }]}>
            <Text kind="small" style={styles.grow}>{`It ${held}.`}</Text>
            {place.check.heat === 'hot' ? tight : null}
            {place.check.heat === 'hot' &&
            looseHeaters(machine, bench).length === 0 &&
            looseConnectors(machine, bench).length === 0 &&
            heaterOff(machine, bench).length === 0 &&
            (ofHeat || bench.heatSpoiled !== true) &&
            bench.temperatureC < check.hotC - 10 ? (
              <Button
                label={`Heating to ${Math.round(check.hotC)} °C`}
                icon="heat"
                onPress={() => onHeat(Math.round(check.hotC))}
              />
            ) : null}
            {place.check.heat === 'cold' && bench.coldSure === false && bench.temperatureC <= SAFE_TO_TOUCH_C ? (
              <Button label={`It reads below ${SAFE_TO_TOUCH_C} °C`} icon="cold" onPress={onReadsCold} />
            ) : null}
          </View>
        ) : null}
        {strands.length > 0 ? (
          <View style={styles.column}>
            <Text bold>{strandFirst(machine, strands, bench)}</Text>
            <View style={styles.grid}>
              <Button
                label={strands.length > 1 ? 'They are empty' : 'It is empty'}
                icon="check"
                onPress={() => onStrand(strands, 'out')}
                style={styles.half}
              />
              <Button
                label="A piece is left, its place noted"
                onPress={() => onStrand(strands, 'remnant')}
                style={styles.half}
              />
            </View>
          </View>
        ) : null}
        {pushes && !bench.supported ? (
          <Button label="Head raised and supported" icon="check" onPress={onSupported} />
        ) : null}
        {back.length > 0 ? <Text bold>{`Put back first: ${back.join(', ')}.`}</Text> : null}
        {check.opens.length > 0 ? <Text bold>{`Take off first: ${check.opens.join(', ')}.`}</Text> : null}
        <Text>{check.how}</Text>
        {check.tools.length > 0 ? <Text kind="small">{`With: ${check.tools.join(', ')}.`}</Text> : null}
        {place.check.tool && onTool ? <ToolButton tool={place.check.tool} onTool={onTool} /> : null}
        {place.check.items ? (
          <ItemTicks results={results} outcomes={check.outcomes} ticked={ticked} onTicked={setTicked} />
        ) : null}
        <View>
          <Text kind="small" tone="soft">
            {check.because[0] ?? ''}
          </Text>
        </View>
        {beside}
      </MoreBelow>
      <View style={[styles.grid, styles.foot]} testID="results">
        {place.check.items ? (
          <ItemFoot results={results} ticked={ticked} onResult={onResult} />
        ) : quantity ? (
          <Button
            label={`Enter ${quantity.unit}`}
            kind="main"
            onPress={() => setNumber(results[0]?.id ?? 'mm')}
            style={styles.half}
          />
        ) : (
          answers.map((answer) => (
            <Button
              key={answer.id}
              label={answer.label}
              onPress={() =>
                answer.depth || ('measured' in answer && answer.measured) ? setNumber(answer.id) : onResult(answer.id)
              }
              style={[
                answers.length > 4 ? styles.third : styles.half,
                { backgroundColor: palette.deedWash, borderColor: palette.deed },
              ]}
            />
          ))
        )}
      </View>
      <View style={styles.row}>
        <Button label="Not sure" kind="quiet" onPress={() => onResult(NOT_SURE)} style={styles.slim} />
        <Button label="Could not do it" kind="quiet" onPress={() => setNotDone(true)} style={styles.slim} />
        {onWhy ? <Button label="Why" hint="Why this check" kind="quiet" onPress={onWhy} style={styles.slim} /> : null}
        <Button label="Other" hint="Choose another check" kind="quiet" onPress={onAnother} style={styles.slim} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  head: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', justifyContent: 'space-between', gap: space.s },
  grow: { flex: 1 },
  next: { flexShrink: 0 },
  // With a wait it may be long: it breaks in two before it runs off a narrow screen.
  minutes: { flexShrink: 1, textAlign: 'right', borderWidth: 1, borderRadius: radius.s, paddingHorizontal: space.s },
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  half: { flexBasis: '47%', flexGrow: 1 },
  pad: { paddingHorizontal: space.l, paddingBottom: space.s },
  third: { flexBasis: '30%', flexGrow: 1 },
  whole: { flexShrink: 1, paddingHorizontal: space.l },
  words: { flexShrink: 1 },
  foot: { paddingTop: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'space-between' },
  slim: { paddingHorizontal: space.xs },
  held: { flexDirection: 'row', alignItems: 'center', gap: space.s, padding: space.s, borderRadius: radius.m },
});

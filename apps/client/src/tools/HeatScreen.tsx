import { figureFault, HeatToolFigures } from '@zealous/contracts/tools';
import {
  BODIES,
  heatSentence,
  HOT_END_NAMES,
  hotEndKindOf,
  type HeatQuestion,
  type HotEndKind,
  type Machine,
} from '@zealous/core';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Line, Path, Rect } from 'react-native-svg';
import { useMachineQuery, useMachinesQuery } from '../data/api';
import { useCatalogue } from '../data/useCatalogue';
import { Button } from '../ui/Button';
import { Card } from '../ui/Card';
import { Chart, ChartText } from '../ui/Chart';
import { Choice } from '../ui/Choice';
import { FormNumber } from '../ui/form/FormFields';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { useWide } from '../ui/useWide';
import { tracer } from '../workers/trace';
import { ShareAddress } from './ShareAddress';
import { sideBySide } from './sideBySide';
import { useAddressedChoice, useAddressedFigures } from './useAddressed';
import { useWorkedOut } from './useWorkedOut';

const KINDS = (Object.keys(BODIES) as HotEndKind[]).map((id) => ({ id, label: HOT_END_NAMES[id] }));
const FRAME_MS = 60;

/** Is it safe to switch off? What the strand in the cold zone goes through, by the kind of hot end. */
export function HeatScreen() {
  const { machine: chosen } = useLocalSearchParams<{ readonly machine?: string }>();
  const router = useRouter();
  const { data: machines } = useMachinesQuery();
  const { data: machine } = useMachineQuery(chosen ?? '', { skip: chosen === undefined });
  const there = chosen === undefined || machine?.id === chosen;
  return machines && there ? (
    <Asked
      key={machine?.id}
      machines={machines}
      machine={machine}
      onMachine={(next) => router.setParams({ machine: next, kind: undefined })}
    />
  ) : (
    <Opening />
  );
}

const Opening = () => (
  <Page title="Is it safe to switch off?" back="/tools">
    <Text tone="soft">Looking for the machines …</Text>
  </Page>
);

function Asked({
  machines,
  machine,
  onMachine,
}: {
  readonly machines: readonly { readonly id: string; readonly name: string }[];
  readonly machine: Machine | undefined;
  readonly onMachine: (id: string) => void;
}) {
  const { materials } = useCatalogue();
  const wide = useWide();
  const soft = materials.filter(({ glassC }) => glassC !== undefined);
  const [kind, setKind] = useAddressedChoice<HotEndKind>(
    'kind',
    machine ? hotEndKindOf(machine) : 'all-metal',
    KINDS.map(({ id }) => id),
  );
  const [material, setMaterial] = useAddressedChoice(
    'material',
    soft[0]?.id ?? '',
    soft.map(({ id }) => id),
  );
  const printC = materials.find((m) => m.id === material)?.printC ?? 210;
  const [shown, setShown] = useState<HeatQuestion['id']>('off');
  const glassC = soft.find((m) => m.id === material)?.glassC ?? 60;
  const ambientC = machine?.heat.ambientC ?? 22;
  // The least goes by the room, which a class does not know.
  const [{ target, sink }, control] = useAddressedFigures({ target: undefined, sink: undefined }, (name, n) => {
    const least = name === 'target' ? ambientC + 20 : ambientC;
    return n > least ? figureFault(HeatToolFigures, name, n) : `must be above ${least}: the room is at ${ambientC} °C`;
  });
  const targetC = target ?? Math.min(printC, machine?.heat.limitC ?? 300);
  const tauS = machine?.heat.coolTauS ?? 180;
  const strandMm = machine?.strandMm ?? 1.75;
  const { found, problem } = useWorkedOut({ kind, ambientC, targetC, tauS, strandMm, glassC, sink }, (of) =>
    tracer().heatQuestions(
      { body: BODIES[of.kind], ambientC: of.ambientC, targetC: of.targetC, tauS: of.tauS, strandMm: of.strandMm },
      of.glassC,
      of.sink,
    ),
  );
  const question = found?.find(({ id }) => id === shown);
  return (
    <Page title="Is it safe to switch off?" back="/tools">
      <View style={sideBySide.column}>
        <Text tone="soft">
          Whether the strand softens where it should be cold, and sticks there. Reckoned from typical bodies, not
          measured: the rule stands that a machine is switched off below 100 °C.
        </Text>
        {problem ? (
          <Text bold tone="fault">
            {problem}
          </Text>
        ) : null}
        {!found && !problem ? <Text tone="soft">Working it out …</Text> : null}
        <View style={wide ? sideBySide.pair : sideBySide.column}>
          <View style={[sideBySide.side, wide && sideBySide.half]}>
            {found?.map((item) => (
              <Answer
                key={item.id}
                item={item}
                glassC={glassC}
                shown={item.id === shown}
                onShow={() => setShown(item.id)}
              />
            ))}
          </View>
          {question ? <OverTime key={question.id} question={question} glassC={glassC} kind={kind} /> : null}
        </View>
        <Text bold heading={2}>
          What it is reckoned for
        </Text>
        <Choice
          label="Machine"
          options={machines.map(({ id, name }) => ({ id, label: name }))}
          chosen={machine ? [machine.id] : []}
          onToggle={onMachine}
        />
        <Choice label="Hot end" options={KINDS} chosen={[kind]} onToggle={setKind} />
        <Choice
          label="Filament"
          options={soft.map((m) => ({ id: m.id, label: `${m.name}, softens at ${m.glassC} °C` }))}
          chosen={[material]}
          onToggle={setMaterial}
        />
        <View style={sideBySide.row}>
          <FormNumber
            control={control}
            name="target"
            label={`Hot end at, °C (else ${Math.round(targetC)})`}
            style={sideBySide.field}
          />
          <FormNumber
            control={control}
            name="sink"
            label="Sink while it prints, °C, if measured"
            style={sideBySide.field}
          />
        </View>
        <ShareAddress />
      </View>
    </Page>
  );
}

function Answer({
  item,
  glassC,
  shown,
  onShow,
}: {
  readonly item: HeatQuestion;
  readonly glassC: number;
  readonly shown: boolean;
  readonly onShow: () => void;
}) {
  return (
    <Card edge={item.answer.softAtS !== undefined ? 'fault' : item.againstRule ? 'warm' : 'clear'}>
      <Text bold>{item.name}</Text>
      <Text testID={`heat-${item.id}`}>{heatSentence(item, glassC)}</Text>
      {shown ? null : <Button label="Show it over time" kind="quiet" onPress={onShow} style={styles.start} />}
    </Card>
  );
}

const clock = (seconds: number): string =>
  seconds < 60
    ? `${Math.round(seconds)} s`
    : `${Math.floor(seconds / 60)} min ${String(Math.round(seconds % 60)).padStart(2, '0')} s`;

/** The strand's warmth from the break upwards, at a moment that is played or chosen. */
function OverTime({
  question,
  glassC,
  kind,
}: {
  readonly question: HeatQuestion;
  readonly glassC: number;
  readonly kind: HotEndKind;
}) {
  const palette = usePalette();
  const wide = useWide();
  const { frames, heightMm, coldFromMm } = question.run;
  const peak = frames.findIndex(({ atS }) => atS >= question.answer.peakAtS);
  const [at, setAt] = useState(Math.max(0, peak));
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return undefined;
    const timer = setInterval(
      () =>
        setAt((now) => {
          if (now + 3 < frames.length) return now + 3;
          setPlaying(false);
          return frames.length - 1;
        }),
      FRAME_MS,
    );
    return () => clearInterval(timer);
  }, [playing, frames.length]);
  const show = (i: number): void => {
    setPlaying(false);
    setAt(i);
  };
  const frame = frames[Math.min(at, frames.length - 1)];
  if (!frame) return null;
  const highest = (heightMm.at(-1) ?? 1) - coldFromMm;
  const hottest = Math.max(...frames.map(({ blockC }) => blockC));
  const above = (i: number): number => (heightMm[i] ?? 0) - coldFromMm;
  return (
    <View style={[sideBySide.side, wide && sideBySide.half]}>
      <Text bold>{`${question.name}: ${clock(frame.atS)}, block ${Math.round(frame.blockC)} °C`}</Text>
      <Chart
        label={`${HOT_END_NAMES[kind]}, the strand above the heat break after ${clock(frame.atS)}: at most ${Math.round(Math.max(...[...frame.strandC].filter((_, i) => above(i) > 2)))} °C in the cold zone, it softens at ${glassC} °C`}
        across={{ from: -coldFromMm, to: highest, words: (mm) => `${mm} mm` }}
        up={{ from: 0, to: hottest * 1.05, words: (v) => `${v}°` }}
        height={220}
      >
        {(x, y) => {
          const line = (list: Float64Array): string =>
            Array.from(list, (t, i) => `${i ? 'L' : 'M'}${x(above(i)).toFixed(1)} ${y(t).toFixed(1)}`).join('');
          return [
            <Rect
              key="break"
              x={x(-coldFromMm)}
              y={y(hottest * 1.05)}
              width={x(0) - x(-coldFromMm)}
              height={y(0) - y(hottest * 1.05)}
              fill={palette.warmWash}
            />,
            <Line
              key="glass"
              x1={x(-coldFromMm)}
              x2={x(highest)}
              y1={y(glassC)}
              y2={y(glassC)}
              stroke={palette.warm}
              strokeWidth={2}
              strokeDasharray="6 4"
            />,
            <ChartText key="word" x={x(highest)} y={y(glassC) - 5} anchor="end">
              {`softens at ${glassC} °C`}
            </ChartText>,
            <Path key="metal" d={line(frame.metalC)} stroke={palette.housing} strokeWidth={2} fill="none" />,
            <Path key="strand" d={line(frame.strandC)} stroke={palette.deed} strokeWidth={3} fill="none" />,
          ];
        }}
      </Chart>
      <View style={sideBySide.row}>
        <Button
          label={playing ? 'Hold' : 'Play the hour'}
          icon="timer"
          onPress={() => {
            if (!playing && at >= frames.length - 1) setAt(0);
            setPlaying(!playing);
          }}
        />
        <Button label="From the start" kind="quiet" onPress={() => show(0)} />
        <Button label="At its warmest" kind="quiet" onPress={() => show(Math.max(0, peak))} />
      </View>
      <Text kind="small" tone="soft">
        Strong line: the strand. Thin line: the metal about it. Shaded: the heat break; to its right the cold zone, in
        mm above it.
      </Text>
    </View>
  );
}

const styles = StyleSheet.create({ start: { alignSelf: 'flex-start', paddingHorizontal: 0 } });

import {
  cautionById,
  modeById,
  type Bench,
  type EventBodies,
  type FastenerRecord,
  type Machine,
  type OrderState,
  type PlanStep,
  type RungOutcome,
  type StepChoice,
} from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import type { Recorder } from '../data/useOrder';
import { ByMachine } from '../link/ByMachine';
import { PhotoStrip, usePhotoSource, type Photo } from '../photos/PhotoStrip';
import { useCatalogue } from '../data/useCatalogue';
import { CautionLine } from '../ui/CautionLine';
import { clockText, waitText } from '../ui/format';
import { Icon } from '../ui/Icon';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';
import { FastenerMap, type FastenerMoves } from './FastenerMap';
import type { FittedPart } from './PartFields';
import { Deeds, Held } from './StepDeeds';
import { SolventTry } from './SolventTry';
import { StartTimer } from './StartTimer';
import { WayChoice } from './WayChoice';

export interface StepCardProps {
  readonly orderId: string;
  readonly state: OrderState;
  readonly record: Recorder;
  readonly machine: Machine;
  readonly step: PlanStep;
  readonly number: number;
  readonly current: boolean;
  readonly done?: { readonly by: string; readonly override?: string; readonly skipped?: string } | undefined;
  readonly held?: string | undefined;
  readonly timer?: { readonly endsMs: number } | undefined;
  readonly now: number;
  readonly bench: Bench;
  readonly tried?: string | undefined;
  readonly onDone: (override?: string, choice?: StepChoice) => void;
  /** Every fastener of the step's part at once, out or back. */
  readonly onAll: (to: 'out' | 'in') => void;
  readonly fasteners: FastenerRecord | undefined;
  readonly onTried: (outcome: RungOutcome, depthMm?: number, part?: FittedPart) => void;
  readonly onFasteners: (moves: FastenerMoves) => void;
  readonly onSkip: (why: string) => void;
  /** Takes this step before the ones above it. */
  readonly onFirst: () => void;
  /** Goes back to the step whose turn it is; absent where it is this one's. */
  readonly inTurn?: { readonly title: string; readonly onPress: () => void } | undefined;
  readonly onTimer: (minutes: number) => void;
  readonly onSet: (body: EventBodies['bench-changed']) => void;
}

const TRIED: Readonly<Record<string, string>> = {
  cleared: 'cleared it',
  better: 'brought it further',
  'no-change': 'changed nothing',
  worse: 'made it worse',
};

export function StepCard(props: StepCardProps) {
  const { step, number, current, done, tried } = props;
  const palette = usePalette();
  const tone = done ? 'clear' : current ? 'ink' : 'soft';
  return (
    <View
      style={[
        styles.card,
        {
          borderColor: current ? palette.deed : palette.line,
          borderWidth: current ? 2 : 1,
          backgroundColor: palette.card,
        },
      ]}
      role="group"
      aria-label={`Step ${number}: ${step.title}${done ? ', done' : current ? ', now' : ''}`}
    >
      <View style={styles.row}>
        {done ? <Icon name="done" color={palette.clear} /> : <Text kind="figure" tone={tone}>{`${number}`}</Text>}
        <Text bold={current} tone={tone} style={styles.grow}>
          {step.title}
        </Text>
        {tried ? (
          <Text kind="small" tone={tried === 'cleared' ? 'clear' : 'fault'}>
            {TRIED[tried]}
          </Text>
        ) : null}
        <Text
          kind="small"
          tone="soft"
        >{`${Math.max(1, Math.round(step.minutes))} min${step.waitMinutes >= 1 ? ` + ${waitText(step.waitMinutes)}` : ''}`}</Text>
      </View>
      {done?.skipped ? <Text kind="small" tone="soft">{`Skipped: ${done.skipped} (${done.by})`}</Text> : null}
      {done?.override ? (
        <Text kind="small" tone="fault">{`Done although the plan held it back: ${done.override} (${done.by})`}</Text>
      ) : null}
      {current ? <Body {...props} /> : null}
      {!current && !done ? (
        <Button label={`Out of turn, now: ${step.title}`} kind="quiet" onPress={props.onFirst} style={styles.start} />
      ) : null}
    </View>
  );
}

function Body(props: StepCardProps) {
  const { step, held, now } = props;
  const palette = usePalette();
  const catalogue = useCatalogue();
  const changes = changesOf(step, props.machine);
  return (
    <View style={styles.column}>
      {step.cautions.map((id) => {
        const caution = cautionById(catalogue, id);
        return caution ? <CautionLine key={id} caution={caution} /> : null;
      })}
      {step.stop ? (
        <Text bold tone="fault">
          {`Back off when: ${step.stop}`}
        </Text>
      ) : null}
      {stateWords(step) ? (
        <Text kind="small" bold tone="soft">
          {stateWords(step)}
        </Text>
      ) : null}
      <Text>{step.how}</Text>
      {step.need.heat === 'hot' || step.acts.some((act) => act.do === 'target') ? (
        <ByMachine label="Have the machine do it" hotC={step.need.hotC} />
      ) : null}
      {step.covers ? (
        <Text bold>
          {`One part for both: it covers ${step.covers.map(({ mode }) => (modeById(catalogue, mode)?.name ?? mode).toLowerCase()).join(' and ')} too, for less than one after the other.`}
        </Text>
      ) : null}
      {step.notes.map((note) => (
        <Text key={note} kind="small">{`• ${note}`}</Text>
      ))}
      {step.looks.length > 0 ? (
        <Text
          kind="small"
          tone="soft"
        >{`While it is open: ${step.looks.join('; ')}. Printed parts near the heat and the fan too.`}</Text>
      ) : null}
      {changes ? <Text kind="small" tone="soft">{`Afterwards: ${changes}.`}</Text> : null}
      {step.tools.length > 0 ? <Text kind="small" tone="soft">{`With: ${step.tools.join(', ')}`}</Text> : null}
      <WayChoice
        machine={props.machine}
        step={step}
        off={props.bench.off}
        onPick={(way) => props.record('way-picked', { part: step.part ?? '', ...(way ? { way } : {}) })}
      />
      {step.solvents ? (
        <Text kind="small" tone="soft">
          The soak begins once a piece has softened.
        </Text>
      ) : null}
      {step.solvents ? (
        <SolventTry
          step={step}
          tried={props.state.solvents}
          material={props.state.intake?.material}
          onTry={(solvent, softened) => props.record('solvent-tried', { solvent, softened })}
        />
      ) : null}
      {step.offer?.flaw ? <Text bold>{`Look for its known flaw before it is fitted. ${step.offer.flaw}`}</Text> : null}
      {step.fasteners.length > 0 ? <StepMap {...props} /> : null}
      <PhotoStrip
        orderId={props.orderId}
        state={props.state}
        record={props.record}
        about={aboutOf(step)}
        label={step.fasteners.length > 0 ? 'Picture of the part' : 'Take a picture'}
      />
      {props.timer ? (
        <View style={styles.row} role="timer" aria-label="Time left">
          <Icon name="timer" color={palette.deed} />
          <Text bold tone="deed">
            {props.timer.endsMs > now ? `${clockText((props.timer.endsMs - now) / 1000)} left` : 'Time is up'}
          </Text>
        </View>
      ) : step.waitMinutes >= 1 && (step.kind === 'rung' || step.kind === 'act' || step.kind === 'dry') ? (
        <StartTimer minutes={step.waitMinutes} onTimer={props.onTimer} />
      ) : null}
      {held ? <Held {...props} held={held} /> : <Deeds {...props} />}
      {props.inTurn ? (
        <Button
          label={`Back in turn: ${props.inTurn.title}`}
          kind="quiet"
          onPress={props.inTurn.onPress}
          style={styles.start}
        />
      ) : null}
    </View>
  );
}

/** What the step leaves changed on the bench, in words. */
function changesOf({ acts, kind }: PlanStep, machine: Machine): string {
  const name = (id: string): string => machine.parts.find((part) => part.id === id)?.name ?? id;
  const plug = (id: string): string => machine.connectors.find((one) => one.id === id)?.name ?? id;
  const words = acts.flatMap((act): string[] => {
    switch (act.do) {
      case 'off':
        return [`${name(act.part)} is off`];
      case 'on':
        return [`${name(act.part)} is on again`];
      case 'unplug':
        return [`unplugged: ${act.connectors.map(plug).join(', ')}; no power until they are back`];
      case 'plug':
        return [`plugged in: ${act.connectors.map(plug).join(', ')}`];
      case 'wet':
        return ['the part is wet: no heat and no power near it until it is dry'];
      case 'dry':
        return ['the part is dry'];
      case 'strand':
        return kind === 'unload' ? [] : ['the strand is cut, and what is left is accounted for'];
      case 'target':
        return kind === 'heat' || kind === 'cool'
          ? []
          : [act.c > 0 ? `target back to ${act.c} °C at once` : 'target at zero'];
      case 'raise':
        return ['the head is supported'];
      case 'lower':
        return ['nothing stands under the head'];
      default:
        return [];
    }
  });
  return words.join('; ');
}

const HEAT_WORDS = { any: '', cold: 'cold to touch', hot: 'hot' } as const;
const POWER_WORDS = { any: '', off: 'off and unplugged', on: 'switched on' } as const;

/** The state of the machine that a step needs, in words. */
function stateWords({ need }: PlanStep): string {
  const heat = need.heat === 'hot' && need.hotC > 0 ? `hot at ${Math.round(need.hotC)} °C` : HEAT_WORDS[need.heat];
  const words = [heat, POWER_WORDS[need.power]].filter(Boolean).join(', ');
  return words ? `Machine: ${words}` : '';
}

/** Pictures of a part stay with it from opening to closing. */
const aboutOf = (step: PlanStep): string => (step.fasteners.length > 0 && step.part ? `part:${step.part}` : step.id);

/** The map drawn from the machine's data, or on the technician's own picture when there is one. */
function StepMap({ step, state, orderId, record, fasteners, onFasteners }: StepCardProps) {
  const photo = state.photos.findLast(({ about }) => about === aboutOf(step));
  return photo ? (
    <OnPhoto key={photo.photoId} {...{ step, orderId, record, fasteners, onFasteners, photo }} />
  ) : (
    <FastenerMap step={step} record={fasteners} onMove={onFasteners} />
  );
}

function OnPhoto({
  step,
  orderId,
  record,
  fasteners,
  onFasteners,
  photo,
}: Pick<StepCardProps, 'step' | 'orderId' | 'record' | 'fasteners' | 'onFasteners'> & { readonly photo: Photo }) {
  const source = usePhotoSource(orderId, photo.photoId);
  return (
    <FastenerMap
      step={step}
      record={fasteners}
      onMove={onFasteners}
      photo={{ source, photo }}
      onPlace={(markers) => record('photo-marked', { photoId: photo.photoId, markers })}
    />
  );
}

const styles = StyleSheet.create({
  card: { borderRadius: radius.m, padding: space.m, gap: space.s },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  column: { gap: space.s },
  grow: { flex: 1 },
  start: { alignSelf: 'flex-start' },
});

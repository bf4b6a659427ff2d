import {
  CAUTIONS,
  SAFE_TO_TOUCH_C,
  SWITCH_OFF_BELOW_C,
  type Bench,
  type EventBodies,
  type FastenerRecord,
  type Machine,
  type OrderState,
  type PlanStep,
  type RungOutcome,
} from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Recorder } from '../data/useOrder';
import { PhotoStrip, usePhotoSource, type Photo } from '../photos/PhotoStrip';
import { CautionLine } from '../ui/CautionLine';
import { Field } from '../ui/Field';
import { NumberField } from '../ui/form/NumberField';
import { clockText } from '../ui/format';
import { Icon } from '../ui/Icon';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';
import { FastenerMap, stillOut, type FastenerMoves } from './FastenerMap';
import { PartFields, type FittedPart } from './PartFields';
import { SolventTry } from './SolventTry';
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
  readonly onDone: (override?: string) => void;
  readonly fasteners: FastenerRecord | undefined;
  readonly onTried: (outcome: RungOutcome, depthMm?: number, part?: FittedPart) => void;
  readonly onFasteners: (moves: FastenerMoves) => void;
  readonly onSkip: (why: string) => void;
  /** Takes this step before the ones above it. */
  readonly onFirst: () => void;
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
        <Text kind="small" tone="fault">{`Done against a hold: ${done.override} (${done.by})`}</Text>
      ) : null}
      {current ? <Body {...props} /> : null}
      {!current && !done ? (
        <Tap label={`Do this first: ${step.title}`} kind="quiet" onPress={props.onFirst} style={styles.start} />
      ) : null}
    </View>
  );
}

const waitText = (minutes: number): string =>
  minutes >= 90 ? `${Math.round(minutes / 60)} h wait` : `${Math.round(minutes)} min wait`;

function Body(props: StepCardProps) {
  const { step, held, now } = props;
  const palette = usePalette();
  return (
    <View style={styles.column}>
      {step.cautions.map((id) => {
        const caution = CAUTIONS[id];
        return caution ? <CautionLine key={id} caution={caution} /> : null;
      })}
      {stateWords(step) ? (
        <Text kind="small" bold tone="soft">
          {stateWords(step)}
        </Text>
      ) : null}
      <Text>{step.how}</Text>
      {step.tools.length > 0 ? <Text kind="small" tone="soft">{`With: ${step.tools.join(', ')}`}</Text> : null}
      <WayChoice
        machine={props.machine}
        step={step}
        off={props.bench.off}
        onPick={(way) => props.record('way-picked', { part: step.part ?? '', ...(way ? { way } : {}) })}
      />
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
      {step.stop ? (
        <Text bold tone="fault">
          {`Back off when: ${step.stop}`}
        </Text>
      ) : null}
      {props.timer ? (
        <View style={styles.row} role="timer" aria-label="Time left">
          <Icon name="timer" color={palette.deed} />
          <Text bold tone="deed">
            {props.timer.endsMs > now ? `${clockText((props.timer.endsMs - now) / 1000)} left` : 'Time is up'}
          </Text>
        </View>
      ) : step.solvents && !Object.values(props.state.solvents).includes(true) ? (
        <Text kind="small" tone="soft">
          The soak begins once a piece has softened.
        </Text>
      ) : step.waitMinutes >= 1 && step.kind === 'rung' ? (
        <Tap
          label={`Start the timer, ${waitText(step.waitMinutes)}`}
          icon="timer"
          onPress={() => props.onTimer(Math.round(step.waitMinutes))}
        />
      ) : null}
      {held ? <Held {...props} held={held} /> : <Deeds {...props} />}
    </View>
  );
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

/** What ends the step. A cooling step is ended by a reading, not by the clock alone. */
function Deeds(props: StepCardProps) {
  const { step, bench, fasteners, onDone, onTried } = props;
  const [depth, setDepth] = useState<number | undefined>(undefined);
  const [part, setPart] = useState<FittedPart>(step.offer ? { offer: step.offer.id, price: step.offer.price } : {});
  const [skipping, setSkipping] = useState<string | undefined>(undefined);
  const mat = stillOut(step, fasteners);
  if (step.kind === 'rung')
    return (
      <View style={styles.column}>
        {step.measures === 'depth' ? (
          <NumberField
            label="Depth by rod now, mm (if measured)"
            value={depth}
            fits={(n) => n >= 0}
            onChange={setDepth}
          />
        ) : null}
        {step.replaces ? <PartFields part={part} onChange={setPart} /> : null}
        <Text bold>What came of it?</Text>
        {step.outcomes?.map((outcome, i) => (
          <Tap
            key={outcome.id}
            label={outcome.label}
            {...(i === 0 ? { kind: 'main' as const } : {})}
            onPress={() => onTried(outcome, depth, part)}
          />
        ))}
      </View>
    );
  const to = step.sets?.readingC ?? 0;
  const waits = step.kind === 'cool';
  return (
    <View style={styles.column}>
      {waits ? (
        <Text
          kind="small"
          tone="soft"
        >{`By the clock it is at about ${Math.round(bench.temperatureC)} °C. A reading ends this step.`}</Text>
      ) : null}
      {mat > 0 ? (
        <Text bold tone="fault">
          {`${mat} still on the mat: put ${mat === 1 ? 'it' : 'them'} back, or say why not.`}
        </Text>
      ) : null}
      <Tap
        label={waits ? `It reads below ${to} °C` : step.kind === 'wait' ? `It reads ${to} °C` : 'Done'}
        kind="main"
        icon="check"
        disabled={mat > 0}
        onPress={() => onDone()}
      />
      {waits ? null : skipping === undefined ? (
        <Tap
          label={step.closes ? 'It stays off …' : 'Not needed here …'}
          kind="quiet"
          onPress={() => setSkipping('')}
          style={styles.start}
        />
      ) : (
        <View style={styles.column}>
          <Field
            label={step.closes ? 'Why it stays off' : 'Why it is not needed'}
            value={skipping}
            onChange={setSkipping}
            most={200}
          />
          <Tap
            label="Skip, with this reason"
            disabled={skipping.trim() === ''}
            onPress={() => props.onSkip(skipping.trim())}
          />
        </View>
      )}
    </View>
  );
}

/** A step that does not fit the recorded state: why, the way there, and the way past it under one's own name. */
function Held({ step, held, bench, onDone, onSet }: StepCardProps & { readonly held: string }) {
  const palette = usePalette();
  const [sure, setSure] = useState(false);
  const hot = step.need.heat === 'hot' && bench.temperatureC < step.need.hotC - 10;
  const cool =
    (step.need.heat === 'cold' || step.need.power === 'off' || step.sets?.power === 'off') &&
    bench.temperatureC > SAFE_TO_TOUCH_C;
  return (
    <View style={[styles.held, { backgroundColor: palette.warmWash }]} role="status">
      <Text bold>{`Waits: it ${held}.`}</Text>
      {hot ? (
        <Tap
          label={`Heating to ${Math.round(step.need.hotC)} °C now`}
          icon="heat"
          onPress={() => onSet({ targetC: Math.round(step.need.hotC), power: 'on' })}
        />
      ) : null}
      {step.need.heat === 'cold' && bench.coldSure === false && bench.temperatureC <= SAFE_TO_TOUCH_C ? (
        <Tap
          label={`It reads below ${SAFE_TO_TOUCH_C} °C`}
          icon="cold"
          onPress={() => onSet({ readingC: SAFE_TO_TOUCH_C, atMost: true })}
        />
      ) : null}
      {cool ? <Tap label="Target to zero, cooling" icon="cold" onPress={() => onSet({ targetC: 0 })} /> : null}
      {step.need.power === 'off' && bench.power === 'on' && bench.temperatureC <= SWITCH_OFF_BELOW_C ? (
        <Tap label="Switched off and unplugged" icon="power" onPress={() => onSet({ power: 'off' })} />
      ) : null}
      {step.need.power === 'on' && bench.power === 'off' ? (
        <Tap label="Switched on" icon="power" onPress={() => onSet({ power: 'on' })} />
      ) : null}
      {sure ? (
        <View style={styles.column}>
          <Text kind="small">It will stand in the record under your name that this was done against the hold.</Text>
          <Tap label="Done all the same" onPress={() => onDone(held.slice(0, 180))} />
        </View>
      ) : step.kind === 'rung' ? null : (
        <Tap label="Do it all the same …" kind="quiet" onPress={() => setSure(true)} />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  card: { borderRadius: radius.m, padding: space.m, gap: space.s },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  column: { gap: space.s },
  grow: { flex: 1 },
  start: { alignSelf: 'flex-start' },
  held: { gap: space.s, padding: space.m, borderRadius: radius.m },
});

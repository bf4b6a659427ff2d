import {
  fastenerMap,
  lanesInTheWay,
  mayBeAbsent,
  mayOverride,
  onTheMat,
  pinsThatComeOut,
  SAFE_TO_TOUCH_C,
  SWITCH_OFF_BELOW_C,
  type Machine,
  type PlanStep,
} from '@zealous/core';
import { useState } from 'react';
import { useKept } from '../data/useKept';
import { StyleSheet, View } from 'react-native';
import { Field } from '../ui/Field';
import { NumberField } from '../ui/form/NumberField';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';
import { stillOut } from './FastenerMap';
import { PartFields, type FittedPart } from './PartFields';
import type { StepCardProps } from './StepCard';

/** What ends the step. A cooling step is ended by a reading, not by the clock alone. */
export function Deeds(props: StepCardProps) {
  const { step, bench, fasteners, onDone, onTried } = props;
  const [depth, setDepth] = useState<number | undefined>(undefined);
  const [part, setPart, forgetPart] = useKept<FittedPart>(
    `part:${step.id}`,
    step.offer ? { offer: step.offer.id, price: step.offer.price } : {},
  );
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
        {step.replaces ? <PartFields part={part} fitted={step.fitted === true} onChange={setPart} /> : null}
        <Text bold>{step.replaces ? 'Is it in?' : 'What came of it?'}</Text>
        {step.outcomes?.map((outcome, i) => (
          <Button
            key={outcome.id}
            label={outcome.label}
            {...(i === 0 ? { kind: 'main' as const } : {})}
            onPress={() => {
              forgetPart();
              onTried(outcome, depth, part);
            }}
          />
        ))}
      </View>
    );
  if (step.choices)
    return (
      <View style={styles.column}>
        {step.choices.map((choice, i) => (
          <Button
            key={choice.id}
            label={choice.label}
            {...(i === 0 ? { kind: 'main' as const } : {})}
            onPress={() => onDone(undefined, choice)}
          />
        ))}
      </View>
    );
  // The piece in the solvent says itself whether it softened.
  const tested = step.solvents !== undefined;
  const to = step.sets?.readingC ?? 0;
  const waits = step.kind === 'cool';
  const toGo =
    step.opens === undefined
      ? 0
      : pinsThatComeOut(step.fasteners).length - onTheMat(fastenerMap(step.fasteners), fasteners).length;
  const skip = skippable(step, props.machine);
  return (
    <View style={styles.column}>
      {waits ? (
        <Text
          kind="small"
          tone="soft"
        >{`By the clock it is at about ${Math.round(bench.temperatureC)} °C. A reading ends this step.`}</Text>
      ) : null}
      {mat > 0 ? (
        <>
          <Text bold tone="fault">
            {`${mat} still on the mat: put ${mat === 1 ? 'it' : 'them'} back, or say why not.`}
          </Text>
          <Button label={`All ${mat} back in: it is on`} kind="main" icon="check" onPress={() => props.onAll('in')} />
        </>
      ) : toGo > 0 ? (
        <Button
          label={toGo === 1 ? 'It is out: part off' : `All ${toGo} out: part off`}
          kind="main"
          icon="check"
          onPress={() => props.onAll('out')}
        />
      ) : tested ? null : (
        <Button
          label={
            waits
              ? `It reads below ${to} °C`
              : step.kind === 'wait'
                ? `It reads ${to} °C`
                : (DONE_WORDS[step.kind] ?? 'Done')
          }
          kind="main"
          icon="check"
          onPress={() => onDone()}
        />
      )}
      {step.kind === 'open' ? (
        <Button label="It is off already" kind="quiet" onPress={() => onDone()} style={styles.start} />
      ) : step.kind === 'close' ? (
        <Button label="It is on already" kind="quiet" onPress={() => props.onAll('in')} style={styles.start} />
      ) : null}
      {!skip ? null : skipping === undefined ? (
        <Button
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
          <Button
            label="Skip, with this reason"
            disabled={skipping.trim() === ''}
            onPress={() => props.onSkip(skipping.trim())}
          />
        </View>
      )}
    </View>
  );
}

const DONE_WORDS: Readonly<Partial<Record<PlanStep['kind'], string>>> = {
  raise: 'It stands raised and supported',
  lower: 'Nothing stands under it',
  service: 'It sits there, held',
};

/** What may be passed over with a reason: what only says the state of heat, power, strand or head is told instead. */
const skippable = (step: PlanStep, machine: Machine): boolean =>
  step.kind === 'open'
    ? mayBeAbsent(machine, step.opens ?? '')
    : step.kind === 'close' ||
      step.kind === 'spares' ||
      step.kind === 'keep' ||
      (step.kind === 'act' && !step.acts.some((act) => act.do === 'dry' || act.do === 'wet'));

/** A step that does not fit the recorded state: why, the way there, and the way past it under one's own name. */
export function Held({ step, held, bench, machine, onDone, onSet }: StepCardProps & { readonly held: string }) {
  const lanes = lanesInTheWay(step, bench, machine);
  const closedAgain = mayOverride(step, bench, machine);
  const pushes = step.acts.some((act) => act.do === 'push' && !act.inHand);
  const palette = usePalette();
  const [sure, setSure] = useState(false);
  const hot = step.need.heat === 'hot' && bench.temperatureC < step.need.hotC - 10;
  const cool =
    (step.need.heat === 'cold' || step.need.power === 'off' || step.sets?.power === 'off') &&
    bench.temperatureC > SAFE_TO_TOUCH_C;
  return (
    <View style={[styles.held, { backgroundColor: palette.warmWash }]} role="status">
      <Text bold>{`Waits: it ${held}.`}</Text>
      {pushes && !bench.supported ? (
        <Button label="Head raised and supported" icon="check" onPress={() => onSet({ supported: true })} />
      ) : null}
      {[...(bench.wet ?? [])].length > 0 ? (
        <Button label="Dry, no smell left" icon="check" onPress={() => onSet({ dry: [...(bench.wet ?? [])] })} />
      ) : null}
      {lanes.length > 0 ? (
        <Button
          label="Nothing runs through it: it is empty"
          onPress={() => onSet({ strand: Object.fromEntries(lanes.map((lane) => [lane, 'out' as const])) })}
        />
      ) : null}
      {hot && closedAgain ? (
        <Button
          label={`Heating to ${Math.round(step.need.hotC)} °C now`}
          icon="heat"
          onPress={() => onSet({ targetC: Math.round(step.need.hotC), power: 'on' })}
        />
      ) : null}
      {step.need.heat === 'cold' && bench.coldSure === false && bench.temperatureC <= SAFE_TO_TOUCH_C ? (
        <Button
          label={`It reads below ${SAFE_TO_TOUCH_C} °C`}
          icon="cold"
          onPress={() => onSet({ readingC: SAFE_TO_TOUCH_C, atMost: true })}
        />
      ) : null}
      {cool ? <Button label="Target to zero, cooling" icon="cold" onPress={() => onSet({ targetC: 0 })} /> : null}
      {step.need.power === 'off' && bench.power === 'on' && bench.temperatureC <= SWITCH_OFF_BELOW_C ? (
        <Button label="Switched off and unplugged" icon="power" onPress={() => onSet({ power: 'off' })} />
      ) : null}
      {step.need.power === 'on' && bench.power === 'off' && closedAgain ? (
        <Button label="Switched on" icon="power" onPress={() => onSet({ power: 'on' })} />
      ) : null}
      {sure ? (
        <View style={styles.column}>
          <Text kind="small">
            It will stand in the record under your name that this was done although the plan held it back.
          </Text>
          <Button label="Done all the same" onPress={() => onDone(held.slice(0, 180))} />
        </View>
      ) : step.kind === 'rung' || !closedAgain ? null : (
        <Button label="Do it all the same …" kind="quiet" onPress={() => setSure(true)} />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  start: { alignSelf: 'flex-start' },
  held: { gap: space.s, padding: space.m, borderRadius: radius.m },
});

import {
  allFasteners,
  benchAt,
  stepEntries,
  type Entry,
  type StepChoice,
  heldBecause,
  modeById,
  lastStepEvents,
  placesOf,
  standingAction,
  planDone,
  planFor,
  SAFE_TO_TOUCH_C,
  SWITCH_OFF_BELOW_C,
  type Plan,
  type PlanStep,
  type RungOutcome,
} from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { useRouter } from 'expo-router';
import { useEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View, type ScrollView } from 'react-native';
import { useClock } from '../data/useClock';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';
import { causeTitle } from '../orders/titles';
import { Card, Notice } from '../ui/Card';
import { Button } from '../ui/Button';
import { Main } from '../ui/Main';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { BenchCard } from './BenchCard';
import { LadderCard } from './LadderCard';
import type { FittedPart } from './PartFields';
import { StepCard } from './StepCard';
import { Timeline } from './Timeline';

/** Temperatures closer than this make no other plan. */
const GRAIN_C = 10;

/** The work plan, worked out again when something was recorded or the machine has cooled noticeably. */
function usePlan({ machine, state }: OrderPartProps['order'], now: number): Plan | undefined {
  const catalogue = useCatalogue();
  const bench = benchAt(machine, state, now);
  const coarse = `${Math.round(bench.temperatureC / GRAIN_C)}|${bench.temperatureC > SWITCH_OFF_BELOW_C}|${bench.temperatureC > SAFE_TO_TOUCH_C}`;
  return useMemo(
    () => (state.cause ? planFor(machine, catalogue, state, bench) : undefined),
    // `coarse` stands for the bench's temperature; the rest of it is in the state.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [machine, catalogue, state, coarse],
  );
}

/** The same step, with another part to be fitted or the part coming off another way. */
const alike = (id: string, own: string | undefined): boolean =>
  own !== undefined && id.replace(/\/.*/, '') === own.replace(/\/.*/, '');

/** What was done and what is left for the chosen causes: one step open at a time, in the planned order or one's own. */
export function PlanScreen({ order, record }: OrderPartProps) {
  const { machine, state } = order;
  const router = useRouter();
  const now = useClock(1000);
  const scroll = useRef<ScrollView>(null);
  const catalogue = useCatalogue();
  const plan = usePlan(order, now);
  const [own, setOwn] = useState<string | undefined>(undefined);
  const [past, setPast] = useState(false);
  const left = plan?.steps.slice(plan.done) ?? [];
  const current = left.find((step) => step.id === own) ?? left.find((step) => alike(step.id, own)) ?? left[0];
  const heights = useRef(new Map<string, number>());
  const currentId = current?.id;
  useEffect(() => {
    const y = currentId === undefined ? undefined : heights.current.get(currentId);
    if (y !== undefined) scroll.current?.scrollTo({ y: Math.max(0, y - 80), animated: true });
  }, [currentId]);

  if (!plan)
    return (
      <View style={styles.pad}>
        <Notice
          title="No work plan yet"
          text="A plan is written for a cause. Trace first, or take a cause at its station on the strand."
          action="To the strand"
          onAction={() => router.replace(orderHref(order.id, 'trace'))}
        />
      </View>
    );
  const bench = benchAt(machine, state, now);
  const entries = (list: readonly Entry[]): void => {
    for (const { type, body } of list) record(type, body);
  };
  const finish = (step: PlanStep, override?: string, choice?: StepChoice): void => {
    entries(stepEntries(step, choice));
    record('step-done', { stepId: step.id, ...(override ? { override } : {}) });
    for (const timer of state.timers) if (timer.id === step.id) record('timer-stopped', { timerId: timer.id });
  };
  const all = (step: PlanStep, to: 'out' | 'in'): void => {
    const part = step.opens ?? step.closes;
    const tick = part === undefined ? [] : allFasteners(machine, part, step.way, to);
    if (to === 'in') entries(tick);
    finish(step);
    if (to === 'out') entries(tick);
  };
  const tried = (step: PlanStep, outcome: RungOutcome, depthMm?: number, part?: FittedPart): void => {
    const { remedy, station = '', mode = '' } = step;
    if (!remedy) return;
    entries(stepEntries(step));
    record('rung-tried', {
      stepId: step.id,
      remedy,
      station,
      mode,
      outcome: outcome.means,
      shown: outcome.id,
      ...(depthMm === undefined ? {} : { depthMm }),
    });
    for (const other of step.covers ?? [])
      record('rung-tried', { stepId: step.id, remedy, ...other, outcome: outcome.means, shown: outcome.id });
    // What the pulled tip or the rod shows is a finding like any other.
    const place =
      outcome.finding && placesOf(state, machine, catalogue).find((at) => at.check.id === outcome.finding?.check);
    const depth = place?.check.results.find(({ id }) => id === outcome.finding?.result)?.depth;
    if (place && outcome.finding)
      record('finding-recorded', {
        key: place.key,
        result: outcome.finding.result,
        ...(depth && depthMm !== undefined ? { value: depthMm } : {}),
      });
    if (step.replaces && outcome.means === 'cleared')
      record('part-replaced', { station, part: step.replaces, ...part });
  };
  const rows = past ? plan.steps : left;
  return (
    <Main label="Work" ref={scroll} contentContainerStyle={styles.body}>
      <Head plan={plan} title={causeTitle(order, catalogue)} />
      {state.closed ? null : <BenchCard machine={machine} state={state} bench={bench} record={record} />}
      {state.closed ? null : <Timeline steps={left} done={state.steps} now={now} />}
      {plan.done > 0 ? (
        <Button
          label={past ? 'Hide what is done' : `${plan.done} ${plan.done === 1 ? 'step' : 'steps'} done: show`}
          kind="quiet"
          icon={past ? 'chevron-up' : 'chevron-down'}
          onPress={() => setPast(!past)}
          style={styles.start}
        />
      ) : null}
      {rows.map((step, i) => {
        const first = i === 0 || rows[i - 1]?.phase !== step.phase;
        const mine = step.id === currentId;
        const part = step.opens ?? step.closes;
        const map = part === undefined ? undefined : step.way === undefined ? part : `${part}/${step.way}`;
        return (
          <View
            key={step.id}
            style={styles.step}
            onLayout={(event) => heights.current.set(step.id, event.nativeEvent.layout.y)}
          >
            {first ? (
              <Text kind="small" bold tone="soft" heading={2} style={styles.phase}>
                {step.phase}
              </Text>
            ) : null}
            {mine && (step.kind === 'rung' || step.kind === 'act') && !state.closed
              ? plan.ladders
                  .filter(({ cause }) => cause.station === step.station && cause.mode === step.mode)
                  .map((ladder) => (
                    <LadderCard
                      key={`${ladder.cause.station}/${ladder.cause.mode}`}
                      ladder={ladder}
                      material={state.intake?.material}
                      onPick={(remedy, offer) =>
                        record('rung-picked', {
                          station: ladder.cause.station,
                          mode: ladder.cause.mode,
                          remedy,
                          ...(offer === undefined ? {} : { offer }),
                        })
                      }
                    />
                  ))
              : null}
            <StepCard
              orderId={order.id}
              state={state}
              record={record}
              machine={machine}
              step={step}
              number={plan.steps.indexOf(step) + 1}
              current={mine && !state.closed}
              done={state.steps[step.id]}
              held={state.closed ? undefined : heldBecause(step, bench, machine)}
              timer={state.timers.find((timer) => timer.id === step.id)}
              now={now}
              bench={bench}
              tried={state.tries.find((item) => item.stepId === step.id)?.outcome}
              fasteners={map === undefined ? undefined : state.fasteners[map]}
              onDone={(override, choice) => finish(step, override, choice)}
              onAll={(to) => all(step, to)}
              onTried={(outcome, depthMm, fitted) => tried(step, outcome, depthMm, fitted)}
              onFasteners={(moves) =>
                record('fasteners-moved', { part: part ?? '', ...(step.way ? { way: step.way } : {}), ...moves })
              }
              onSkip={(why) => record('step-skipped', { stepId: step.id, why })}
              onFirst={() => setOwn(step.id)}
              inTurn={
                left[0] && left[0] !== current ? { title: left[0].title, onPress: () => setOwn(undefined) } : undefined
              }
              onTimer={(minutes) =>
                record('timer-started', { timerId: step.id, label: step.title.slice(0, 110), minutes })
              }
              onSet={(body) => record('bench-changed', body)}
            />
          </View>
        );
      })}
      {state.closed ? null : <After order={order} record={record} plan={plan} />}
      <Text kind="small" tone="soft">
        {plan.safety}
      </Text>
    </Main>
  );
}

function Head({ plan, title }: { readonly plan: Plan; readonly title: string }) {
  const { done } = plan;
  const left = plan.steps.length - done;
  const catalogue = useCatalogue();
  const also = plan.ladders.slice(1);
  return (
    <View style={styles.column}>
      <Text kind="title" heading={2}>
        {title}
      </Text>
      {also.map(({ cause, stop, cleared }) => (
        <Text key={cause.eventId} bold>
          {`And in the same opening: ${stop.station.name}, ${(modeById(catalogue, cause.mode)?.name ?? cause.mode).toLowerCase()}${cleared ? ': cleared' : ''}`}
        </Text>
      ))}
      <Text tone="soft">
        {left > 0 ? `Step ${done + 1} of ${plan.steps.length}, as things stand.` : `All ${done} steps are done.`}
      </Text>
      {Object.entries(plan.leftOff).map(([part, why]) => (
        <Text key={part} kind="small" tone="fault">{`Left off: ${part} (${why})`}</Text>
      ))}
      {plan.tools.length > 0 ? (
        <Card edge="deed">
          <Text bold>{done === 0 ? 'Fetch before the first screw' : 'Still needed'}</Text>
          <Text>{plan.tools.join(' · ')}</Text>
          <Text kind="small" tone="soft">
            Look through the machine’s own box of spares first.
          </Text>
        </Card>
      ) : null}
    </View>
  );
}

function After({ order, record, plan }: OrderPartProps & { readonly plan: Plan }) {
  const router = useRouter();
  const { state } = order;
  const ask = standingAction(useCatalogue(), 'ask');
  const giveUp = (): void => {
    record('not-cured', { note: 'No remedy was left for it, or the cause was given up.' });
    router.replace(orderHref(order.id, 'trace'));
  };
  const solved = plan.ladders.every((ladder) => ladder.cleared);
  const back = lastStepEvents(order.events);
  return (
    <View style={styles.column}>
      {back.length > 0 ? (
        <Button
          label="Undo the last step"
          icon="undo"
          kind="quiet"
          onPress={() => back.forEach((eventId) => record('event-withdrawn', { eventId }))}
        />
      ) : null}
      {planDone(state) && solved && plan.done === plan.steps.length ? (
        <Button
          label="Prove the repair"
          kind="main"
          icon="check"
          onPress={() => router.replace(orderHref(order.id, 'prove'))}
        />
      ) : null}
      {plan.exhausted ? (
        <Notice
          title="No remedy is left for this cause"
          text={`Nothing that fits this place cleared it. Back to the strand with that as a finding. Or wait and ask: ${ask.how}`}
          action="Not cured: back to tracing"
          onAction={giveUp}
        />
      ) : null}
      {Object.keys(state.steps).length === 0 ? (
        <Button
          label="Another cause: back to the strand"
          kind="quiet"
          onPress={() => {
            record('cause-dropped', {});
            router.replace(orderHref(order.id, 'trace'));
          }}
        />
      ) : plan.exhausted || planDone(state) ? null : (
        <Button label="Give this cause up: back to the strand" kind="quiet" onPress={giveUp} />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  pad: { padding: space.l },
  start: { alignSelf: 'flex-start' },
  body: { padding: space.l, gap: space.s, maxWidth: 760, width: '100%', alignSelf: 'center' },
  step: { gap: space.xs },
  phase: { marginTop: space.m, textTransform: 'uppercase', letterSpacing: 1 },
  column: { gap: space.s },
});

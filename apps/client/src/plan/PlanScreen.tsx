import { benchAt, heldBecause, lastStepEvents, planDone, planFor, type Plan, type PlanStep } from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { useRouter } from 'expo-router';
import { useEffect, useRef } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useClock } from '../data/useClock';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';
import { causeTitle } from '../orders/titles';
import { Card, Notice } from '../ui/Card';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { StepCard } from './StepCard';

/** The ordered steps for the chosen cause: one open at a time, ticked as they are done. */
export function PlanScreen({ order, record }: OrderPartProps) {
  const { machine, state } = order;
  const router = useRouter();
  const now = useClock(1000);
  const scroll = useRef<ScrollView>(null);
  const catalogue = useCatalogue();
  const plan = state.cause ? planFor(machine, catalogue, state) : undefined;
  const current = plan?.steps.find((step) => !state.steps[step.id]);
  const done = plan ? plan.steps.filter((step) => state.steps[step.id]).length : 0;
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
  const finish = (step: PlanStep, override?: string): void => {
    if (step.sets) record('bench-changed', step.sets);
    if (step.opens) record('parts-moved', { off: [step.opens] });
    if (step.closes) record('parts-moved', { on: [step.closes] });
    record('step-done', { stepId: step.id, ...(override ? { override } : {}) });
    for (const timer of state.timers) if (timer.id === step.id) record('timer-stopped', { timerId: timer.id });
  };
  return (
    <ScrollView
      ref={scroll}
      style={styles.grow}
      contentContainerStyle={styles.body}
      role="main"
      tabIndex={0}
      aria-label="Page"
    >
      <Head plan={plan} title={causeTitle(order, catalogue)} done={done} />
      {plan.steps.map((step, i) => {
        const first = i === 0 || plan.steps[i - 1]?.phase !== step.phase;
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
            <StepCard
              step={step}
              number={i + 1}
              current={step.id === current?.id}
              done={state.steps[step.id]}
              held={state.closed ? undefined : heldBecause(step, bench)}
              timer={state.timers.find((timer) => timer.id === step.id)}
              now={now}
              bench={bench}
              tried={state.tries.find((item) => item.stepId === step.id)?.outcome}
              onDone={(override) => finish(step, override)}
              onTried={(outcome) => {
                if (!step.remedy) return;
                record('rung-tried', { stepId: step.id, remedy: step.remedy, outcome });
                if (step.replaces && outcome === 'cleared')
                  record('part-replaced', { station: plan.station.id, part: step.replaces });
              }}
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
    </ScrollView>
  );
}

function Head({ plan, title, done }: { readonly plan: Plan; readonly title: string; readonly done: number }) {
  return (
    <View style={styles.column}>
      <Text kind="title" heading={1}>
        {title}
      </Text>
      <Text tone="soft">{`${done} of ${plan.steps.length} steps; about ${Math.round(plan.handsOnMinutes)} min of work and ${Math.round(plan.waitingMinutes)} min of waiting in all.`}</Text>
      {plan.tools.length > 0 && done === 0 ? (
        <Card edge="deed">
          <Text bold>Fetch before the first screw</Text>
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
  const giveUp = (): void => {
    record('not-cured', { note: 'The ladder had no rung left, or the cause was given up.' });
    router.replace(orderHref(order.id, 'trace'));
  };
  const solved = state.tries.some((item) => item.outcome === 'cleared');
  const back = lastStepEvents(order.events);
  return (
    <View style={styles.column}>
      {back.length > 0 ? (
        <Tap
          label="Undo the last step"
          icon="undo"
          kind="quiet"
          onPress={() => back.forEach((eventId) => record('event-withdrawn', { eventId }))}
        />
      ) : null}
      {planDone(plan, state) && solved ? (
        <Tap
          label="Prove the repair"
          kind="main"
          icon="check"
          onPress={() => router.replace(orderHref(order.id, 'prove'))}
        />
      ) : null}
      {plan.exhausted ? (
        <Notice
          title="No rung is left on this ladder"
          text="Nothing that fits this place cleared it. Back to the strand with that as a finding, or ask someone who has done it, with the record of this order."
          action="Not cured: back to tracing"
          onAction={giveUp}
        />
      ) : null}
      {Object.keys(state.steps).length === 0 ? (
        <Tap
          label="Another cause: back to the strand"
          kind="quiet"
          onPress={() => {
            record('cause-dropped', {});
            router.replace(orderHref(order.id, 'trace'));
          }}
        />
      ) : plan.exhausted || planDone(plan, state) ? null : (
        <Tap label="Give this cause up: back to the strand" kind="quiet" onPress={giveUp} />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  pad: { padding: space.l },
  body: { padding: space.l, gap: space.s, maxWidth: 760, width: '100%', alignSelf: 'center' },
  step: { gap: space.xs },
  phase: { marginTop: space.m, textTransform: 'uppercase', letterSpacing: 1 },
  column: { gap: space.s },
});

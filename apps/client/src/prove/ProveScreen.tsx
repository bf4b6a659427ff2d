import {
  calibrateFeed,
  benchAt,
  cautionById,
  materialOf,
  openFaults,
  proofsFor,
  SAFE_TO_TOUCH_C,
  SWITCH_OFF_BELOW_C,
  unmet,
} from '@zealous/core';
import { CautionLine } from '../ui/CautionLine';
import { useCatalogue } from '../data/useCatalogue';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useClock } from '../data/useClock';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';
import { Card, Notice } from '../ui/Card';
import { Icon } from '../ui/Icon';
import { Button } from '../ui/Button';
import { Main } from '../ui/Main';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { BetCard } from './BetCard';
import { BedForm, BedResult } from './BedForm';
import { FeedCurveCard } from './FeedCurveCard';
import { FeedForm, FeedResult } from './FeedForm';
import { RunForm } from './RunForm';

/** Proofs from the smallest to the feed test; one that fails sends the order back to tracing. */
export function ProveScreen({ order, record }: OrderPartProps) {
  const { machine, state } = order;
  const catalogue = useCatalogue();
  const router = useRouter();
  const now = useClock(2000);
  if (!state.cause)
    return (
      <View style={styles.pad}>
        <Notice
          title="Nothing to prove yet"
          text="First trace and repair."
          action="To the strand"
          onAction={() => router.replace(orderHref(order.id, 'trace'))}
        />
      </View>
    );
  const proofs = proofsFor(machine, catalogue, state);
  const current = proofs.find((proof) => !state.proofs[proof.id]?.passed);
  const material = materialOf(catalogue, state.intake?.material);
  const hotC = Math.min(material.printC, machine.heat.limitC);
  const bench = benchAt(machine, state, now);
  const steps = machine.runs.flatMap((run) => run.stations).find((station) => station.kind === 'extruder')
    ?.params?.stepsPerMm;
  const open = state.closed ? [] : openFaults(machine, state);
  const lastProof = Object.values(state.proofs)
    .sort((a, b) => a.at.localeCompare(b.at))
    .at(-1)?.eventId;
  const notCured = (proof: string): void => {
    record('not-cured', { proof });
    router.replace(orderHref(order.id, 'trace'));
  };
  return (
    <Main label="Prove" contentContainerStyle={styles.body}>
      <Text kind="title" heading={2}>
        {current === undefined ? 'Proved: the fault did not show' : 'Not proved until it is shown'}
      </Text>
      <Text tone="soft">Smallest first. Stop as soon as the fault shows.</Text>
      {open.length > 0 ? (
        <Card edge="fault">
          <Text bold>A proof is taken on the closed machine</Text>
          {open.map(({ text }) => (
            <Text key={text}>{text}</Text>
          ))}
          <Button label="Back to the work" onPress={() => router.replace(orderHref(order.id, 'plan'))} />
        </Card>
      ) : null}
      {proofs.map((proof) => {
        const known = state.proofs[proof.id];
        const held = unmet({ heat: proof.heat, power: proof.power, hotC }, bench, machine);
        return (
          <Card key={proof.id} edge={known?.passed ? 'clear' : proof === current ? 'deed' : 'line'}>
            <View style={styles.row}>
              {known?.passed ? <DoneMark /> : null}
              <Text bold={proof === current} tone={known?.passed ? 'clear' : 'ink'} style={styles.grow}>
                {proof.name}
              </Text>
              <Text kind="small" tone="soft">{`${proof.minutes} min`}</Text>
            </View>
            {proof.because.map((why) => (
              <Text key={why} kind="small" tone="soft">{`Because ${why}.`}</Text>
            ))}
            {known && !state.closed && known.eventId === lastProof ? (
              <Button
                label="Undo this proof"
                icon="undo"
                kind="quiet"
                onPress={() => record('event-withdrawn', { eventId: known.eventId })}
                style={styles.start}
              />
            ) : null}
            {known?.passed === false ? (
              <Text kind="small" tone="fault" bold>
                It did not pass. Have mended what it shows, then take it again.
              </Text>
            ) : null}
            {known?.points ? <BedResult points={known.points} /> : null}
            {known?.fedMm !== undefined && known.askedMm !== undefined && known.oldStepsPerMm !== undefined ? (
              <FeedResult
                calibration={calibrateFeed(known.askedMm, known.fedMm, known.oldStepsPerMm, known.readingMm)}
              />
            ) : null}
            {proof === current && !state.closed && open.length === 0 ? (
              <View style={styles.column}>
                {proof.cautions.map((id) => {
                  const caution = cautionById(catalogue, id);
                  return caution ? <CautionLine key={id} caution={caution} /> : null;
                })}
                <Text>{proof.how}</Text>
                {held ? (
                  <View style={styles.column}>
                    <Text kind="small" tone="warm" bold>{`It ${held}.`}</Text>
                    {proof.heat === 'hot' ? (
                      <Button
                        label={`Heating to ${Math.round(hotC)} °C now`}
                        icon="heat"
                        kind="main"
                        onPress={() => record('bench-changed', { targetC: Math.round(hotC), power: 'on' })}
                      />
                    ) : null}
                    {proof.heat === 'cold' && bench.temperatureC > SAFE_TO_TOUCH_C ? (
                      <Button
                        label="Target to zero, cooling"
                        icon="cold"
                        onPress={() => record('bench-changed', { targetC: 0 })}
                      />
                    ) : null}
                    {proof.heat === 'cold' ? (
                      <Button
                        label={`It reads below ${SAFE_TO_TOUCH_C} °C`}
                        icon="cold"
                        kind="main"
                        onPress={() => record('bench-changed', { readingC: SAFE_TO_TOUCH_C, atMost: true, targetC: 0 })}
                      />
                    ) : null}
                    {proof.power === 'off' && bench.power === 'on' && bench.temperatureC <= SWITCH_OFF_BELOW_C ? (
                      <Button
                        label="Switched off and unplugged"
                        icon="power"
                        kind="main"
                        onPress={() => record('bench-changed', { power: 'off' })}
                      />
                    ) : null}
                    {proof.heat !== 'hot' && proof.power === 'on' && bench.power === 'off' ? (
                      <Button
                        label="Switched on"
                        icon="power"
                        kind="main"
                        onPress={() => record('bench-changed', { power: 'on' })}
                      />
                    ) : null}
                  </View>
                ) : null}
                {proof.quantity ? (
                  <FeedForm
                    orderId={order.id}
                    steps={steps}
                    record={record}
                    proof={proof}
                    onNotCured={() => notCured(proof.id)}
                  />
                ) : proof.form === 'bed' ? (
                  <BedForm orderId={order.id} record={record} proof={proof} />
                ) : proof.form === 'run' ? (
                  <RunForm orderId={order.id} record={record} proof={proof} onNotCured={() => notCured(proof.id)} />
                ) : (
                  <View style={styles.row}>
                    <Button
                      label="Yes"
                      {...(held ? {} : { kind: 'main' as const })}
                      onPress={() => record('proof-recorded', { proof: proof.id, passed: true })}
                      style={styles.grow}
                    />
                    <Button label="No: not cured" onPress={() => notCured(proof.id)} style={styles.grow} />
                  </View>
                )}
              </View>
            ) : null}
          </Card>
        );
      })}
      {state.closed ? null : <FeedCurveCard orderId={order.id} machine={machine} curve={state.curve} record={record} />}
      {state.closed ? null : <BetCard order={order} />}
      {current === undefined ? (
        <Button
          label={state.closed ? 'See the record' : 'Proved: close the order'}
          kind={state.closed ? 'plain' : 'main'}
          icon="check"
          onPress={() => router.replace(orderHref(order.id, 'record'))}
        />
      ) : null}
    </Main>
  );
}

function DoneMark() {
  const palette = usePalette();
  return <Icon name="done" color={palette.clear} />;
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  pad: { padding: space.l },
  body: { padding: space.l, gap: space.s, maxWidth: 760, width: '100%', alignSelf: 'center' },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  column: { gap: space.s },
  start: { alignSelf: 'flex-start' },
});

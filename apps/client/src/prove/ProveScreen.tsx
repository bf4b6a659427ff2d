import { calibrateFeed, benchAt, materialOf, proofsFor, unmet, type FeedCalibration, type Proof } from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useClock } from '../data/useClock';
import type { Recorder } from '../data/useOrder';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';
import { Card, Notice } from '../ui/Card';
import { Field } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';

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
  const proofs = proofsFor(machine, catalogue, state.intake?.lane);
  const current = proofs.find((proof) => !state.proofs[proof.id]?.passed);
  const material = materialOf(catalogue, state.intake?.material);
  const hotC = Math.min(material.printC, machine.heat.limitC);
  const bench = benchAt(machine, state, now);
  const steps = machine.runs.flatMap((run) => run.stations).find((station) => station.kind === 'extruder')
    ?.params?.stepsPerMm;
  const notCured = (proof: string): void => {
    record('not-cured', { proof });
    router.replace(orderHref(order.id, 'trace'));
  };
  return (
    <ScrollView style={styles.grow} contentContainerStyle={styles.body} role="main" tabIndex={0} aria-label="Page">
      <Text kind="title" heading={1}>
        Not proved until it is shown
      </Text>
      <Text tone="soft">Smallest first. Stop as soon as the fault shows.</Text>
      {proofs.map((proof) => {
        const known = state.proofs[proof.id];
        const held = unmet({ heat: proof.heat, power: proof.power, hotC }, bench);
        return (
          <Card key={proof.id} edge={known?.passed ? 'clear' : proof === current ? 'deed' : 'line'}>
            <View style={styles.row}>
              {known?.passed ? <DoneMark /> : null}
              <Text bold={proof === current} tone={known?.passed ? 'clear' : 'ink'} style={styles.grow}>
                {proof.name}
              </Text>
              <Text kind="small" tone="soft">{`${proof.minutes} min`}</Text>
            </View>
            {known?.fedMm !== undefined && known.askedMm !== undefined && known.oldStepsPerMm !== undefined ? (
              <FeedResult
                calibration={calibrateFeed(known.askedMm, known.fedMm, known.oldStepsPerMm, known.readingMm)}
              />
            ) : null}
            {proof === current && !state.closed ? (
              <View style={styles.column}>
                <Text>{proof.how}</Text>
                {held ? (
                  <View style={styles.column}>
                    <Text kind="small" tone="warm" bold>{`It ${held}.`}</Text>
                    {proof.heat === 'hot' ? (
                      <Tap
                        label={`Heating to ${Math.round(hotC)} °C now`}
                        icon="heat"
                        onPress={() => record('bench-changed', { targetC: Math.round(hotC), power: 'on' })}
                      />
                    ) : null}
                    {proof.heat !== 'hot' && proof.power === 'on' ? (
                      <Tap label="Switched on" icon="power" onPress={() => record('bench-changed', { power: 'on' })} />
                    ) : null}
                  </View>
                ) : null}
                {proof.quantity ? (
                  <FeedForm steps={steps} record={record} proof={proof} onNotCured={() => notCured(proof.id)} />
                ) : (
                  <View style={styles.row}>
                    <Tap
                      label="Yes"
                      kind="main"
                      onPress={() => record('proof-recorded', { proof: proof.id, passed: true })}
                      style={styles.grow}
                    />
                    <Tap label="No: not cured" onPress={() => notCured(proof.id)} style={styles.grow} />
                  </View>
                )}
              </View>
            ) : null}
          </Card>
        );
      })}
      {current === undefined ? (
        <Tap
          label={state.closed ? 'See the record' : 'Proved: close the order'}
          kind={state.closed ? 'plain' : 'main'}
          icon="check"
          onPress={() => router.replace(orderHref(order.id, 'record'))}
        />
      ) : null}
    </ScrollView>
  );
}

function DoneMark() {
  const palette = usePalette();
  return <Icon name="done" color={palette.clear} />;
}

/** New steps/mm with its uncertainty, and whether the change is more than the reading can show. */
function FeedResult({ calibration }: { readonly calibration: FeedCalibration }) {
  const { stepsPerMm, uncertainty, change, significant, resolvable, longerFeedMm } = calibration;
  return (
    <View>
      <Text kind="figure" testID="steps">{`${stepsPerMm.toFixed(2)} ± ${uncertainty.toFixed(2)} steps/mm`}</Text>
      <Text kind="small">
        {significant
          ? `A change of ${(change * 100).toFixed(1)} %: more than the reading error of ± ${(resolvable * 100).toFixed(1)} %. Store the new value.`
          : `A change of ${(change * 100).toFixed(1)} %: within the reading error of ± ${(resolvable * 100).toFixed(1)} %. Keep the old value${longerFeedMm ? `; to see such a change ask ${longerFeedMm} mm` : ''}.`}
      </Text>
    </View>
  );
}

const number = (text: string): number => (text.trim() === '' ? NaN : Number(text.replace(',', '.')));

function FeedForm({
  steps,
  record,
  proof,
  onNotCured,
}: {
  readonly steps: number | undefined;
  readonly record: Recorder;
  readonly proof: Proof;
  readonly onNotCured: () => void;
}) {
  const [asked, setAsked] = useState('100');
  const [left, setLeft] = useState('');
  const [old, setOld] = useState(steps === undefined ? '' : String(steps));
  const askedMm = number(asked);
  const fedMm = askedMm + 20 - number(left);
  const oldSteps = number(old);
  const possible = askedMm >= 10 && askedMm <= 1000 && fedMm > 0 && fedMm <= 1500 && oldSteps >= 1 && oldSteps <= 20000;
  const calibration = possible ? calibrateFeed(askedMm, fedMm, oldSteps) : undefined;
  const body = {
    proof: proof.id,
    askedMm,
    fedMm: Math.round(fedMm * 100) / 100,
    oldStepsPerMm: oldSteps,
    readingMm: 0.5,
  };
  return (
    <View style={styles.column}>
      <View style={styles.row}>
        <Field label="Asked, mm" value={asked} onChange={setAsked} number style={styles.grow} />
        <Field label="Left to the mark, mm" value={left} onChange={setLeft} number style={styles.grow} />
      </View>
      <Field label="Present steps/mm" value={old} onChange={setOld} number style={styles.grow} />
      <Text
        kind="small"
        tone="soft"
      >{`Mark set ${Number.isFinite(askedMm) ? askedMm + 20 : 120} mm ahead of the extruder. Fed: ${possible ? `${fedMm.toFixed(1)} mm` : 'enter what is left to the mark'}.`}</Text>
      {calibration ? <FeedResult calibration={calibration} /> : null}
      <View style={styles.row}>
        <Tap
          label="Feed is right, or set right"
          kind="main"
          disabled={!calibration}
          onPress={() => record('proof-recorded', { ...body, passed: true })}
          style={styles.grow}
        />
        <Tap label="Still short: not cured" disabled={!calibration} onPress={onNotCured} style={styles.grow} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  pad: { padding: space.l },
  body: { padding: space.l, gap: space.s, maxWidth: 760, width: '100%', alignSelf: 'center' },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  column: { gap: space.s },
});

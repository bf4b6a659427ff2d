import {
  modeById,
  percent,
  stationById,
  whatRemains,
  phaseOf,
  recordMarkdown,
  recordOf,
  type OrderRecord,
} from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { beliefFor } from '../data/shopSlice';
import { useAppSelector } from '../data/store';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';
import { Card, Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { printDocument } from '../ui/printDocument';
import { saveFile } from '../ui/saveFile';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const stamp = (iso: string | undefined): string => (iso ? iso.slice(0, 16).replace('T', ' ') : '');

/** What was found, done, measured and proved; closing, and taking it along. */
export function RecordScreen({ order, record }: OrderPartProps) {
  const { machine, state, events } = order;
  const catalogue = useCatalogue();
  const report = recordOf(machine, catalogue, events);
  const name = `${report.number}-${machine.id}`;
  return (
    <ScrollView style={styles.grow} contentContainerStyle={styles.body} role="main" tabIndex={0} aria-label="Page">
      <View style={styles.wrap}>
        <Text kind="title" heading={1} style={styles.whole}>
          {`Order ${report.number}`}
        </Text>
        <Tap label="Print" icon="print" onPress={() => void printDocument(name, recordMarkdown(report))} />
        <Tap
          label="Save Markdown"
          icon="save"
          onPress={() => saveFile(`${name}.md`, 'text/markdown', recordMarkdown(report))}
        />
        <Tap
          label="Save JSON"
          icon="save"
          onPress={() => saveFile(`${name}.json`, 'application/json', JSON.stringify(report, null, 2))}
        />
      </View>
      {state.closed ? (
        <Reopen eventId={state.closed.eventId} record={record} />
      ) : (
        <CloseForm order={order} record={record} report={report} />
      )}
      <Summary report={report} />
    </ScrollView>
  );
}

const OUTCOMES = {
  cured: 'Cured and proved',
  'not-cured': 'Not cured',
  'given-back': 'Given back unrepaired',
} as const;
const TRIES: Readonly<Record<string, string>> = {
  cleared: 'cleared it',
  'no-change': 'changed nothing',
  worse: 'made it worse',
};

function Fact({ label, value }: { readonly label: string; readonly value: string | undefined }) {
  if (!value) return null;
  return (
    <View style={styles.fact}>
      <Text kind="small" tone="soft" style={styles.label}>
        {label}
      </Text>
      <Text style={styles.grow}>{value}</Text>
    </View>
  );
}

function Summary({ report }: { readonly report: OrderRecord }) {
  const { feed } = report;
  return (
    <View>
      <Card>
        <Fact label="Machine" value={report.machine} />
        <Fact label="Taken in" value={`${stamp(report.takenIn)} by ${report.takenInBy}`} />
        <Fact
          label="Closed"
          value={
            report.closed &&
            `${stamp(report.closed)}, ${OUTCOMES[report.outcome as keyof typeof OUTCOMES] ?? report.outcome}`
          }
        />
        <Fact label="Seen" value={report.seen.join('; ')} />
        <Fact label="Began" value={report.began} />
        <Fact label="Filament" value={report.filament} />
        <Fact label="Cause" value={report.cause && `${report.cause.mode}, at ${report.cause.place}`} />
        <Fact label="Cleared too" value={report.clearedToo.join('; ')} />
        <Fact label="Not the cure" value={report.failedRepairs.join('; ')} />
        <Fact
          label="Remedy"
          value={report.remedies.map((item) => `${item.name}: ${TRIES[item.outcome] ?? item.outcome}`).join('; ')}
        />
        <Fact
          label="Parts"
          value={report.parts
            .map((p) =>
              [p.part, p.maker, p.batch && `batch ${p.batch}`, p.price !== undefined && `price ${p.price}`]
                .filter(Boolean)
                .join(', '),
            )
            .join('; ')}
        />
        <Fact
          label="Minutes"
          value={`${report.handsOnMinutes} of work; ${report.elapsedMinutes} from take-in to the last entry`}
        />
        <Fact label="To watch" value={report.watch.join(' ')} />
        <Fact label="Against a hold" value={report.overrides.join('; ')} />
        <Fact label="Notes" value={report.notes.join(' ')} />
      </Card>
      {report.findings.length > 0 ? (
        <Section title="Findings">
          <Card>
            {report.findings.map((finding) => (
              <Fact
                key={`${finding.at}${finding.check}`}
                label={stamp(finding.at).slice(11)}
                value={`${finding.check}: ${finding.result.toLowerCase()}${finding.value === undefined ? '' : `, ${finding.value} ${finding.unit}`}`}
              />
            ))}
          </Card>
        </Section>
      ) : null}
      <Section title="Proof">
        <Card>
          {report.proofs.map((proof) => (
            <Fact
              key={proof.name}
              label={proof.passed === null ? 'not done' : proof.passed ? 'passed' : 'failed'}
              value={proof.name}
            />
          ))}
          {feed ? (
            <Fact
              label="Feed"
              value={`${feed.fedMm} mm of ${feed.askedMm} mm; ${feed.oldStepsPerMm} → ${feed.stepsPerMm.toFixed(2)} ± ${feed.uncertainty.toFixed(2)} steps/mm, ${feed.significant ? 'more' : 'not more'} than the reading can show`}
            />
          ) : null}
        </Card>
      </Section>
    </View>
  );
}

function CloseForm({ order, record, report }: OrderPartProps & { readonly report: OrderRecord }) {
  const { machine, state } = order;
  const catalogue = useCatalogue();
  const proved = phaseOf(machine, catalogue, state) === 'record';
  const watchText = state.cause ? (modeById(catalogue, state.cause.mode)?.watch ?? '') : '';
  const [outcome, setOutcome] = useState<'cured' | 'not-cured' | 'given-back'>(proved ? 'cured' : 'given-back');
  const [minutes, setMinutes] = useState(String(report.handsOnMinutes));
  const [watch, setWatch] = useState('');
  const [note, setNote] = useState('');
  const value = Number(minutes.replace(',', '.'));
  const fits = minutes.trim() !== '' && value >= 0 && value <= 100000;
  const options = (['cured', 'not-cured', 'given-back'] as const)
    .filter((id) => id !== 'cured' || proved)
    .map((id) => ({ id, label: OUTCOMES[id] }));
  return (
    <Card edge="deed">
      <Text kind="large" bold heading={2}>
        Close the order
      </Text>
      {proved ? null : (
        <Text tone="soft">
          Every proof must be passed before an order is closed as cured. It can be given back as it is.
        </Text>
      )}
      {proved ? <Remains order={order} record={record} /> : null}
      <Choice label="Outcome" options={options} chosen={[outcome]} onToggle={setOutcome} />
      <Field label="Minutes of work" value={minutes} onChange={setMinutes} number />
      <Field label="What to watch, and when" value={watch} onChange={setWatch} most={1000} lines />
      {watchText ? <Text kind="small" tone="soft">{`The catalogue adds: ${watchText}`}</Text> : null}
      <Field label="Note: real but not the cause, old part kept …" value={note} onChange={setNote} most={2000} lines />
      <Tap
        label="Close the order"
        kind="main"
        disabled={!fits}
        onPress={() =>
          record('closed', {
            outcome,
            minutes: Math.round(value),
            ...(watch.trim() ? { watch: watch.trim() } : {}),
            ...(note.trim() ? { note: note.trim() } : {}),
          })
        }
      />
    </Card>
  );
}

/** A wrong closing can be withdrawn, in two taps; what it taught is forgotten with it. */
function Reopen({ eventId, record }: { readonly eventId: string; readonly record: OrderPartProps['record'] }) {
  const [asked, setAsked] = useState(false);
  return asked ? (
    <Card edge="fault">
      <Text>The order is open again afterwards, and what it taught is forgotten.</Text>
      <Tap label="Withdraw the closing" onPress={() => record('event-withdrawn', { eventId })} />
      <Tap label="Leave it closed" kind="quiet" onPress={() => setAsked(false)} />
    </Card>
  ) : (
    <Tap label="Closed wrongly?" kind="quiet" listed onPress={() => setAsked(true)} />
  );
}

/** Below this a second fault is not worth a word. */
const WORTH_A_WORD = 0.05;

/** Two things may be wrong at once: what the evidence still says after one was cured and proved. */
function Remains({ order, record }: OrderPartProps) {
  const { machine, state, id } = order;
  const router = useRouter();
  const shop = useAppSelector((root) => root.shop);
  const useLearned = useAppSelector((root) => root.settings.useLearned);
  const left = useMemo(
    () =>
      whatRemains(machine, beliefFor(shop, useLearned, machine), state).filter((item) => item.share >= WORTH_A_WORD),
    [machine, shop, useLearned, state],
  );
  if (left.length === 0)
    return (
      <Text kind="small" tone="soft">
        The rest of the evidence speaks for no second fault.
      </Text>
    );
  return (
    <View>
      <Text bold>A second fault may be left</Text>
      {left.slice(0, 3).map((item) => (
        <Tap
          key={`${item.station}/${item.mode}`}
          label={`Take on too: ${stationById(machine, item.station)?.name ?? item.station}: ${item.name.toLowerCase()}, ${percent(item.share)}`}
          kind="quiet"
          icon="repair"
          listed
          onPress={() => {
            record('cause-chosen', { station: item.station, mode: item.mode, advised: true });
            router.replace(orderHref(id, 'plan'));
          }}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  body: { padding: space.l, gap: space.m, maxWidth: 860, width: '100%', alignSelf: 'center' },
  wrap: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, alignItems: 'center' },
  whole: { width: '100%' },
  fact: { flexDirection: 'row', gap: space.m },
  label: { width: 92, paddingTop: 2 },
});

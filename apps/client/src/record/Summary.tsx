import { money, partWords, type OrderRecord } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Card, Section } from '../ui/Card';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const stamp = (iso: string | undefined): string => (iso ? iso.slice(0, 16).replace('T', ' ') : '');

export const OUTCOMES = {
  cured: 'Cured and proved',
  'not-cured': 'Not cured',
  'given-back': 'Given back unrepaired',
  scrapped: 'Not worth mending: scrapped',
  mistake: 'Taken in by mistake',
} as const;
const TRIES: Readonly<Record<string, string>> = {
  cleared: 'cleared it',
  better: 'brought it further',
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

/** The record in short, as it stands. */
export function Summary({ report }: { readonly report: OrderRecord }) {
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
        <Fact label="What was seen" value={report.seen.join('; ')} />
        <Fact label="When it began" value={report.began} />
        <Fact label="Filament" value={report.filament} />
        <Fact label="Cause" value={report.cause && `${report.cause.mode}, at ${report.cause.place}`} />
        <Fact label="Cleared too" value={report.clearedToo.join('; ')} />
        <Fact label="Not the cure" value={report.failedRepairs.join('; ')} />
        <Fact
          label="Remedy"
          value={report.remedies.map((item) => `${item.name}: ${TRIES[item.outcome] ?? item.outcome}`).join('; ')}
        />
        <Fact label="Solvents" value={report.solvents.join('; ')} />
        <Fact label="Parts" value={report.parts.map((part) => partWords(part).join(', ')).join('; ')} />
        <Fact
          label="Minutes"
          value={`${report.handsOnMinutes} of work; ${report.elapsedMinutes} from take-in to the last entry`}
        />
        <Fact
          label="Charged"
          value={`${money(report, report.charged.total)}: work ${money(report, report.charged.work)} at ${report.charged.hourlyRate} an hour, parts ${money(report, report.charged.parts)}`}
        />
        <Fact
          label="Cured by"
          value={
            report.confounded &&
            `one of these, which cannot be told: ${report.confounded.changes.join('; ')}. ${report.confounded.tells ?? ''}`
          }
        />
        <Fact label="Not put back" value={report.leftOut.join('; ')} />
        <Fact
          label="To watch"
          value={[...report.watch, report.watchOn && `Look again on ${report.watchOn}.`].filter(Boolean).join(' ')}
        />
        <Fact label="Done though held back" value={report.overrides.join('; ')} />
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
          {report.feedCurve?.fivePercentMmPerS === undefined ? null : (
            <Fact
              label="Fall-off"
              value={`5 % lost at ${report.feedCurve.fivePercentMmPerS.toFixed(1)} mm/s of strand, ${(report.feedCurve.flowMm3PerS ?? 0).toFixed(1)} mm³/s`}
            />
          )}
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

const styles = StyleSheet.create({
  grow: { flex: 1 },
  fact: { flexDirection: 'row', gap: space.m },
  label: { width: 92, paddingTop: 2 },
});

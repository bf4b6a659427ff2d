import type { RoundReview, RoundView, WayStep, Worth } from '@zealous/core/practice';
import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Card, Section } from '../ui/Card';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';
import { useWide } from '../ui/useWide';
import { practice, reviewOf, type KeptRound } from '../workers/practice';
import { EntryLine } from './EntryLine';
import { keepRecord, keepRound } from './keptRounds';

const ENDS = {
  cured: 'Cured and proved',
  called: 'Rightly called: it is on no list',
  'gave-up': 'Given up',
} as const;

const min = (minutes: number): string => `${Math.round(minutes)} min`;

/** A round that is over: what it was, the own way beside the tracer's, and what each choice was worth when it was made. */
export function RoundReviewed({ round, view }: { readonly round: KeptRound; readonly view: RoundView }) {
  const router = useRouter();
  const wide = useWide();
  const [review, setReview] = useState<RoundReview | undefined>(undefined);
  const [steps, setSteps] = useState(0);
  const [problem, setProblem] = useState('');
  useEffect(() => {
    let stale = false;
    const at = new Date().toISOString();
    const work = async (): Promise<void> => {
      // On record at once, whatever becomes of the page; again with the tracer's minutes.
      keepRecord(await practice().record(round, { at }));
      const found = await reviewOf(round, (done) => {
        if (!stale) setSteps(done);
      });
      keepRecord(await practice().record(round, { at, tracerMinutes: found.tracerMinutes }));
      if (!stale) setReview(found);
    };
    work().catch((error: unknown) => {
      if (!stale) setProblem((error as Error).message);
    });
    return () => {
      stale = true;
    };
  }, [round]);
  const accidents = view.entries.filter(({ accident }) => accident);
  return (
    <Page title={ENDS[view.over ?? 'gave-up']} back="/practice">
      <View style={styles.column}>
        <Card edge={view.over === 'gave-up' ? 'line' : 'clear'}>
          <Text bold heading={2}>
            What it was
          </Text>
          {view.faults?.map((text) => (
            <Text key={text} bold testID="practice-fault">
              {text}
            </Text>
          ))}
          {view.story ? <Text>{view.story}</Text> : null}
          {view.reason ? <Text tone="soft">{view.reason}</Text> : null}
        </Card>
        {problem ? (
          <Text bold tone="fault">
            {problem}
          </Text>
        ) : null}
        {review ? (
          <>
            <Spent review={review} cured={view.over !== 'gave-up'} />
            <View style={wide ? styles.sides : styles.column}>
              <Way title={`You: ${min(review.ownMinutes)}`} steps={review.own} wide={wide} />
              <Way
                title={`The tracer: ${min(review.tracerMinutes)}${review.tracerCured ? '' : ', and not cured'}`}
                steps={review.tracer}
                wide={wide}
              />
            </View>
            <Section title="What each choice was worth when you made it">
              {review.worth.length === 0 ? <Text tone="soft">You looked at nothing and repaired nothing.</Text> : null}
              {review.worth.map((worth) => (
                <WorthLine key={worth.entry} worth={worth} />
              ))}
            </Section>
          </>
        ) : problem ? null : (
          <Text tone="soft" live>
            {`The tracer works on the same machine, and your choices are reckoned through: ${steps} done …`}
          </Text>
        )}
        {accidents.length ? (
          <Section title="What would have happened on a real machine">
            {accidents.map((entry, i) => (
              <EntryLine key={i} entry={entry} />
            ))}
          </Section>
        ) : null}
        <Button
          label="Next round"
          kind="main"
          onPress={() => {
            keepRound(undefined);
            router.dismissTo('/practice');
          }}
        />
      </View>
    </Page>
  );
}

/** Where the minutes went, as one bar with its words. */
function Spent({ review, cured }: { readonly review: RoundReview; readonly cured: boolean }) {
  const palette = usePalette();
  const { spent, ownMinutes, tracerMinutes } = review;
  const parts = [
    { name: 'making ready', minutes: spent.ready, color: palette.housing },
    { name: 'waiting, at half', minutes: spent.waiting, color: palette.warm },
    { name: 'looking', minutes: spent.looks, color: palette.deed },
    { name: 'repairing and proving', minutes: spent.repairs, color: palette.clear },
  ].filter(({ minutes }) => minutes > 0);
  const more = ownMinutes - tracerMinutes;
  return (
    <Card>
      <Text bold heading={2}>
        Where the minutes went
      </Text>
      <View style={[styles.bar, { borderColor: palette.line }]}>
        {parts.map(({ name, minutes, color }) => (
          <View key={name} style={{ flexGrow: minutes, flexBasis: 0, backgroundColor: color }} />
        ))}
      </View>
      {parts.map(({ name, minutes, color }) => (
        <View key={name} style={styles.key}>
          <View style={[styles.patch, { backgroundColor: color }]} />
          <Text kind="small">{`${name}: ${min(minutes)}`}</Text>
        </View>
      ))}
      {cured ? (
        <Text testID="practice-against">
          {Math.abs(more) < 1
            ? 'As many minutes as the tracer.'
            : `${min(Math.abs(more))} ${more > 0 ? 'more' : 'less'} than the tracer.`}
        </Text>
      ) : null}
    </Card>
  );
}

function Way({
  title,
  steps,
  wide,
}: {
  readonly title: string;
  readonly steps: readonly WayStep[];
  readonly wide: boolean;
}) {
  return (
    <View style={[styles.column, wide && styles.side]}>
      <Text bold heading={2}>
        {title}
      </Text>
      {steps.map((step, i) => (
        <EntryLine key={i} entry={step} />
      ))}
      {steps.length === 0 ? <Text tone="soft">Nothing was done.</Text> : null}
    </View>
  );
}

/** Less than this is no loss worth a word. */
const NO_LOSS_MIN = 1;

function worthWords({ expected, best, bestExpected, bits, carried }: Worth): string {
  const lost = expected === undefined ? undefined : Math.max(0, expected - bestExpected);
  const told =
    carried !== undefined
      ? `The fault that it mends was there with ${Math.round(100 * carried)} %.`
      : bits !== undefined && bits < 0.01
        ? 'It could tell next to nothing.'
        : `It could tell ${(bits ?? 0).toFixed(2)} bit of where the fault is: one bit halves the doubt.`;
  if (lost !== undefined && lost < NO_LOSS_MIN) return `${told} Nothing better was to be had.`;
  return `${told} Better: ${best}${lost === undefined ? '' : `, ${Math.round(lost)} min sooner on average`}.`;
}

function WorthLine({ worth }: { readonly worth: Worth }) {
  const lost = worth.expected === undefined ? Infinity : worth.expected - worth.bestExpected;
  return (
    <Card edge={lost < NO_LOSS_MIN ? 'clear' : 'line'}>
      <Text bold>{worth.name}</Text>
      <Text kind="small">{worthWords(worth)}</Text>
    </Card>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  sides: { flexDirection: 'row', gap: space.l, alignItems: 'flex-start' },
  side: { flex: 1 },
  bar: { flexDirection: 'row', height: 20, borderWidth: 1, borderRadius: radius.s, overflow: 'hidden' },
  key: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  patch: { width: 14, height: 14, borderRadius: radius.s },
});

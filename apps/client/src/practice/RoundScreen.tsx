import type { RoundMove, RoundView } from '@zealous/core/practice';
import { useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { AskFirst } from '../ui/AskFirst';
import { Card, Notice } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { useWide } from '../ui/useWide';
import { practice, type KeptRound } from '../workers/practice';
import { HandsPad } from './HandsPad';
import { currentRound, keepRound } from './keptRounds';
import { LookList } from './LookList';
import { RepairList } from './RepairList';
import { EntryLine } from './EntryLine';
import { RoundReviewed } from './RoundReviewed';

type Part = 'look' | 'hands' | 'repair' | 'done';

/** A round of practice: what the owner says, what has been found, and what to do next. */
export function RoundScreen() {
  const router = useRouter();
  const [round, setRound] = useState(currentRound);
  const [view, setView] = useState<RoundView | undefined>(undefined);
  const [problem, setProblem] = useState('');
  useEffect(() => {
    if (!round) return undefined;
    let stale = false;
    practice()
      .view(round)
      .then(
        (next) => {
          if (!stale) setView(next);
        },
        (error: unknown) => {
          if (!stale) setProblem((error as Error).message);
        },
      );
    return () => {
      stale = true;
    };
  }, [round]);
  const change = (next: KeptRound): void => {
    keepRound(next);
    setRound(next);
  };
  const back = { title: 'Practice bench', back: '/practice' } as const;
  if (!round || problem)
    return (
      <Page {...back}>
        <Notice
          title={problem ? 'This round cannot be shown' : 'No round is begun'}
          text={problem || 'Choose how hard it shall be, and begin one.'}
          action="To the practice bench"
          onAction={() => {
            if (problem) keepRound(undefined);
            router.dismissTo('/practice');
          }}
        />
      </Page>
    );
  if (!view)
    return (
      <Page {...back}>
        <Text tone="soft">The machine is put on the bench …</Text>
      </Page>
    );
  return view.over ? (
    <RoundReviewed round={round} view={view} />
  ) : (
    <Playing round={round} view={view} onChange={change} />
  );
}

function Playing({
  round,
  view,
  onChange,
}: {
  readonly round: KeptRound;
  readonly view: RoundView;
  readonly onChange: (next: KeptRound) => void;
}) {
  const wide = useWide();
  const hands = round.level === 'hands';
  const [part, setPart] = useState<Part>('look');
  // Two quick taps are two moves, also before the first one has been drawn.
  const latest = useRef(round);
  const move = (next: RoundMove): void => {
    latest.current = { ...latest.current, moves: [...latest.current.moves, next] };
    onChange(latest.current);
  };
  const parts: readonly { readonly id: Part; readonly label: string }[] = [
    { id: 'look', label: 'Look' },
    ...(hands ? [{ id: 'hands' as const, label: 'Make ready' }] : []),
    { id: 'repair', label: 'Repair' },
    { id: 'done', label: `Done so far (${view.entries.length})` },
  ];
  const last = view.entries.at(-1);
  return (
    <Page title={view.family} back="/practice">
      <View style={wide ? styles.sides : styles.column}>
        <View style={[styles.column, wide && styles.side]}>
          <Told view={view} />
          <Card>
            <Text bold>{`${Math.round(view.minutes)} min at the bench`}</Text>
            <Text kind="small" tone="soft">
              {hands
                ? `${Math.round(view.bench.temperatureC)} °C, power ${view.bench.power}, ${view.bench.loaded ? 'filament in' : 'filament out'}${view.bench.raised ? ', head raised and supported' : ''}`
                : 'The bench is made ready for you; what that takes is counted. Waiting counts at half.'}
            </Text>
          </Card>
          {last ? <EntryLine entry={last} live /> : null}
        </View>
        <View style={[styles.column, wide && styles.side]}>
          <Choice label="What next" options={parts} chosen={[part]} onToggle={setPart} />
          {part === 'look' ? <LookList view={view} onLook={(key) => move({ do: 'look', key })} /> : null}
          {part === 'hands' ? <HandsPad view={view} onMove={move} /> : null}
          {part === 'repair' ? <RepairList view={view} onMove={move} /> : null}
          {part === 'done' ? (
            <View style={styles.column}>
              {view.entries.map((entry, i) => (
                <EntryLine key={i} entry={entry} />
              ))}
              {view.entries.length === 0 ? <Text tone="soft">Nothing yet.</Text> : null}
            </View>
          ) : null}
          <AskFirst
            label="Give up and see what it was"
            question="The round ends, and goes on record as given up."
            yes="Show me"
            no="Go on"
            onYes={() => move({ do: 'give-up' })}
          />
        </View>
      </View>
    </Page>
  );
}

function Told({ view: { complaint } }: { readonly view: RoundView }) {
  const line = (what: string, list: readonly string[]): string | undefined =>
    list.length ? `${what}: ${list.join('; ')}` : undefined;
  return (
    <Card edge="doubt">
      <Text bold heading={2}>
        What the owner says
      </Text>
      {complaint.seen.map((text) => (
        <Text key={text}>{text}</Text>
      ))}
      {[
        line('It began', complaint.began),
        line('Filament', [complaint.filament]),
        line('Before it came in', complaint.before),
        ...complaint.more,
      ]
        .filter((text): text is string => text !== undefined)
        .map((text) => (
          <Text key={text} kind="small" tone="soft">
            {text}
          </Text>
        ))}
    </Card>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  sides: { flexDirection: 'row', gap: space.l, alignItems: 'flex-start' },
  side: { flex: 1 },
});

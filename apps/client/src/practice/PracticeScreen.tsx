import { readPracticeRecord } from '@zealous/contracts/practice';
import type { Level, RoundRecord } from '@zealous/core/practice';
import { useFocusEffect, useRouter } from 'expo-router';
import { useCallback, useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { v4 as uuid } from 'uuid';
import { useAppSelector } from '../data/store';
import { useKept } from '../data/useKept';
import { AskFirst } from '../ui/AskFirst';
import { Button } from '../ui/Button';
import { Card, Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Page } from '../ui/Page';
import { pickFile } from '../ui/pickFile';
import { saveFile } from '../ui/saveFile';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { practice } from '../workers/practice';
import { bringIn, currentRound, keepRound, keptRecord, recordFile, standingOf } from './keptRounds';
import { LEVELS } from './levels';

const ANY = 'any';
/** So many rounds are listed; all are in the file. */
const SHOWN = 12;

/** Where somebody practises: level, machine, and the own record. */
export function PracticeScreen() {
  const router = useRouter();
  const by = useAppSelector((root) => root.settings.by);
  const [person, setPerson] = useKept('person', by);
  const [level, setLevel] = useKept<Level>('level', 'signs');
  const [family, setFamily] = useKept('family', ANY);
  const [families, setFamilies] = useState<readonly { readonly id: string; readonly name: string }[]>([]);
  const [begun, setBegun] = useState(currentRound);
  const [problem, setProblem] = useState('');
  const [all, setAll] = useState(keptRecord);
  const record = all.filter((round) => round.person === person.trim());
  const named = person.trim() !== '';
  // The page stays beneath a round: what stands on it is read again when one comes back to it.
  useFocusEffect(
    useCallback(() => {
      setAll(keptRecord());
      setBegun(currentRound());
    }, []),
  );
  useEffect(() => {
    practice()
      .families()
      .then(setFamilies, () => setProblem('The practice bench could not be loaded. Load the page again.'));
  }, []);
  const begin = async (): Promise<void> => {
    const chances = [Math.random(), Math.random(), Math.random()] as const;
    const done = record.map(({ hidden }) => hidden);
    try {
      keepRound(
        await practice().begin(uuid(), person.trim(), level, family === ANY ? undefined : family, done, [...chances]),
      );
      router.push('/practice/round');
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const read = async (): Promise<void> => {
    setProblem('');
    const text = await pickFile('application/json,.json');
    if (text === undefined) return;
    try {
      const { rounds } = readPracticeRecord(text);
      setAll(bringIn(rounds));
      const [first] = rounds;
      if (first) setPerson(first.person);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <Page
      title="Practice bench"
      back="/tools"
      foot={
        <View style={styles.foot}>
          <Button
            label={begun ? 'Begin another round' : 'Begin a round'}
            kind={begun ? 'plain' : 'main'}
            disabled={!named || families.length === 0}
            onPress={() => void begin()}
          />
        </View>
      }
    >
      <View style={styles.column}>
        <Text tone="soft">
          A machine with a hidden fault and what its owner says. You decide what to look at and what to repair; the
          clock runs, and nothing real gets hot. Afterwards your way is set beside the tracer’s.
        </Text>
        {begun ? (
          <Card edge="deed">
            <Text bold>A round is begun and not ended.</Text>
            <View style={styles.row}>
              <Button label="Go on with it" kind="main" onPress={() => router.push('/practice/round')} />
              <AskFirst
                label="Leave it"
                question="It is not put on record. Leave it?"
                yes="Leave it"
                no="Keep it"
                onYes={() => {
                  keepRound(undefined);
                  setBegun(undefined);
                }}
              />
            </View>
          </Card>
        ) : null}
        <Field label="Who practises" value={person} most={60} onChange={setPerson} />
        <Text bold>How hard</Text>
        <Choice label="How hard" options={LEVELS} chosen={[level]} onToggle={setLevel} />
        <Text kind="small">{LEVELS.find(({ id }) => id === level)?.says ?? ''}</Text>
        <Text bold>Kind of machine</Text>
        <Choice
          label="Kind of machine"
          options={[{ id: ANY, label: 'Any' }, ...families.map(({ id, name }) => ({ id, label: name }))]}
          chosen={[family]}
          onToggle={setFamily}
        />
        {problem ? (
          <Text bold tone="fault" live>
            {problem}
          </Text>
        ) : null}
        {named ? null : <Text kind="small">Say who practises: the record is kept by name.</Text>}
        <Section title={named ? `Record of ${person.trim()}` : 'Record'}>
          <Record person={person.trim()} rounds={record} />
          <Button label="Bring a record in" kind="quiet" onPress={() => void read()} />
        </Section>
      </View>
    </Page>
  );
}

const OUTCOMES = { cured: 'Cured', called: 'Rightly called not listed', 'gave-up': 'Given up' } as const;

function Record({ person, rounds }: { readonly person: string; readonly rounds: readonly RoundRecord[] }) {
  if (rounds.length === 0)
    return <Text tone="soft">No round yet. The first one takes about five minutes of your time.</Text>;
  const { cured, accidents, ratio } = standingOf(rounds);
  return (
    <View style={styles.column}>
      <Text testID="practice-standing">
        {[
          `${rounds.length} ${rounds.length === 1 ? 'round' : 'rounds'}, ${cured} brought to a cure.`,
          ratio === undefined ? '' : `Usually ${ratio.toFixed(1)} times the tracer’s minutes.`,
          accidents === 0
            ? 'No accident.'
            : `${accidents} ${accidents === 1 ? 'accident' : 'accidents'} that a real machine would have had.`,
        ]
          .filter(Boolean)
          .join(' ')}
      </Text>
      {rounds
        .slice(-SHOWN)
        .reverse()
        .map((round) => (
          <Card key={round.id} edge={round.accidents.length ? 'fault' : round.outcome === 'gave-up' ? 'line' : 'clear'}>
            <Text bold>{`${round.at.slice(0, 10)}: ${OUTCOMES[round.outcome]}`}</Text>
            <Text kind="small">
              {[
                LEVELS.find(({ id }) => id === round.level)?.label,
                `${Math.round(round.minutes)} min${round.tracerMinutes === undefined ? '' : `, the tracer ${Math.round(round.tracerMinutes)}`}`,
                `${round.looks} ${round.looks === 1 ? 'look' : 'looks'}, ${round.repairs} ${round.repairs === 1 ? 'repair' : 'repairs'}`,
                round.soundRenewed ? `${round.soundRenewed} sound renewed` : '',
                round.accidents.length ? `${round.accidents.length} accidents` : '',
              ]
                .filter(Boolean)
                .join(' · ')}
            </Text>
          </Card>
        ))}
      {rounds.length > SHOWN ? <Text kind="small">{`The last ${SHOWN} of ${rounds.length}.`}</Text> : null}
      <Button
        label="Save the record as a file"
        icon="save"
        kind="quiet"
        onPress={() => saveFile(`practice-${person}.json`, 'application/json', recordFile(person, rounds))}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s, maxWidth: 760, width: '100%', alignSelf: 'center' },
  foot: { padding: space.m },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});

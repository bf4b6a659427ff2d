import {
  assess,
  benchAt,
  deliveredCatalogue,
  machineOfFamily,
  reduceOrder,
  routeOf,
  summariseLog,
  type EventBodies,
  type EventType,
  type OrderEvent,
} from '@zealous/core';
import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Polyline } from 'react-native-svg';
import type { Recorder } from '../data/useOrder';
import { AskFirst } from '../ui/AskFirst';
import { Button } from '../ui/Button';
import { Card, Notice, Section } from '../ui/Card';
import { CautionLine } from '../ui/CautionLine';
import { Chart } from '../ui/Chart';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { FindField } from '../ui/FindField';
import { ShareButton } from '../ui/ShareButton';
import { Fold } from '../ui/Fold';
import { FoldedChoice } from '../ui/FoldedChoice';
import { FormChoice, FormNumber, FormText } from '../ui/form/FormFields';
import { NumberField } from '../ui/form/NumberField';
import type { RecordField } from '../ui/form/fields';
import { Listed } from '../ui/form/Listed';
import { RecordForm } from '../ui/form/RecordForm';
import { useRecordForm } from '../ui/form/useRecordForm';
import { useEntryForm } from '../ui/form/useEntryForm';
import { HeatBand } from '../ui/HeatBand';
import { Icon, ICON_NAMES } from '../ui/Icon';
import { LogChart } from '../ui/LogChart';
import { MoreBelow } from '../ui/MoreBelow';
import { Page } from '../ui/Page';
import { ScrewsIn } from '../ui/ScrewsIn';
import { Sheet } from '../ui/Sheet';
import { SortableList } from '../ui/SortableList';
import { Strand } from '../ui/strand/Strand';
import { StrandStrip } from '../ui/strand/StrandStrip';
import { Table } from '../ui/Table';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { day, space } from '../ui/tokens';

const nothing = (): void => undefined;
/** Pieces that record do so into the air. */
const unheard: Recorder = () => '';
const LONG = 'A name that goes on and on, as one does that somebody typed who wanted to leave nothing out of it at all';
const UNBROKEN = 'Unbrokenword'.repeat(9);

let made = 0;
const event = <T extends EventType>(type: T, body: EventBodies[T]): OrderEvent =>
  ({ id: `piece-${++made}`, at: '2026-11-20T09:00:00.000Z', by: 'bench 1', type, body }) as unknown as OrderEvent;

/** A machine and an order for those pieces that show one: taken in, hot, one finding. */
const machine = machineOfFamily('hub-head', 'pieces', 'Pieces');
const lane = machine.runs.find((run) => run.stations.length > 1)?.id;
const route = routeOf(machine, lane);
const state = reduceOrder(machine, deliveredCatalogue, [
  event('taken-in', {
    number: 'pieces',
    machineId: machine.id,
    symptoms: ['not-reach'],
    before: [],
    ...(lane ? { lane } : {}),
  } as unknown as EventBodies['taken-in']),
]);
const spoiled = {
  ...state,
  power: 'on' as const,
  heatSpoiled: true,
  heat: { ...state.heat, temperatureC: 208, targetC: 208 },
};
const assessment = assess(machine, deliveredCatalogue, state, benchAt(machine, state, 0), { depth: 1, quick: true });
const LOG = Array.from({ length: 40 }, (_, i) => ({ atS: i, temperatureC: 200 + (i === 25 ? -40 : 0), targetC: 210 }));

const TONES = Object.keys(day) as (keyof typeof day)[];

function Forms() {
  const { control, submit } = useEntryForm<
    'note-added',
    { readonly text: string; readonly n: string; readonly pick: string }
  >({
    type: 'note-added',
    defaults: { text: '', n: 'twelve', pick: 'a' },
    toBody: ({ text }) => ({ text }),
  });
  return (
    <View style={styles.column}>
      <FormText control={control} name="text" label="Text, judged by its contract" />
      <FormNumber control={control} name="n" label="A number that is none" />
      <FormChoice control={control} name="pick" label="One of" options={[{ id: 'a', label: 'A' }]} />
      <Button label="Judge it" onPress={() => submit(nothing)} />
    </View>
  );
}

const RECORD_FIELDS: readonly RecordField[] = [
  { name: 'name', label: 'Name', kind: { type: 'text' } },
  { name: 'minutes', label: 'Minutes, which never fit', kind: { type: 'number' } },
  { name: 'words', label: 'Words', kind: { type: 'words' } },
];

function ARecord() {
  const form = useRecordForm({
    fields: RECORD_FIELDS,
    record: { name: 'A record', minutes: 4, words: ['one', 'two'] },
    judge: () => [{ path: '/minutes', reason: 'must be a number from 5 to 6' }],
    onChange: nothing,
  });
  return (
    <View style={styles.column}>
      <RecordForm form={form} fields={RECORD_FIELDS} />
      <Button label="Judge the record" onPress={() => void form.handleSubmit(nothing)()} />
    </View>
  );
}

/** For developers only: every shared piece in every state, to be looked at by day and night, wide and narrow. */
export function PiecesScreen() {
  const palette = usePalette();
  const [one, setOne] = useState<readonly string[]>(['b']);
  const [items, setItems] = useState(['first', 'second', 'third']);
  const [sheet, setSheet] = useState(false);
  const [open, setOpen] = useState(true);
  const [typed, setTyped] = useState('');
  const options = [
    { id: 'a', label: 'Short' },
    { id: 'b', label: LONG },
    { id: 'c', label: UNBROKEN },
    { id: 'd', label: 'With a colour', swatch: 'orange' },
  ];
  const row = (children: ReactNode) => <View style={styles.row}>{children}</View>;
  return (
    <Page title="Pieces" back="/">
      <Section title="Text">
        {(['body', 'small', 'large', 'title', 'big', 'figure'] as const).map((kind) => (
          <Text key={kind} kind={kind}>{`${kind}: 0O 1lI 208 °C`}</Text>
        ))}
        <View style={[styles.row, { backgroundColor: palette.card }]}>
          {TONES.map((tone) => (
            <Text key={tone} tone={tone}>
              {tone}
            </Text>
          ))}
        </View>
        <Text lines={1}>{`${LONG} ${UNBROKEN}`}</Text>
      </Section>
      <Section title="Buttons">
        {(['main', 'plain', 'quiet'] as const).map((kind) => (
          <View key={kind} style={styles.row}>
            <Button label={kind} kind={kind} onPress={nothing} />
            <Button label="with a sign" icon="save" kind={kind} onPress={nothing} />
            <Button label="not now" kind={kind} disabled onPress={nothing} />
            <Button label={LONG} kind={kind} onPress={nothing} />
          </View>
        ))}
        <Button label="Listed" kind="quiet" listed onPress={nothing}>
          <Text kind="small">with a line below</Text>
        </Button>
        <AskFirst label="Take away" question="It is gone then." yes="Take it away" no="Leave it" onYes={nothing} />
        <ScrewsIn machine={machine} state={state} part={machine.parts[0]?.id ?? ''} record={unheard} />
      </Section>
      <Section title="Signs">
        {row(ICON_NAMES.map((name) => <Icon key={name} name={name} color={palette.ink} />))}
      </Section>
      <Section title="Cards and cautions">
        {(['line', 'deed', 'doubt', 'clear', 'warm', 'fault'] as const).map((edge) => (
          <Card key={edge} edge={edge}>
            <Text>{edge}</Text>
          </Card>
        ))}
        <Notice title="Nothing here yet" text={LONG} action="Do something" onAction={nothing} />
        {deliveredCatalogue.cautions.map((caution) => (
          <CautionLine key={caution.id} caution={caution} />
        ))}
        <Fold title="A fold" said="what was said" open={open} onToggle={() => setOpen(!open)}>
          <Text>What lies in it.</Text>
        </Fold>
        <View style={styles.low}>
          <MoreBelow label="Words">
            <Text>{`${LONG}. `.repeat(12)}</Text>
          </MoreBelow>
        </View>
        <Button label="A sheet" onPress={() => setSheet(true)} />
        <Sheet title="A sheet" open={sheet} onClose={() => setSheet(false)} foot={<Text>Its foot</Text>}>
          <Text>{`${LONG}. `.repeat(20)}</Text>
        </Sheet>
      </Section>
      <Section title="Choices and fields">
        <Choice label="One" options={options} chosen={one} onToggle={(id) => setOne([id])} />
        <Choice
          label="Several"
          several
          options={options}
          chosen={one}
          onToggle={(id) => setOne(one.includes(id) ? one.filter((x) => x !== id) : [...one, id])}
        />
        <ShareButton label="Send it" what={() => ({ title: 'A piece', text: LONG })} copied="It is copied." />
        <FindField label="Find" value={typed} onChange={setTyped} />
        <Field label="Empty" value={typed} onChange={setTyped} />
        <Field label={LONG} value={LONG} onChange={nothing} lines />
        <Field label="Wrong" value="-3" number error="At least 0: how many are left?" onChange={nothing} />
        <NumberField label="A number" value={27.5} onChange={nothing} />
        <NumberField label="No number yet" value={undefined} onChange={nothing} />
        <FoldedChoice label="Folded" options={options} chosen="b" onChoose={nothing} />
        <Listed label="Numbers" numbers value={[1, 2.5]} onChange={nothing} />
        <ARecord />
        <Forms />
        <SortableList
          label="Order"
          items={items.map((id) => ({ id, name: id }))}
          onMove={(from, to) => {
            const next = items.filter((_, i) => i !== from);
            next.splice(to, 0, items[from] ?? '');
            setItems(next);
          }}
        >
          {(id) => <Text>{id}</Text>}
        </SortableList>
      </Section>
      <Section title="Tables and charts">
        {[[], ['Whelk', LONG]].map((rows, i) => (
          <Table
            key={i}
            label={rows.length > 0 ? 'Rows' : 'No rows'}
            columns={[
              { id: 'name', title: 'Name', value: (name: string) => name, share: 2 },
              { id: 'letters', title: 'Letters', value: (name: string) => name.length },
            ]}
            rows={rows}
            keyOf={(name) => name}
            hrefOf={() => '/'}
          />
        ))}
        <Chart
          label="A rising line"
          across={{ from: 0, to: 10, words: (value) => `${value} s` }}
          up={{ from: 0, to: 100, words: (value) => `${value} °C` }}
        >
          {(x, y) => <Polyline points={`${x(0)},${y(0)} ${x(10)},${y(90)}`} stroke={palette.deed} fill="none" />}
        </Chart>
        <LogChart log={LOG} summary={summariseLog(LOG)} />
      </Section>
      <Section title="The strand and the heat">
        <HeatBand machine={machine} state={state} record={unheard} printC={210} title="The heat" />
        <HeatBand machine={machine} state={spoiled} record={unheard} printC={210} title="The heating at fault" />
        <StrandStrip route={route} stations={assessment.stations} colour="orange" width={360} onOpen={nothing} />
        <StrandStrip
          route={route}
          stations={assessment.stations}
          colour="orange"
          width={360}
          room={220}
          onOpen={nothing}
        />
        <Strand
          machine={machine}
          route={route}
          stations={assessment.stations}
          cleared={assessment.cleared}
          width={390}
          roomy
          onStation={nothing}
        />
      </Section>
    </Page>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  low: { height: 120 },
});

import { familyName, laneRuns, type Machine } from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { v4 as uuid } from 'uuid';
import { useMachineQuery, useMachinesQuery } from '../data/api';
import { draftChanged, draftEmptied, type TakeInDraft } from '../data/draftSlice';
import { eventRecorded, orderBegun } from '../data/ordersSlice';
import { useAppDispatch, useAppSelector } from '../data/store';
import { makeEvent } from '../data/useOrder';
import { orderHref } from '../orders/links';
import { Notice, Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { NumberField } from '../ui/form/NumberField';
import { Page } from '../ui/Page';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { filamentColour, FILAMENT_WORDS, space } from '../ui/tokens';
import { FirstSuspicion } from './FirstSuspicion';
import { bodyOf } from './takeInBody';

const WEEKS = [
  { id: '0', label: 'Fresh today' },
  { id: '1', label: 'About a week' },
  { id: '3', label: '2 to 4 weeks' },
  { id: '6', label: 'Longer' },
  { id: 'unknown', label: 'Don’t know' },
] as const;
const HOTTER = [
  { id: 'yes', label: 'Yes, a hotter one' },
  { id: 'no', label: 'No' },
  { id: 'unknown', label: 'Don’t know' },
] as const;
const WARRANTY = [
  { id: 'yes', label: 'Yes: mending may void it' },
  { id: 'no', label: 'No' },
  { id: 'unknown', label: 'Don’t know' },
] as const;
/** Beginnings that lie within a print: it matters when. */
const UNKNOWN = 'unknown';

const toggled = (list: readonly string[], id: string): readonly string[] =>
  list.includes(id) ? list.filter((item) => item !== id) : [...list, id];

/** Number of an order: day, and a few signs of its id, so that two phones never give the same. */
const orderNumber = (id: string, now: Date): string =>
  `${now.toISOString().slice(2, 10).replaceAll('-', '')}-${id.slice(0, 3)}`;

/** One column, few taps, nothing that must be known. */
export function TakeInScreen() {
  const dispatch = useAppDispatch();
  const router = useRouter();
  const draft = useAppSelector((root) => root.draft);
  const by = useAppSelector((root) => root.settings.by);
  const machines = useMachinesQuery();
  const { currentData: machine } = useMachineQuery(draft.machineId ?? '', { skip: draft.machineId === undefined });
  const [asked, setAsked] = useState(false);
  const set = (change: Partial<TakeInDraft>): void => void dispatch(draftChanged(change));
  const { onsets, symptoms, before, materials } = useCatalogue();

  const begin = (ready: Machine): void => {
    const id = uuid();
    const lanes = laneRuns(ready);
    const lane = draft.lane ?? (lanes.length > 1 ? lanes[0]?.id : undefined);
    const event = makeEvent(
      by,
      'taken-in',
      bodyOf({ ...draft, ...(lane === undefined ? {} : { lane }) }, ready.id, orderNumber(id, new Date())),
    );
    dispatch(orderBegun({ id, machine: ready }));
    dispatch(eventRecorded({ orderId: id, event }));
    dispatch(draftEmptied());
    router.replace(orderHref(id, 'trace'));
  };

  return (
    <Page
      title="Take in"
      back="/"
      foot={
        <View style={styles.foot}>
          {asked && !machine ? (
            <Text tone="fault" bold live>
              Choose the machine first; everything else may stay open.
            </Text>
          ) : null}
          {machine ? <FirstSuspicion machine={machine} draft={draft} /> : null}
          <Tap label="Take in and trace" kind="main" onPress={() => (machine ? begin(machine) : setAsked(true))} />
        </View>
      }
    >
      <View style={styles.column}>
        <Section title="Machine">
          {machines.isError ? (
            <Notice
              title="The machines could not be fetched"
              text="The server does not answer. What you fill in here is kept."
              action="Try again"
              onAction={() => void machines.refetch()}
            />
          ) : null}
          {machines.isLoading ? <Text tone="soft">Fetching the machines …</Text> : null}
          <Choice
            label="Machine"
            options={(machines.data ?? []).map((item) => ({ id: item.id, label: item.name }))}
            chosen={draft.machineId ? [draft.machineId] : []}
            onToggle={(id) => dispatch(draftChanged({ machineId: id, lane: undefined }))}
          />
          {machine ? <Text kind="small" tone="soft">{`${familyName(machine.family)}. ${machine.summary}`}</Text> : null}
        </Section>
        {machine && laneRuns(machine).length > 1 ? (
          <Section title="Which lane?">
            <Choice
              label="Lane"
              options={laneRuns(machine).map((run) => ({ id: run.id, label: run.name }))}
              chosen={[draft.lane ?? laneRuns(machine)[0]?.id ?? '']}
              onToggle={(id) => set({ lane: id })}
            />
          </Section>
        ) : null}
        <Section title="What is seen? Several may apply">
          <Choice
            label="Seen"
            several
            options={symptoms}
            chosen={draft.symptoms}
            onToggle={(id) => set({ symptoms: toggled(draft.symptoms, id) })}
          />
        </Section>
        <Section title="When did it begin?">
          <Choice
            label="Began"
            options={[...onsets, { id: UNKNOWN, label: 'Don’t know' }]}
            chosen={[draft.onset ?? UNKNOWN]}
            onToggle={(id) => dispatch(draftChanged({ onset: id === UNKNOWN ? undefined : id }))}
          />
          {onsets.some(({ id, inPrint }) => inPrint && id === draft.onset) ? (
            <>
              <NumberField
                label="After how many minutes of printing?"
                value={draft.failedAfterMinutes}
                fits={(n) => n >= 0 && n <= 100_000}
                onChange={(failedAfterMinutes) => dispatch(draftChanged({ failedAfterMinutes }))}
              />
              <NumberField
                label="At what height, mm?"
                value={draft.failedAtMm}
                fits={(n) => n >= 0 && n <= 5000}
                onChange={(failedAtMm) => dispatch(draftChanged({ failedAtMm }))}
              />
            </>
          ) : null}
        </Section>
        <Section title="Filament in it">
          <Choice
            label="Material"
            options={materials.map(({ id, name }) => ({ id, label: name }))}
            chosen={[draft.material ?? UNKNOWN]}
            onToggle={(id) => dispatch(draftChanged({ material: id === UNKNOWN ? undefined : id }))}
          />
          <Choice
            label="Colour"
            options={FILAMENT_WORDS.map((word) => ({ id: word as string, label: word, swatch: filamentColour(word) }))}
            chosen={draft.colour ? [draft.colour] : []}
            onToggle={(id) => dispatch(draftChanged({ colour: draft.colour === id ? undefined : id }))}
          />
          <Text bold>How long was it loaded?</Text>
          <Choice
            label="Weeks loaded"
            options={WEEKS}
            chosen={[WEEKS.find((item) => item.id === String(draft.weeksLoaded))?.id ?? UNKNOWN]}
            onToggle={(id) => dispatch(draftChanged({ weeksLoaded: id === UNKNOWN ? undefined : Number(id) }))}
          />
          <Text bold>Did a hotter plastic run before?</Text>
          <Choice
            label="Hotter before"
            options={HOTTER}
            chosen={[draft.hotterBefore === undefined ? UNKNOWN : draft.hotterBefore ? 'yes' : 'no']}
            onToggle={(id) => dispatch(draftChanged({ hotterBefore: id === UNKNOWN ? undefined : id === 'yes' }))}
          />
        </Section>
        <Section title="What was done before it came in?">
          <Choice
            label="Done before"
            several
            options={before}
            chosen={draft.before}
            onToggle={(id) => set({ before: toggled(draft.before, id) })}
          />
        </Section>
        <Section title="Under warranty?">
          <Choice
            label="Under warranty"
            options={WARRANTY}
            chosen={[draft.warranty ?? UNKNOWN]}
            onToggle={(id) => dispatch(draftChanged({ warranty: id === UNKNOWN ? undefined : id }))}
          />
        </Section>
        <Field
          label="Note"
          value={draft.note ?? ''}
          onChange={(note) => set({ note })}
          most={1000}
          lines
          style={styles.note}
        />
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({
  column: { maxWidth: 720, width: '100%', alignSelf: 'center' },
  foot: { padding: space.m, gap: space.s, maxWidth: 752, width: '100%', alignSelf: 'center' },
  note: { marginTop: space.l },
});

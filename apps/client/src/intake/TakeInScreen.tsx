import { laneRuns, type Machine } from '@zealous/core';
import { useRouter, type Href } from 'expo-router';
import { useCallback, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { v4 as uuid } from 'uuid';
import { useMachineQuery, useMachinesQuery } from '../data/api';
import { draftChanged, draftEmptied, type TakeInDraft } from '../data/draftSlice';
import { eventRecorded, orderBegun } from '../data/ordersSlice';
import { load, save } from '../data/storage';
import { useAppDispatch, useAppSelector } from '../data/store';
import { makeEvent } from '../data/useOrder';
import { orderHref } from '../orders/links';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Card';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { FirstSuspicion } from './FirstSuspicion';
import { IntakeQuestions } from './IntakeQuestions';
import { MachineChoice } from './MachineChoice';
import { bodyOf } from './takeInBody';
import { numbersOnly, useIntakeForm } from './useIntakeForm';

/** Number of an order: day, and a few signs of its id, so that two phones never give the same. */
const orderNumber = (id: string, now: Date): string =>
  `${now.toISOString().slice(2, 10).replaceAll('-', '')}-${id.slice(0, 3)}`;

/** What was taken in last on this device: the machine, and of each machine its filament. */
interface Last {
  readonly machineId?: string;
  readonly filament: Readonly<Record<string, Pick<TakeInDraft, 'material' | 'colour'>>>;
}
const LAST = 'last-intake';

/** One column, few taps, nothing but the machine must be known. */
export function TakeInScreen() {
  const dispatch = useAppDispatch();
  const router = useRouter();
  const kept = useAppSelector((root) => root.draft);
  const form = useIntakeForm(
    'taken-in',
    kept,
    useCallback((filled: TakeInDraft) => void dispatch(draftChanged(filled)), [dispatch]),
    (filled) => bodyOf(filled, filled.machineId ?? '', 'new'),
  );
  const { draft, change: set } = form;
  const by = useAppSelector((root) => root.settings.by);
  const machines = useMachinesQuery();
  const { currentData: machine, isFetching } = useMachineQuery(draft.machineId ?? '', {
    skip: draft.machineId === undefined,
  });
  /** So many times it was to begin without a machine or a lane. */
  const [refusals, setRefusals] = useState(0);
  const [last] = useState(() => load<Last>(LAST, { filament: {} }));
  const lanes = machine ? laneRuns(machine) : [];
  const laneMissing = lanes.length > 1 && draft.lane === undefined;

  const begin = (ready: Machine): void => {
    const id = uuid();
    const event = makeEvent(by, 'taken-in', bodyOf(draft, ready.id, orderNumber(id, new Date())));
    const { material, colour } = draft;
    save(LAST, {
      machineId: ready.id,
      filament: {
        ...last.filament,
        [ready.id]: { ...(material === undefined ? {} : { material }), ...(colour === undefined ? {} : { colour }) },
      },
    } satisfies Last);
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
          {refusals > 0 && (!machine || laneMissing) ? (
            <Text tone="fault" bold live>
              {machine
                ? 'Choose the lane first: each has a path of its own. Everything else may stay open.'
                : 'Choose the machine first; everything else may stay open.'}
            </Text>
          ) : null}
          {machine && !laneMissing ? <FirstSuspicion machine={machine} draft={numbersOnly(draft)} /> : null}
          <Button
            label="Take in and trace"
            kind="main"
            onPress={() =>
              machine && !laneMissing ? void form.handleSubmit(() => begin(machine))() : setRefusals(refusals + 1)
            }
          />
        </View>
      }
    >
      {machines.isError ? (
        <Notice
          title="The machines could not be fetched"
          text="The server does not answer. What you fill in here is kept."
          action="Try again"
          onAction={() => void machines.refetch()}
        />
      ) : null}
      {machines.data?.length === 0 ? (
        <Notice
          title="The shop has no machine yet"
          text="Describe one from a template of its kind; that takes a few minutes and is done once."
          action="Describe a machine"
          onAction={() => router.push('/machines' as Href)}
        />
      ) : null}
      <IntakeQuestions
        machine={machine}
        form={form}
        first={draft.machineId === undefined ? 'machine' : 'seen-print'}
        last={draft.machineId === undefined ? undefined : last.filament[draft.machineId]}
        which={{
          refusals,
          coming: isFetching && !machine,
          said: machines.data?.find(({ id }) => id === draft.machineId)?.name,
          ask: (
            <>
              {machines.isLoading ? <Text tone="soft">Fetching the machines …</Text> : null}
              <MachineChoice
                machines={machines.data ?? []}
                chosen={draft.machineId}
                last={last.machineId}
                onPick={(id) => set({ machineId: id, lane: undefined })}
              />
              {machine ? (
                <Text kind="small" tone="soft">
                  {machine.summary}
                </Text>
              ) : null}
            </>
          ),
        }}
      />
    </Page>
  );
}

const styles = StyleSheet.create({
  foot: { padding: space.m, gap: space.s, maxWidth: 752, width: '100%', alignSelf: 'center' },
});

import {
  closingFaults,
  hourlyRateOf,
  modeById,
  percent,
  phaseOf,
  stationById,
  whatRemains,
  type OrderRecord,
} from '@zealous/core';
import { addWeeks, formatISO } from 'date-fns';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { beliefFor } from '../data/shopSlice';
import { useAppSelector } from '../data/store';
import { useCatalogue } from '../data/useCatalogue';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';
import { Card } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { NumberField } from '../ui/form/NumberField';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { OUTCOMES } from './Summary';

const AGAIN = [
  { id: '1', label: 'In a week' },
  { id: '2', label: 'In two weeks' },
  { id: '4', label: 'In four weeks' },
  { id: '13', label: 'In three months' },
];

export function CloseForm({ order, record, report }: OrderPartProps & { readonly report: OrderRecord }) {
  const { machine, state } = order;
  const catalogue = useCatalogue();
  const faults = closingFaults(machine, catalogue, state);
  const proved = phaseOf(machine, catalogue, state) === 'record' && faults.length === 0;
  const watchText = state.cause ? (modeById(catalogue, state.cause.mode)?.watch ?? '') : '';
  const [outcome, setOutcome] = useState<'cured' | 'not-cured' | 'given-back' | 'scrapped'>(
    proved ? 'cured' : 'given-back',
  );
  const [minutes, setMinutes] = useState(String(report.handsOnMinutes));
  const [rate, setRate] = useState<number | undefined>(hourlyRateOf(catalogue));
  const [weeks, setWeeks] = useState<string | undefined>(undefined);
  const [watch, setWatch] = useState('');
  const [note, setNote] = useState('');
  const value = Number(minutes.replace(',', '.'));
  const fits = minutes.trim() !== '' && value >= 0 && value <= 100000;
  const options = (['cured', 'not-cured', 'given-back', 'scrapped'] as const)
    .filter((id) => id !== 'cured' || proved)
    .map((id) => ({ id, label: OUTCOMES[id] }));
  return (
    <Card edge="deed">
      <Text kind="large" bold heading={2}>
        Close the order
      </Text>
      {proved ? null : (
        <>
          <Text tone="soft">
            Every proof must be passed before an order is closed as cured. It can be given back as it is.
          </Text>
          {faults.slice(0, 6).map(({ text }) => (
            <Text key={text} kind="small">{`• ${text}`}</Text>
          ))}
        </>
      )}
      {proved ? <Remains order={order} record={record} /> : null}
      <Choice label="Outcome" options={options} chosen={[outcome]} onToggle={setOutcome} />
      <Field label="Minutes of work" value={minutes} onChange={setMinutes} number />
      <NumberField label="Rate per hour" value={rate} fits={(n) => n >= 0 && n <= 10_000} onChange={setRate} />
      <Field label="What to watch, and when" value={watch} onChange={setWatch} most={1000} lines />
      {watchText ? <Text kind="small" tone="soft">{`The catalogue adds: ${watchText}`}</Text> : null}
      <Text bold>Look again</Text>
      <Choice
        label="Look again"
        options={AGAIN}
        chosen={weeks ? [weeks] : []}
        onToggle={(id) => setWeeks(id === weeks ? undefined : id)}
      />
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
            ...(weeks ? { watchOn: formatISO(addWeeks(new Date(), Number(weeks)), { representation: 'date' }) } : {}),
            ...(rate === undefined ? {} : { hourlyRate: rate }),
            ...(note.trim() ? { note: note.trim() } : {}),
          })
        }
      />
    </Card>
  );
}

/** A wrong closing can be withdrawn, in two taps; what it taught is forgotten with it. */
export function Reopen({ eventId, record }: { readonly eventId: string; readonly record: OrderPartProps['record'] }) {
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

import {
  benchAt,
  closingFaults,
  hourlyRateOf,
  modeById,
  percent,
  phaseOf,
  SAFE_TO_TOUCH_C,
  stationById,
  whatRemains,
  type EventBodies,
  type OrderRecord,
} from '@zealous/core';
import { addWeeks, formatISO } from 'date-fns';
import { useRouter } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { beliefFor } from '../data/shopCatalogue';
import { useClock } from '../data/useClock';
import { useAppSelector } from '../data/store';
import { useCatalogue } from '../data/useCatalogue';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';
import { Card } from '../ui/Card';
import { FormChoice, FormNumber, FormText } from '../ui/form/FormFields';
import { filled, useEntryForm } from '../ui/form/useEntryForm';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { OUTCOMES } from './Summary';

const AGAIN = [
  { id: '1', label: 'In a week' },
  { id: '2', label: 'In two weeks' },
  { id: '4', label: 'In four weeks' },
  { id: '13', label: 'In three months' },
];

interface Values {
  readonly outcome: EventBodies['closed']['outcome'];
  readonly minutes?: number | string;
  readonly hourlyRate?: number | string | undefined;
  readonly watch?: string;
  /** Weeks after which it is looked at again. */
  readonly weeks?: string;
  readonly note?: string;
}

export function CloseForm({ order, record, report }: OrderPartProps & { readonly report: OrderRecord }) {
  const { machine, state } = order;
  const catalogue = useCatalogue();
  const faults = closingFaults(machine, catalogue, state);
  const proved = phaseOf(machine, catalogue, state) === 'record' && faults.length === 0;
  const watchText = state.cause ? (modeById(catalogue, state.cause.mode)?.watch ?? '') : '';
  const form = useEntryForm<'closed', Values>({
    type: 'closed',
    keep: `close:${order.id}`,
    defaults: {
      outcome: proved ? 'cured' : 'given-back',
      minutes: report.handsOnMinutes,
      hourlyRate: hourlyRateOf(catalogue),
    },
    toBody: ({ minutes, weeks, ...rest }) => ({
      ...filled(rest),
      ...(minutes === undefined ? {} : { minutes: typeof minutes === 'number' ? Math.round(minutes) : minutes }),
      ...(weeks ? { watchOn: formatISO(addWeeks(new Date(), Number(weeks)), { representation: 'date' }) } : {}),
    }),
  });
  const { control } = form;
  const bench = benchAt(machine, state, useClock(5000));
  const hot = bench.temperatureC > SAFE_TO_TOUCH_C;
  const options = (['cured', 'not-cured', 'given-back', 'scrapped', 'mistake'] as const)
    // Where something was repaired it was on the bench for a reason.
    .filter((id) => (id === 'cured' ? proved : id !== 'mistake' || state.tries.length === 0))
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
      {hot ? (
        <Text bold tone="warm">
          {`The machine is recorded at about ${Math.round(bench.temperatureC)} °C${bench.power === 'on' ? ' and switched on' : ''}: set the target to zero and let it cool before it leaves the bench.`}
        </Text>
      ) : null}
      {proved ? <Remains order={order} record={record} /> : null}
      <FormChoice control={control} name="outcome" label="Outcome" options={options} />
      <FormNumber control={control} name="minutes" label="Minutes of work" />
      <FormNumber control={control} name="hourlyRate" label="Rate per hour" />
      <FormText control={control} name="watch" label="What to watch, and when" most={1000} lines />
      {watchText ? <Text kind="small" tone="soft">{`The catalogue adds: ${watchText}`}</Text> : null}
      <Text bold>Look again</Text>
      <FormChoice control={control} name="weeks" label="Look again" options={AGAIN} loose />
      <FormText control={control} name="note" label="Note: real but not the cause, old part kept …" most={2000} lines />
      <Button label="Close the order" kind="main" onPress={() => form.submit((body) => record('closed', body))} />
    </Card>
  );
}

/** A wrong closing can be withdrawn, in two taps; what it taught is forgotten with it. */
export function Reopen({ eventId, record }: { readonly eventId: string; readonly record: OrderPartProps['record'] }) {
  const [asked, setAsked] = useState(false);
  return asked ? (
    <Card edge="fault">
      <Text>The order is open again afterwards, and what it taught is forgotten.</Text>
      <Button label="Withdraw the closing" onPress={() => record('event-withdrawn', { eventId })} />
      <Button label="Leave it closed" kind="quiet" onPress={() => setAsked(false)} />
    </Card>
  ) : (
    <Button label="Closed wrongly?" kind="quiet" listed onPress={() => setAsked(true)} />
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
        <Button
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

import { PAGE_SIZE } from '@zealous/contracts/limits';
import type { OrderSummary } from '@zealous/contracts/messages';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useOrdersQuery } from '../data/api';
import { useAppSelector } from '../data/store';
import { useClock } from '../data/useClock';
import { useReadyAhead } from '../data/useReadyAhead';
import { OrderCard, useOpenOrders } from '../orders/BenchList';
import { orderHref } from '../orders/links';
import { Notice, Section } from '../ui/Card';
import { FindField } from '../ui/FindField';
import { Table, type Column } from '../ui/Table';
import { Page } from '../ui/Page';
import { useWide } from '../ui/useWide';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const CLOSED: readonly Column<OrderSummary>[] = [
  { id: 'machine', title: 'Machine', value: (order) => order.machineName },
  { id: 'cause', title: 'Cause', value: (order) => order.lead?.name ?? order.outcome ?? '', share: 2 },
  { id: 'closed', title: 'Closed', value: (order) => order.closedAt?.slice(0, 10) ?? '' },
  { id: 'number', title: 'Number', value: (order) => order.number },
];

/** With more orders than this a way to find one is offered. */
const FEW = 8;

/** All open orders: what is next for each, what runs by itself; taking in is one tap. */
export function BenchScreen() {
  const router = useRouter();
  const wide = useWide();
  const now = useClock(1000);
  const [page, setPage] = useState(1);
  const [search, setSearch] = useState('');
  const words = search.trim();
  const open = useOpenOrders(page, words);
  const closed = useOrdersQuery({ status: 'closed', ...(words ? { search: words } : {}) });
  const pages = Math.max(1, Math.ceil((open.data?.total ?? 0) / PAGE_SIZE));
  const many = (open.data?.total ?? 0) + (closed.data?.total ?? 0) > FEW;
  const unsent = useAppSelector((root) => root.orders.outbox);
  const items = open.data?.items ?? [];
  useReadyAhead(items);
  const fresh = unsent.flatMap(({ orderId, event }) =>
    event.type === 'taken-in' && !items.some((order) => order.id === orderId) ? [orderId] : [],
  );
  const takeIn = (): void => router.push('/take-in');
  return (
    <Page
      title="Bench"
      head={wide ? <Button label="Take in a machine" icon="plus" kind="main" onPress={takeIn} /> : null}
      foot={
        wide ? null : (
          <View style={styles.foot}>
            <Button label="Take in a machine" icon="plus" kind="main" onPress={takeIn} />
          </View>
        )
      }
    >
      {open.isLoading ? <Notice title="Fetching the bench …" /> : null}
      {open.isError && !open.data ? (
        <Notice
          title="The bench could not be fetched"
          text="The server does not answer. Orders opened on this phone before can still be worked on."
          action="Try again"
          onAction={() => void open.refetch()}
        />
      ) : null}
      {many || words ? (
        <FindField
          label="Find by order number or machine"
          value={search}
          style={styles.find}
          onChange={(text) => {
            setSearch(text);
            setPage(1);
          }}
        />
      ) : null}
      {words && open.data && items.length === 0 ? <Text>{`No open order has “${words}”.`}</Text> : null}
      {open.data && !words && items.length === 0 && fresh.length === 0 ? (
        <Notice
          title="The bench is empty"
          text="When a machine comes in, take it in: what is seen, when it began, what was done before. The first suspicion stands at once."
          action="Take in a machine"
          onAction={takeIn}
        />
      ) : null}
      {fresh.map((id) => (
        <Button
          key={id}
          label="An order taken in on this phone, not sent yet"
          onPress={() => router.push(orderHref(id, 'trace'))}
        />
      ))}
      <View style={[styles.list, wide && styles.grid]}>
        {items.map((order) => (
          <View key={order.id} style={wide ? styles.cell : undefined}>
            <OrderCard order={order} now={now} />
          </View>
        ))}
      </View>
      {pages > 1 ? (
        <View style={styles.pages}>
          <Button label="Earlier" kind="quiet" disabled={page <= 1} onPress={() => setPage(page - 1)} />
          <Text>{`Page ${page} of ${pages}, the longest waiting first`}</Text>
          <Button label="Later" kind="quiet" disabled={page >= pages} onPress={() => setPage(page + 1)} />
        </View>
      ) : null}
      {(closed.data?.items.length ?? 0) > 0 ? (
        <Section title={words ? 'Closed' : 'Closed lately'}>
          <Table
            label="Closed orders"
            columns={CLOSED}
            rows={closed.data?.items ?? []}
            keyOf={({ id }) => id}
            hrefOf={({ id }) => orderHref(id, 'record')}
            first={{ id: 'closed', desc: true }}
            found
          />
        </Section>
      ) : null}
    </Page>
  );
}

const styles = StyleSheet.create({
  list: { gap: space.s },
  grid: { flexDirection: 'row', flexWrap: 'wrap' },
  cell: { width: '49%' },
  foot: { padding: space.m },
  find: { marginBottom: space.m },
  pages: {
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'space-between',
    gap: space.s,
    marginTop: space.m,
  },
});

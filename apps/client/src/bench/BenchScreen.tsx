import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useOrdersQuery } from '../data/api';
import { useAppSelector } from '../data/store';
import { useClock } from '../data/useClock';
import { OrderCard, useOpenOrders } from '../orders/BenchList';
import { orderHref } from '../orders/links';
import { Notice, Section } from '../ui/Card';
import { Page, useWide } from '../ui/Page';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** All open orders: what is next for each, what runs by itself; taking in is one tap. */
export function BenchScreen() {
  const router = useRouter();
  const wide = useWide();
  const now = useClock(1000);
  const open = useOpenOrders();
  const closed = useOrdersQuery({ status: 'closed' });
  const unsent = useAppSelector((root) => root.orders.outbox);
  const items = open.data?.items ?? [];
  const fresh = [...new Set(unsent.map((item) => item.orderId))].filter(
    (id) => !items.some((order) => order.id === id),
  );
  const takeIn = (): void => router.push('/take-in');
  return (
    <Page
      title="Bench"
      head={wide ? <Tap label="Take in a machine" icon="plus" kind="main" onPress={takeIn} /> : null}
      foot={
        wide ? null : (
          <View style={styles.foot}>
            <Tap label="Take in a machine" icon="plus" kind="main" onPress={takeIn} />
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
      {open.data && items.length === 0 && fresh.length === 0 ? (
        <Notice
          title="The bench is empty"
          text="When a machine comes in, take it in: what is seen, when it began, what was done before. The first suspicion stands at once."
          action="Take in a machine"
          onAction={takeIn}
        />
      ) : null}
      {fresh.map((id) => (
        <Tap
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
      {(closed.data?.items.length ?? 0) > 0 ? (
        <Section title="Closed lately">
          {closed.data?.items.slice(0, 8).map((order) => (
            <Tap
              key={order.id}
              label={`${order.machineName}: ${order.lead?.name ?? order.outcome ?? ''}`}
              onPress={() => router.push(orderHref(order.id, 'record'))}
            >
              <Text kind="small" tone="soft" style={styles.centre}>
                {`${order.closedAt?.slice(0, 10) ?? ''} · ${order.number}`}
              </Text>
            </Tap>
          ))}
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
  centre: { textAlign: 'center' },
});

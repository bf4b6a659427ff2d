import { cardWords } from '@zealous/contracts/cards';
import type { OrderSummary } from '@zealous/contracts/messages';
import { Link } from 'expo-router';
import { ScrollView, StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { useOrdersQuery } from '../data/api';
import { useClock } from '../data/useClock';
import { ageText, clockText } from '../ui/format';
import { readHeat } from '../ui/readHeat';
import { Icon } from '../ui/Icon';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { filamentColour, radius, space } from '../ui/tokens';
import { orderHref } from './links';

const POLL_MS = 5000;

/** Open orders, the longest waiting first: a page of them, or those that a number or a machine's name finds. */
export const useOpenOrders = (page = 1, search = '') =>
  useOrdersQuery(
    { status: 'open', ...(page > 1 ? { page } : {}), ...(search ? { search } : {}) },
    { pollingInterval: POLL_MS, skipPollingIfUnfocused: true },
  );

/** What runs by itself: timers of the order, in words. */
function Waits({ order, now }: { readonly order: OrderSummary; readonly now: number }) {
  const palette = usePalette();
  const heat = readHeat({ heat: order.machineHeat }, order, now);
  return (
    <>
      {order.timers.map((timer) => (
        <View key={timer.id} style={styles.wait}>
          <Icon name="timer" size={16} color={palette.deed} />
          <Text kind="small" bold tone="deed">
            {timer.endsMs > now
              ? `${timer.label}: ${clockText((timer.endsMs - now) / 1000)} left`
              : `${timer.label}: time is up`}
          </Text>
        </View>
      ))}
      {heat.warm ? (
        <View style={styles.wait}>
          <Icon name="heat" size={16} color={palette.warm} />
          <Text kind="small" bold tone="warm">
            {heat.words}
          </Text>
        </View>
      ) : null}
    </>
  );
}

export function OrderCard({
  order,
  now,
  current = false,
}: {
  readonly order: OrderSummary;
  readonly now: number;
  readonly current?: boolean;
}) {
  const palette = usePalette();
  const words = cardWords(order, ageText(order.openedAt, now));
  return (
    <Link href={orderHref(order.id, order.phase)} asChild>
      <TouchableRipple
        role="link"
        aria-label={words.label}
        style={StyleSheet.flatten([
          styles.card,
          {
            backgroundColor: current ? palette.deedWash : palette.card,
            borderColor: current ? palette.deed : palette.line,
          },
        ])}
      >
        <View style={styles.face}>
          <View style={[styles.spool, { backgroundColor: filamentColour(order.colour), borderColor: palette.ink }]} />
          <View style={styles.grow}>
            <View style={styles.row}>
              <Text kind="large" bold lines={1} style={styles.grow}>
                {words.name}
              </Text>
              <Text kind="small" tone="soft">
                {words.state}
              </Text>
            </View>
            <Text kind="small" tone="soft" lines={1}>
              {words.number}
            </Text>
            {words.lead ? (
              <Text kind="small" tone="doubt" lines={2}>
                {words.lead}
              </Text>
            ) : null}
            <Text lines={2}>
              <Text bold tone="deed">
                {'Next: '}
              </Text>
              {words.next}
            </Text>
            <Waits order={order} now={now} />
          </View>
        </View>
      </TouchableRipple>
    </Link>
  );
}

/** Open orders down the side of a wide order screen. */
export function BenchList({ current }: { readonly current: string }) {
  const palette = usePalette();
  const now = useClock(1000);
  const { data } = useOpenOrders();
  return (
    <View
      role="complementary"
      aria-label="On the bench"
      style={[styles.side, { borderColor: palette.line, backgroundColor: palette.paper }]}
    >
      <Text kind="large" bold heading={2} style={styles.sideTitle}>
        On the bench
      </Text>
      <ScrollView contentContainerStyle={styles.sideBody}>
        {data?.items.map((order) => (
          <OrderCard key={order.id} order={order} now={now} current={order.id === current} />
        ))}
      </ScrollView>
    </View>
  );
}

const styles = StyleSheet.create({
  card: { borderWidth: 1, borderRadius: radius.m, padding: space.m },
  face: { flexDirection: 'row', gap: space.m },
  spool: { width: 12, borderRadius: 6, borderWidth: 1 },
  grow: { flex: 1 },
  row: { flexDirection: 'row', alignItems: 'baseline', gap: space.s },
  wait: { flexDirection: 'row', alignItems: 'center', gap: space.xs, marginTop: space.xs },
  side: { width: 300, borderRightWidth: 1 },
  sideTitle: { padding: space.l, paddingBottom: space.s },
  sideBody: { padding: space.s, gap: space.s },
});

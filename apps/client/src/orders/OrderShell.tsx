import { materialOf, type Phase } from '@zealous/core';
import { useCatalogue } from '../data/useCatalogue';
import { Link } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { refusedDropped } from '../data/ordersSlice';
import { useAppDispatch } from '../data/store';
import { useOrder, useRecorder, type OpenOrder, type Recorder } from '../data/useOrder';
import { Notice } from '../ui/Card';
import { HeatBand } from '../ui/HeatBand';
import { Icon } from '../ui/Icon';
import { Connection, PageHead, useWide } from '../ui/Page';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { BenchList } from './BenchList';
import { orderHref } from './links';

export interface OrderPartProps {
  readonly order: OpenOrder;
  readonly record: Recorder;
}

const PHASES: readonly { readonly id: Phase; readonly label: string }[] = [
  { id: 'trace', label: 'Trace' },
  { id: 'plan', label: 'Work' },
  { id: 'prove', label: 'Prove' },
  { id: 'record', label: 'Record' },
];

/** Frame of every order screen: heat band, where the order stands, and what the server refused. */
export function OrderShell({
  id,
  phase,
  children,
}: {
  readonly id: string;
  readonly phase: Phase;
  readonly children: (props: OrderPartProps) => ReactNode;
}) {
  const palette = usePalette();
  const wide = useWide();
  const { order, loading, failure, retry } = useOrder(id);
  const record = useRecorder(id);
  const catalogue = useCatalogue();
  if (!order)
    return (
      <View style={[styles.screen, { backgroundColor: palette.paper }]}>
        <PageHead title="Work order" back="/" />
        <View style={styles.pad}>
          {loading || !failure ? (
            <Notice title="Fetching the order …" />
          ) : (
            <Notice
              title={failure}
              text="Nothing is lost: what was recorded is kept."
              action="Try again"
              onAction={retry}
            />
          )}
        </View>
      </View>
    );
  const { machine, state } = order;
  const material = materialOf(catalogue, state.intake?.material);
  return (
    <View style={[styles.screen, { backgroundColor: palette.paper }, wide && styles.sideways]}>
      {wide ? <BenchList current={id} /> : null}
      <View style={styles.grow}>
        <PageHead
          title={`${machine.name} · ${[material.assumed ? undefined : material.name, state.intake?.colour].filter(Boolean).join(', ') || state.intake?.number || ''}`}
          back="/"
        />
        {state.closed ? null : (
          <HeatBand
            machine={machine}
            state={state}
            record={record}
            printC={Math.min(material.printC, machine.heat.limitC)}
          />
        )}
        <Connection />
        <Refused order={order} />
        <View role="navigation" aria-label="Parts of the order" style={[styles.phases, { borderColor: palette.line }]}>
          {PHASES.map((item, i) => {
            const here = item.id === phase;
            const now = item.id === order.phase;
            return (
              <Link key={item.id} href={orderHref(id, item.id)} replace asChild>
                <Pressable
                  role="link"
                  aria-label={`${item.label}${now ? ', the order stands here' : ''}`}
                  {...(here ? { 'aria-current': 'page' as const } : {})}
                  style={StyleSheet.flatten([styles.phase, { borderColor: here ? palette.deed : 'transparent' }])}
                >
                  {now ? <Icon name="flag" size={14} color={palette.deed} /> : null}
                  <Text kind="small" bold={here} tone={here ? 'deed' : 'soft'}>
                    {i + 1} {item.label}
                  </Text>
                </Pressable>
              </Link>
            );
          })}
        </View>
        {children({ order, record })}
      </View>
    </View>
  );
}

function Refused({ order }: { readonly order: OpenOrder }) {
  const palette = usePalette();
  const dispatch = useAppDispatch();
  const refused = order.unsent.filter((item) => item.problem);
  return refused.map((item) => (
    <View key={item.event.id} role="alert" style={[styles.refused, { backgroundColor: palette.faultWash }]}>
      <Icon name="alert" color={palette.fault} />
      <View style={styles.grow}>
        <Text bold tone="fault">
          {item.problem?.title ?? 'Not taken'}
        </Text>
        <Text kind="small">{`${item.problem?.detail ?? ''} Remove this entry; then record again what fits.`}</Text>
      </View>
      <Tap label="Remove entry" onPress={() => dispatch(refusedDropped(item.event.id))} />
    </View>
  ));
}

const styles = StyleSheet.create({
  screen: { flex: 1 },
  sideways: { flexDirection: 'row' },
  grow: { flex: 1 },
  pad: { padding: space.l },
  phases: { flexDirection: 'row', borderBottomWidth: 1 },
  phase: {
    flex: 1,
    minHeight: 44,
    flexDirection: 'row',
    gap: space.xs,
    alignItems: 'center',
    justifyContent: 'center',
    borderBottomWidth: 3,
  },
  refused: { flexDirection: 'row', alignItems: 'center', gap: space.s, padding: space.m },
});

import { materialOf, type OrderState, type Phase } from '@zealous/core';
import { StayAwake, useBell } from '../data/useBell';
import { OrderCatalogue, useCatalogue } from '../data/useCatalogue';
import { Link, useRouter } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { IconButton, TouchableRipple } from 'react-native-paper';
import { useOrder, useRecorder, type OpenOrder, type Recorder } from '../data/useOrder';
import { Notice } from '../ui/Card';
import { HeatBand } from '../ui/HeatBand';
import { Icon } from '../ui/Icon';
import { Connection, PageHead, usePageTitle, WayBack } from '../ui/Page';
import { useWide } from '../ui/useWide';
import { CONTENT } from '../ui/SkipLink';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { useBarText } from '../ui/textSize';
import { size, space, TARGET } from '../ui/tokens';
import { WithLine } from '../link/LineBar';
import { BenchList } from './BenchList';
import { OrderSheet } from './OrderSheet';
import { Unsendable } from './Unsendable';
import { orderHref } from './links';

export interface OrderPartProps {
  readonly order: OpenOrder;
  readonly record: Recorder;
}

const NO_TIMERS: OrderState['timers'] = [];
const PHASES: readonly { readonly id: Phase; readonly label: string }[] = [
  { id: 'trace', label: 'Trace' },
  { id: 'plan', label: 'Work' },
  { id: 'prove', label: 'Prove' },
  { id: 'record', label: 'Record' },
];

/** Four names with their numbers, and the flag, side by side on the narrowest phone leave room for this height, px. */
const PHASE_PX = 16;

/** Frame of every order screen: heat band, where the order stands, and what the server refused. */
export function OrderShell({
  id,
  phase,
  children,
}: {
  readonly id: string;
  /** Which of its screens this is; none for one beside them. */
  readonly phase?: Phase;
  readonly children: (props: OrderPartProps) => ReactNode;
}) {
  const palette = usePalette();
  const wide = useWide();
  const { order, loading, failure, retry } = useOrder(id);
  const router = useRouter();
  const record = useRecorder(id);
  const present = useCatalogue();
  useBell(order?.state.timers ?? NO_TIMERS);
  const [sheet, setSheet] = useState(false);
  if (!order)
    return (
      <View style={[styles.screen, { backgroundColor: palette.paper }]}>
        <PageHead title="Work order" back="/" />
        <View role="main" id={CONTENT} tabIndex={-1} aria-label="Work order" style={styles.pad}>
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
  const { machine, state, catalogue } = order;
  const material = materialOf(catalogue, state.intake?.material);
  const filament = [material.assumed ? undefined : material.name, state.intake?.colour].filter(Boolean).join(', ');
  const title = `${machine.name} · ${filament || state.intake?.number || ''}`;
  const more = (
    <IconButton
      icon="help"
      size={22}
      accessibilityLabel="Note, taking-in, words"
      onPress={() => setSheet(true)}
      style={styles.more}
    />
  );
  // Made here and not where they are shown: what does not hang on the findings is not drawn anew at every tap.
  const back = <WayBack href="/" />;
  const parts = <OrderParts id={id} at={order.phase} {...(phase ? { here: phase } : {})} />;
  return (
    <View style={[styles.screen, { backgroundColor: palette.paper }, wide && styles.sideways]}>
      <StayAwake machine={machine} state={state} />
      <PageTitle title={`${PHASES.find((item) => item.id === phase)?.label ?? 'Taking-in'}: ${title}`} />
      {wide ? <BenchList current={id} /> : null}
      <View style={styles.grow}>
        <WithLine
          orderId={id}
          machine={machine}
          state={state}
          record={record}
          printC={Math.min(material.printC, machine.heat.limitC)}
        >
          {(bar) => (
            <>
              {state.closed ? (
                <PageHead title={title} back="/">
                  {more}
                </PageHead>
              ) : (
                <HeatBand
                  back={back}
                  title={title}
                  more={more}
                  machine={machine}
                  state={state}
                  record={record}
                  printC={Math.min(material.printC, machine.heat.limitC)}
                  onWhatIf={() =>
                    router.push({ pathname: '/tools/heat', params: { machine: machine.id, material: material.id } })
                  }
                />
              )}
              {bar}
              <Connection />
              <Unsendable order={order} />
              {parts}
              {sheet ? <OrderSheet order={order} record={record} onClose={() => setSheet(false)} /> : null}
              <OrderCatalogue.Provider value={catalogue === present ? undefined : catalogue}>
                {children({ order, record })}
              </OrderCatalogue.Provider>
            </>
          )}
        </WithLine>
      </View>
    </View>
  );
}

/** The four screens of an order, and at which it stands. */
function OrderParts({ id, at, here: shown }: { readonly id: string; readonly at: Phase; readonly here?: Phase }) {
  const palette = usePalette();
  const face = useBarText(size.small, PHASE_PX);
  return (
    <View role="navigation" aria-label="Parts of the order" style={[styles.phases, { borderColor: palette.line }]}>
      {PHASES.map((item, i) => {
        const here = item.id === shown;
        const now = item.id === at;
        return (
          <Link key={item.id} href={orderHref(id, item.id)} replace asChild>
            <TouchableRipple
              role="link"
              aria-label={`${item.label}${now ? ', the order stands here' : ''}`}
              {...(here ? { 'aria-current': 'page' as const } : {})}
              style={StyleSheet.flatten([styles.phase, { borderColor: here ? palette.deed : 'transparent' }])}
            >
              <View style={styles.named}>
                {now ? <Icon name="flag" size={14} color={palette.deed} /> : null}
                <Text kind="small" bold={here} tone={here ? 'deed' : 'soft'} style={face}>
                  {i + 1} {item.label}
                </Text>
              </View>
            </TouchableRipple>
          </Link>
        );
      })}
    </View>
  );
}

function PageTitle({ title }: { readonly title: string }) {
  usePageTitle(title);
  return null;
}

const styles = StyleSheet.create({
  screen: { flex: 1 },
  sideways: { flexDirection: 'row' },
  grow: { flex: 1 },
  more: { width: TARGET, height: TARGET, margin: 0 },
  pad: { padding: space.l },
  phases: { flexDirection: 'row', borderBottomWidth: 1 },
  phase: {
    flex: 1,
    minHeight: TARGET,
    justifyContent: 'center',
    borderBottomWidth: 3,
  },
  named: { flexDirection: 'row', gap: space.xs, alignItems: 'center', justifyContent: 'center' },
});

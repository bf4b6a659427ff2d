import { temperatureAt, type Machine, type OrderState } from '@zealous/core';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { problemText, useLinkDoMutation } from '../data/api';
import type { Recorder } from '../data/useOrder';
import { Button } from '../ui/Button';
import { Icon } from '../ui/Icon';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { LineContext } from './LineContext';
import { LineSheet } from './LineSheet';
import { useLine, type Line } from './useLine';

/** The order's heat is put right when the machine says otherwise by more than this, and not more often. */
const OFF_C = 5;
const RIGHT_EVERY_MS = 6_000;
/** It must stay so: what was just asked of the machine is heard a moment later. */
const STAYS_MS = 3_000;

/**
 * What the machine says goes into the order, by the phone that has it in hand: target, and readings where the clock is off. While it
 * cools these refit its time constant.
 */
function useHeard(line: Line | undefined, machine: Machine, state: OrderState, record: Recorder): void {
  const last = useRef(0);
  const since = useRef<number | undefined>(undefined);
  const { mine = false, status } = line ?? {};
  const up = status?.state === 'up' && !line?.stale;
  const { temperatureC, targetC = 0 } = status ?? {};
  useEffect(() => {
    if (!mine || !up || temperatureC === undefined || state.closed) return;
    const now = Date.now();
    const expected = temperatureAt(machine, state.heat, now);
    const other = Math.abs(state.heat.targetC - targetC) > 1;
    if (!other && Math.abs(expected - temperatureC) <= OFF_C) {
      since.current = undefined;
      return;
    }
    since.current ??= now;
    if (now - since.current < STAYS_MS || now - last.current < RIGHT_EVERY_MS) return;
    last.current = now;
    since.current = undefined;
    record('bench-changed', {
      readingC: Math.round(10 * temperatureC) / 10,
      ...(other ? { targetC: Math.round(targetC) } : {}),
      ...(targetC > 0 ? { power: 'on' as const } : {}),
    });
  }, [mine, up, temperatureC, targetC, machine, state, record]);
}

const lostWords = ({ status: { problem, lostAtTargetC, idleOffS } }: Line): string =>
  lostAtTargetC
    ? `The line is lost${problem ? ` (${problem})` : ''} while it heated to ${Math.round(lostAtTargetC)} °C. ${
        idleOffS === undefined
          ? 'Its firmware has no switch for that: it goes on heating. Go to the machine.'
          : `Its firmware sets the target to zero ${Math.round(idleOffS / 60)} min after the last feed; take it as hot until it answers.`
      } When the line is back, its target is set to zero first.`
    : `The line is lost${problem ? `: ${problem}` : ''}. It is tried again by itself.`;

function words(line: Line): string {
  const { status, mine, stale } = line;
  if (stale) return 'The server does not answer: what the machine does now is not known.';
  if (status.state === 'lost') return lostWords(line);
  if (status.state === 'halted') return 'The machine was stopped. Start it again when you stand at it.';
  if (status.state === 'connecting' || status.temperatureC === undefined) return 'The line is being opened …';
  const now = `${Math.round(status.temperatureC)} °C${status.targetC ? ` of ${Math.round(status.targetC)}` : ', not heating'}`;
  const who = mine ? 'in your hands' : status.holder ? `in the hands of ${status.holder.by}` : 'in nobody’s hands';
  return `On the line: ${now}, ${who}${status.busy ? ', working' : ''}`;
}

/** The machine on its line, on every screen of an order: what it says, and the stop. */
export function WithLine({
  orderId,
  machine,
  state,
  record,
  printC,
  children,
}: {
  readonly orderId: string;
  readonly machine: Machine;
  readonly state: OrderState;
  readonly record: Recorder;
  readonly printC: number;
  readonly children: (bar: ReactNode) => ReactNode;
}) {
  const palette = usePalette();
  const line = useLine(state.closed ? '' : machine.id);
  const [open, setOpen] = useState<{ readonly wantedC?: number } | undefined>(undefined);
  const [problem, setProblem] = useState<{ readonly text: string; readonly at: string } | undefined>(undefined);
  const [act] = useLinkDoMutation();
  useHeard(line, machine, state, record);
  if (!line || state.closed) return children(null);
  const { status } = line;
  const bad = status.state === 'lost' || status.state === 'halted' || line.stale;
  const stop = (): void => {
    setProblem(undefined);
    act({ machine: machine.id, what: 'stop', body: {} })
      .unwrap()
      .catch((error: unknown) => setProblem({ text: problemText(error), at: status.state }));
  };
  const bar = (
    <View
      role="region"
      aria-label="Machine on the line"
      style={[
        bad ? styles.tall : styles.bar,
        { borderColor: palette.line, backgroundColor: bad ? palette.faultWash : palette.card },
      ]}
    >
      <View style={styles.words}>
        <Icon name={bad ? 'alert' : 'machine'} size={16} color={bad ? palette.fault : palette.deed} />
        <Text kind="small" bold={bad} tone={bad ? 'fault' : 'ink'} live={bad} style={styles.grow} testID="line">
          {problem?.at === status.state ? problem.text : words(line)}
        </Text>
      </View>
      <View style={styles.deeds}>
        <Button label="Use it" hint="What the machine can do over its line" kind="quiet" onPress={() => setOpen({})} />
        <Button
          label="Stop"
          hint="Stops the machine at once, heat and motion"
          icon="alert"
          onPress={stop}
          style={[styles.stop, { borderColor: palette.fault }]}
        />
      </View>
    </View>
  );
  return (
    <LineContext.Provider value={(wantedC) => setOpen(wantedC ? { wantedC } : {})}>
      {children(bar)}
      {open ? (
        <LineSheet
          line={line}
          orderId={orderId}
          machine={machine}
          state={state}
          record={record}
          printC={printC}
          onStop={stop}
          {...(open.wantedC ? { wantedC: open.wantedC } : {})}
          onClose={() => setOpen(undefined)}
        />
      ) : null}
    </LineContext.Provider>
  );
}

const styles = StyleSheet.create({
  bar: {
    flexDirection: 'row',
    alignItems: 'center',
    borderBottomWidth: 1,
    paddingLeft: space.m,
    paddingRight: space.s,
    gap: space.xs,
  },
  tall: { borderBottomWidth: 1, padding: space.s, gap: space.xs },
  deeds: { flexDirection: 'row', alignItems: 'center', justifyContent: 'flex-end', gap: space.xs },
  words: { flexGrow: 1, flexShrink: 1, flexDirection: 'row', alignItems: 'center', gap: space.xs },
  grow: { flex: 1 },
  stop: { borderWidth: 2 },
});

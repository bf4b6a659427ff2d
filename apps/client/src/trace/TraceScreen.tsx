import {
  benchAt,
  looseHeaters,
  movedFor,
  routeOf,
  SAFE_TO_TOUCH_C,
  type EventBodies,
  type RankedCheck,
} from '@zealous/core';
import { useRouter } from 'expo-router';
import { useMemo, useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import useLatestCallback from 'use-latest-callback';
import { useAppSelector } from '../data/store';
import { useClock } from '../data/useClock';
import { ByMachine } from '../link/ByMachine';
import type { OrderPartProps } from '../orders/OrderShell';
import { Notice } from '../ui/Card';
import { CONTENT } from '../ui/SkipLink';
import { useWide } from '../ui/useWide';
import { Sheet } from '../ui/Sheet';
import { leastHeight } from '../ui/strand/layout';
import { Strand } from '../ui/strand/Strand';
import { STRIP, StrandStrip } from '../ui/strand/StrandStrip';
import { ScrewsIn } from '../ui/ScrewsIn';
import { Text } from '../ui/Text';
import { useTextScale } from '../ui/textSize';
import { useSame } from '../ui/useSame';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { ChangeLine } from './ChangeLine';
import { ClearedSheet } from './ClearedSheet';
import { AboutFinding, wantsWords } from './AboutFinding';
import { BesideCheck, UnderStrand } from './Counsel';
import { EnoughKnown } from './EnoughKnown';
import { KeysSheet } from './KeysSheet';
import { OtherChecks } from './OtherChecks';
import type { ItemsSeen } from './ItemPad';
import { ResultPad, useCheckPlace, type ToolPage } from './ResultPad';
import { StationSheet } from './StationSheet';
import { useAssessment } from './useAssessment';
import { useCauses } from './useCauses';
import { useTraceKeys } from './useTraceKeys';
import { WhyBody, WhySheet } from './WhySheet';

/** On a screen lower than this, px, the words and the results scroll as one: beside fixed results nothing would be left for the words. */
const LOW = 420;
const STRAND_WIDE = 440;

/** The strand, and the one thing to do next. */
export function TraceScreen({ order, record }: OrderPartProps) {
  const { machine, state } = order;
  const palette = usePalette();
  const router = useRouter();
  const wide = useWide();
  const scale = useTextScale();
  const { width } = useWindowDimensions();
  const now = useClock(5000);
  const habit = useAppSelector((root) => root.settings.habit);
  /** The technician's own choice; it holds until the next finding. */
  const [choice, setChoice] = useState<{ readonly key?: string; readonly at: number } | undefined>(undefined);
  const { assessment, seen = assessment, standing, change, failure, fresh } = useAssessment(order, choice?.key);
  const [station, setStation] = useState<string | undefined>(undefined);
  const [goOn, setGoOn] = useState(false);
  const [list, setList] = useState(false);
  const [why, setWhy] = useState(false);
  const [map, setMap] = useState(false);
  const [keys, setKeys] = useState(false);
  const [about, setAbout] = useState(false);
  const [whole, setWhole] = useState(false);
  /** Height of the whole screen below its head, and of the strand's part of it, px. */
  const [all, setAll] = useState(0);
  const [room, setRoom] = useState(0);
  const route = useMemo(() => routeOf(machine, state.intake?.lane), [machine, state.intake?.lane]);
  const findings = state.findings.length + state.notDone.length;
  const begun = choice?.at === findings;
  const picked = begun ? choice.key : undefined;
  const setPicked = useLatestCallback((key: string): void => setChoice({ key, at: findings }));

  const bench = useSame(benchAt(machine, state, now));
  const byKey = (key: string | undefined): RankedCheck | undefined =>
    key === undefined ? undefined : assessment?.checks.find((item) => item.key === key);
  const byHabit = habit ? assessment?.habits.find((item) => item.id === habit)?.key : undefined;
  const check =
    byKey(picked) ??
    byKey(byHabit) ??
    byKey(standing) ??
    assessment?.checks.find((item) => !item.done) ??
    assessment?.checks[0];
  // What was shown first stays until it is answered; advice to repair that a longer look brings is said beside it.
  const stop = assessment?.advice.kind === 'repair' && !goOn && picked === undefined;
  const last = [...state.findings, ...state.notDone].at(-1);
  const found = state.findings.at(-1);
  const seenAt = useCheckPlace(machine, state.intake?.lane, found?.key ?? '');

  const { choose, both, takeOn, toWork } = useCauses({ order, record });
  const result = (
    key: string,
    opens: readonly string[],
    answer: string,
    value?: number,
    back: readonly string[] = [],
    more: ItemsSeen = {},
  ): void => {
    if (!fresh) return;
    for (const body of movedFor(machine, bench, opens, back)) record('parts-moved', body);
    record('finding-recorded', { key, result: answer, ...(value === undefined ? {} : { value }), ...more });
  };
  const undo = useLatestCallback((): void => {
    if (last) record('event-withdrawn', { eventId: last.id });
  });
  // A tap is drawn on a slow phone before its answer is there: the check that was tapped is not drawn anew for that.
  const answer = useLatestCallback((answered: string, value?: number, more?: ItemsSeen): void => {
    if (check) result(check.key, check.openIds, answered, value, check.backIds, more);
  });
  const notDone = useLatestCallback((reason: string): void => {
    if (fresh && check) record('check-not-done', { key: check.key, why: reason });
  });
  const another = useLatestCallback((): void => {
    setChoice({ at: findings });
    setList(true);
  });
  const tool = useLatestCallback((page: ToolPage): void => {
    if (check) router.push(`${page}?order=${order.id}&check=${encodeURIComponent(check.key)}`);
  });
  const benchChanged = useLatestCallback((change: EventBodies['bench-changed']): void => {
    record('bench-changed', change);
  });
  useTraceKeys({
    check: stop ? undefined : check,
    machine,
    lane: state.intake?.lane,
    onResult: (answered) => check && result(check.key, check.openIds, answered),
    onUndo: undo,
    onNext: () => setList(true),
    onCleared: () => setMap(true),
    onKeys: () => setKeys(true),
  });

  if (failure) return <Notice title="The tracer could not work this out" text={failure} />;
  if (!assessment || !seen) return <Notice title="Weighing what is known …" />;

  const said = change ?? (last && !begun && !stop && !state.cause ? 'Noted. The next check follows.' : undefined);
  const flag = stop || state.closed || !check ? {} : { next: check };
  const colour = state.intake?.colour ? { colour: state.intake.colour } : {};
  const openPlace = (id: string): void => {
    setWhole(false);
    setMap(false);
    setStation(id);
  };
  const strand = (across: number, fit?: number): ReactNode => (
    <>
      <Strand
        machine={machine}
        route={route}
        stations={seen.stations}
        cleared={seen.cleared}
        {...colour}
        {...flag}
        {...(stop && assessment.advice.station ? { repairAt: assessment.advice.station } : {})}
        {...(station ? { chosen: station } : {})}
        onStation={openPlace}
        width={across}
        {...(fit === undefined ? { roomy: !wide } : { fit })}
      />
      <UnderStrand sight={seen} onCleared={() => setMap(true)} />
    </>
  );
  const openWhole = (): void => setWhole(true);
  const loose = looseHeaters(machine, bench);
  // The words of the check and its results come first; the strand takes what they leave, on its side where that is little.
  const low = !wide && all > 0 && all < LOW * scale;
  return (
    <View
      style={[styles.grow, wide && styles.sideways, low && styles.low]}
      role="main"
      id={CONTENT}
      tabIndex={-1}
      aria-label="Trace"
      onLayout={(event) => setAll(event.nativeEvent.layout.height)}
    >
      <View
        style={
          wide
            ? { width: STRAND_WIDE, borderRightWidth: 1, borderColor: palette.line }
            : [styles.grow, styles.strip, { minHeight: STRIP }]
        }
        onLayout={(event) => setRoom(event.nativeEvent.layout.height)}
      >
        {wide || room >= scale * leastHeight(route, seen.stations) ? (
          <ScrollView tabIndex={0} role="region" aria-label="Strand">
            {wide ? strand(STRAND_WIDE - 1) : strand(width, room)}
          </ScrollView>
        ) : (
          <StrandStrip
            route={route}
            stations={seen.stations}
            {...colour}
            {...flag}
            width={width}
            room={room}
            onOpen={openWhole}
          />
        )}
      </View>
      <View
        style={[
          styles.panel,
          { backgroundColor: palette.paper, borderColor: palette.line },
          wide ? styles.grow : low ? styles.stay : { maxHeight: Math.max(0, all - STRIP) },
        ]}
      >
        <ChangeLine
          said={said}
          {...(found && !state.closed ? { onAbout: () => setAbout(true) } : {})}
          wordless={found !== undefined && seenAt !== undefined && wantsWords(state, found, seenAt.check)}
          {...(last && !begun && !stop && !state.closed && !state.cause ? { onUndo: undo } : {})}
        />
        {check && !stop && !state.closed && !state.cause ? (
          <>
            <ResultPad
              key={check.key}
              machine={machine}
              {...(state.intake?.lane ? { lane: state.intake.lane } : {})}
              check={check}
              bench={bench}
              onResult={answer}
              onSupported={() => benchChanged({ supported: true })}
              onStrand={(lanes, to) => benchChanged({ strand: Object.fromEntries(lanes.map((lane) => [lane, to])) })}
              {...(loose.length > 0
                ? {
                    tight: loose.map(({ id }) => (
                      <ScrewsIn key={id} machine={machine} state={state} part={id} record={record} />
                    )),
                  }
                : {})}
              onNotDone={notDone}
              onReadsCold={() => benchChanged({ readingC: SAFE_TO_TOUCH_C, atMost: true })}
              onHeat={(targetC) => benchChanged({ targetC, power: 'on' })}
              beside={
                <>
                  {check.power === 'on' || check.heat === 'hot' ? (
                    <ByMachine label="Have the machine do it" hotC={check.hotC} />
                  ) : null}
                  <BesideCheck assessment={assessment} check={check} habit={habit} onTake={setPicked} />
                  {wide ? <WhyBody assessment={assessment} check={check} /> : null}
                </>
              }
              {...(wide ? {} : { onWhy: () => setWhy(true) })}
              onTool={tool}
              onAnother={another}
            />
          </>
        ) : (
          <ScrollView contentContainerStyle={styles.panelBody}>
            {state.closed ? (
              <Text tone="soft">
                The order is closed. The strand stands as it was when the last finding was recorded.
              </Text>
            ) : state.cause ? (
              <Notice
                title="A cause is chosen"
                text="The work plan is under way."
                action="Go to the work"
                onAction={toWork}
              />
            ) : stop ? (
              <EnoughKnown
                assessment={assessment}
                onBoth={both}
                onRepair={choose}
                onGoOn={() => setGoOn(true)}
                onOther={() => setList(true)}
                {...(last ? { onUndo: undo } : {})}
              />
            ) : (
              <Text>No check is left that could teach anything. Tap a station and take a cause.</Text>
            )}
          </ScrollView>
        )}
      </View>
      {station ? (
        <StationSheet
          machine={machine}
          state={state}
          assessment={assessment}
          station={station}
          onClose={() => setStation(undefined)}
          onCheck={(key) => {
            setPicked(key);
            setStation(undefined);
          }}
          onSeen={(key, seen, real) => {
            setStation(undefined);
            result(key, [], seen, undefined, [], real ? { innocent: true } : {});
          }}
          onCause={(at, mode) => {
            setStation(undefined);
            takeOn(at, mode);
          }}
        />
      ) : null}
      <Sheet title="The whole strand" open={whole} onClose={() => setWhole(false)}>
        {strand(Math.min(width, 480) - 2 * space.l)}
      </Sheet>
      {found && seenAt && about ? (
        <AboutFinding order={order} record={record} found={found} place={seenAt} onClose={() => setAbout(false)} />
      ) : null}
      {keys ? <KeysSheet onClose={() => setKeys(false)} /> : null}
      {map ? <ClearedSheet assessment={assessment} onStation={openPlace} onClose={() => setMap(false)} /> : null}
      {why && check ? <WhySheet assessment={assessment} check={check} onClose={() => setWhy(false)} /> : null}
      {list ? (
        <OtherChecks
          assessment={assessment}
          onClose={() => setList(false)}
          onPick={(key) => {
            setPicked(key);
            setList(false);
          }}
        />
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  low: { overflow: 'scroll' },
  stay: { flexShrink: 0 },
  grow: { flex: 1 },
  sideways: { flexDirection: 'row' },
  strip: { justifyContent: 'center' },
  panel: { borderTopWidth: 1, paddingTop: space.s, flexShrink: 1 },
  panelBody: { padding: space.l, paddingTop: space.s, gap: space.s },
});

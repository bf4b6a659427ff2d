import { fastenerMap, onTheMat, type FastenerRecord, type PinGroup, type PlanStep } from '@zealous/core';
import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Field } from '../ui/Field';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space, TARGET } from '../ui/tokens';

export interface FastenerMoves {
  readonly out?: readonly number[];
  readonly in?: readonly number[];
  readonly left?: readonly { readonly index: number; readonly why: string }[];
}

export interface FastenerMapProps {
  readonly step: PlanStep;
  readonly record: FastenerRecord | undefined;
  readonly onMove: (moves: FastenerMoves) => void;
}

const PIN = TARGET;
const HEIGHT = 250;

/** Screws that a closing step still has on the mat. */
export const stillOut = (step: PlanStep, record: FastenerRecord | undefined): number =>
  step.closes === undefined ? 0 : onTheMat(fastenerMap(step.fasteners), record).length;

/** The part as one looks at it, each screw at its place: tapped out when it comes off, tapped in again at closing. */
export function FastenerMap({ step, record = {}, onMove }: FastenerMapProps) {
  const palette = usePalette();
  const [why, setWhy] = useState<string | undefined>(undefined);
  const groups = fastenerMap(step.fasteners);
  const closing = step.closes !== undefined;
  const pins = groups.flatMap((group) => group.pins.map((pin) => ({ pin, group })));
  const isOut = (index: number): boolean => record[index]?.now === 'out';
  const mat = onTheMat(groups, record);
  const done = closing ? pins.filter(({ pin }) => record[pin.index]?.now === 'in').length : mat.length;
  const rest = pins.filter(({ pin }) => (closing ? isOut(pin.index) : !isOut(pin.index))).map(({ pin }) => pin.index);
  return (
    <View style={styles.column}>
      <View
        role="group"
        aria-label={`Fastener map: ${step.title}`}
        style={[styles.part, { borderColor: palette.housing, backgroundColor: palette.paper }]}
      >
        {pins.map(({ pin, group }) => {
          const out = isOut(pin.index);
          const state = record[pin.index]?.now === 'left' ? 'left out' : out ? 'out' : 'in';
          return (
            <Pressable
              key={pin.index}
              role="checkbox"
              aria-checked={closing ? !out : out}
              aria-label={`${group.letter}, ${nameOf(group)}, number ${pin.index + 1}: ${state}`}
              onPress={() => onMove(out ? { in: [pin.index] } : { out: [pin.index] })}
              style={[
                styles.pin,
                {
                  left: `${pin.x * 100}%`,
                  top: pin.y * HEIGHT - PIN / 2,
                  borderColor: out ? palette.warm : palette.deed,
                  borderStyle: out ? 'dashed' : 'solid',
                  backgroundColor: out ? palette.warmWash : palette.card,
                },
              ]}
            >
              <Text bold tone={out ? 'warm' : 'deed'}>
                {group.letter}
              </Text>
              {group.fastener.lengthMm ? (
                <Text kind="small" tone={out ? 'warm' : 'deed'}>{`${group.fastener.lengthMm}`}</Text>
              ) : null}
            </Pressable>
          );
        })}
      </View>
      {groups.map((group) => (
        <View key={group.letter} style={styles.row}>
          <Text bold>{group.letter}</Text>
          <View style={styles.grow}>
            <Text kind="small">{lineOf(group)}</Text>
            {group.lookAlikes.length > 0 ? (
              <Text kind="small" bold tone="fault">
                {`Looks like ${group.lookAlikes.join(' and ')}: keep them apart on the mat.`}
              </Text>
            ) : null}
          </View>
        </View>
      ))}
      <View style={styles.row}>
        <Text kind="small" bold tone={closing && mat.length > 0 ? 'fault' : 'soft'} style={styles.grow}>
          {closing ? `${done} of ${pins.length} back, ${mat.length} on the mat` : `${done} of ${pins.length} out`}
        </Text>
        {rest.length > 0 ? (
          <Tap
            label={closing ? 'All are back' : 'All are out'}
            kind="quiet"
            onPress={() => onMove(closing ? { in: rest } : { out: rest })}
          />
        ) : null}
      </View>
      {closing && mat.length > 0 ? (
        why === undefined ? (
          <Tap label="One stays out …" kind="quiet" onPress={() => setWhy('')} style={styles.start} />
        ) : (
          <View style={styles.column}>
            <Field label="Why it stays out" value={why} onChange={setWhy} most={200} />
            <Tap
              label={`Leave ${mat.length === 1 ? 'it' : `these ${mat.length}`} out, with this reason`}
              icon="check"
              disabled={why.trim() === ''}
              onPress={() => onMove({ left: mat.map(({ index }) => ({ index, why: why.trim() })) })}
            />
          </View>
        )
      ) : null}
    </View>
  );
}

const nameOf = ({ fastener }: PinGroup): string =>
  `${fastener.what}${fastener.lengthMm ? ` ${fastener.lengthMm} mm` : ''}`;

function lineOf({ fastener }: PinGroup): string {
  const { count, what, drive, lengthMm, hole, mate, loosenOnly, note } = fastener;
  return [
    `${count} × ${what}${lengthMm ? ` × ${lengthMm} mm` : ''}`,
    drive,
    hole,
    mate && `into ${mate}`,
    loosenOnly ? 'loosen only' : undefined,
    note,
  ]
    .filter(Boolean)
    .join(' · ');
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  grow: { flex: 1 },
  start: { alignSelf: 'flex-start' },
  part: { height: HEIGHT, borderWidth: 2, borderRadius: radius.l, position: 'relative' },
  pin: {
    position: 'absolute',
    width: PIN,
    height: PIN,
    marginLeft: -PIN / 2,
    borderRadius: PIN / 2,
    borderWidth: 2,
    alignItems: 'center',
    justifyContent: 'center',
  },
});

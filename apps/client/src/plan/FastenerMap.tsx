import { fastenerMap, onTheMat, type FastenerRecord, type PinGroup, type PlanStep } from '@zealous/core';
import { useState } from 'react';
import { Image, Pressable, StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import type { Photo } from '../photos/PhotoStrip';
import { Field } from '../ui/Field';
import { Button } from '../ui/Button';
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
  /** The technician's own picture of the part, with what it is shown from. */
  readonly photo?: { readonly source: string; readonly photo: Photo } | undefined;
  readonly onPlace?: ((markers: Photo['markers']) => void) | undefined;
}

const PIN = TARGET;
const HEIGHT = 250;

/** Screws that a closing step still has on the mat. */
export const stillOut = (step: PlanStep, record: FastenerRecord | undefined): number =>
  step.closes === undefined ? 0 : onTheMat(fastenerMap(step.fasteners), record).length;

/** The part as one looks at it, each screw at its place: tapped out when it comes off, tapped in again at closing. */
export function FastenerMap({ step, record = {}, onMove, photo, onPlace }: FastenerMapProps) {
  const palette = usePalette();
  const [why, setWhy] = useState<string | undefined>(undefined);
  const [placing, setPlacing] = useState<number | undefined>(undefined);
  const [size, setSize] = useState({ width: 1, height: HEIGHT });
  const groups = placed(fastenerMap(step.fasteners), photo?.photo);
  const closing = step.closes !== undefined;
  const pins = groups.flatMap((group) => group.pins.map((pin) => ({ pin, group })));
  // What is only loosened, or need not come out, is not counted.
  const counted = pins.filter(({ group: { fastener } }) => !fastener.loosenOnly && !fastener.stays).length;
  const isOut = (index: number): boolean => record[index]?.now === 'out';
  const mat = onTheMat(groups, record);
  const done = closing
    ? pins.filter(
        ({ pin, group: { fastener } }) => !fastener.loosenOnly && !fastener.stays && record[pin.index]?.now === 'in',
      ).length
    : mat.length;
  const rest = pins.filter(({ pin }) => (closing ? isOut(pin.index) : !isOut(pin.index))).map(({ pin }) => pin.index);
  return (
    <View style={styles.column}>
      <View
        role="group"
        aria-label={`Fastener map: ${step.title}`}
        style={[styles.part, { borderColor: palette.housing, backgroundColor: palette.paper }]}
      >
        {/* Not the kit's: where the picture was tapped is what counts. */}
        {photo ? (
          <Pressable
            role="button"
            aria-label={placing === undefined ? 'Your picture of the part' : `Place number ${placing + 1}`}
            disabled={placing === undefined}
            style={StyleSheet.absoluteFill}
            onLayout={(event) => setSize(event.nativeEvent.layout)}
            onPress={(event) => {
              if (placing === undefined) return;
              const { locationX, locationY } = event.nativeEvent;
              const label = `#${placing}`;
              onPlace?.([
                ...photo.photo.markers.filter((marker) => marker.label !== label),
                { x: Math.min(1, locationX / size.width), y: Math.min(1, locationY / size.height), label },
              ]);
              setPlacing(placing + 1 < pins.length ? placing + 1 : undefined);
            }}
          >
            <Image source={{ uri: photo.source }} style={StyleSheet.absoluteFill} resizeMode="cover" />
          </Pressable>
        ) : null}
        {pins.map(({ pin, group }) => {
          const out = isOut(pin.index);
          const state = record[pin.index]?.now === 'left' ? 'left out' : out ? 'out' : 'in';
          return (
            <TouchableRipple
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
              <View style={styles.head}>
                <Text bold tone={out ? 'warm' : 'deed'}>
                  {group.letter}
                </Text>
                {group.fastener.lengthMm ? (
                  <Text kind="small" tone={out ? 'warm' : 'deed'}>{`${group.fastener.lengthMm}`}</Text>
                ) : null}
              </View>
            </TouchableRipple>
          );
        })}
      </View>
      {photo && onPlace ? (
        placing === undefined ? (
          <Button
            label="Put the screws where they are on your picture"
            kind="quiet"
            onPress={() => setPlacing(0)}
            style={styles.start}
          />
        ) : (
          <Text bold tone="deed">{`Tap the place of number ${placing + 1} of ${pins.length}.`}</Text>
        )
      ) : null}
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
          {closing ? `${done} of ${counted} back, ${mat.length} on the mat` : `${done} of ${counted} out`}
        </Text>
        {rest.length > 0 ? (
          <Button
            label={closing ? 'All are back' : 'All are out'}
            kind="quiet"
            onPress={() => onMove(closing ? { in: rest } : { out: rest })}
          />
        ) : null}
      </View>
      {closing && mat.length > 0 ? (
        why === undefined ? (
          <Button label="One stays out …" kind="quiet" onPress={() => setWhy('')} style={styles.start} />
        ) : (
          <View style={styles.column}>
            <Field label="Why it stays out" value={why} onChange={setWhy} most={200} />
            <Button
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

/** Pins where the technician put them on the picture. */
const placed = (groups: readonly PinGroup[], photo: Photo | undefined): readonly PinGroup[] =>
  photo
    ? groups.map((group) => ({
        ...group,
        pins: group.pins.map((pin) => {
          const own = photo.markers.find((marker) => marker.label === `#${pin.index}`);
          return own ? { ...pin, x: own.x, y: own.y } : pin;
        }),
      }))
    : groups;

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
  part: {
    height: HEIGHT,
    width: '100%',
    maxWidth: 420,
    borderWidth: 2,
    borderRadius: radius.l,
    position: 'relative',
    overflow: 'hidden',
  },
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
  head: { alignItems: 'center' },
});

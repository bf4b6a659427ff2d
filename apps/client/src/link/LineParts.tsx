import type { LinkResult } from '@zealous/contracts/messages';
import {
  heatSign,
  parseTemperatureLog,
  sensorSign,
  stepsSign,
  summariseLog,
  type LineIntent,
  type LineSign,
  type Machine,
} from '@zealous/core';
import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { NumberField } from '../ui/form/NumberField';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** A measured feed, as the check and the proof ask for it. */
export const FEED_MM = 100;
const WATCH_S = 30;

/** 100 mm by the gears; how much really came only an eye with a rule knows. */
export function Feed({
  able,
  hot,
  onFeed,
  onCame,
}: {
  readonly able: boolean;
  readonly hot: boolean;
  readonly onFeed: () => Promise<LinkResult | undefined>;
  readonly onCame: (mm: number) => boolean;
}) {
  const [asked, setAsked] = useState(false);
  const [came, setCame] = useState<number | undefined>(undefined);
  return (
    <>
      <Text kind="small" tone="soft">
        Mark the strand 120 mm above where it goes in, then feed: what is left to the mark says how much came.
      </Text>
      <Button
        label={`Feed ${FEED_MM} mm`}
        disabled={!able || !hot}
        onPress={() => void onFeed().then((result) => setAsked(result !== undefined))}
      />
      {hot ? null : <Text kind="small">It is fed at print heat: heat it first.</Text>}
      {asked ? (
        <View style={styles.row}>
          <NumberField
            label="So much came, mm"
            value={came}
            fits={(n) => n >= 0 && n <= FEED_MM + 20}
            onChange={setCame}
            style={styles.field}
          />
          <Button
            label="Into the order"
            kind="main"
            disabled={came === undefined}
            onPress={() => {
              if (came !== undefined && onCame(came)) setAsked(false);
            }}
          />
        </View>
      ) : null}
    </>
  );
}

/** The strand pushed in and drawn out, the machine read several times each: what the sensor does. */
export function Sensor({
  able,
  standIn,
  onMove,
  onRead,
  onResult,
}: {
  readonly able: boolean;
  readonly standIn: boolean;
  readonly onMove: (to: 'in' | 'out') => void;
  readonly onRead: () => Promise<readonly boolean[] | undefined>;
  readonly onResult: (sign: LineSign) => boolean;
}) {
  const [inside, setInside] = useState<readonly boolean[] | undefined>(undefined);
  const read = async (): Promise<void> => {
    const found = await onRead();
    if (!found) return;
    if (!inside) setInside(found);
    else {
      onResult(sensorSign(inside, found));
      setInside(undefined);
    }
  };
  return (
    <>
      <Text kind="small" tone="soft">
        {inside
          ? 'Now draw the strand out of the sensor, and read it again.'
          : 'See that the strand lies in the sensor, and read it.'}
      </Text>
      {standIn ? (
        <Button
          label={
            inside ? 'On the simulated printer: draw the strand out' : 'On the simulated printer: push the strand in'
          }
          kind="quiet"
          disabled={!able}
          onPress={() => onMove(inside ? 'out' : 'in')}
        />
      ) : null}
      <Button
        label={inside ? 'Read it without the strand' : 'Read it with the strand'}
        disabled={!able}
        onPress={() => void read()}
      />
    </>
  );
}

/** Steps a millimetre: what the firmware has, against what the machine’s description says, and a new value into it. */
export function Steps({
  able,
  described,
  onAsk,
  onDiffers,
}: {
  readonly able: boolean;
  readonly described: number | undefined;
  readonly onDiffers: (sign: LineSign) => boolean;
  readonly onAsk: (intent: LineIntent, words: (result: LinkResult) => string) => Promise<LinkResult | undefined>;
}) {
  const [steps, setSteps] = useState<number | undefined>(undefined);
  const [read, setRead] = useState<number | undefined>(undefined);
  const sign = read === undefined || described === undefined ? undefined : stepsSign(read, described);
  return (
    <View style={styles.part}>
      {sign && described ? (
        <View style={styles.row}>
          <Text>{`The machine’s description says ${described.toFixed(2)}.`}</Text>
          <Button label="It differs: into the order" onPress={() => onDiffers(sign) && setRead(undefined)} />
        </View>
      ) : null}
      <View style={styles.row}>
        <Button
          label="Read"
          disabled={!able}
          onPress={() =>
            void onAsk({ do: 'read-steps' }, ({ stepsPerMm }) =>
              stepsPerMm === undefined ? 'It does not say.' : `It has ${stepsPerMm.toFixed(2)} steps/mm.`,
            ).then((result) => setRead(result?.stepsPerMm))
          }
        />
        <NumberField
          label="New steps/mm"
          value={steps}
          fits={(n) => n >= 1 && n <= 20_000}
          onChange={setSteps}
          style={styles.field}
        />
        <Button
          label="Store"
          disabled={!able || steps === undefined}
          onPress={() =>
            void onAsk({ do: 'store-steps', stepsPerMm: steps ?? 0 }, ({ stepsPerMm }) =>
              stepsPerMm === undefined
                ? 'Sent; it does not say what it has now.'
                : `Stored: ${stepsPerMm.toFixed(2)} steps/mm.`,
            )
          }
        />
      </View>
    </View>
  );
}

/** Half a minute of the machine’s own temperature, read as every temperature log. */
export function Watch({
  able,
  machine,
  onResult,
}: {
  readonly able: boolean;
  readonly machine: Machine;
  readonly onResult: (sign: LineSign) => boolean;
}) {
  const [left, setLeft] = useState(0);
  const [problem, setProblem] = useState('');
  const open = useRef(true);
  useEffect(() => {
    open.current = true;
    return () => {
      open.current = false;
    };
  }, []);
  const watch = async (): Promise<void> => {
    setProblem('');
    for (let s = WATCH_S; s > 0; s--) {
      setLeft(s);
      await new Promise((resolve) => setTimeout(resolve, 1000));
      // Closed in the middle, it was not watched to its end, and says nothing.
      if (!open.current) return;
    }
    setLeft(0);
    try {
      const answer = await fetch(`/api/link/${encodeURIComponent(machine.id)}/log`);
      const log = parseTemperatureLog(await answer.text());
      const end = log.at(-1)?.atS ?? 0;
      onResult(heatSign(summariseLog(log.filter(({ atS }) => atS >= end - WATCH_S))));
    } catch {
      setProblem('The log of the line could not be read. Try once more.');
    }
  };
  return (
    <>
      <Button
        label={left > 0 ? `Watching, ${left} s` : `Watch its temperature for ${WATCH_S} s`}
        icon="timer"
        kind="quiet"
        disabled={!able || left > 0}
        onPress={() => void watch()}
      />
      {problem ? <Text tone="fault">{problem}</Text> : null}
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, alignItems: 'flex-end' },
  part: { gap: space.s },
  field: { minWidth: 140, flexGrow: 1 },
});

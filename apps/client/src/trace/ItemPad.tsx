import type { CheckResult, RankedOutcome } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../ui/Choice';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** Of a look that may show several things: what else was there, and whether the look was finished. */
export interface ItemsSeen {
  readonly also?: readonly string[];
  readonly finished?: boolean;
  /** Real, but not the cause. */
  readonly innocent?: boolean;
}

export interface ItemsProps {
  /** The last one is the normal one. */
  readonly results: readonly CheckResult[];
  readonly ticked: readonly string[];
}

/** So many things stand under each other in a glance; of more, the likely ones stand first. */
const GLANCE = 9;

/** What a look may show, each thing ticked by itself: it scrolls with the words of the check. */
export function ItemTicks({
  results,
  outcomes = [],
  ticked,
  onTicked,
}: ItemsProps & {
  /** How probable each result is, once that is worked out. */
  readonly outcomes?: readonly Pick<RankedOutcome, 'result' | 'probability'>[];
  readonly onTicked: (ticked: readonly string[]) => void;
}) {
  const options = results.slice(0, -1);
  // Kept as they first stood: nothing moves under a finger.
  const [known, setKnown] = useState(outcomes);
  if (known.length === 0 && outcomes.length > 0 && ticked.length === 0) setKnown(outcomes);
  const sorted = options.length > GLANCE && known.length > 0;
  // What has no word is looked for last, after all that has one.
  const chance = ({ id, ownWords }: CheckResult): number =>
    ownWords ? -1 : (known.find(({ result }) => result === id)?.probability ?? 0);
  return (
    <View style={styles.column}>
      <Text bold>{`Tick everything that you see.${sorted ? ' The likeliest stand first.' : ''}`}</Text>
      <Choice
        label="What is seen"
        several
        options={sorted ? [...options].sort((a, b) => chance(b) - chance(a)) : options}
        chosen={ticked}
        onToggle={(id) => onTicked(ticked.includes(id) ? ticked.filter((item) => item !== id) : [...ticked, id])}
      />
    </View>
  );
}

/** Within reach of the thumb: nothing of it; or, once something is ticked, that this is all, which speaks against the rest. */
export function ItemFoot({
  results,
  ticked,
  onResult,
}: ItemsProps & { readonly onResult: (result: string, value?: number, more?: ItemsSeen) => void }) {
  const normal = results.at(-1);
  const [first, ...also] = results.filter(({ id }) => ticked.includes(id)).map(({ id }) => id);
  const say = (finished: boolean): void => {
    if (first !== undefined) onResult(first, undefined, { ...(also.length > 0 ? { also } : {}), finished });
  };
  if (first === undefined)
    return normal ? <Button label={normal.label} onPress={() => onResult(normal.id)} style={styles.grow} /> : null;
  return (
    <>
      <Button label="That is all I see" kind="main" onPress={() => say(true)} style={styles.grow} />
      <Button label="I did not look at the rest" onPress={() => say(false)} style={styles.grow} />
    </>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  grow: { flexGrow: 1, flexBasis: '47%' },
});

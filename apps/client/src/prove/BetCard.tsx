import { percent, priceBet, whatRemains } from '@zealous/core';
import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { beliefFor } from '../data/shopCatalogue';
import { useAppSelector } from '../data/store';
import type { OrderPartProps } from '../orders/OrderShell';
import { Card } from '../ui/Card';
import { NumberField } from '../ui/form/NumberField';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** Something may be wrong that no proof looks at (chosen). */
const UNSEEN = 0.02;
/** Of the calibration piece, as its proof in the catalogue has it (chosen). */
const PIECE_MISS = 0.3;
const money = (value: number): string => value.toFixed(2);

/** The long print at once, or the small piece first: priced from what the order still suspects. */
export function BetCard({ order }: { readonly order: OrderPartProps['order'] }) {
  const { machine, state } = order;
  const shop = useAppSelector((root) => root.shop);
  const useLearned = useAppSelector((root) => root.settings.useLearned);
  const [open, setOpen] = useState(false);
  const [hours, setHours] = useState<number | undefined>(12);
  const [grams, setGrams] = useState<number | undefined>(250);
  const [perKg, setPerKg] = useState<number | undefined>(24);
  const [rate, setRate] = useState<number | undefined>(3);
  const [piece, setPiece] = useState<number | undefined>(25);
  const pFail = useMemo(() => {
    const left = whatRemains(machine, beliefFor(shop, useLearned, machine), state);
    return Math.min(1, UNSEEN + left.reduce((sum, item) => sum + item.share, 0));
  }, [machine, shop, useLearned, state]);
  const bet = priceBet({
    pFail,
    printHours: hours ?? 0,
    filamentGrams: grams ?? 0,
    pricePerKg: perKg ?? 0,
    machineRate: rate ?? 0,
    pieceMinutes: piece ?? 0,
    pieceMiss: PIECE_MISS,
  });
  const positive = (n: number): boolean => n >= 0 && n <= 100_000;
  if (!open)
    return (
      <Button
        label="A long print next? Straight to it, or a small piece first"
        kind="quiet"
        icon="chevron-down"
        onPress={() => setOpen(true)}
        style={styles.start}
      />
    );
  return (
    <Card edge="deed">
      <Text bold heading={2}>
        A long print at once, or a small piece first?
      </Text>
      <View style={styles.row}>
        <NumberField label="Print, hours" value={hours} fits={positive} onChange={setHours} style={styles.field} />
        <NumberField label="Filament, g" value={grams} fits={positive} onChange={setGrams} style={styles.field} />
        <NumberField label="Price per kg" value={perKg} fits={positive} onChange={setPerKg} style={styles.field} />
        <NumberField label="Machine, per hour" value={rate} fits={positive} onChange={setRate} style={styles.field} />
        <NumberField
          label="Small piece, minutes"
          value={piece}
          fits={positive}
          onChange={setPiece}
          style={styles.field}
        />
      </View>
      <Text bold tone="deed" testID="bet">
        {bet.advice === 'piece first' ? 'Small piece first.' : 'Straight to the long print.'}
      </Text>
      <Text>
        {`A fault is left with ${percent(pFail)}, by what this order knows; at ${percent(bet.breakEven)} both would cost the same. Expected loss at once ${money(bet.straight)}, with the piece first ${money(bet.pieceFirst)}.`}
      </Text>
      <Text kind="small" tone="soft">
        {`Taken for this: the print fails at its end, and the piece misses ${percent(PIECE_MISS)} of the faults.`}
      </Text>
    </Card>
  );
}

const styles = StyleSheet.create({
  start: { alignSelf: 'flex-start' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  field: { flexGrow: 1, flexBasis: 140, minWidth: 0 },
});

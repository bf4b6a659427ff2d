import { minutesText, percent, type Ladder, type Rung } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useShopHistoryQuery } from '../data/api';
import { Card } from '../ui/Card';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { OffersCard } from './OffersCard';

const FAR = 5;

/** Why this rung, and what the others would cost: the ladder as a decision, one's own choice included. */
export function LadderCard({
  ladder,
  material,
  onPick,
}: {
  readonly ladder: Ladder;
  readonly material: string | undefined;
  readonly onPick: (remedy: string, offer?: string) => void;
}) {
  const history = useShopHistoryQuery().data;
  const here = (remedy: string): string | undefined => {
    const row = history?.tried.find((item) => item.remedy === remedy && item.material === (material ?? 'unknown'));
    return row && `here with this filament: ${row.cleared} of ${row.tried} cleared`;
  };
  const [open, setOpen] = useState(false);
  const { rungs, next, cleared } = ladder;
  const live = rungs.filter((rung) => rung.spent === undefined);
  const spent = rungs.filter((rung) => rung.spent !== undefined);
  const best = live[0];
  if (cleared || !next || !best) return null;
  const own = here(next.remedy.id);
  const more = next.expectedMinutes - best.expectedMinutes;
  return (
    <Card>
      <Text bold>{`Of its remedies now: ${next.remedy.name.toLowerCase()}`}</Text>
      <Text kind="small" tone="soft">
        {`${percent(next.chance)} that it clears it; about ${minutesText(next.expectedMinutes)} until it is clear, prices and risk counted in minutes.`}
        {more > 0.5 ? ` Your choice: about ${minutesText(more)} more than ${best.remedy.name.toLowerCase()}.` : ''}
      </Text>
      {own ? <Text kind="small" tone="soft">{`${own[0]?.toUpperCase()}${own.slice(1)}.`}</Text> : null}
      {next.wishedC !== undefined ? (
        <Text kind="small" bold tone="warm">
          {`The filament would like ${Math.round(next.wishedC)} °C; this path allows ${Math.round(Math.max(...next.placed.map(({ need }) => need.hotC)))} °C, and that counts.`}
        </Text>
      ) : null}
      <OffersCard rung={next} material={material} onPick={(offer) => onPick(next.remedy.id, offer)} />
      {live.length + spent.length > 1 ? (
        <Button
          label={open ? 'Hide the other remedies' : `Other remedies for it: ${live.length + spent.length - 1}`}
          kind="quiet"
          icon={open ? 'chevron-up' : 'chevron-down'}
          onPress={() => setOpen(!open)}
          style={styles.start}
        />
      ) : null}
      {open ? (
        <View style={styles.list}>
          {live
            .filter((rung) => rung !== next)
            .map((rung) => (
              <Button
                key={rung.remedy.id}
                label={rung.remedy.name}
                hint="Try this remedy next"
                listed
                onPress={() => {
                  setOpen(false);
                  onPick(rung.remedy.id);
                }}
              >
                <Text kind="small" tone="soft">
                  {[lineOf(rung, rung.expectedMinutes - best.expectedMinutes), here(rung.remedy.id)]
                    .filter(Boolean)
                    .join(' · ')}
                </Text>
              </Button>
            ))}
          {spent.map((rung) => (
            <View key={rung.remedy.id}>
              <Text tone="soft">{`${rung.remedy.name}: tried enough`}</Text>
              <Text kind="small" tone="soft">{`Stop rule: ${rung.spent}`}</Text>
            </View>
          ))}
        </View>
      ) : null}
    </Card>
  );
}

function lineOf({ chance, minutes, price, risk, remedy }: Rung, more: number): string {
  return [
    `${percent(chance)} likely to clear it`,
    minutesText(minutes),
    price > 0 ? `price ${price}` : undefined,
    risk >= FAR ? 'may make it worse' : undefined,
    remedy.replaces ? 'replaces' : undefined,
    more > 0.5 ? `${minutesText(more)} more in all` : 'as good',
  ]
    .filter(Boolean)
    .join(' · ');
}

const styles = StyleSheet.create({ start: { alignSelf: 'flex-start' }, list: { gap: space.s } });

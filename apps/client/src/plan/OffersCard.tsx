import {
  hourlyRateOf,
  materialOf,
  offersOf,
  pricedOffers,
  remedyById,
  remedyMinutes,
  type Offer,
  type PricedOffer,
  type Rung,
} from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { useShopHistoryQuery } from '../data/api';
import { useCatalogue } from '../data/useCatalogue';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const KINDS: Readonly<Record<Offer['kind'], string>> = {
  spare: 'in its own box?',
  part: 'part',
  kit: 'kit',
  assembly: 'whole assembly',
  upgrade: 'better design',
};
const money = (x: number): string => (Number.isInteger(x) ? `${x}` : x.toFixed(2));
const hours = (x: number): string => `${Math.round(x / 50) * 50} h`;

/** Part, kit, assembly or better design: what each costs now and over its life, and the one that is to be fitted. */
export function OffersCard({
  rung,
  material,
  onPick,
}: {
  readonly rung: Rung;
  readonly material: string | undefined;
  readonly onPick: (offer: string) => void;
}) {
  const catalogue = useCatalogue();
  const lives = useShopHistoryQuery().data?.lives ?? [];
  const listed = remedyById(catalogue, rung.remedy.id);
  if (!listed || offersOf(listed).length < 2) return null;
  const there = rung.minutes - remedyMinutes(rung.remedy);
  const offers = pricedOffers(listed, materialOf(catalogue, material), hourlyRateOf(catalogue), there, lives);
  const least = Math.min(...offers.map(({ cost }) => cost));
  return (
    <View style={styles.list} role="group" aria-label="What is fitted">
      <Text bold>What is fitted</Text>
      {offers.map((item, i) => (
        <Button
          key={item.offer.id}
          label={item.offer.name}
          {...(item.offer.id === rung.offer?.id ? { icon: 'check' as const } : {})}
          hint={item.offer.id === rung.offer?.id ? 'This is in the plan' : 'Fit this one'}
          listed
          onPress={() => onPick(item.offer.id)}
        >
          <Text kind="small" tone="soft">
            {lineOf(item)}
          </Text>
          {i === 0 || item.cost === least ? (
            <Text kind="small" bold tone="deed">
              {[i === 0 ? 'Least over its life' : '', item.cost === least ? 'Least now' : '']
                .filter(Boolean)
                .join(' · ')}
            </Text>
          ) : null}
        </Button>
      ))}
    </View>
  );
}

function lineOf({ offer, cost, lifeHours, perThousandHours, speak }: PricedOffer): string {
  const life = `half of them last ${hours(lifeHours)}${speak > 0 ? ` (${speak} here speak)` : ''}`;
  return `${KINDS[offer.kind]}: price ${money(offer.price)}, ${offer.minutes} min; ${money(cost)} now with the way there · ${life} · ${Math.round(perThousandHours)} for 1000 h`;
}

const styles = StyleSheet.create({ list: { gap: space.s } });

import {
  ageReplacement,
  fitWeibull,
  halfLife,
  livesOf,
  offersOf,
  type AgeReplacement,
  type Life,
  type PartLife,
  type Remedy,
} from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Circle, Polyline } from 'react-native-svg';
import { useShopHistoryQuery } from '../data/api';
import { useCatalogue } from '../data/useCatalogue';
import { Card, Notice } from '../ui/Card';
import { Chart } from '../ui/Chart';
import { Page } from '../ui/Page';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';

const hours = (h: number): string => `${Math.round(h / 10) * 10} h`;

/** How long parts last here: the starting figures, and what the shop's own record has made of them. */
export function LivesScreen() {
  const catalogue = useCatalogue();
  const { data, isError } = useShopHistoryQuery();
  // Several ways to renew one kind of part have one life: the first says what can be fitted.
  const remedies = catalogue.remedies.filter(
    (remedy, i, all) =>
      offersOf(remedy).length > 0 && all.findIndex(({ replaces }) => replaces === remedy.replaces) === i,
  );
  return (
    <Page title="How long do parts last here?" back="/tools">
      <View style={styles.column}>
        <Text tone="soft">
          A life is on record when a part is renewed and the hours on the old one are noted. Until then the catalogue’s
          starting figures stand.
        </Text>
        {isError ? (
          <Notice
            title="The record is not at hand"
            text="The server does not answer; the starting figures are shown."
          />
        ) : null}
        {remedies.map((remedy) => (
          <PartCard key={remedy.id} remedy={remedy} lives={data?.lives ?? []} parts={data?.parts ?? []} />
        ))}
      </View>
    </Page>
  );
}

function PartCard({
  remedy,
  lives,
  parts,
}: {
  readonly remedy: Remedy;
  readonly lives: readonly PartLife[];
  readonly parts: readonly { readonly part: string; readonly maker: string; readonly again: boolean }[];
}) {
  const fitted = parts.filter(({ part }) => part === remedy.replaces);
  const makers = [...new Set(fitted.map(({ maker }) => maker))].map((maker) => {
    const own = fitted.filter((item) => item.maker === maker);
    return `${maker} ${own.length}, renewed again ${own.filter(({ again }) => again).length}`;
  });
  const name = remedy.replaces ?? remedy.name;
  return (
    <Card>
      <Text bold heading={2}>
        {`${name[0]?.toUpperCase()}${name.slice(1)}`}
      </Text>
      {offersOf(remedy)
        .filter(({ kind }) => kind !== 'spare')
        .map((offer) => {
          const own = livesOf(remedy, offer, lives);
          const half = halfLife(offer.lifeHours, own);
          return (
            <View key={offer.id} style={styles.offer}>
              <Text>
                {own.length === 0
                  ? `${offer.name}: half of them last ${hours(half)} (starting figure)`
                  : `${offer.name}: half of them last ${hours(half)}, from ${own.length} on record and ${hours(offer.lifeHours)} to start with`}
              </Text>
              <Survival lives={own} />
            </View>
          );
        })}
      {makers.length > 0 ? <Text kind="small" tone="soft">{`Fitted here: ${makers.join('; ')}.`}</Text> : null}
    </Card>
  );
}

/** A failure, with the print that it spoils, costs so many planned renewals (chosen). */
const FAILURE_COSTS = 3;

const replaceWords = ({ atHours, share }: AgeReplacement): string =>
  atHours === Infinity
    ? `Waiting until it fails is cheapest, if a failure costs ${FAILURE_COSTS} planned renewals.`
    : `Renewed at ${hours(atHours)} it costs ${Math.round(100 * (1 - share))} % less an hour than waiting until it fails, if a failure costs ${FAILURE_COSTS} planned renewals.`;

/** Share still running against printing hours: the lives on record, and the Weibull curve through them. */
function Survival({ lives }: { readonly lives: readonly Life[] }) {
  const palette = usePalette();
  const ended = [...lives.filter((life) => life.ended)].sort((a, b) => a.hours - b.hours);
  if (new Set(ended.map((life) => life.hours)).size < 2) return null;
  const { shape, scale } = fitWeibull(lives);
  const longest = 1.2 * Math.max(...lives.map((life) => life.hours));
  const curve = Array.from({ length: 41 }, (_, i) => (i / 40) * longest);
  const said = `Weibull shape ${shape.toFixed(1)}, 63 % ended by ${hours(scale)}`;
  return (
    <View>
      <Chart
        label={`share still running against hours. ${said}`}
        across={{ from: 0, to: longest, words: hours, ticks: 4 }}
        up={{ from: 0, to: 1, words: (share) => `${Math.round(share * 100)} %`, ticks: 2 }}
        height={130}
      >
        {(x, y) => (
          <>
            <Polyline
              points={curve.map((h) => `${x(h)},${y(Math.exp(-((h / scale) ** shape)))}`).join(' ')}
              fill="none"
              stroke={palette.deed}
              strokeWidth={2.5}
            />
            {ended.map((life, i) => (
              // Median ranks (Benard): where the i-th of n lies.
              <Circle
                key={i}
                cx={x(life.hours)}
                cy={y(1 - (i + 0.7) / (ended.length + 0.4))}
                r={4}
                fill={palette.ink}
              />
            ))}
          </>
        )}
      </Chart>
      <Text kind="small" tone="soft">{`${said}. Each point is a part that ended.`}</Text>
      <Text>{replaceWords(ageReplacement({ shape, scale }, FAILURE_COSTS))}</Text>
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.m, maxWidth: 760, width: '100%', alignSelf: 'center' },
  offer: { gap: space.xs },
});

import { costText, minutesText, movesText, percent, type Assessment, type RankedCheck } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { MiniStrand } from './MiniStrand';

/** Why this check: what each result would do, what it costs, what would change the answer; and against the tracer's own choice. */
export function WhySheet({
  assessment,
  check,
  onClose,
}: {
  readonly assessment: Assessment;
  readonly check: RankedCheck;
  readonly onClose: () => void;
}) {
  return (
    <Sheet title="Why this check" open onClose={onClose}>
      <WhyBody assessment={assessment} check={check} />
    </Sheet>
  );
}

/** Also stands beside the check where there is room. */
export function WhyBody({ assessment, check }: { readonly assessment: Assessment; readonly check: RankedCheck }) {
  const palette = usePalette();
  const { advice, changer } = assessment;
  const best = assessment.checks.find((item) => !item.done);
  const saves = advice.repairMinutes - check.expectedMinutes;
  return (
    <View style={styles.column}>
      <Text bold heading={3}>
        What each answer would do
      </Text>
      <Text kind="small" tone="soft">
        How likely each answer is, what is suspected then, and the minutes from there to a proved repair.
      </Text>
      {check.outcomes.length === 0 ? <Text tone="soft">Weighing …</Text> : null}
      {[...check.outcomes]
        .sort((a, b) => b.probability - a.probability)
        .slice(0, 7)
        .map((outcome) => (
          <View key={`${outcome.result}${outcome.label}`} style={[styles.outcome, { borderColor: palette.line }]}>
            <View style={styles.grow}>
              <Text kind="small" bold>{`${outcome.label}: ${percent(outcome.probability)} likely`}</Text>
              <Text kind="small" tone="soft">
                {outcome.moves.length === 0 ? 'It would move next to nothing.' : `${movesText(outcome.moves)}.`}
              </Text>
            </View>
            <View style={styles.picture}>
              <MiniStrand stations={outcome.stations} />
              <Text kind="small" tone="soft">{`${minutesText(outcome.minutesAfter)} more`}</Text>
            </View>
          </View>
        ))}
      <Text bold heading={3}>
        What it costs
      </Text>
      <Text>{costText(check.priceParts, check.afterMinutes)}</Text>
      {saves > 0.5 ? (
        <Text>{`That is about ${minutesText(saves)} less than repairing on suspicion now.`}</Text>
      ) : (
        <Text>{`Repairing on suspicion now would take about ${minutesText(advice.repairMinutes)}.`}</Text>
      )}
      <Text kind="small" tone="soft">
        {check.depth === 2 ? 'Reckoned with one more check after it.' : 'Reckoned with the repair right after it.'}
      </Text>
      {best && best.key !== check.key ? <Compare best={best} own={check} /> : null}
      {changer ? (
        <>
          <Text bold heading={3}>
            What would change the answer most
          </Text>
          <Text>{`${changer.check}: “${changer.result}” (${percent(changer.probability)}) would take ${changer.station} from ${percent(changer.from)} to ${percent(changer.to)}.`}</Text>
        </>
      ) : null}
    </View>
  );
}

/** Two checks side by side: the difference in expected minutes, part by part. */
function Compare({ best, own }: { readonly best: RankedCheck; readonly own: RankedCheck }) {
  const palette = usePalette();
  const rows = [
    ...own.parts.map(({ what, minutes }, i) => ({ what, own: minutes, best: best.parts[i]?.minutes ?? 0 })),
    { what: 'what follows', own: own.afterMinutes, best: best.afterMinutes },
    { what: 'in all', own: own.expectedMinutes, best: best.expectedMinutes },
  ].filter((row) => row.own > 0.05 || row.best > 0.05);
  return (
    <View style={styles.column}>
      <Text bold heading={3}>{`Against “${best.name}”`}</Text>
      <View role="table" aria-label="Minutes part by part" style={[styles.table, { borderColor: palette.line }]}>
        <View role="row" style={styles.row}>
          {['minutes, waiting at half', 'yours', 'first choice'].map((text, i) => (
            <View role="columnheader" key={text} style={i === 0 ? styles.grow : undefined}>
              <Text kind="small" tone="soft" style={i === 0 ? undefined : styles.number}>
                {text}
              </Text>
            </View>
          ))}
        </View>
        {rows.map((row) => (
          <View role="row" key={row.what} style={styles.row}>
            <View role="rowheader" style={styles.grow}>
              <Text kind="small" bold={row.what === 'in all'}>
                {row.what}
              </Text>
            </View>
            {(['own', 'best'] as const).map((column) => (
              <View role="cell" key={column}>
                <Text kind="smallFigure" style={styles.number}>
                  {row[column].toFixed(1)}
                </Text>
              </View>
            ))}
          </View>
        ))}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  grow: { flex: 1 },
  outcome: { flexDirection: 'row', gap: space.m, borderBottomWidth: 1, paddingBottom: space.s, alignItems: 'center' },
  picture: { alignItems: 'center' },
  table: { borderTopWidth: 1, borderBottomWidth: 1, paddingVertical: space.xs },
  row: { flexDirection: 'row', alignItems: 'baseline', minHeight: 26 },
  number: { width: 84, textAlign: 'right' },
});

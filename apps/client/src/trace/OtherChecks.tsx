import { minutesText, type Assessment } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { Button } from '../ui/Button';
import { settingsChanged } from '../data/settingsSlice';
import { useAppDispatch, useAppSelector } from '../data/store';
import { Choice } from '../ui/Choice';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';

/** The other checks, ranked, with what each costs against the best and why. */
export function OtherChecks({
  assessment,
  onClose,
  onPick,
}: {
  readonly assessment: Assessment;
  readonly onClose: () => void;
  readonly onPick: (key: string) => void;
}) {
  const palette = usePalette();
  // As ranked when the list was opened: a longer look that ends meanwhile must not move the rows under the finger. The first,
  // quick look goes through few checks; what only the longer one has found comes below.
  const [first] = useState(assessment.checks);
  const checks = [...first, ...assessment.checks.filter(({ key }) => !first.some((row) => row.key === key))];
  const best = checks[0]?.expectedMinutes ?? 0;
  return (
    <Sheet title="Choose another check" open onClose={onClose}>
      <Text kind="small" tone="soft">
        Ranked by the minutes to a proved repair that may be expected when the check is done next.
      </Text>
      <Habits assessment={assessment} />
      {checks.map((check) => {
        const more = check.expectedMinutes - best;
        return (
          <TouchableRipple
            key={check.key}
            role="button"
            aria-label={check.name}
            onPress={() => onPick(check.key)}
            style={[styles.item, { borderColor: palette.line, backgroundColor: palette.card }]}
          >
            <View style={styles.words}>
              <View style={styles.row}>
                <Text bold style={styles.grow}>
                  {check.name}
                </Text>
                <Text kind="figure" tone={more < 0.5 ? 'clear' : 'soft'}>
                  {more < 0.5 ? 'best' : `+${Math.round(more)} min`}
                </Text>
              </View>
              <Text kind="small" tone="soft">{`${check.done ? 'Done already. ' : ''}${check.because[0] ?? ''}`}</Text>
              <Text kind="small">
                {[check.priceParts.join(' + '), check.opens.length ? `opens ${check.opens.join(', ')}` : undefined]
                  .filter(Boolean)
                  .join('; ')}
              </Text>
            </View>
          </TouchableRipple>
        );
      })}
      {checks.length === 0 ? (
        <Text>No check is left that could teach anything. Choose a cause on the strand.</Text>
      ) : null}
    </Sheet>
  );
}

/** A fixed order of the trade may be kept to; what it would do now, and what that costs more, stands beside it. */
function Habits({ assessment }: { readonly assessment: Assessment }) {
  const dispatch = useAppDispatch();
  const habit = useAppSelector((root) => root.settings.habit);
  const [open, setOpen] = useState(false);
  const kept = assessment.habits.find((item) => item.id === habit);
  return (
    <View style={styles.habits}>
      <Button
        label={`Order of looking: ${kept?.name ?? 'what saves most time'}`}
        hint="Change"
        kind="quiet"
        icon="chevron-down"
        onPress={() => setOpen(!open)}
        style={styles.start}
      />
      {open ? (
        <Choice
          label="Order"
          options={[
            { id: NONE, label: 'The tracer’s' },
            ...assessment.habits.map(({ id, name }) => ({ id, label: name })),
          ]}
          chosen={[habit ?? NONE]}
          onToggle={(id) => dispatch(settingsChanged({ habit: id === NONE ? undefined : id }))}
        />
      ) : null}
      {open || kept ? (
        <Text kind="small" tone="soft">
          {kept
            ? kept.check
              ? `Now it would be: ${kept.check}; about ${minutesText(kept.moreMinutes ?? 0)} more than the tracer’s choice.`
              : 'It has come to its end: nothing is left to look at in its order.'
            : assessment.habits
                .filter((item) => item.check)
                .map((item) => `${item.name} +${minutesText(item.moreMinutes ?? 0)}`)
                .join('; ')}
        </Text>
      ) : null}
    </View>
  );
}

const NONE = 'none';

const styles = StyleSheet.create({
  habits: { gap: space.xs },
  start: { alignSelf: 'flex-start', paddingHorizontal: 0 },
  item: { borderWidth: 1, borderRadius: radius.m, padding: space.m, minHeight: 48 },
  words: { gap: space.xs },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'baseline' },
  grow: { flex: 1 },
});

import { COMPLAINED_ABOUT, laneRuns, routeOf, symptomsFor, type Machine } from '@zealous/core';
import { useEffect, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { useCatalogue } from '../data/useCatalogue';
import type { TakeInDraft } from '../data/draftSlice';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Fold } from '../ui/Fold';
import { FormNumber, FormText } from '../ui/form/FormFields';
import { Text } from '../ui/Text';
import { filamentColour, FILAMENT_WORDS, space } from '../ui/tokens';
import { useWide } from '../ui/useWide';
import { Stations } from './Stations';
import { BEFORE, BEGAN, HOTTER, SEEN, TYPED, WARRANTY, WEEKS, type Question } from './questions';
import { Unticked } from './Unticked';
import type { IntakeForm } from './useIntakeForm';
import { WhatCameOfIt } from './WhatCameOfIt';

const UNKNOWN = 'unknown';

const toggled = (list: readonly string[], id: string): readonly string[] =>
  list.includes(id) ? list.filter((item) => item !== id) : [...list, id];

export interface IntakeQuestionsProps {
  readonly machine: Machine | undefined;
  readonly form: IntakeForm;
  /**
   * Asks for the machine, and what to say of it while folded; not asked again when an intake is put right. Each time that it is
   * refused for want of a machine or a lane, the question is opened.
   */
  readonly which?: {
    readonly said: string | undefined;
    readonly ask: ReactNode;
    readonly coming?: boolean;
    readonly refusals?: number;
  };
  /** What the filament was when this machine was here last. */
  readonly last?: Pick<TakeInDraft, 'material' | 'colour'> | undefined;
  readonly first: Question;
  /** Findings were recorded on the lane already: it is not asked again. */
  readonly laneFixed?: boolean;
}

/** The questions of an intake, one open at a time on a phone, all of them where there is room; nothing must be known. */
export function IntakeQuestions({ machine, form, which, last, first, laneFixed = false }: IntakeQuestionsProps) {
  const wide = useWide();
  const { draft, change: onChange, setFocus } = form;
  const [at, setAt] = useState<Question | undefined>(first);
  const { errors, submitCount } = form.formState;
  const wrong = TYPED.find(([name]) => errors[name] !== undefined);
  // What is wrong may lie folded away: its question is opened at the next refusal, and then it can have the focus.
  const [refused, setRefused] = useState<{ readonly at: number; readonly field?: (typeof TYPED)[number][0] }>({
    at: 0,
  });
  if (submitCount > refused.at && wrong) {
    setRefused({ at: submitCount, field: wrong[0] });
    setAt(wrong[1]);
  }
  const refusals = which?.refusals ?? 0;
  const [without, setWithout] = useState(refusals);
  if (refusals > without) {
    setWithout(refusals);
    setAt('machine');
  }
  // Only at the refusal: while one field is being mended the focus must not leave it for the next.
  useEffect(() => {
    if (refused.field) setFocus(refused.field);
  }, [refused, setFocus]);
  const catalogue = useCatalogue();
  const { onsets, before, materials } = catalogue;
  const askable = machine ? symptomsFor(catalogue, machine) : catalogue.symptoms;
  // What was ticked before another machine was chosen stays to be seen.
  const symptoms = catalogue.symptoms.filter(
    (symptom) => askable.includes(symptom) || draft.symptoms.includes(symptom.id),
  );
  const lanes = machine ? laneRuns(machine) : [];
  const asksLane = lanes.length > 1 && !laneFixed;
  const lane = draft.lane ?? (lanes.length === 1 ? lanes[0]?.id : undefined);
  const began = [...(draft.onset === undefined ? [] : [draft.onset]), ...(draft.onsets ?? [])];
  const labels = (list: readonly { readonly id: string; readonly label: string }[], ids: readonly string[]): string =>
    list
      .filter(({ id }) => ids.includes(id))
      .map(({ label }) => label)
      .join(', ');
  const stations = machine ? routeOf(machine, lane ?? lanes[0]?.id).stops.map(({ station }) => station) : [];
  const order: readonly Question[] = [
    ...(which || asksLane ? (['machine'] as const) : []),
    ...COMPLAINED_ABOUT.map((of) => `seen-${of}` as const),
    ...BEGAN.map(([id]) => id),
    'filament',
    'loaded',
    ...BEFORE.map(([id]) => id),
    ...(machine ? (['places'] as const) : []),
    'rest',
  ];
  const fold = (id: Question, title: string, said: string | undefined, body: ReactNode) => {
    const next = order[order.indexOf(id) + 1];
    return (
      <Fold
        key={id}
        title={title}
        {...(said ? { said } : {})}
        open={wide || at === id}
        called={id === 'machine' ? refusals : 0}
        {...(wide ? {} : { onToggle: () => setAt(at === id ? undefined : id) })}
      >
        {body}
        {next && !wide ? (
          <Button
            label="Next question"
            // What a machine is asked beside comes with it, and would push the button away from under the finger.
            disabled={id === 'machine' && which?.coming === true}
            onPress={() => setAt(next)}
            style={styles.next}
          />
        ) : null}
      </Fold>
    );
  };
  const material = materials.find(({ id }) => id === draft.material)?.name;
  const filament = [material, draft.colour].filter(Boolean).join(', ');
  const lastTime = last ? [materials.find(({ id }) => id === last.material)?.name, last.colour].filter(Boolean) : [];
  const laneName = lanes.find(({ id }) => id === draft.lane)?.name;
  return (
    <View style={styles.column}>
      {which || asksLane
        ? fold(
            'machine',
            which ? 'Which machine?' : 'Which lane?',
            [which?.said, laneName].filter(Boolean).join(', '),
            <>
              {which?.ask}
              {asksLane ? (
                <>
                  <Text bold>Which lane?</Text>
                  <Choice
                    label="Lane"
                    options={lanes.map((run) => ({ id: run.id, label: run.name }))}
                    chosen={draft.lane ? [draft.lane] : []}
                    onToggle={(id) => onChange({ lane: id })}
                  />
                </>
              ) : null}
            </>,
          )
        : null}
      {COMPLAINED_ABOUT.map((of) => {
        const asked = symptoms.filter((symptom) => (symptom.about ?? 'print') === of);
        return fold(
          `seen-${of}`,
          SEEN[of],
          labels(asked, draft.symptoms),
          <>
            <Choice
              label={SEEN[of]}
              paired
              several
              options={asked}
              chosen={draft.symptoms}
              onToggle={(id) => onChange({ symptoms: toggled(draft.symptoms, id) })}
            />
            {of === COMPLAINED_ABOUT.at(-1) ? (
              <Unticked symptoms={symptoms} draft={draft} onChange={(notLooked) => onChange({ notLooked })} />
            ) : null}
          </>,
        );
      })}
      {BEGAN.map(([id, title, label]) => {
        const asked = onsets.filter(({ after = false }) => after === (id === 'after'));
        const isAsked = (onset: string): boolean => asked.some((one) => one.id === onset);
        return fold(
          id,
          title,
          labels(asked, began),
          <>
            <Choice
              label={label}
              paired
              several
              options={[...asked, { id: UNKNOWN, label: 'Don’t know' }]}
              chosen={began.some(isAsked) ? began : [UNKNOWN]}
              onToggle={(tapped) => {
                const [onset, ...more] =
                  tapped === UNKNOWN ? began.filter((one) => !isAsked(one)) : toggled(began, tapped);
                onChange({ onset, onsets: more });
              }}
            />
            {/* Here whichever onset asks for them, since here a number that does not fit is shown. */}
            {id === 'shows' && onsets.some((one) => one.inPrint && began.includes(one.id)) ? (
              <>
                <FormNumber
                  control={form.control}
                  name="failedAfterMinutes"
                  label="After how many minutes of printing?"
                />
                <FormNumber control={form.control} name="failedAtMm" label="At what height, mm?" />
              </>
            ) : null}
          </>,
        );
      })}
      {fold(
        'filament',
        'Filament in it',
        filament,
        <>
          {last && lastTime.length > 0 ? (
            <Button label={`As last time: ${lastTime.join(', ')}`} icon="check" onPress={() => onChange(last)} />
          ) : null}
          <Choice
            label="Material"
            options={materials.map(({ id, name }) => ({ id, label: name }))}
            chosen={[draft.material ?? UNKNOWN]}
            onToggle={(id) => onChange({ material: id === UNKNOWN ? undefined : id })}
          />
          <Choice
            label="Colour"
            options={FILAMENT_WORDS.map((word) => ({ id: word as string, label: word, swatch: filamentColour(word) }))}
            chosen={draft.colour ? [draft.colour] : []}
            onToggle={(id) => onChange({ colour: draft.colour === id ? undefined : id })}
          />
        </>,
      )}
      {fold(
        'loaded',
        'How long was it loaded, and what ran before?',
        [
          WEEKS.find(({ id }) => id === String(draft.weeksLoaded))?.label,
          draft.hotterBefore === true ? 'a hotter plastic before' : undefined,
        ]
          .filter(Boolean)
          .join(', '),
        <>
          <Text bold>How long was it loaded?</Text>
          <Choice
            label="Weeks loaded"
            options={WEEKS}
            chosen={[WEEKS.find((item) => item.id === String(draft.weeksLoaded))?.id ?? UNKNOWN]}
            onToggle={(id) => onChange({ weeksLoaded: id === UNKNOWN ? undefined : Number(id) })}
          />
          <Text bold>Did a hotter plastic run before?</Text>
          <Choice
            label="Hotter before"
            options={HOTTER}
            chosen={[draft.hotterBefore === undefined ? UNKNOWN : draft.hotterBefore ? 'yes' : 'no']}
            onToggle={(id) => onChange({ hotterBefore: id === UNKNOWN ? undefined : id === 'yes' })}
          />
        </>,
      )}
      {BEFORE.map(([id, title, label]) => {
        const asked = before.filter(({ asCure = false }) => asCure === (id === 'tried'));
        return fold(
          id,
          title,
          labels(asked, draft.before),
          <>
            <Choice
              label={label}
              paired
              several
              options={asked}
              chosen={draft.before}
              onToggle={(one) => onChange({ before: toggled(draft.before, one) })}
            />
            <WhatCameOfIt before={asked} draft={draft} onChange={(tried) => onChange({ tried })} />
          </>,
        );
      })}
      {machine
        ? fold(
            'places',
            'Does the machine name a place, or differ from how it was delivered?',
            stations
              .filter(({ id }) => id === draft.noticedAt || draft.converted?.includes(id))
              .map(({ name }) => name)
              .join(', '),
            <Stations
              machine={machine}
              {...(lane === undefined ? {} : { lane })}
              draft={draft}
              onChange={(change) => onChange(change)}
            />,
          )
        : null}
      {fold(
        'rest',
        'Warranty and note',
        [draft.warranty === 'yes' ? 'under warranty' : '', draft.note?.trim()].filter(Boolean).join(', '),
        <>
          <Text bold>Under warranty?</Text>
          <Choice
            label="Under warranty"
            options={WARRANTY}
            chosen={[draft.warranty ?? UNKNOWN]}
            onToggle={(id) => onChange({ warranty: id === UNKNOWN ? undefined : id })}
          />
          <FormText control={form.control} name="note" label="Note" most={1000} lines />
        </>,
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s, maxWidth: 720, width: '100%', alignSelf: 'center' },
  next: { alignSelf: 'flex-end', marginTop: space.s },
});

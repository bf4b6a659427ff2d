import { useEffect } from 'react';
import { useWatch, type FieldPath } from 'react-hook-form';
import type { TakeInDraft } from '../data/draftSlice';
import { useEntryForm } from '../ui/form/useEntryForm';

type Kind = 'taken-in' | 'intake-corrected';

export interface IntakeForm extends ReturnType<typeof useEntryForm<Kind, TakeInDraft>> {
  /** What is filled in so far. */
  readonly draft: TakeInDraft;
  readonly change: (change: Partial<TakeInDraft>) => void;
}

/**
 * The questions of an intake as one form, judged by the contract class of its entry as the server judges it. What is filled in goes to
 * `keep` at every change, so that a reload or a call does not cost it.
 */
export function useIntakeForm(
  type: Kind,
  begun: TakeInDraft,
  keep: (draft: TakeInDraft) => void,
  toBody: (draft: TakeInDraft) => object,
): IntakeForm {
  const form = useEntryForm<Kind, TakeInDraft>({ type, defaults: begun, toBody });
  const { subscribe } = form;
  useEffect(
    () => subscribe({ formState: { values: true }, callback: ({ values }) => keep(values) }),
    [subscribe, keep],
  );
  const draft = useWatch({ control: form.control }) as TakeInDraft;
  const change = (next: Partial<TakeInDraft>): void => {
    for (const [name, value] of Object.entries(next))
      form.setValue(name as FieldPath<TakeInDraft>, value as never, { shouldDirty: true });
  };
  return { ...form, draft, change };
}

/** Without numbers that are still being typed: what may be reckoned with already. */
export const numbersOnly = (draft: TakeInDraft): TakeInDraft => {
  const { failedAfterMinutes, failedAtMm, ...rest } = draft;
  const number = (n: unknown): n is number => typeof n === 'number' && n >= 0;
  return {
    ...rest,
    ...(number(failedAfterMinutes) ? { failedAfterMinutes } : {}),
    ...(number(failedAtMm) ? { failedAtMm } : {}),
  };
};

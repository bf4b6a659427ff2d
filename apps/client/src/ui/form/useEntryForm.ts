import type { EntryForm } from '@zealous/contracts/entries';
import type { EventBodies } from '@zealous/core';
import { useEffect } from 'react';
import { useForm, type DefaultValues, type FieldErrors, type FieldValues, type UseFormReturn } from 'react-hook-form';
import { judgeEntry } from './contractResolver';
import { load, save } from '../../data/storage';

export interface EntryFormOptions<E extends EntryForm, T extends FieldValues> {
  readonly type: E;
  readonly defaults: T;
  /** What is recorded from what is filled in; fields of both have the same names, unless `toFields` says where they stand. */
  readonly toBody: (values: T) => object;
  /** What is wrong with the body, put to the fields that it was filled in at. */
  readonly toFields?: (errors: FieldErrors, values: T) => FieldErrors<T>;
  /** Under this name what is typed is kept on the device until it is recorded, so that a reload costs nothing. */
  readonly keep?: string;
}

/**
 * A form whose values are judged by the contract class of its entry, as the server judges them. Errors stand at their fields, the
 * first one is focused. `submit` judges, hands over the body when it fits, and forgets what was kept.
 */
export function useEntryForm<E extends EntryForm, T extends FieldValues>({
  type,
  defaults,
  toBody,
  toFields,
  keep,
}: EntryFormOptions<E, T>): UseFormReturn<T> & {
  readonly submit: (record: (body: EventBodies[E]) => unknown) => void;
} {
  const key = keep === undefined ? undefined : `form:${keep}`;
  const form = useForm<T>({
    mode: 'onTouched',
    defaultValues: (key === undefined ? defaults : { ...defaults, ...load(key, {}) }) as DefaultValues<T>,
    resolver: async (values, _context, options) => {
      const judged = await judgeEntry<T>(type, toBody(values), options);
      const wrong = Object.keys(judged.errors).length > 0;
      return wrong && toFields ? { values: {}, errors: toFields(judged.errors, values) } : judged;
    },
  });
  const { subscribe } = form;
  useEffect(() => {
    if (key === undefined) return undefined;
    return subscribe({ formState: { values: true }, callback: ({ values }) => void save(key, values) });
  }, [subscribe, key]);
  const submit = (record: (body: EventBodies[E]) => unknown): void =>
    void form.handleSubmit((body) => {
      record(body as unknown as EventBodies[E]);
      if (key !== undefined) save(key, {});
    })();
  return { ...form, submit };
}

/** Without what is empty or only blanks. */
export const filled = <T extends object>(values: T): Partial<T> =>
  Object.fromEntries(
    Object.entries(values)
      .map(([name, value]) => [name, typeof value === 'string' ? value.trim() : (value as unknown)])
      .filter(([, value]) => value !== undefined && value !== ''),
  ) as Partial<T>;

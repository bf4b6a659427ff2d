import type { Fault } from '@zealous/contracts/catalogue';
import { toNestErrors } from '@hookform/resolvers';
import { useEffect } from 'react';
import { useForm, type FieldError, type FieldErrors, type UseFormReturn } from 'react-hook-form';
import { sentence } from './contractResolver';
import type { Loose, RecordField } from './fields';
import { fieldAt, recordOf, valuesOf, type Values } from './recordValues';

export type RecordOfForm = UseFormReturn<Values>;

export interface RecordFormOptions {
  readonly fields: readonly RecordField[];
  /** What the form begins with. */
  readonly record: Loose;
  /** What the contract class of the record says of it. */
  readonly judge: (record: Loose) => readonly Fault[];
  /** The record as it stands after each change, whether it fits or not. */
  readonly onChange: (record: Loose) => void;
}

/**
 * The form of a record whose fields are described as data. It is judged by the contract class that the server judges by; each fault
 * stands at its field once that was left, and `handleSubmit` focuses the first.
 */
export function useRecordForm({ fields, record, judge, onChange }: RecordFormOptions): RecordOfForm {
  const form = useForm<Values>({
    mode: 'onTouched',
    defaultValues: valuesOf(fields, record),
    resolver: (values, _context, options) => {
      const flat: Record<string, FieldError> = {};
      for (const { path, reason } of judge(recordOf(fields, values))) {
        const name = fieldAt(fields, values, path) || 'root';
        flat[name] ??= { type: 'contract', message: sentence(reason) };
      }
      return Object.keys(flat).length === 0
        ? { values, errors: {} }
        : { values: {}, errors: toNestErrors(flat, options) as FieldErrors<Values> };
    },
  });
  const { subscribe } = form;
  useEffect(
    () =>
      subscribe({
        formState: { values: true },
        callback: ({ values }) => onChange(recordOf(fields, values)),
      }),
    [subscribe, fields, onChange],
  );
  return form;
}

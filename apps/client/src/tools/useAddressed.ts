import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { useForm, type Control, type FieldErrors } from 'react-hook-form';
import { sentence } from '../ui/form/contractResolver';

type Figures<K extends string> = Readonly<Record<K, number | undefined>>;
/** As typed: what is no number yet stands there as text. */
export type Typed = Record<string, number | string | undefined>;

/**
 * The form of a tool whose figures stand in the page's address too: they outlive a reload, and whoever is sent the address sees the
 * same. What does not fit is said at its field, and reckoned with is what last did.
 *
 * @param start what stands there where the address says nothing; a figure that was emptied stands in the address as nothing
 * @param fault what the contract says of a figure, typed or from an address; nothing when it fits
 * @returns the figures to reckon with, what fields are bound to, and how one is set from elsewhere
 */
export function useAddressedFigures<K extends string>(
  start: Figures<K>,
  fault: (name: K, value: number) => string | undefined,
): readonly [Figures<K>, Control<Typed>, (name: K, value: number | undefined) => void] {
  const params = useLocalSearchParams<Record<string, string>>();
  const router = useRouter();
  const [figures, setFigures] = useState<Figures<K>>(() => {
    const entries = (Object.keys(start) as K[]).map((name): [K, number | undefined] => {
      const told = params[name];
      if (told === undefined) return [name, start[name]];
      if (told === '') return [name, undefined];
      const value = Number(told);
      return [name, Number.isFinite(value) && fault(name, value) === undefined ? value : start[name]];
    });
    return Object.fromEntries(entries) as Record<K, number | undefined>;
  });
  const faultOf = (name: K, value: number | string | undefined): string | undefined =>
    value === undefined ? undefined : typeof value === 'string' ? 'must be a number' : fault(name, value);
  const { control, subscribe, setValue } = useForm<Typed>({
    mode: 'onChange',
    defaultValues: figures,
    resolver: (values) => {
      const wrong = (Object.keys(start) as K[]).flatMap((name) => {
        const reason = faultOf(name, values[name]);
        return reason === undefined ? [] : [[name, { type: 'contract', message: sentence(reason) }] as const];
      });
      return wrong.length === 0
        ? { values, errors: {} }
        : { values: {}, errors: Object.fromEntries(wrong) as FieldErrors<Typed> };
    },
  });
  useEffect(() =>
    subscribe({
      formState: { values: true },
      callback: ({ values }) => {
        const fitting = (Object.keys(start) as K[]).flatMap((name) => {
          const value = values[name];
          return faultOf(name, value) === undefined ? [[name, value as number | undefined] as const] : [];
        });
        setFigures((known) => {
          const changed = fitting.filter(([name, value]) => known[name] !== value);
          return changed.length > 0 ? { ...known, ...Object.fromEntries(changed) } : known;
        });
      },
    }),
  );
  useEffect(() => {
    const told = (Object.keys(start) as K[]).map((name): [K, string | undefined] => {
      const value = figures[name];
      return [name, value === start[name] ? undefined : value === undefined ? '' : String(value)];
    });
    if (told.some(([name, words]) => params[name] !== words)) router.setParams(Object.fromEntries(told) as never);
  });
  return [figures, control, (name, value) => setValue(name as string, value, { shouldValidate: true })];
}

/** A choice of a tool that stands in the page's address too; what is not known there is not taken. */
export function useAddressedChoice<T extends string>(
  name: string,
  start: T,
  known: readonly T[],
): readonly [T, (value: T) => void] {
  const params = useLocalSearchParams<Record<string, string>>();
  const router = useRouter();
  const [value, setValue] = useState<T>(() => known.find((item) => item === params[name]) ?? start);
  return [
    value,
    (next) => {
      setValue(next);
      router.setParams({ [name]: next === start ? undefined : next });
    },
  ];
}

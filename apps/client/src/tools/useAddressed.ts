import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';

type Figures<K extends string> = Readonly<Record<K, number | undefined>>;

/**
 * Figures of a tool that stand in the page's address too: they outlive a reload, and whoever is sent the address sees the same.
 *
 * @param start what stands there where the address says nothing; a figure that was emptied stands in the address as nothing
 * @param fits what is in an address may be mistyped: what does not fit is not taken
 */
export function useAddressedFigures<K extends string>(
  start: Figures<K>,
  fits: (name: K, value: number) => boolean = () => true,
): readonly [Figures<K>, (name: K, value: number | undefined) => void] {
  const params = useLocalSearchParams<Record<string, string>>();
  const router = useRouter();
  const [figures, setFigures] = useState<Figures<K>>(() => {
    const entries = (Object.keys(start) as K[]).map((name): [K, number | undefined] => {
      const told = params[name];
      if (told === undefined) return [name, start[name]];
      if (told === '') return [name, undefined];
      const value = Number(told);
      return [name, Number.isFinite(value) && fits(name, value) ? value : start[name]];
    });
    return Object.fromEntries(entries) as Record<K, number | undefined>;
  });
  const set = (name: K, value: number | undefined): void => {
    setFigures((known) => ({ ...known, [name]: value }));
    router.setParams({ [name]: value === start[name] ? undefined : value === undefined ? '' : String(value) });
  };
  return [figures, set];
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

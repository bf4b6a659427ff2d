import { useRef, useState } from 'react';
import { load, save } from './storage';

/** So many half-filled fields are kept; the oldest go first. */
const MOST = 30;
const NAME = 'kept';

type Kept = readonly (readonly [string, unknown])[];
const read = (): Kept => load<Kept>(NAME, []);
const write = (key: string, value: unknown): void => {
  const rest = read().filter(([known]) => known !== key);
  save(NAME, value === undefined ? rest : [...rest, [key, value]].slice(-MOST));
};

/** The page, as far as it says which order this is. */
const here = (): string =>
  (globalThis as { readonly location?: { readonly pathname?: string } }).location?.pathname ?? '';

/**
 * State that is kept on the device until it is recorded, so that a reload or another tab costs nothing that was typed.
 *
 * @param name unique on its page
 * @returns the value, how to set it, and how to forget it
 */
export function useKept<T>(name: string, initial: T): readonly [T, (next: T | ((was: T) => T)) => void, () => void] {
  const [key] = useState(() => `${here()}#${name}`);
  const [value, setValue] = useState<T>(
    () => (read().find(([known]) => known === key)?.[1] as T | undefined) ?? initial,
  );
  // The latest value, not the drawn one: two quick taps must not lose a digit on a slow machine.
  const latest = useRef(value);
  const set = (next: T | ((was: T) => T)): void => {
    latest.current = next instanceof Function ? next(latest.current) : next;
    write(key, latest.current);
    setValue(latest.current);
  };
  return [value, set, () => write(key, undefined)];
}

import { useCallback, useLayoutEffect, useRef, useState } from 'react';

/** A handler that stays the same one and does what the last one given does: what it is handed to is not drawn anew for it. */
export function useStable<A extends readonly unknown[], R>(handler: (...args: A) => R): (...args: A) => R {
  const latest = useRef(handler);
  useLayoutEffect(() => {
    latest.current = handler;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}

/** The value that was there before, as long as the new one says the same. Sets are compared by what is in them, in their order. */
export function useSame<T>(value: T): T {
  const said = (of: T): string => JSON.stringify(of, (_key, part: unknown) => (part instanceof Set ? [...part] : part));
  const [kept, setKept] = useState(value);
  if (kept === value || said(kept) === said(value)) return kept;
  setKept(value);
  return value;
}

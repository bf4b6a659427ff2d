import { useState } from 'react';

/** The value that was there before, as long as the new one says the same. Sets are compared by what is in them, in their order. */
export function useSame<T>(value: T): T {
  const said = (of: T): string => JSON.stringify(of, (_key, part: unknown) => (part instanceof Set ? [...part] : part));
  const [kept, setKept] = useState(value);
  if (kept === value || said(kept) === said(value)) return kept;
  setKept(value);
  return value;
}

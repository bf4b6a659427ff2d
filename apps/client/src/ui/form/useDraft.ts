import { useState } from 'react';
import { load, save } from '../../data/storage';
import type { Loose } from './fields';

interface Kept {
  readonly record?: Loose;
  /** The stored record that it was made from, as text. */
  readonly base?: string;
}

export interface Draft {
  /** What differs from what is stored; absent while nothing does. */
  readonly now: Loose | undefined;
  /** It was typed before the page was opened. */
  readonly found: boolean;
  /** What is stored has changed since. */
  readonly overtaken: boolean;
  readonly keep: (record: Loose) => void;
  readonly end: () => void;
}

/** What was typed into a record and is not stored yet, kept on the device under this name. */
export function useDraft(name: string, stored: Loose): Draft {
  const key = `draft:${name}`;
  const text = JSON.stringify(stored);
  const [kept, setKept] = useState(() => load<Kept>(key, {}));
  const [found, setFound] = useState(kept.record !== undefined);
  const put = (next: Kept): void => {
    setKept(next);
    save(key, next);
  };
  return {
    now: kept.record,
    found,
    overtaken: kept.record !== undefined && kept.base !== text,
    // What was typed back to what is stored is no draft.
    keep: (record) => put(JSON.stringify(record) === text ? {} : { record, base: kept.base ?? text }),
    end: () => {
      setFound(false);
      put({});
    },
  };
}

import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { v4 as uuid } from 'uuid';
import type { Unsent } from './ordersSlice';
import { load } from './storage';

/**
 * Unsent entries on this device: one row an entry in IndexedDB, shared by all windows, so that none can overwrite what another
 * recorded. Each is first written down at once, under a name of its own, in the storage that needs no waiting: a phone may be
 * put to sleep between the tap and the next moment.
 */
interface Schema extends DBSchema {
  entries: {
    key: number;
    value: Unsent & { readonly n?: number };
    indexes: { readonly id: string };
  };
}

const JOURNAL = 'zt:journal:';
/** The list that versions before this one kept; taken over once. */
const OLD_LIST = 'outbox';

let opened: Promise<IDBPDatabase<Schema>> | undefined;
const database = (): Promise<IDBPDatabase<Schema>> =>
  (opened ??= openDB<Schema>('zt-outbox', 1, {
    upgrade(db) {
      db.createObjectStore('entries', { keyPath: 'n', autoIncrement: true }).createIndex('id', 'event.id', {
        unique: true,
      });
    },
    blocking: () => void opened?.then((db) => db.close()),
    terminated: () => (opened = undefined),
  }).catch((error: unknown) => {
    opened = undefined;
    throw error;
  }));

/** Lets go of the database; the next question opens it anew. */
export async function release(): Promise<void> {
  const db = await opened?.catch(() => undefined);
  opened = undefined;
  db?.close();
}

/** How the device keeps entries: safely, only while the page is open, or not for want of room. */
export type Keeping = 'kept' | 'page-only' | 'full';

const journal = (): Storage | undefined => {
  try {
    return globalThis.localStorage;
  } catch {
    return undefined;
  }
};

/** Written down before anything else happens. False when even that is not possible. */
export function jot(entry: Unsent): boolean {
  try {
    journal()?.setItem(JOURNAL + entry.event.id, JSON.stringify({ ...entry, jotted: Date.now() }));
    return journal() !== undefined;
  } catch {
    return false;
  }
}

const unjot = (id: string): void => {
  try {
    journal()?.removeItem(JOURNAL + id);
  } catch {
    // Nothing was written there.
  }
};

const isFull = (error: unknown): boolean => error instanceof DOMException && error.name === 'QuotaExceededError';

/** Keeps an entry, or what became of it; the same entry again takes its own place. */
export async function keep(entry: Unsent): Promise<Keeping> {
  try {
    const tx = (await database()).transaction('entries', 'readwrite', { durability: 'strict' });
    const n = await tx.store.index('id').getKey(entry.event.id);
    await tx.store.put(n === undefined ? entry : { ...entry, n });
    await tx.done;
    unjot(entry.event.id);
    return 'kept';
  } catch (error) {
    // Where only the journal can be written, that is where it is read from at the next start.
    return jot(entry) ? 'kept' : isFull(error) ? 'full' : 'page-only';
  }
}

export async function forget(id: string): Promise<void> {
  unjot(id);
  try {
    const tx = (await database()).transaction('entries', 'readwrite');
    const n = await tx.store.index('id').getKey(id);
    if (n !== undefined) await tx.store.delete(n);
    await tx.done;
  } catch {
    // It could not be kept there either.
  }
}

/** What stands in the journal: entries of a page that was left before they were kept, and the list of an older version. */
function jotted(): readonly Unsent[] {
  const store = journal();
  if (!store) return [];
  const keys = Array.from({ length: store.length }, (_, i) => store.key(i) ?? '').filter((key) =>
    key.startsWith(JOURNAL),
  );
  const found = keys.flatMap((key): (Unsent & { readonly jotted: number })[] => {
    try {
      return [JSON.parse(store.getItem(key) ?? '') as Unsent & { readonly jotted: number }];
    } catch {
      return [];
    }
  });
  const own = [...found].sort((a, b) => a.jotted - b.jotted).map(({ jotted: _when, ...entry }): Unsent => entry);
  return [...load<readonly Unsent[]>(OLD_LIST, []), ...own];
}

/** All unsent entries of this device, in the order in which they were recorded. */
export async function allUnsent(): Promise<readonly Unsent[]> {
  const left = jotted();
  try {
    for (const entry of left) {
      const known = await (await database()).getKeyFromIndex('entries', 'id', entry.event.id);
      if (known === undefined) await keep(entry);
      else unjot(entry.event.id);
    }
    journal()?.removeItem(`zt:${OLD_LIST}`);
    return (await (await database()).getAll('entries')).map(({ n: _n, ...entry }) => entry);
  } catch {
    return left;
  }
}

/** What one window tells the others. */
export type Told =
  | { readonly kind: 'changed' }
  | { readonly kind: 'sent'; readonly orderId: string; readonly event: Unsent['event']; readonly seq: number };

const ME = uuid();

export interface Windows {
  readonly tell: (told: Told) => void;
  readonly close: () => void;
}

/** Between the windows of this device. */
export function windows(hear: (told: Told) => void): Windows {
  if (typeof BroadcastChannel === 'undefined') return { tell: () => undefined, close: () => undefined };
  const channel = new BroadcastChannel('zt-outbox');
  channel.onmessage = ({ data }: MessageEvent<{ readonly from: string; readonly told: Told }>) => {
    if (data.from !== ME) hear(data.told);
  };
  return { tell: (told) => channel.postMessage({ from: ME, told }), close: () => channel.close() };
}

/** Runs in one window of this device at a time; the next one takes over when it is closed. */
export function alone(work: (ended: Promise<void>) => Promise<void>): () => void {
  let end: () => void = () => undefined;
  const ended = new Promise<void>((resolve) => (end = resolve));
  const locks = globalThis.navigator?.locks as LockManager | undefined;
  if (!locks) {
    void work(ended);
    return end;
  }
  const waiting = new AbortController();
  locks.request('zt-outbox-sender', { signal: waiting.signal }, () => work(ended)).catch(() => undefined);
  return () => {
    waiting.abort();
    end();
  };
}

/** Asks the browser not to clear what is kept here when room gets short. */
export async function askToPersist(): Promise<boolean> {
  try {
    return (await navigator.storage?.persist?.()) ?? false;
  } catch {
    return false;
  }
}

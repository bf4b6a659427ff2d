/** What this device keeps by itself: unsent entries, drafts, choices. The server holds everything that was sent. */
const PREFIX = 'zt:';

export function load<T>(key: string, fallback: T): T {
  try {
    const text = globalThis.localStorage?.getItem(PREFIX + key);
    return text ? (JSON.parse(text) as T) : fallback;
  } catch {
    return fallback;
  }
}

export function save(key: string, value: unknown): boolean {
  try {
    globalThis.localStorage?.setItem(PREFIX + key, JSON.stringify(value));
    return true;
  } catch {
    // Storage full or forbidden: the entry lives on in memory and is sent as soon as the server answers.
    return false;
  }
}

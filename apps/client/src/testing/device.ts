/** For tests only: a device that keeps what is written to it, empty before each test. */
export function keepingDevice(): void {
  const kept = new Map<string, string>();
  Object.defineProperty(globalThis, 'localStorage', {
    value: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, text: string) => void kept.set(key, text),
    },
  });
  beforeEach(() => kept.clear());
}

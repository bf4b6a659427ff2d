/** JSON pointers (RFC 6901) into plain values. */
const steps = (pointer: string): readonly string[] =>
  pointer
    .split('/')
    .slice(1)
    .map((step) => step.replaceAll('~1', '/').replaceAll('~0', '~'));

export const valueAt = (value: unknown, pointer: string): unknown =>
  steps(pointer).reduce<unknown>(
    (at, step) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[step] : undefined),
    value,
  );

/** The same value with another one at a place that is there. */
export function withValueAt<T>(value: T, pointer: string, put: unknown): T {
  const set = (at: unknown, [step, ...rest]: readonly string[]): unknown => {
    if (step === undefined) return put;
    if (Array.isArray(at)) return at.map((item: unknown, i) => (String(i) === step ? set(item, rest) : item));
    return { ...(at as object), [step]: set((at as Record<string, unknown>)[step], rest) };
  };
  return set(value, steps(pointer)) as T;
}

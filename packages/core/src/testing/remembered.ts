/** For tests only: entries of orders are numbered as they are made; what they say is the same. */
const MADE_ID = /^0{8}-0{4}-4/;
const said = (_key: string, value: unknown): unknown => {
  if (value instanceof Set) return [...value].sort();
  return typeof value === 'string' && MADE_ID.test(value) ? '' : value;
};

/** For tests only: what is worked out from the same twice is worked out once. `key` tells what it depends on. */
export function remembered<A extends readonly unknown[], R>(
  make: (...args: A) => R,
  key: (...args: A) => unknown,
): (...args: A) => R {
  const known = new Map<string, R>();
  return (...args) => {
    const of = JSON.stringify(key(...args), said);
    if (!known.has(of)) known.set(of, make(...args));
    return known.get(of) as R;
  };
}

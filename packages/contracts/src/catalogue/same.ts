type Plain<T> = T extends readonly (infer U)[]
  ? readonly Plain<U>[]
  : T extends object
    ? { readonly [K in keyof T]: Plain<T[K]> }
    : T;

/**
 * True when a contract class and a type of the core have the same fields with the same types; otherwise the line that says so
 * does not compile. Mutual assignability alone would let an optional field be missing, so the names are compared too.
 */
export type Same<A, B> = [Plain<A>, keyof A] extends [Plain<B>, keyof B]
  ? [Plain<B>, keyof B] extends [Plain<A>, keyof A]
    ? true
    : never
  : never;

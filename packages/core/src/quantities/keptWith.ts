/** Of what is kept by a text, so much (chosen). */
const MOST = 300;

/** A map that is begun anew when it has grown too large. */
export const bounded = <T>(known: Map<string, T>, most = MOST): Map<string, T> => {
  if (known.size >= most) known.clear();
  return known;
};

/** What was worked out for two objects together, kept as long as both of them are. */
export class KeptWith<A extends object, B extends object, V> {
  private readonly all = new WeakMap<A, WeakMap<B, V>>();

  of(a: A, b: B, make: () => V): V {
    let byB = this.all.get(a);
    if (!byB) this.all.set(a, (byB = new WeakMap()));
    const known = byB.get(b);
    if (known !== undefined) return known;
    const made = make();
    byB.set(b, made);
    return made;
  }
}

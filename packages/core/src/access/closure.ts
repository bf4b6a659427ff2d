import type { AccessPart, Machine } from '../path/machine';

/**
 * Parts that must come off to have the wanted ones off, each after what holds it, leaving out what is off already.
 *
 * @throws RangeError when a part is not in the machine.
 */
export function partsToRemove(
  machine: Machine,
  wanted: readonly string[],
  off: ReadonlySet<string>,
): readonly AccessPart[] {
  const order: AccessPart[] = [];
  const placed = new Set<string>();
  const visit = (id: string): void => {
    if (off.has(id) || placed.has(id)) return;
    placed.add(id);
    const part = machine.parts.find((candidate) => candidate.id === id);
    if (!part) throw new RangeError(`The machine has no part "${id}".`);
    part.after?.forEach(visit);
    order.push(part);
  };
  wanted.forEach(visit);
  return order;
}

/** Parts that are off, in an order in which they can go back: the reverse of one in which they could come off. */
export function partsToRefit(machine: Machine, off: ReadonlySet<string>): readonly AccessPart[] {
  return [...partsToRemove(machine, [...off], new Set())].filter((part) => off.has(part.id)).reverse();
}

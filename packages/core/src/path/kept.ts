import type { Machine } from './machine';

const MOST = 32;
const kept = new Map<string, Machine>();

/**
 * One object for one description, the last few of them. What is worked out for a machine is kept beside its object; a
 * description that was read again, or came in a message, would lose it.
 */
export function keptMachine(machine: Machine): Machine {
  const key = JSON.stringify(machine);
  const known = kept.get(key) ?? machine;
  kept.delete(key);
  kept.set(key, known);
  const oldest = kept.keys().next();
  if (kept.size > MOST && !oldest.done) kept.delete(oldest.value);
  return known;
}

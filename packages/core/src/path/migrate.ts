import { FAMILIES, OTHER_FAMILY } from './families';
import { MACHINE_VERSION } from './machine';

type Loose = Readonly<Record<string, unknown>>;
const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Version 1 said the family in free words. What fits a template by its words becomes that; the words are kept in the summary. */
function familyFromWords(machine: Loose): Loose {
  const words = typeof machine['family'] === 'string' ? machine['family'] : '';
  const guess =
    FAMILIES.find((family) => family.id === words || family.name.toLowerCase() === words.toLowerCase()) ??
    FAMILIES.find(({ id }) => (/hub/i.test(words) ? id === 'hub-head' : /bowden/i.test(words) && id === 'bowden-open'));
  const summary = typeof machine['summary'] === 'string' ? machine['summary'] : '';
  return {
    ...machine,
    version: 2,
    family: guess?.id ?? OTHER_FAMILY,
    summary: guess || words === '' || summary.includes(words) ? summary : `${summary} (${words})`.trim().slice(0, 500),
  };
}

/** From each older version to the next. */
const STEPS: Readonly<Record<number, (machine: Loose) => Loose>> = { 1: familyFromWords };

/** A machine of an older version brought to the present one; anything else is handed back as it is. */
export function migrateMachine(value: unknown): unknown {
  let machine = value;
  while (isObject(machine) && typeof machine['version'] === 'number' && machine['version'] < MACHINE_VERSION) {
    const step = STEPS[machine['version']];
    if (!step) return machine;
    machine = step(machine);
  }
  return machine;
}

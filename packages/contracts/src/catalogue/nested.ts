import type { ClassConstructor } from 'class-transformer';
import { faultsOf } from './judge';
import type { EntryRule } from './rules';

/** An entry of a map that is a record of its own. Its schema is a reference, put there when it is published. */
export const contractEntry = (of: ClassConstructor<object>): EntryRule => ({
  fault: (value) => faultsOf(of, value)[0],
  schema: { $ref: `#/definitions/${of.name}` },
  part: of,
});

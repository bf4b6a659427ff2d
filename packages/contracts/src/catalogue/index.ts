/** The records of the catalogue as contracts: for the server's messages and the form, never in a worker or the first load. */
import { CHANGE_KINDS, type ChangeKind } from '@zealous/core/kinds';
import { faultsOf, type Fault } from './judge';
import { RECORDS } from './records';

export { limitsOf, type Limits } from './limits';
export { faultsOf, type Fault } from './judge';
export { RECORDS } from './records';

/** Faults of a record of the catalogue by itself; whether it names what is there, `parseCatalogue` of the core judges. */
export const recordFaults = (kind: ChangeKind, record: unknown, partial = false): readonly Fault[] =>
  CHANGE_KINDS.includes(kind) ? faultsOf(RECORDS[kind], record, partial) : [];

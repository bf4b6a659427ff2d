import 'reflect-metadata';
import type { Machine } from '@zealous/core';
import { FormatError, parseMachine } from '@zealous/core/formats';
import { IsBoolean, IsObject } from 'class-validator';
import { faultsOfPieces } from './pieces';
import { FitsSchema } from './schema';

/** Judged by the published schema and as a whole, and each piece by its class, by which the builder's forms go too. */
const machineOf = (field: 'machine' | 'was') => (message: object) => {
  const [fault] = faultsOfPieces(parseMachine((message as Record<string, unknown>)[field]));
  if (fault) throw new FormatError(fault.path, fault.reason);
};

/** A machine that the shop has not had so far; an older version of the format is brought to the present one. */
export class NewMachine {
  @IsObject({ message: '/machine: must be an object' })
  @FitsSchema(machineOf('machine'), '/machine')
  machine!: Machine;
}

/** A changed description, with the one that it was made from. */
export class ChangedMachine extends NewMachine {
  @IsObject({ message: '/was: must be an object' })
  @FitsSchema(machineOf('was'), '/was')
  was!: Machine;
}

/** Whether a machine has left the shop. */
export class MachineRetired {
  @IsBoolean({ message: '/retired: must be true or false' })
  retired!: boolean;
}

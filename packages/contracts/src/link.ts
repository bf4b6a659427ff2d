import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import type { LineIntent } from '@zealous/core';

const ADDRESS = /^(?:stand-in|tcp:\/\/[A-Za-z0-9.:[\]-]{1,200}:\d{1,5}|serial:\/dev\/[A-Za-z0-9/_.-]{1,100}@\d{3,7})$/;

/** Where a machine is on the line. */
export class LinkAddress {
  @IsString({ message: '/address: must be text' })
  @Matches(ADDRESS, {
    message: '/address: must be tcp://host:port, serial:/dev/name@baud, or stand-in',
  })
  address!: string;
}

class Holder {
  @IsUUID(undefined, { message: '/phone: must be an id' })
  phone!: string;
}

/** Somebody takes the machine in hand; who has it already gives way only when it is forced. */
export class TakeControl extends Holder {
  @IsString({ message: '/by: must be text' })
  @Length(1, 60, { message: '/by: must have 1 to 60 characters' })
  by!: string;
  @IsOptional()
  @IsBoolean({ message: '/force: must be true or false' })
  force?: boolean;
}

export class LineIntentMessage {
  @IsIn(['target', 'feed', 'sensors', 'position', 'read-steps', 'store-steps', 'motors-off'], {
    message: '/intent/do: is not known',
  })
  do!: LineIntent['do'];
  @IsOptional()
  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: '/intent/c: must be a number' })
  c?: number;
  @IsOptional()
  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: '/intent/mm: must be a number' })
  mm?: number;
  @IsOptional()
  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: '/intent/mmPerS: must be a number' })
  mmPerS?: number;
  @IsOptional()
  @IsNumber({ allowNaN: false, allowInfinity: false }, { message: '/intent/stepsPerMm: must be a number' })
  stepsPerMm?: number;
}

/** What the machine is asked to do, for an order that says how it stands. */
export class LineAsk extends Holder {
  @IsUUID(undefined, { message: '/order: must be an id' })
  order!: string;
  @IsObject({ message: '/intent: must be an object' })
  @ValidateNested()
  @Type(() => LineIntentMessage)
  intent!: LineIntentMessage;
}

/** For a simulated printer only: what a hand would do at its bench, and faults of the line itself. */
export class StandInDeed {
  @IsOptional()
  @IsIn(['in', 'out'], { message: '/strand: must be in or out' })
  strand?: 'in' | 'out';
  @IsOptional()
  @IsBoolean({ message: '/repaired: must be true or false' })
  repaired?: boolean;
  @IsOptional()
  @IsInt({ message: '/delayMs: must be a whole number' })
  @Min(0, { message: '/delayMs: must be 0 or more' })
  @Max(5000, { message: '/delayMs: must be 5000 at most' })
  delayMs?: number;
  @IsOptional()
  @IsInt({ message: '/garble: must be a whole number' })
  @Min(1, { message: '/garble: must be 1 or more' })
  @Max(5, { message: '/garble: must be 5 at most' })
  garble?: number;
  @IsOptional()
  @IsInt({ message: '/dropS: must be a whole number' })
  @Min(1, { message: '/dropS: must be 1 or more' })
  @Max(120, { message: '/dropS: must be 120 at most' })
  dropS?: number;
}

/** The intent of a message, with the figures that its kind needs; undefined when one is missing. */
export function intentOf({ do: what, c, mm, mmPerS, stepsPerMm }: LineIntentMessage): LineIntent | undefined {
  switch (what) {
    case 'target':
      return c === undefined ? undefined : { do: what, c };
    case 'feed':
      return mm === undefined || mmPerS === undefined ? undefined : { do: what, mm, mmPerS };
    case 'store-steps':
      return stepsPerMm === undefined ? undefined : { do: what, stepsPerMm };
    default:
      return { do: what };
  }
}

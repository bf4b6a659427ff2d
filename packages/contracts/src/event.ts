import 'reflect-metadata';
import type { OrderEvent } from '@zealous/core';
import { parseEvent } from '@zealous/core/formats';
import { Type } from 'class-transformer';
import { IsISO8601, IsObject, IsString, IsUUID, Length } from 'class-validator';
import { FitsSchema } from './schema';

/** A new event for a work order. */
export class EventMessage {
  @IsUUID(undefined, { message: '/id: must be a UUID' })
  @Type(() => String)
  id!: string;

  @IsISO8601({ strict: true, strictSeparator: true }, { message: '/at: must be a date and time, ISO 8601' })
  @Type(() => String)
  at!: string;

  @IsString({ message: '/by: must be text' })
  @Length(1, 60, { message: '/by: must have 1 to 60 characters' })
  by!: string;

  @IsString({ message: '/type: must be text' })
  type!: OrderEvent['type'];

  @IsObject({ message: '/body: must be an object' })
  @FitsSchema((message) => parseEvent({ ...message }))
  body!: OrderEvent['body'];
}

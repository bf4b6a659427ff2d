import 'reflect-metadata';
import type { OrderEvent } from '@zealous/core';
import { FormatError, parseEvent } from '@zealous/core/formats';
import { Type } from 'class-transformer';
import {
  IsISO8601,
  IsObject,
  IsString,
  IsUUID,
  Length,
  registerDecorator,
  type ValidationArguments,
} from 'class-validator';

/** What the published schema says of an event, as one rule, so that file and message are never judged by two. */
function FitsEventSchema(): PropertyDecorator {
  const fault = (args?: ValidationArguments): string | undefined => {
    try {
      parseEvent({ ...args?.object });
      return undefined;
    } catch (error) {
      if (error instanceof FormatError) return `${error.path}: ${error.reason}`;
      throw error;
    }
  };
  return (target, propertyName) =>
    registerDecorator({
      name: 'fitsEventSchema',
      target: target.constructor,
      propertyName: String(propertyName),
      validator: { validate: (_value, args) => fault(args) === undefined, defaultMessage: (args) => fault(args) ?? '' },
    });
}

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
  @FitsEventSchema()
  body!: OrderEvent['body'];
}

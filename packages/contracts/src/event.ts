import 'reflect-metadata';
import type { OrderEvent } from '@zealous/core';
import { parseEvent } from '@zealous/core/formats';
import { Transform, Type } from 'class-transformer';
import { IsISO8601, IsObject, IsString, IsUUID, ValidateBy, type ValidationArguments } from 'class-validator';
import { faultsOf } from './catalogue/judge';
import { ENTRIES, faultOfSigned, hasForm } from './entries';
import { FitsSchema } from './schema';

/** What the class of this kind of entry says of its body, where there is one: the same that its form is judged by. */
const FitsEntry = (): PropertyDecorator => {
  const fault = (args?: ValidationArguments): string | undefined => {
    const { type, body } = (args?.object ?? {}) as Partial<EventMessage>;
    if (typeof type !== 'string' || !hasForm(type)) return undefined;
    const [first] = faultsOf(ENTRIES[type], body);
    return first ? `/body${first.path}: ${first.reason}` : undefined;
  };
  return ValidateBy({
    name: 'fitsEntry',
    validator: { validate: (_value, args) => fault(args) === undefined, defaultMessage: (args) => fault(args) ?? '' },
  });
};

/** What the class of the settings' form says of the name. */
const FitsSigned = (): PropertyDecorator =>
  ValidateBy({
    name: 'fitsSigned',
    validator: {
      validate: (value) => faultOfSigned(value) === undefined,
      defaultMessage: (args) => `/by: ${faultOfSigned(args?.value) ?? ''}`,
    },
  });

/** A new event for a work order. */
export class EventMessage {
  @IsUUID(undefined, { message: '/id: must be a UUID' })
  @Type(() => String)
  // RFC 9562: written in small letters, read in any.
  @Transform(({ value }: { value: unknown }) => (typeof value === 'string' ? value.toLowerCase() : value))
  id!: string;

  @IsISO8601({ strict: true, strictSeparator: true }, { message: '/at: must be a date and time, ISO 8601' })
  @Type(() => String)
  at!: string;

  @FitsSigned()
  by!: string;

  @IsString({ message: '/type: must be text' })
  type!: OrderEvent['type'];

  @IsObject({ message: '/body: must be an object' })
  @FitsEntry()
  @FitsSchema((message) => parseEvent({ ...message }))
  body!: OrderEvent['body'];
}

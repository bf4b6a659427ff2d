import { FormatError } from '@zealous/core/formats';
import { registerDecorator, type ValidationArguments } from 'class-validator';

/**
 * What a published schema says, as one rule of a contract, so that file and message are never judged by two.
 *
 * @param read throws FormatError with the path of the fault
 * @param at path of the field within the message, put before that of the fault
 */
export function FitsSchema(read: (message: object) => unknown, at = ''): PropertyDecorator {
  const fault = (args?: ValidationArguments): string | undefined => {
    try {
      read(args?.object ?? {});
      return undefined;
    } catch (error) {
      if (error instanceof FormatError) return `${at}${error.path}: ${error.reason}`;
      throw error;
    }
  };
  return (target, propertyName) =>
    registerDecorator({
      name: 'fitsSchema',
      target: target.constructor,
      propertyName: String(propertyName),
      validator: { validate: (_value, args) => fault(args) === undefined, defaultMessage: (args) => fault(args) ?? '' },
    });
}

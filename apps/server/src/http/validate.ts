import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validate } from 'class-validator';
import { Problem } from './problem';

/** Checks a request against its contract class. @throws Problem 422 naming the first field at fault. */
export async function valid<T extends object>(contract: ClassConstructor<T>, value: unknown): Promise<T> {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new Problem(422, 'Not in the expected form', 'An object is expected.', '');
  const instance = plainToInstance(contract, value, { enableImplicitConversion: false });
  const errors = await validate(instance, { whitelist: true, forbidNonWhitelisted: true, stopAtFirstError: true });
  const first = errors[0];
  if (!first) return instance;
  if (first.constraints?.['whitelistValidation'])
    throw new Problem(
      422,
      'Not in the expected form',
      'unknown field; remove it or correct its name',
      `/${first.property}`,
    );
  const text = Object.values(first.constraints ?? {})[0] ?? `/${first.property}: not in the expected form`;
  const at = text.indexOf(': ');
  throw new Problem(422, 'Not in the expected form', text.slice(at + 2), text.slice(0, at));
}

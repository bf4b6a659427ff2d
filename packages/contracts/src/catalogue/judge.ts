import { plainToInstance, type ClassConstructor } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';

/** What does not fit, and where: a JSON pointer from the value that was judged. */
export interface Fault {
  readonly path: string;
  readonly reason: string;
}

/** A message may begin with a pointer of its own, below its field: "/a/b: must be …". */
function said(at: string, message: string): Fault {
  const [, below = '', reason = message] = /^(\/[^\s:]*): (.*)$/s.exec(message) ?? [];
  return { path: `${at}${below}`, reason };
}

function faultsIn(errors: readonly ValidationError[], at: string): readonly Fault[] {
  return errors.flatMap((error) => {
    const path = `${at}/${error.property}`;
    if (error.children?.length) return faultsIn(error.children, path);
    if (error.constraints?.['whitelistValidation'])
      return [{ path, reason: 'unknown field; remove it or correct its name' }];
    if (error.value === undefined) return [{ path, reason: 'this field is missing' }];
    const message = Object.values(error.constraints ?? {})[0] ?? 'does not fit the format';
    return [said(path, message)];
  });
}

/**
 * Judges a plain value by a contract class, nested parts included.
 *
 * @param partial fields that are absent are not missed, for a change that holds only what differs
 */
export function faultsOf(contract: ClassConstructor<object>, value: unknown, partial = false): readonly Fault[] {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return [{ path: '', reason: 'must be an object with fields' }];
  const instance = plainToInstance(contract, value, { enableImplicitConversion: false });
  const errors = validateSync(instance, {
    whitelist: true,
    forbidNonWhitelisted: true,
    stopAtFirstError: true,
    skipUndefinedProperties: partial,
  });
  return faultsIn(errors, '');
}

import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { ENTRIES, type EntryForm } from '@zealous/contracts/entries';
import type { FieldErrors, FieldValues, ResolverOptions, ResolverResult } from 'react-hook-form';

export const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;

interface Node {
  readonly message?: unknown;
  readonly [below: string]: unknown;
}

/** Messages of the contract are for paths; at a field they are sentences. What a field keeps of itself is left as it is. */
const spoken = (node: Node): Node =>
  typeof node.message === 'string'
    ? { ...node, message: sentence(node.message) }
    : Object.fromEntries(
        Object.entries(node).map(([key, below]) => [
          key,
          typeof below === 'object' && below !== null && key !== 'ref' ? spoken(below as Node) : below,
        ]),
      );

/** Judges the body of an entry by the class that the server judges it by. */
export async function judgeEntry<T extends FieldValues>(
  type: EntryForm,
  body: object,
  options: ResolverOptions<T>,
): Promise<ResolverResult<T>> {
  const judge = classValidatorResolver(
    ENTRIES[type] as never,
    { validator: { whitelist: true, forbidNonWhitelisted: true, stopAtFirstError: true } },
    { mode: 'sync' },
  );
  const result = (await judge(body as never, undefined, options as never)) as ResolverResult<T>;
  return Object.keys(result.errors).length > 0
    ? { values: {}, errors: spoken(result.errors as Node) as FieldErrors<T> }
    : { values: body as T, errors: {} };
}

import { NOT_SURE } from '../bench/places';
import { answersOf } from '../catalogue/index';
import type { Catalogue, Check } from '../catalogue/types';
import type { Finding } from '../observation/context';

export interface Found {
  readonly words: string;
  readonly value?: number;
  readonly unit?: string;
}

/** What a check told, in the catalogue's words without what they ask of the hand, and the number that came with it. */
export function foundIn(
  check: Check | undefined,
  { onsets }: Pick<Catalogue, 'onsets'>,
  { result, also = [], value }: Pick<Finding, 'result' | 'also' | 'value'>,
): Found {
  const answers = check?.asks ? onsets : check ? answersOf(check) : [];
  const word = (id: string): string => answers.find((answer) => answer.id === id)?.label ?? id;
  const label = result === NOT_SURE ? 'Not sure' : [result, ...also].map(word).join('; ');
  const measured = check?.results.find(({ id }) => id === result)?.measured;
  return {
    words: label.replace(/: (enter the depth|note the angle)$/, ''),
    ...(value === undefined ? {} : { value, unit: check?.quantity?.unit ?? measured ?? 'mm' }),
  };
}

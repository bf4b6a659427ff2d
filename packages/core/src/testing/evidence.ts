import { byItself, type Evidence } from '../inference/evidence';

/** For tests only: an answer by itself, by cause as one number each, that nothing else tells anything of. */
export const plainEvidence = (
  id: string,
  given: readonly number[],
  rest: Pick<Evidence, 'sound' | 'flat'> & Partial<Evidence>,
): Evidence => ({
  ...byItself(id),
  given,
  likelihood: given,
  eye: false,
  elsewhere: rest.sound,
  aside: rest.sound,
  ...rest,
});

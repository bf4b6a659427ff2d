import { useEffect, useState } from 'react';

/** While figures are typed only the last ones are worked out. */
const QUIET_MS = 250;

/**
 * What the worker makes of some figures: the last answer stays while the next one is worked out, and why there is none is said.
 *
 * @param figures compared by content
 */
export function useWorkedOut<F, T>(
  figures: F,
  work: (figures: F) => Promise<T>,
): { readonly found: T | undefined; readonly problem: string } {
  const [found, setFound] = useState<T | undefined>(undefined);
  const [problem, setProblem] = useState('');
  const key = JSON.stringify(figures);
  useEffect(() => {
    let stale = false;
    const timer = setTimeout(() => {
      work(figures).then(
        (answer) => {
          if (stale) return;
          setFound(() => answer);
          setProblem('');
        },
        (error: unknown) => {
          if (!stale) setProblem((error as Error).message);
        },
      );
    }, QUIET_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
    // The figures are compared by what they say.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return { found, problem };
}

import { useLayoutEffect, useRef, useState } from 'react';

const still = (): boolean => globalThis.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;
const FRAME_MS = 16;

/**
 * Numbers that move to their new values in a moment, to show what moved; at once with reduced motion. What is drawn first has moved
 * already: on a slow phone another frame would be long in coming.
 */
export function useTween(target: readonly number[], durationMs = 500): readonly number[] {
  const [shown, setShown] = useState(target);
  const from = useRef(target);
  const key = target.map((x) => x.toFixed(4)).join();
  useLayoutEffect(() => {
    const start = from.current;
    if (start.length !== target.length) {
      from.current = target;
      setShown(target);
      return undefined;
    }
    // Nothing has moved: nothing is drawn for half a second of frames.
    if (start.every((x, i) => x === target[i])) return undefined;
    const began = performance.now() - FRAME_MS;
    let frame = 0;
    const step = (now: number): void => {
      const t = still() ? 1 : Math.min(1, Math.max(0, (now - began) / durationMs));
      const ease = 1 - (1 - t) ** 3;
      const next = target.map((x, i) => (start[i] ?? x) + (x - (start[i] ?? x)) * ease);
      from.current = next;
      setShown(next);
      if (t < 1) frame = requestAnimationFrame(step);
    };
    step(performance.now());
    return () => cancelAnimationFrame(frame);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` is the target's content
  }, [key, durationMs]);
  return shown.length === target.length ? shown : target;
}

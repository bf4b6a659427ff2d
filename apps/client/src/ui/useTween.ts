import { useEffect, useState } from 'react';

const still = (): boolean => globalThis.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;
const FRAME_MS = 16;

const between = (from: readonly number[], to: readonly number[], t: number): readonly number[] => {
  const ease = 1 - (1 - Math.min(1, Math.max(0, t))) ** 3;
  return to.map((x, i) => (from[i] ?? x) + (x - (from[i] ?? x)) * ease);
};

/**
 * Numbers that move to their new values in a moment, to show what moved; at once with reduced motion. What is drawn first has moved
 * already, in the same drawing that brings the new values: on a slow phone another one would be long in coming.
 */
export function useTween(target: readonly number[], durationMs = 500): readonly number[] {
  const key = target.map((x) => x.toFixed(4)).join();
  const [drawn, setDrawn] = useState({ key, from: target, shown: target });
  const news = drawn.key !== key;
  // What stands there now; while it moves, the same until it has arrived.
  const from = news ? drawn.shown : drawn.from;
  const moves = from.length === target.length && from.some((x, i) => x !== target[i]) && !still();
  if (news && !moves) setDrawn({ key, from: target, shown: target });
  useEffect(() => {
    if (!moves) return undefined;
    const began = performance.now() - FRAME_MS;
    let frame = 0;
    const step = (at: number): void => {
      const t = (at - began) / durationMs;
      setDrawn({ key, from, shown: t < 1 ? between(from, target, t) : target });
      if (t < 1) frame = requestAnimationFrame(step);
    };
    frame = requestAnimationFrame(step);
    return () => cancelAnimationFrame(frame);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `key` is the content of the target; what it moves from is taken as it comes
  }, [key, durationMs]);
  if (!news) return drawn.shown;
  return moves ? between(from, target, FRAME_MS / durationMs) : target;
}

import type { Page } from '@playwright/test';

export interface Taps {
  /** Taps beside those on the steps of the work plan. */
  readonly taps: number;
  /** Taps on the steps of the work plan: done, in and out, what came of it. */
  readonly steps: number;
  readonly characters: number;
}

declare global {
  interface Window {
    countTap: (kind: 'tap' | 'step' | 'characters', n: number) => Promise<void>;
  }
}

/** Counts what a person does on the page from now on, over reloads too. */
export async function countTaps(page: Page): Promise<() => Taps> {
  const sum = { tap: 0, step: 0, characters: 0 };
  await page.exposeFunction('countTap', (kind: keyof typeof sum, n: number) => {
    sum[kind] += n;
  });
  await page.addInitScript(() => {
    const lengths = new WeakMap<EventTarget, number>();
    document.addEventListener(
      'click',
      ({ target }) => {
        const step = target instanceof Element && target.closest('[role="group"][aria-label^="Step"]');
        void window.countTap(step ? 'step' : 'tap', 1);
      },
      true,
    );
    document.addEventListener(
      'input',
      ({ target }) => {
        if (!(target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)) return;
        const was = lengths.get(target) ?? target.defaultValue.length;
        lengths.set(target, target.value.length);
        void window.countTap('characters', Math.max(1, Math.abs(target.value.length - was)));
      },
      true,
    );
  });
  return () => ({ taps: sum.tap, steps: sum.step, characters: sum.characters });
}

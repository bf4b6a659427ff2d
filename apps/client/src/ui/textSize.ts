import { createContext, useContext, useEffect, useState } from 'react';

export type TextChoice = 'device' | 'larger' | 'largest';

const FACTORS: Readonly<Record<TextChoice, number>> = { device: 1, larger: 1.25, largest: 1.5 };
/** What a browser's text is high when nobody has changed it, px. */
const USUAL_PX = 16;
/** Beyond this a word no longer fits beside another on a phone. */
const MOST = 2;

const rootPx = (): number => {
  const { document } = globalThis;
  return document ? parseFloat(globalThis.getComputedStyle(document.documentElement).fontSize) || USUAL_PX : USUAL_PX;
};

/** How many times as high as usual the text is that the device's own settings ask for; follows them while the page stands. */
function useDeviceScale(): number {
  const [px, setPx] = useState(rootPx);
  useEffect(() => {
    const { document, ResizeObserver } = globalThis;
    if (!document || !ResizeObserver) return undefined;
    // As high as the device's text: its size changes when that does.
    const probe = document.createElement('div');
    probe.setAttribute('aria-hidden', 'true');
    probe.style.cssText = 'position:fixed;top:0;visibility:hidden;width:1rem;height:1rem';
    document.body.append(probe);
    const observer = new ResizeObserver(() => setPx(rootPx()));
    observer.observe(probe);
    return () => {
      observer.disconnect();
      probe.remove();
    };
  }, []);
  return px / USUAL_PX;
}

export const useScaleOf = (choice: TextChoice): number =>
  Math.min(MOST, Math.max(1, useDeviceScale()) * FACTORS[choice]);

/**
 * A face for a word that stands beside others in a bar with no room to grow: as high as asked for, up to a limit.
 *
 * @param px designed height, `most` greatest, px
 */
export function useBarText(px: number, most: number): { readonly fontSize: number; readonly lineHeight: number } {
  const fontSize = Math.min(most, px * useTextScale());
  return { fontSize, lineHeight: Math.round(fontSize * 1.38) };
}

export const TextScale = createContext(1);

/** How many times as high as designed text is drawn; for what is not one of the theme's faces. */
export const useTextScale = (): number => useContext(TextScale);

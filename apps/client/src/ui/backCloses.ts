import { useEffect, useRef } from 'react';
import { Platform } from 'react-native';

/** Milliseconds in which a sheet that led to another page has gone there. */
const GONE_MS = 150;
let leaving: ReturnType<typeof setTimeout> | undefined;
/** The step back is our own, over a sheet that is closed already. */
let own = false;
const open: { readonly close: () => void }[] = [];
const marked = (): boolean => (window.history.state as { readonly sheet?: boolean } | null)?.sheet === true;

/** Steps to other pages that came while our own step back was under way. */
let held: (() => void)[] = [];

/**
 * A step back ends some time after it was asked for, and takes away what was put into the history meanwhile: the page that was
 * tapped just after a sheet closed would be gone again. Such steps are held until the step back has ended.
 */
function holdSteps({ history }: Window): void {
  for (const name of ['pushState', 'replaceState'] as const) {
    const step = history[name].bind(history);
    history[name] = (...to) => {
      if (own) held.push(() => step(...to));
      else step(...to);
    };
  }
}

function onStepBack(event: PopStateEvent): void {
  const top = open.at(-1);
  if (!own && !top) return;
  event.stopImmediatePropagation();
  if (!own) return top?.close();
  own = false;
  const steps = held;
  held = [];
  for (const step of steps) step();
}

/**
 * To be imported before the router: who listens first is told first, and the router must not hear of a step that only closes a
 * sheet, since it would go back to the page that stood there.
 */
if (Platform.OS === 'web' && typeof window !== 'undefined') {
  holdSteps(window);
  window.addEventListener('popstate', onStepBack);
}

/**
 * The browser's Back closes what is open and stays on the page. A step of its own is put into the history, with what the router
 * keeps there; closed otherwise, the step goes too, unless the sheet led to another page.
 */
export function useBackCloses(shown: boolean, onClose: () => void): void {
  const close = useRef(onClose);
  useEffect(() => {
    close.current = onClose;
  });
  useEffect(() => {
    if (!shown || Platform.OS !== 'web') return undefined;
    const { history } = window;
    clearTimeout(leaving);
    if (!marked()) history.pushState({ ...(history.state as object | null), sheet: true }, '', window.location.href);
    const here = window.location.href;
    const mine = { close: () => close.current() };
    open.push(mine);
    return () => {
      open.splice(open.indexOf(mine), 1);
      leaving = setTimeout(() => {
        if (!marked() || window.location.href !== here) return;
        own = true;
        history.back();
      }, GONE_MS);
    };
  }, [shown]);
}

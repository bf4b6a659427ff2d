import { useEffect } from 'react';

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.tagName === 'INPUT' || target.tagName === 'TEXTAREA' || target.isContentEditable);

/** Whether a key is meant for the page: nothing is being typed, no sheet is open, and it is no command of the browser. */
const isForPage = (event: KeyboardEvent): boolean =>
  !typing(event.target) &&
  !event.ctrlKey &&
  !event.metaKey &&
  !event.altKey &&
  document.querySelector('[role="dialog"]') === null;

/**
 * Does something at a key of the keyboard, for as long as what uses it is shown.
 *
 * @param act gets the key in small letters and says whether it took it; must stay the same between renders
 */
export function useKey(act: (key: string) => boolean): void {
  useEffect(() => {
    if (typeof document === 'undefined') return undefined;
    const onKey = (event: KeyboardEvent): void => {
      // Taken here, it is not typed into the field that it leads to.
      if (isForPage(event) && act(event.key.toLowerCase())) event.preventDefault();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [act]);
}

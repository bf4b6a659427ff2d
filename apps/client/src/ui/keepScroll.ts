import { useLayoutEffect, useRef, type RefObject } from 'react';
import type { NativeScrollEvent, NativeSyntheticEvent, ScrollView } from 'react-native';

/** How far down each list was left, by its address; kept as long as the page lives. */
const left = new Map<string, number>();

/** Begins a list at its top the next time. */
export const fromTheTop = (path: string): void => void left.delete(path);

/**
 * Comes back to where a list was left: as soon as what it lists stands there again, unless somebody scrolls meanwhile.
 *
 * @param path address of the list; undefined where nothing is kept
 */
export function useKeptScroll(scroll: RefObject<ScrollView | null>, path: string | undefined) {
  const wanted = useRef(path === undefined ? 0 : (left.get(path) ?? 0));
  const here = useRef(false);
  // As the list is left: who taps while it still rolls leaves before the last of its scrolling was told, and what is told afterwards is of
  // a page that was taken down. This comes before that.
  useLayoutEffect(() => {
    const page = scroll.current?.getScrollableNode?.() as HTMLElement | undefined;
    here.current = true;
    return () => {
      here.current = false;
      if (path !== undefined && page && wanted.current === 0) left.set(path, page.scrollTop);
    };
  }, [scroll, path]);
  return {
    scrollEventThrottle: 100,
    onScroll: ({ nativeEvent: { contentOffset } }: NativeSyntheticEvent<NativeScrollEvent>): void => {
      if (path !== undefined && here.current && wanted.current === 0) left.set(path, contentOffset.y);
    },
    onContentSizeChange: (_width: number, height: number): void => {
      const y = wanted.current;
      if (y === 0 || height < y) return;
      wanted.current = 0;
      scroll.current?.scrollTo({ y, animated: false });
    },
    onTouchStart: (): void => void (wanted.current = 0),
  };
}

import { useVirtualizer } from '@tanstack/react-virtual';
import { createContext, Fragment, useContext, useEffect, useRef, useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';

/** What scrolls the page that something stands on; undefined before it is there, and where nothing scrolls. */
export const Scroller = createContext<() => HTMLElement | undefined>(() => undefined);

export interface RowsProps<Row> {
  readonly rows: readonly Row[];
  readonly keyOf: (row: Row) => string;
  /** How high a row is, about, and what lies between two, in px. */
  readonly high: number;
  readonly gap?: number;
  readonly render: (row: Row, index: number) => ReactNode;
}

/** Up to so many rows stand there whole. */
const LONG = 40;
/** Rows kept ready above and below what is seen, so that the keys find the next one. */
const READY = 8;

/** Rows one below the other; of a long list only those stand in the page that are seen, and some around them. */
export function Rows<Row>(props: RowsProps<Row>) {
  const { rows, keyOf, render } = props;
  if (rows.length > LONG) return <LongRows {...props} />;
  return rows.map((row, i) => <Fragment key={keyOf(row)}>{render(row, i)}</Fragment>);
}

function LongRows<Row>({ rows, keyOf, high, gap = 0, render }: RowsProps<Row>) {
  const scroller = useContext(Scroller);
  const list = useRef<View>(null);
  const [measuredAbove, setAbove] = useState<number | undefined>(undefined);
  const above = measuredAbove ?? 0;
  // What stands above the list on the page, as it is now: anything may have changed it, and the same number draws nothing anew. After
  // the page is there, since before that nothing is known of what scrolls.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  useEffect(() => {
    const page = scroller();
    const box = (list.current as unknown as HTMLElement | null)?.getBoundingClientRect?.();
    if (page && box) setAbove(Math.round(box.top - page.getBoundingClientRect().top + page.scrollTop));
  });
  // What it returns is read at once and handed to nothing that is memoised.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer<HTMLElement, HTMLElement>({
    count: rows.length,
    getScrollElement: () => scroller() ?? null,
    estimateSize: () => high,
    getItemKey: (i) => keyOf(rows[i] as Row),
    scrollMargin: above,
    overscan: READY,
    gap,
    // What scrolls has a `scrollTo` of its own, with other arguments than that of the browser.
    scrollToFn: (offset, { adjustments = 0 }) => {
      const page = scroller();
      if (page) page.scrollTop = offset + adjustments;
    },
  });
  const measured = (view: View | null, index: number): void => {
    const element = view as unknown as HTMLElement | null;
    element?.setAttribute('data-index', String(index));
    virtual.measureElement(element);
  };
  return (
    <View ref={list} style={{ height: virtual.getTotalSize() }}>
      {virtual.getVirtualItems().map(({ key, index, start }) => (
        <View
          key={key}
          ref={(view) => measured(view, index)}
          style={[styles.row, { transform: [{ translateY: start - above }] }]}
        >
          {render(rows[index] as Row, index)}
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ row: { position: 'absolute', top: 0, left: 0, right: 0 } });

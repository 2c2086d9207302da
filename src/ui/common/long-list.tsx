"use client";
/** Lists of rows in one scrolled box. Short ones stand there whole; of long ones only the rows in view do. */
import { useVirtualizer } from "@tanstack/react-virtual";
import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useLayoutEffect,
  useRef,
  useState,
} from "react";

/** Null until it stands in the page: the lists in it come first. */
const ScrollBox = createContext<HTMLDivElement | null>(null);

/** The box in which the lists are scrolled together. */
export function ScrolledBox({
  className,
  children,
}: {
  readonly className: string;
  readonly children: ReactNode;
}) {
  const [box, setBox] = useState<HTMLDivElement | null>(null);
  return (
    <ScrollBox value={box}>
      <div ref={setBox} className={className}>
        {children}
      </div>
    </ScrollBox>
  );
}

/** Rows up to this number are drawn whole. */
const SHORT = 80;
const ROW = 28;

type LongListProps<T> = {
  readonly items: readonly T[];
  readonly keyOf: (item: T) => string;
  /** A row, without its `li`. */
  readonly children: (item: T) => ReactNode;
};

export function LongList<T>(props: LongListProps<T>) {
  const { items, keyOf, children } = props;
  if (items.length > SHORT) return <WindowedList {...props} />;
  return (
    <ul>
      {items.map((item) => (
        <li key={keyOf(item)}>{children(item)}</li>
      ))}
    </ul>
  );
}

function WindowedList<T>({ items, keyOf, children }: LongListProps<T>) {
  const box = useContext(ScrollBox);
  const list = useRef<HTMLUListElement>(null);
  // How far down the box the list begins; what stands above it may grow.
  const [margin, setMargin] = useState(0);
  useLayoutEffect(() => {
    const own = list.current;
    if (!box || !own) return;
    const next = own.getBoundingClientRect().top - box.getBoundingClientRect().top + box.scrollTop;
    if (Math.abs(next - margin) > 0.5) setMargin(next);
  });
  // The same function as long as the items are the same: every place is worked out anew for another one.
  const named = useRef(keyOf);
  named.current = keyOf;
  const getItemKey = useCallback(
    (index: number) => {
      const item = items[index];
      return item === undefined ? index : named.current(item);
    },
    [items],
  );
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => box,
    estimateSize: () => ROW,
    getItemKey,
    overscan: 12,
    scrollMargin: margin,
  });
  return (
    <ul ref={list} className="relative" style={{ height: virtual.getTotalSize() }}>
      {virtual.getVirtualItems().map((row) => {
        const item = items[row.index];
        return item === undefined ? null : (
          <li
            key={row.key}
            ref={virtual.measureElement}
            data-index={row.index}
            aria-setsize={items.length}
            aria-posinset={row.index + 1}
            className="absolute inset-x-0 top-0"
            style={{ transform: `translateY(${row.start - margin}px)` }}
          >
            {children(item)}
          </li>
        );
      })}
    </ul>
  );
}

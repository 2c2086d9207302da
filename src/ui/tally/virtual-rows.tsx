"use client";
/** Rows of a long list, of which only those in view are in the page. */
import { useVirtualizer, type Virtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, type ReactNode, type RefObject, useCallback, useRef } from "react";

const ROW = 28;

type RowsInView = {
  readonly box: RefObject<HTMLDivElement | null>;
  readonly virtual: Virtualizer<HTMLDivElement, Element>;
  /** Scrolls no farther than needed to the first of these rows; not at all where one of them is in view. */
  readonly bringIntoView: (indexes: readonly number[]) => void;
};

export function useRowsInView(count: number): RowsInView {
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const bringIntoView = useCallback((indexes: readonly number[]) => {
    const [first] = indexes;
    if (!box.current || first === undefined) return;
    // As the box stands in the page now: the virtualizer hears of another height later.
    const { scrollTop, clientHeight } = box.current;
    const least = (index: number) => (index + 1) * ROW - clientHeight;
    const most = (index: number) => index * ROW;
    if (indexes.some((index) => scrollTop >= least(index) && scrollTop <= most(index))) return;
    box.current.scrollTop = scrollTop > most(first) ? most(first) : least(first);
  }, []);
  return { box, virtual, bringIntoView };
}

type VirtualRowsProps = {
  readonly rows: RowsInView;
  readonly label: string;
  readonly onKeyDown?: (event: KeyboardEvent) => void;
  readonly children: (index: number) => ReactNode;
};

export function VirtualRows({ rows, label, onKeyDown, children }: VirtualRowsProps) {
  const { box, virtual } = rows;
  return (
    <div
      ref={box}
      role="rowgroup"
      tabIndex={0}
      aria-label={label}
      onKeyDown={onKeyDown}
      className="min-h-0 flex-1 overflow-y-auto overflow-x-hidden"
    >
      <div role="presentation" className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => (
          <div
            key={item.key}
            role="presentation"
            className="absolute inset-x-0 top-0"
            style={{ height: item.size, transform: `translateY(${item.start}px)` }}
          >
            {children(item.index)}
          </div>
        ))}
      </div>
    </div>
  );
}

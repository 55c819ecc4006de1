import { useVirtualizer } from "@tanstack/react-virtual";
import { type ReactNode, useEffect, useRef } from "react";

interface Props<T> {
  items: T[];
  keyOf(item: T): string;
  row(item: T, index: number): ReactNode;
  /** The row to be brought into sight; below 0: none. */
  inSight?: number;
}

/** A long list of which only the rows in sight are there. */
export function Rows<T>({ items, keyOf, row, inSight = -1 }: Props<T>) {
  const list = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => list.current,
    estimateSize: () => 44,
    getItemKey: (i) => keyOf(items[i] as T),
    overscan: 8,
  });
  useEffect(() => {
    if (inSight < 0) return;
    // Once the list is painted: to scroll sooner would lay it out twice.
    const timer = setTimeout(() => {
      const seen = virtual.getVirtualItems().find((v) => v.index === inSight);
      const [top, height] = [virtual.scrollOffset ?? 0, virtual.scrollRect?.height ?? 0];
      if (!(seen && seen.start >= top && seen.end <= top + height)) virtual.scrollToIndex(inSight);
    }, 50);
    return () => clearTimeout(timer);
  }, [inSight, virtual]);
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls is scrolled by keys too
    <div ref={list} tabIndex={0} className="min-h-0 grow overflow-y-auto pb-2">
      <ol style={{ height: virtual.getTotalSize() }} className="relative">
        {virtual.getVirtualItems().map(({ key, index, start }) => (
          <li
            key={key}
            ref={virtual.measureElement}
            data-index={index}
            className="absolute inset-x-0 top-0"
            style={{ transform: `translateY(${start}px)` }}
          >
            {row(items[index] as T, index)}
          </li>
        ))}
      </ol>
    </div>
  );
}

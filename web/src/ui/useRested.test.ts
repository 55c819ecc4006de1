// @vitest-environment jsdom
import { act, createElement } from "react";
import { createRoot } from "react-dom/client";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useRested } from "./useRested";

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

function View({ value, seen }: { value: number; seen: number[] }) {
  const shown = useRested(value, 250);
  if (seen.at(-1) !== shown) seen.push(shown);
  return null;
}

describe("a value once it rests", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("stays as it was while a hand moves, and comes a moment after the last", () => {
    const seen: number[] = [];
    const root = createRoot(document.createElement("div"));
    const show = (value: number) => act(() => root.render(createElement(View, { value, seen })));
    for (let n = 0; n <= 20; n++) {
      show(n);
      act(() => void vi.advanceTimersByTime(100));
    }
    expect(seen).toEqual([0]);
    act(() => void vi.advanceTimersByTime(200));
    expect(seen).toEqual([0, 20]);
    act(() => root.unmount());
  });
});

// @vitest-environment jsdom
import { act, createElement } from "react";
import { createRoot } from "react-dom/client";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useFollowing } from "./useFollowing";

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

function View({ value, seen }: { value: number; seen: number[] }) {
  const shown = useFollowing(value);
  if (seen.at(-1) !== shown) seen.push(shown);
  return null;
}

describe("a value that follows", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it("comes a moment later, once for all that changed, and is never put off by what comes next", () => {
    const seen: number[] = [];
    const root = createRoot(document.createElement("div"));
    const show = (value: number) => act(() => root.render(createElement(View, { value, seen })));
    show(0);
    // A drag: a new value every 16 ms for a fifth of a second.
    for (let n = 1; n <= 12; n++) {
      show(n);
      act(() => void vi.advanceTimersByTime(16));
    }
    expect(seen.length).toBeGreaterThan(3);
    expect(seen.length).toBeLessThan(9);
    act(() => void vi.advanceTimersByTime(100));
    expect(seen.at(-1)).toBe(12);
    act(() => root.unmount());
  });
});

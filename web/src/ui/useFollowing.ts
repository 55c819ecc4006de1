import { useEffect, useRef, useState } from "react";

const LATER_MS = 40;

/**
 * A value that follows a moment later, for a view that may come after the one under the hand. What changes within that moment
 * comes together; unlike a deferred value it is never put off by the next one.
 */
export function useFollowing<T>(value: T): T {
  const [shown, setShown] = useState(value);
  const latest = useRef(value);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  latest.current = value;
  useEffect(() => {
    if (shown === value || timer.current !== undefined) return;
    timer.current = setTimeout(() => {
      timer.current = undefined;
      setShown(latest.current);
    }, LATER_MS);
  }, [value, shown]);
  useEffect(
    () => () => {
      clearTimeout(timer.current);
      timer.current = undefined;
    },
    [],
  );
  return shown;
}

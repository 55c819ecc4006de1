import { useEffect, useState } from "react";

const RESTS_MS = 250;

/** A value once it has stood still for a moment: for what is dear to place and may lag behind a hand that moves. */
export function useRested<T>(value: T, restsMs = RESTS_MS): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    if (rested === value) return;
    const timer = setTimeout(() => setRested(() => value), restsMs);
    return () => clearTimeout(timer);
  }, [value, rested, restsMs]);
  return rested;
}

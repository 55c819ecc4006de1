import { useEffect, useEffectEvent, useState } from "react";

interface Played {
  at: number;
  end: number;
  step: number;
  /** From one to the next, ms. */
  everyMs: number;
  /** Where it rests when nobody has chosen: played from there, it begins at the start. */
  home?: number;
  /** What is shown is still being worked out: it is waited for. */
  waits?: boolean;
  onAt(at: number): void;
}

/** Steps that follow each other by themselves, from the start where they had come to the end, until the end or a press. */
export function usePlay({ at, end, step, everyMs, home = end, waits = false, onAt }: Played) {
  const [playing, setPlaying] = useState(false);
  const goOn = useEffectEvent(() => onAt(Math.min(end, at + step)));
  useEffect(() => {
    if (!playing || waits) return;
    if (at >= end) return setPlaying(false);
    const timer = setTimeout(goOn, everyMs);
    return () => clearTimeout(timer);
  }, [playing, waits, at, end, everyMs]);
  return {
    playing,
    stop: () => setPlaying(false),
    toggle: () => {
      if (!playing && (at >= end || at === home)) onAt(0);
      setPlaying(!playing);
    },
  };
}

import { useEffect, useRef } from "react";

/** After what was open has gone: the focus goes back to where it was; where that is gone too, or was nothing, to the drawing. */
export function useReturnFocus(open: boolean) {
  const from = useRef<Element | null>(null);
  const was = useRef(false);
  // Read before what opens takes the focus: effects of what is within come first.
  if (open && !was.current) from.current = document.activeElement;
  was.current = open;
  useEffect(() => {
    if (!open) return;
    return () => {
      setTimeout(() => giveBack(from.current));
    };
  }, [open]);
}

function giveBack(to: Element | null) {
  if (document.activeElement && document.activeElement !== document.body) return;
  const there = to?.isConnected && to !== document.body ? to : document.querySelector("[role=application]");
  (there as HTMLElement | SVGElement | null)?.focus({ preventScroll: true });
}

import { type ComponentProps, type ElementType, useEffect, useState } from "react";

/** An answer that comes sooner than this is not seen to have been out of date; to fade and unfade it would only be painted twice. */
const SEEN_MS = 150;

/** Says of what is within whether it answers an earlier document or night, and fades it when the answer keeps a reader waiting. */
export function Stale<T extends ElementType = "div">({
  as,
  stale,
  className = "",
  ...rest
}: { as?: T; stale: boolean } & Omit<ComponentProps<T>, "as">) {
  const [late, setLate] = useState(false);
  useEffect(() => {
    if (!stale) return setLate(false);
    const timer = setTimeout(() => setLate(true), SEEN_MS);
    return () => clearTimeout(timer);
  }, [stale]);
  const Tag: ElementType = as ?? "div";
  return <Tag {...rest} className={stale && late ? `${className} opacity-60` : className} data-stale={stale} />;
}

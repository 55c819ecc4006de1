import { useEffect, useRef } from "react";

/** Where the search lies over the bench. */
export const paletteClass =
  "fixed top-[12vh] left-1/2 z-50 w-[min(94vw,36rem)] -translate-x-1/2 rounded-md border border-strong bg-panel p-2 shadow-xl";

/** The field of the search while the rest of it loads: what is typed right after its key is typed there, not at the drawing. */
export function SearchSoon({ typed, onType, onClose }: { typed: string; onType(text: string): void; onClose(): void }) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  return (
    <div className={paletteClass}>
      <input
        ref={field}
        aria-label="Search"
        value={typed}
        onChange={(e) => onType(e.target.value)}
        onKeyDown={(e) => e.key === "Escape" && onClose()}
        className="h-11 w-full rounded-md border border-rule bg-panel px-3 text-[15px]"
      />
    </div>
  );
}

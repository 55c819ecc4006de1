import { CircleHelp } from "lucide-react";
import type { Schema } from "../../api/client";
import { usePrint } from "../../app/units";
import { useAsked } from "./useAsked";

/** Opens and closes the reason beside a number. */
export function WhyButton({ of, open, onToggle }: { of: string; open: boolean; onToggle(): void }) {
  return (
    <button
      type="button"
      aria-label={`Why: ${of}`}
      aria-expanded={open}
      onClick={onToggle}
      className="grid size-10 shrink-0 place-items-center rounded-md text-muted hover:bg-sunk hover:text-ink"
    >
      <CircleHelp size={17} />
    </button>
  );
}

/** How a number came about: the formula in words and its inputs, estimates marked. It stands under what it explains and covers nothing. */
export function WhyText({ why }: { why: Schema["Why"] | null | undefined }) {
  const print = usePrint();
  return (
    <div data-why className="px-3 pb-3">
      <p className="text-muted">{why?.formula ?? "Calculating…"}</p>
      <dl className="mt-2 grid grid-cols-[1fr_auto] gap-x-3 gap-y-1">
        {why?.inputs.map((i) => (
          <div key={i.name} className="contents">
            <dt>
              {i.name}
              {i.estimate && <span className="ml-1.5 rounded bg-sunk px-1 text-muted">estimate</span>}
            </dt>
            <dd className="text-right font-semibold">{print(i.value.value, i.value.quantity)}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

/** The same for a rung of the ladder, asked for when it is opened: the ladder itself goes without, so that a drag is answered sooner. */
export function RungWhy({ id }: { id: string }) {
  return <WhyText why={useAsked("rungWhy", { id }).data?.why} />;
}

import type { Schema } from "../../api/client";
import { usePrint } from "../../app/units";

const HIGH = 44;
const WIDE = 18;

/** Litres collected against litres expected, by opening, over the years. */
export function Over({ collected }: { collected: Schema["CollectedAt"][] }) {
  const print = usePrint();
  if (collected.length === 0) return null;
  return (
    <section className="mt-3" aria-label="Litres over the years">
      <h2 className="text-[17px] font-semibold">What came out, of what should have</h2>
      <ul className="mt-1 grid grid-cols-1 gap-x-6 min-[1200px]:grid-cols-2">
        {collected.map((c) => {
          const last = c.jugs.at(-1) as Schema["Jugful"];
          const most = Math.max(1, ...c.jugs.map((j) => j.collectedL / j.expectedL));
          return (
            <li key={c.thing} className="flex items-end gap-3 border-b border-rule py-2" data-collected={c.thing} data-clogs={c.clogs}>
              <svg width={c.jugs.length * WIDE} height={HIGH} role="img" aria-label={`${c.name}, over the years`} className="shrink-0">
                {c.jugs.map((j, i) => {
                  const high = (HIGH * j.collectedL) / j.expectedL / most;
                  return (
                    <rect
                      key={j.entryId}
                      x={i * WIDE + 2}
                      y={HIGH - high}
                      width={WIDE - 5}
                      height={high}
                      fill={j.isShort ? "var(--panel)" : "var(--ink)"}
                      stroke="var(--ink)"
                      strokeWidth={1.5}
                    >
                      <title>
                        {new Date(j.at).toLocaleDateString()}: {print(j.collectedL, "volume")} of {print(j.expectedL, "volume")}
                      </title>
                    </rect>
                  );
                })}
                <line
                  x1={0}
                  x2={c.jugs.length * WIDE}
                  y1={HIGH - HIGH / most + 0.75}
                  y2={HIGH - HIGH / most + 0.75}
                  stroke="var(--muted)"
                  strokeDasharray="2 2"
                />
              </svg>
              <span className="min-w-0">
                <strong className="block truncate font-semibold">{c.name}</strong>
                {print(last.collectedL, "volume")} of {print(last.expectedL, "volume")} in {new Date(last.at).getFullYear()}
                {c.clogs && <span className="block font-medium">Less than before: does it clog, or has a line sagged?</span>}
              </span>
            </li>
          );
        })}
      </ul>
      <p className="mt-1 text-muted">The dashed line is what should have come; a hollow bar is short by more than a jug can be misread.</p>
    </section>
  );
}

import { useDrag } from "@use-gesture/react";
import type { KeyboardEvent } from "react";
import type { Schema } from "../../api/client";
import { usePrint } from "../../app/units";

type Attitude = Schema["Attitude"];
const MOST = 6;
const RADIUS = 27;

/** A round spirit level: the bubble goes to the high side, as it does. Drag it, or use the arrow keys; a double press levels. */
export function SpiritLevel({ parked, onChange }: { parked: Attitude; onChange(parked: Attitude): void }) {
  const print = usePrint();
  const clamp = (deg: number) => Math.round(Math.min(MOST, Math.max(-MOST, deg)) * 10) / 10;
  const bind = useDrag(
    ({ xy: [x, y], event, tap }) => {
      if (tap) return;
      const r = (event.target as Element).closest("[role=slider]")?.getBoundingClientRect();
      if (!r) return;
      onChange({
        pitchDeg: clamp(((x - r.left - r.width / 2) / RADIUS) * MOST),
        rollDeg: clamp(((r.top + r.height / 2 - y) / RADIUS) * MOST),
      });
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  const keys = (event: KeyboardEvent) => {
    const step = event.shiftKey ? 0.1 : 0.5;
    const move = { ArrowRight: [step, 0], ArrowLeft: [-step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[event.key];
    if (event.key === "Home") onChange({ pitchDeg: 0, rollDeg: 0 });
    if (!move) return;
    event.preventDefault();
    onChange({
      pitchDeg: clamp(parked.pitchDeg + (move[0] ?? 0)),
      rollDeg: clamp(parked.rollDeg + (move[1] ?? 0)),
    });
  };
  const x = 34 + (parked.pitchDeg / MOST) * RADIUS * 0.75;
  const y = 34 - (parked.rollDeg / MOST) * RADIUS * 0.75;
  const level = parked.pitchDeg === 0 && parked.rollDeg === 0;
  const words = [
    parked.pitchDeg !== 0 && `nose ${print(Math.abs(parked.pitchDeg), "angle")} ${parked.pitchDeg > 0 ? "up" : "down"}`,
    parked.rollDeg !== 0 && `kerb side ${print(Math.abs(parked.rollDeg), "angle")} ${parked.rollDeg > 0 ? "down" : "up"}`,
  ].filter(Boolean);
  return (
    <div className="flex shrink-0 items-center gap-2 py-1 pr-2 pl-3">
      <div className="w-27">
        <p className="text-muted">Parked</p>
        <p className="text-[14px] leading-tight font-semibold">{level ? "level" : words.join(", ")}</p>
      </div>
      <div
        {...bind()}
        role="slider"
        tabIndex={0}
        aria-label="Parking pitch and roll"
        aria-valuenow={parked.pitchDeg}
        aria-valuemin={-MOST}
        aria-valuemax={MOST}
        aria-valuetext={level ? "level" : words.join(", ")}
        onKeyDown={keys}
        onDoubleClick={() => onChange({ pitchDeg: 0, rollDeg: 0 })}
        className="cursor-grab touch-none rounded-full focus-visible:outline-2 focus-visible:outline-ink"
      >
        <svg width={68} height={68} className="block">
          <title>Drag the bubble to park the vehicle on a slope; double press to level it</title>
          <circle cx={34} cy={34} r={31} fill="var(--sunk)" stroke="var(--ink)" strokeWidth={1.5} />
          <circle cx={34} cy={34} r={10.5} fill="none" stroke="var(--strong)" />
          <path d="M34 4v7M34 57v7M4 34h7M57 34h7" stroke="var(--strong)" />
          <circle cx={x} cy={y} r={8.5} fill="var(--panel)" stroke="var(--ink)" strokeWidth={2} />
        </svg>
      </div>
    </div>
  );
}

import { useDrag } from "@use-gesture/react";
import type { Schema } from "../../api/client";
import { usePrint } from "../../app/units";
import { Slider } from "../../ui/controls";

type Attitude = Schema["Attitude"];
/** What the bubble shows; the sliders go as far as a question may. */
const BUBBLE = 6;
const MOST = 15;
const RADIUS = 27;

/** How the vehicle is parked: a slider each for nose and kerb side, and a bubble that goes to the high side. A double press on the bubble levels. */
export function SpiritLevel({ parked, onChange }: { parked: Attitude; onChange(parked: Attitude): void }) {
  const print = usePrint();
  const tenth = (deg: number) => Math.round(Math.min(BUBBLE, Math.max(-BUBBLE, deg)) * 10) / 10;
  const bind = useDrag(
    ({ xy: [x, y], event, tap }) => {
      if (tap) return;
      const r = (event.target as Element).closest("[data-bubble]")?.getBoundingClientRect();
      if (!r) return;
      onChange({
        pitchDeg: tenth(((x - r.left - r.width / 2) / RADIUS) * BUBBLE),
        rollDeg: tenth(((r.top + r.height / 2 - y) / RADIUS) * BUBBLE),
      });
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  const shown = (deg: number) => Math.max(-1, Math.min(1, deg / BUBBLE)) * RADIUS * 0.75;
  const x = 34 + shown(parked.pitchDeg);
  const y = 34 - shown(parked.rollDeg);
  const words = (deg: number, up: string, down: string) =>
    deg === 0 ? "level" : `${print(Math.abs(deg), "angle")} ${deg > 0 ? up : down}`;
  return (
    <div className="flex shrink-0 items-center gap-3 py-1 pr-2 pl-3 max-[1180px]:pl-2">
      <div className="grid w-56 grid-cols-2 gap-x-4 max-[1180px]:w-48 max-[1180px]:gap-x-2">
        <p className="whitespace-nowrap">
          <span className="text-muted">Nose</span> <strong className="font-semibold">{words(parked.pitchDeg, "up", "down")}</strong>
        </p>
        <p className="whitespace-nowrap">
          <span className="text-muted">Kerb side</span> <strong className="font-semibold">{words(parked.rollDeg, "down", "up")}</strong>
        </p>
        <Slider
          label="Parking pitch"
          value={parked.pitchDeg}
          min={-MOST}
          max={MOST}
          step={0.5}
          text={words(parked.pitchDeg, "up", "down")}
          onChange={(pitchDeg) => onChange({ ...parked, pitchDeg })}
        />
        <Slider
          label="Parking roll"
          value={parked.rollDeg}
          min={-MOST}
          max={MOST}
          step={0.5}
          text={words(parked.rollDeg, "kerb side down", "kerb side up")}
          onChange={(rollDeg) => onChange({ ...parked, rollDeg })}
        />
      </div>
      {/* The sliders are the keys' way; the bubble is for the finger. */}
      <div
        {...bind()}
        data-bubble
        aria-hidden="true"
        onDoubleClick={() => onChange({ pitchDeg: 0, rollDeg: 0 })}
        className="cursor-grab touch-none rounded-full max-[1180px]:hidden"
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

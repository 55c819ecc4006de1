import { useMemo, useState } from "react";
import type { Schema } from "../../api/client";
import { useClock } from "../../app/units";
import { plumbingOf, type Rig } from "../../document/geometry";
import type { Frame, View } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { Choice, Panel } from "../../ui/controls";
import { useSize } from "../../ui/useSize";

const HEIGHT = 170;

/** The rig as cold as it is at an hour of the night. */
export function AtHour({ night, rig, hour, stale }: { night: Schema["NightHoursAnswer"]; rig: Rig; hour: number; stale: boolean }) {
  const [box, size] = useSize<HTMLDivElement>();
  const clock = useClock();
  const ladder = useMemo(
    () =>
      ({
        rungs: night.rungs.map(({ rung, c, ice }) => ({
          ...rung,
          morningC: c[hour] ?? rung.morningC,
          morningIce: ice[hour] ?? rung.morningIce,
        })),
        zones: [],
        count: night.count,
        morningS: night.morningS,
        verdict: night.verdict,
      }) satisfies Schema["FreezeLadderAnswer"],
    [night, hour],
  );
  const seen = plumbingOf(rig, 0.1);
  const [view, setView] = useState<View>("side");
  const [at, long] = view === "side" ? [seen.at.zM, seen.size.zM] : [seen.at.yM, seen.size.yM];
  const frame: Frame = {
    width: size.width,
    height: HEIGHT,
    scale: Math.max(20, Math.min((size.width - 20) / seen.size.xM, (HEIGHT - 24) / long)),
    alongM: seen.at.xM + seen.size.xM / 2,
    otherM: at + long / 2,
  };
  return (
    <Panel className="p-3" aria-label="The rig at that hour">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="text-[17px] font-semibold">At {clock(night.startHour, hour * 3600)}</h2>
        <Choice<View>
          label="Seen from"
          value={view}
          onChange={setView}
          options={[
            { value: "side", text: "Kerb" },
            { value: "plan", text: "Above" },
          ]}
        />
      </div>
      <div ref={box} className="mt-1 overflow-hidden rounded-[5px] bg-ground">
        {size.width > 0 && (
          <svg
            width={frame.width}
            height={HEIGHT}
            role="img"
            aria-label={`The rig from ${view === "side" ? "the kerb" : "above"}, coloured by its temperature`}
          >
            <RigDrawing
              rig={rig}
              about={stale ? null : rig}
              answers={{ freezeLadder: ladder }}
              view={view}
              frame={frame}
              lens="cold"
              bare
            />
          </svg>
        )}
      </div>
    </Panel>
  );
}

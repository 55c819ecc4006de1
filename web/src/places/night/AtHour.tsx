import { useMemo, useState } from "react";
import type { Schema } from "../../api/client";
import { useClock } from "../../app/units";
import { ladderAt } from "../../document/answers";
import type { Rig } from "../../document/geometry";
import { toPx, type View, wholeFrame } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { Choice, Panel } from "../../ui/controls";
import { PlayButton } from "../../ui/PlayButton";
import { usePlay } from "../../ui/usePlay";
import { useSize } from "../../ui/useSize";
import { FixGhost } from "../bench/views/FixGhost";

const HEIGHT = 170;
/** A night of fourteen hours passes in five seconds. */
const HOUR_MS = 350;

interface Props {
  night: Schema["NightHoursAnswer"];
  rig: Rig;
  hour: number;
  stale: boolean;
  onHour(hour: number): void;
}

/** The rig as cold as it is at an hour of the night. */
export function AtHour({ night, rig, hour, stale, onHour }: Props) {
  const [box, size] = useSize<HTMLDivElement>();
  const clock = useClock();
  const ladder = useMemo(() => {
    const { rungs, zones, count, morningS, verdict, weather } = night;
    const endS = 3600 * (weather.length - 1);
    const air = zones.map((z) => ({ zoneId: z.zoneId, airC: 0, heaterW: 0 }));
    const hourly = { stepH: 1, steps: weather.length, zones, rungs: rungs.map(({ rung, c, ice }) => ({ id: rung.id, c, ice })) };
    return ladderAt({ rungs: rungs.map((r) => r.rung), zones: air, count, morningS, endS, verdict }, hourly, hour);
  }, [night, hour]);
  const [view, setView] = useState<View>("side");
  const frame = wholeFrame(rig, view, { width: size.width, height: HEIGHT });
  const [end, home] = [night.weather.length - 1, Math.round(night.morningS / 3600)];
  const play = usePlay({ at: hour, end, home, step: 1, everyMs: HOUR_MS, waits: stale, onAt: onHour });
  return (
    <Panel className="p-3" aria-label="Rig at this hour">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h2 className="grow text-[17px] font-semibold">{clock(night.startHour, hour * 3600)}</h2>
        <PlayButton play={play} of="the night" />
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
            <FixGhost px={(p) => toPx(view, frame, p)} />
          </svg>
        )}
      </div>
    </Panel>
  );
}

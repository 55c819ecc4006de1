import type { Schema } from "../../api/client";
import { useClock, usePrint } from "../../app/units";
import { ofNight } from "../../document/answersStore";
import { indexOf, type Rig } from "../../document/geometry";
import { verdictWords } from "../../drawing/temperature";
import { Panel } from "../../ui/controls";
import { Stale } from "../../ui/Stale";
import { useMedia } from "../../ui/useMedia";
import { useAnswers, usePreview } from "../bench/benchStores";
import { RigPlace } from "../bench/RigPlace";
import { hourOf, useView } from "../bench/viewStore";
import { AtHour } from "./AtHour";
import { Calibration } from "./Calibration";
import { ColdSums } from "./ColdSums";
import { Compared } from "./Compared";
import { Guesses } from "./Guesses";
import { HourLadder } from "./HourLadder";
import { Hours } from "./Hours";
import { useHeld } from "./held";
import { Insulation } from "./Insulation";
import { Limit } from "./Limit";
import { NightControls } from "./NightControls";
import { Plans } from "./Plans";
import { PlanTrack } from "./PlanTrack";
import { RestsOn } from "./RestsOn";
import { Season } from "./Season";

/** The night hour by hour: the weather, the rooms, and what freezes when. */
export function NightPlace({ id }: { id: string }) {
  return (
    <RigPlace id={id} place="night" wanted={ofNight}>
      {(rig) => <Night rig={rig} />}
    </RigPlace>
  );
}

function Night({ rig }: { rig: Rig }) {
  const night = useAnswers((s) => s.answers?.night);
  const stale = useAnswers((s) => s.stale);
  const chosen = useView(hourOf(rig.id));
  const lookAt = useView((s) => s.lookAt);
  const held = useHeld((s) => s.held);
  const narrow = useMedia("(max-width: 999px)");
  const looking = usePreview() !== null;
  const under = held?.rigId === rig.id ? held.night : null;
  if (!night) return <p className="p-6 text-muted">Working the night out…</p>;
  const last = night.weather.length - 1;
  // Morning, until an hour is chosen.
  const hour = Math.min(chosen ?? Math.round(night.morningS / 3600), last);
  return (
    <main className="mx-auto grid w-full max-w-[100rem] gap-3 p-3 min-[1000px]:grid-cols-[minmax(0,1fr)_23rem]">
      <Stale stale={stale} className="flex min-w-0 flex-col gap-3">
        <Panel className="p-3" aria-label="The night">
          <Told night={night} rig={rig} />
          <RestsOn rig={rig} />
          <Hours night={night} under={under} rig={rig} hour={hour} onHour={(h) => lookAt(rig.id, h)} />
          <PlanTrack night={night} rig={rig} />
        </Panel>
        <HourLadder night={night} rig={rig} hour={hour} />
        <div className="grid gap-3 min-[1240px]:grid-cols-2">
          <Guesses />
          <Limit />
        </div>
        <Season />
        <Insulation rig={rig} />
        <Compared rig={rig} />
        <Calibration rig={rig} />
      </Stale>
      <div className="flex min-w-0 flex-col gap-3">
        {/* What is tried further down is looked at here; where this is not beside it, over the foot of the screen. */}
        <div
          className={
            narrow && looking
              ? "pointer-events-none fixed inset-x-0 bottom-0 z-20 border-t border-rule bg-ground p-2"
              : "-my-3 bg-ground py-3 min-[1000px]:[@media(min-height:600px)]:sticky top-0 z-10"
          }
        >
          <AtHour night={night} rig={rig} hour={hour} stale={stale} />
        </div>
        <Plans night={night} rig={rig} stale={stale} />
        <NightControls />
        <Stale stale={stale}>
          <ColdSums night={night} rig={rig} />
        </Stale>
      </div>
    </main>
  );
}

/** The verdict, and what goes first, in one sentence each. */
function Told({ night, rig }: { night: Schema["NightHoursAnswer"]; rig: Rig }) {
  const clock = useClock();
  const print = usePrint();
  const first = night.rungs.find((r) => r.rung.state !== "safe");
  const breaks = night.rungs.find((r) => r.rung.breaks);
  const shown = breaks ?? first;
  const at = shown?.rung.atS;
  const where = shown?.rung.zoneId ? rig.shell.zones.find((z) => z.id === shown.rung.zoneId)?.name : "outdoors";
  const since =
    at != null && night.heatStopsS != null && at > night.heatStopsS
      ? `, ${print(at - night.heatStopsS, "duration")} after the heat stops`
      : "";
  const part = shown?.rung.partId ? indexOf(rig).parts.get(shown.rung.partId)?.name : shown?.rung.name;
  return (
    <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1" data-verdict={night.verdict}>
      <h2 className="rounded-[5px] border-2 border-ink px-2 py-0.5 text-[17px] font-semibold">{verdictWords[night.verdict]}</h2>
      <p className="min-w-0 grow">
        {shown && at != null ? (
          <>
            <strong className="text-[17px] font-semibold">
              {part} {breaks ? "breaks" : "has ice"}, about {clock(night.startHour, at)}
            </strong>
            <span className="text-muted">
              {since}
              {where && !part?.includes(where) && ` · ${where}`}
              {shown.latestS == null
                ? ` · ${clock(night.startHour, shown.earliestS ?? at)} at the earliest, or not that night`
                : ` · between ${clock(night.startHour, shown.earliestS ?? at)} and ${clock(night.startHour, shown.latestS)}`}
            </span>
          </>
        ) : (
          <span className="text-muted">
            No ice before {clock(night.startHour, night.morningS)}, with {print(night.outdoors.coldestC, "temperature")} outdoors at the
            coldest.
          </span>
        )}
      </p>
    </div>
  );
}

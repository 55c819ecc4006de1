import { Tabs } from "radix-ui";
import type { Schema } from "../../api/client";
import { useClock, usePrint } from "../../app/units";
import { ofNight } from "../../document/answersStore";
import type { Rig } from "../../document/geometry";
import { Panel } from "../../ui/controls";
import { Stale } from "../../ui/Stale";
import { useMedia } from "../../ui/useMedia";
import { useAnswers, usePreview } from "../bench/benchStores";
import { RigPlace } from "../bench/RigPlace";
import { hourOf, type NightTab, useView } from "../bench/viewStore";
import { AtHour } from "./AtHour";
import { Calibration } from "./Calibration";
import { ColdSums } from "./ColdSums";
import { Compared } from "./Compared";
import { Guesses } from "./Guesses";
import { Hold } from "./Hold";
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
  const tab = useView((s) => s.nightTab);
  const setTab = useView((s) => s.setNightTab);
  const narrow = useMedia("(max-width: 999px)");
  const looking = usePreview() !== null;
  const under = held?.rigId === rig.id ? held.night : null;
  if (!night) return <p className="p-6 text-muted">Calculating the night…</p>;
  const last = night.weather.length - 1;
  // Morning, until an hour is chosen.
  const hour = Math.min(chosen ?? Math.round(night.morningS / 3600), last);
  return (
    <Tabs.Root value={tab} onValueChange={(v) => setTab(v as NightTab)} asChild>
      <main className="mx-auto w-full max-w-[100rem] p-3">
        <Tabs.List className="mb-3 flex gap-1.5" aria-label="Night views">
          {tabs.map(([value, text, title]) => (
            <Tabs.Trigger
              key={value}
              value={value}
              title={title}
              className="h-10 rounded-md border border-rule bg-panel px-4 font-medium text-muted hover:text-ink data-[state=active]:border-ink data-[state=active]:text-ink"
            >
              {text}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        <div className="grid gap-3 min-[1000px]:grid-cols-[minmax(0,1fr)_23rem]">
          <Stale stale={stale} className="min-w-0">
            <Tabs.Content value="tonight" className={column}>
              <Panel className="p-3" aria-label="Tonight">
                <Doubt night={night} rig={rig} />
                <RestsOn rig={rig} />
                <Hours night={night} under={under} rig={rig} hour={hour} onHour={(h) => lookAt(rig.id, h)} />
                <PlanTrack night={night} rig={rig} />
              </Panel>
              <HourLadder night={night} rig={rig} hour={hour} />
              <ColdSums night={night} rig={rig} />
            </Tabs.Content>
            <Tabs.Content value="improve" className={column}>
              <Insulation rig={rig} />
              <Hold />
              <Compared rig={rig} />
            </Tabs.Content>
            <Tabs.Content value="confidence" className={column}>
              <RestsOn rig={rig} />
              <Guesses />
              <Calibration rig={rig} />
            </Tabs.Content>
            <Tabs.Content value="winter" className={column}>
              <Limit />
              <Season />
            </Tabs.Content>
          </Stale>
          <div className="flex min-w-0 flex-col gap-3">
            {/* What is tried is looked at here; where this is not beside it, over the foot of the screen. */}
            {(tab === "tonight" || tab === "improve") && (
              <div
                className={
                  narrow && looking
                    ? "pointer-events-none fixed inset-x-0 bottom-0 z-20 border-t border-rule bg-ground p-2"
                    : "-my-3 bg-ground py-3 min-[1000px]:[@media(min-height:600px)]:sticky top-0 z-10"
                }
              >
                <AtHour night={night} rig={rig} hour={hour} stale={stale} onHour={(h) => lookAt(rig.id, h)} />
              </div>
            )}
            {tab === "tonight" && <Plans night={night} rig={rig} stale={stale} />}
            <NightControls />
          </div>
        </div>
      </main>
    </Tabs.Root>
  );
}

const column = "flex min-w-0 flex-col gap-3 outline-none data-[state=inactive]:hidden";
const tabs: [NightTab, string, string][] = [
  ["tonight", "Tonight", "What freezes, and when"],
  ["improve", "Improve", "Insulation, what holds all water, and where tanks stand"],
  ["confidence", "Confidence", "Guesses that matter, and thermometers"],
  ["winter", "Winter", "How cold, how long, and how often"],
];

/** How sure the hour of the verdict is, and where it is. */
function Doubt({ night, rig }: { night: Schema["NightHoursAnswer"]; rig: Rig }) {
  const clock = useClock();
  const print = usePrint();
  const shown = night.rungs.find((r) => r.rung.breaks) ?? night.rungs.find((r) => r.rung.state !== "safe");
  const at = shown?.rung.atS;
  if (!shown || at == null)
    return (
      <p className="text-muted">
        No ice before {clock(night.startHour, night.morningS)}. {print(night.outdoors.coldestC, "temperature")} outdoors at the coldest.
      </p>
    );
  const where = shown.rung.zoneId ? rig.shell.zones.find((z) => z.id === shown.rung.zoneId)?.name : "outdoors";
  const stops =
    night.heatStopsS != null && at > night.heatStopsS ? ` ${print(at - night.heatStopsS, "duration")} after the heat stops.` : "";
  return (
    <p data-doubt>
      <strong className="font-semibold">{shown.rung.name}</strong> {shown.rung.breaks ? "breaks" : "freezes"} about{" "}
      <strong className="font-semibold">{clock(night.startHour, at)}</strong>{" "}
      <span className="text-muted">
        {shown.latestS == null
          ? `(${clock(night.startHour, shown.earliestS ?? at)} at the earliest, or not at all)`
          : `(${clock(night.startHour, shown.earliestS ?? at)} to ${clock(night.startHour, shown.latestS)})`}
        , {where}.{stops} Estimate.
      </span>
    </p>
  );
}

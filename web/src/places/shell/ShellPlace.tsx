import { Snowflake } from "lucide-react";
import { useState } from "react";
import { usePrint } from "../../app/units";
import { ofShell } from "../../document/answersStore";
import { added } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { Button, Panel, Slider, Switch } from "../../ui/controls";
import { Stale } from "../../ui/Stale";
import { useAnswers, useStores } from "../bench/benchStores";
import { RigPlace } from "../bench/RigPlace";
import { FrontField } from "./VehicleFields";
import { ZoneForm } from "./ZoneForm";
import { ZoneDrawing } from "./ZoneView";
import { drawFaces } from "./zoneEdits";

/** The shell: rooms as boxes, their faces and layers, and how cold each gets. */
export function ShellPlace({ id }: { id: string }) {
  return (
    <RigPlace id={id} place="shell" wanted={ofShell}>
      {(rig) => <Sheet rig={rig} />}
    </RigPlace>
  );
}

function Sheet({ rig }: { rig: Rig }) {
  const { zones } = rig.shell;
  const [wanted, setWanted] = useState<string | null>(null);
  const heat = useAnswers((s) => s.answers?.shellHeat);
  const conditions = useAnswers((s) => s.conditions);
  const stale = useAnswers((s) => s.stale);
  const { answers } = useStores();
  const print = usePrint();
  const zone = zones.find((z) => z.id === wanted) ?? zones.find((z) => z.id === heat?.coldestId) ?? zones[0];
  return (
    <main className="mx-auto grid w-full max-w-[84rem] gap-4 p-4 min-[1000px]:grid-cols-[minmax(0,1fr)_26rem]">
      <div className="flex min-w-0 flex-col gap-4">
        <Panel className="p-4" aria-label="Rooms">
          <h2 className="text-[17px] font-semibold">Rooms</h2>
          <p className="text-muted">
            A point belongs to the smallest room around it. Select a room and drag its edges: they snap to walls, floor, arches and other
            rooms.
          </p>
          {conditions && (
            <div className="mt-2 flex flex-wrap items-center gap-x-8 gap-y-2">
              <span className="flex w-72 items-center gap-3">
                <span className="w-36 shrink-0 whitespace-nowrap">
                  Outdoors <strong className="font-semibold">{print(conditions.outdoorC, "temperature")}</strong>
                </span>
                <Slider
                  label="Outdoors"
                  value={conditions.outdoorC}
                  min={-60}
                  max={50}
                  step={0.5}
                  text={print(conditions.outdoorC, "temperature")}
                  onChange={(outdoorC) => answers.setConditions({ outdoorC })}
                />
              </span>
              <span className="flex items-center gap-3">
                Heat <strong className="w-6 font-semibold">{conditions.heatOn ? "on" : "off"}</strong>
                <Switch label="Heat" on={conditions.heatOn} onChange={(heatOn) => answers.setConditions({ heatOn })} />
              </span>
              <span className="text-muted">Air in the morning. Estimates: trust a thermometer in the coldest corner more.</span>
            </div>
          )}
          <div className="mt-2 w-56">
            <FrontField rig={rig} />
          </div>
          <ZoneDrawing rig={rig} zoneId={zone?.id ?? null} onZone={setWanted} />
          <Stale as="ul" stale={stale} className="mt-3 flex flex-wrap gap-2">
            {zones.map((z) => {
              const air = heat?.zones.find((h) => h.zoneId === z.id);
              const coldest = heat?.coldestId === z.id;
              return (
                <li key={z.id}>
                  <button
                    type="button"
                    aria-pressed={z.id === zone?.id}
                    onClick={() => setWanted(z.id)}
                    className="flex h-10 items-center gap-2 rounded-md border border-rule px-3 hover:border-strong aria-pressed:border-ink aria-pressed:font-semibold"
                  >
                    {coldest && <Snowflake size={16} aria-label="Coldest with water" />}
                    {z.name}
                    <span className="text-muted">{air && print(air.airC, "temperature")}</span>
                  </button>
                </li>
              );
            })}
          </Stale>
        </Panel>
        <Forgotten onMade={setWanted} />
      </div>
      {zone && <ZoneForm key={zone.id} rig={rig} zone={zone} />}
    </main>
  );
}

/** Rooms that a builder forgets, each with a press. */
function Forgotten({ onMade }: { onMade(id: string): void }) {
  const { document } = useStores();
  const offers = useAnswers((s) => s.answers?.shellHeat?.forgotten);
  if (!offers || offers.length === 0) return null;
  return (
    <Panel className="p-4" aria-label="Rooms people forget">
      <h2 className="text-[17px] font-semibold">Rooms people forget</h2>
      <ul className="mt-2 divide-y divide-rule">
        {offers.map((o) => (
          <li key={o.id} className="flex flex-wrap items-center gap-3 py-2">
            <span className="w-44 font-semibold">{o.name}</span>
            <span className="min-w-0 grow basis-60 text-muted">{o.words}</span>
            <Button
              onClick={() => {
                document.commit(`Room: ${o.name}`, [added("shell/zones", o.zone), drawFaces]);
                onMade(o.zone.id);
              }}
            >
              Add room
            </Button>
          </li>
        ))}
      </ul>
    </Panel>
  );
}

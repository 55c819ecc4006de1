import { Copy, PencilRuler, Plus, Snowflake } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { usePrint } from "../../app/units";
import { ofShell } from "../../document/answersStore";
import { added } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { Button, Panel, Slider, Switch } from "../../ui/controls";

import { Stale } from "../../ui/Stale";
import { useAnswers, useStores } from "../bench/benchStores";
import { NightChoice } from "../bench/NightChoice";
import { NightFigure } from "../bench/NightFigure";
import { useNightSliders } from "../bench/nightSliders";
import { RigPlace } from "../bench/RigPlace";
import { FrontField } from "./VehicleFields";
import { ZoneForm } from "./ZoneForm";
import { ZoneDrawing } from "./ZoneView";
import { copyOf, drawFaces, newRoom, roomIn } from "./zoneEdits";

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
  const stale = useAnswers((s) => s.stale);
  const { answers, document } = useStores();
  const print = usePrint();
  const night = useNightSliders();
  const outdoors = night?.sliders.outdoorC;
  const [drawing, setDrawing] = useState(false);
  const make = (room: Schema["Zone"]) => {
    document.commit(`Room: ${room.name}`, [added("shell/zones", room), drawFaces]);
    setWanted(room.id);
    setDrawing(false);
  };
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
          <div className="mt-2">
            <NightChoice />
          </div>
          {night && outdoors && (
            <div className="mt-2 flex flex-wrap items-center gap-x-8 gap-y-2">
              <span className="flex w-72 items-center gap-3">
                <span className="w-40 shrink-0 whitespace-nowrap">
                  Outdoors <NightFigure slider={outdoors} />
                </span>
                <Slider {...outdoors} />
              </span>
              <span className="flex items-center gap-3">
                Heat <strong className="w-6 font-semibold">{night.night.heatOn ? "on" : "off"}</strong>
                <Switch label="Heat" on={night.night.heatOn} onChange={(heatOn) => answers.setConditions({ heatOn })} />
              </span>
              <span className="text-muted">Air in the morning. Estimates: trust a thermometer in the coldest corner more.</span>
            </div>
          )}
          <div className="mt-2 flex flex-wrap items-end gap-2">
            <Button onClick={() => make(newRoom(rig, roomIn(rig)))}>
              <Plus size={17} /> Add room
            </Button>
            <Button aria-pressed={drawing} className="aria-pressed:border-ink" onClick={() => setDrawing(!drawing)}>
              <PencilRuler size={17} /> {drawing ? "Cancel drawing" : "Draw room"}
            </Button>
            <Button disabled={!zone} onClick={() => zone && make(copyOf(rig, zone))}>
              <Copy size={17} /> Duplicate room
            </Button>
            <div className="ml-auto w-48">
              <FrontField rig={rig} />
            </div>
          </div>
          {drawing && (
            <p role="status" className="mt-2 font-medium">
              Drag from corner to corner in any view. You can pull its edges afterwards.
            </p>
          )}
          <ZoneDrawing
            rig={rig}
            zoneId={zone?.id ?? null}
            onZone={setWanted}
            onDrawn={drawing ? (box) => make(newRoom(rig, box)) : undefined}
          />
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
              aria-label={`Add room: ${o.name}`}
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

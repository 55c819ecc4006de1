import { Trash2 } from "lucide-react";
import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { usePrint } from "../../app/units";
import { added, changed, removed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { Button, Panel } from "../../ui/controls";
import { PickField, QuantityField, TextField } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useAnswers, useStores } from "../bench/benchStores";
import { FaceRow } from "./FaceRow";
import { boxOf, drawFaces } from "./zoneEdits";

type Edit = Schema["Edit"];
type Zone = Schema["Zone"];

const kinds: Record<Schema["ZoneKind"], string> = {
  living: "living space",
  garage: "garage or bay",
  cupboard: "cupboard",
  wallCavity: "wall cavity",
  wheelArch: "corner by an arch",
  hatch: "hatch",
  enclosedUnderfloor: "boxed in under the floor",
  openUnderfloor: "under the floor, in the wind",
};

const sides = [
  { axis: "xM", at: "From the rear", size: "Length" },
  { axis: "yM", at: "From the kerb", size: "Width" },
  { axis: "zM", at: "Above floor", size: "Height" },
] as const;

/** A room: its box, draughts, heater, faces and openings. */
export function ZoneForm({ rig, zone }: { rig: Rig; zone: Zone }) {
  const { document } = useStores();
  const print = usePrint();
  const stale = useAnswers((s) => s.stale);
  const heat = useAnswers((s) => s.answers?.shellHeat?.zones.find((z) => z.zoneId === zone.id));
  const path = `shell/zones/${zone.id}`;
  const change = (what: string, values: Record<string, unknown>) => document.commit(`${what} of ${zone.name}`, [changed(path, values)]);
  const reshape = (box: Schema["Box"]) => document.commit(`Box of ${zone.name}`, [boxOf(zone.id, box), drawFaces]);
  return (
    <Panel className="flex h-fit flex-col gap-3 p-4" aria-label={`Room: ${zone.name}`}>
      <div className="grid grid-cols-2 gap-2">
        <TextField label="Name" value={zone.name} onCommit={(name) => change("Name", { name })} />
        <PickField
          label="Kind"
          value={zone.kind}
          options={Object.entries(kinds).map(([value, text]) => ({ value, text }))}
          onCommit={(kind) => document.commit(`Kind of ${zone.name}`, [changed(path, { kind }), drawFaces])}
        />
      </div>
      <div className="grid grid-cols-3 gap-2">
        {sides.map(({ axis, at }) => (
          <QuantityField
            key={at}
            label={at}
            value={zone.box.at[axis]}
            quantity="length"
            limit="place.m"
            onCommit={(m) => reshape({ ...zone.box, at: { ...zone.box.at, [axis]: m } })}
          />
        ))}
        {sides.map(({ axis, size }) => (
          <QuantityField
            key={size}
            label={size}
            value={zone.box.size[axis]}
            quantity="length"
            limit="edge.m"
            onCommit={(m) => reshape({ ...zone.box, size: { ...zone.box.size, [axis]: m } })}
          />
        ))}
      </div>
      <div className="grid grid-cols-3 gap-2">
        <QuantityField
          label="Air changes/h"
          value={zone.airChangesPerHour}
          quantity="number"
          limit="zone.airChangesPerHour"
          onCommit={(n) => change("Air leakage", { airChangesPerHour: n })}
        />
        <QuantityField
          label="Heat capacity, kJ/K"
          value={zone.heatCapacityJPerK == null ? null : zone.heatCapacityJPerK / 1000}
          placeholder={heat ? `${Math.round(heat.assumedJPerK / 1000)}, estimate` : undefined}
          quantity="number"
          limit="zone.heatCapacityJPerK"
          per={1 / 1000}
          onCommit={(n) => change("Heat capacity", { heatCapacityJPerK: n == null ? null : n * 1000 })}
        />
        <QuantityField
          label="Heater"
          value={zone.heater?.powerW ?? 0}
          quantity="power"
          limit="heater.powerW"
          onCommit={(powerW) => change("Heater", { heater: powerW > 0 ? { setpointC: 18, ...zone.heater, powerW } : null })}
        />
        {zone.heater && (
          <QuantityField
            label="Thermostat"
            value={zone.heater.setpointC}
            quantity="temperature"
            limit="heater.setpointC"
            onCommit={(setpointC) => change("Heater", { heater: { ...zone.heater, setpointC } })}
          />
        )}
        {zone.heater && (
          <PickField
            label="Energy"
            value={zone.heater.electric ? "electric" : "fuel"}
            options={[
              { value: "fuel", text: "fuel, its fan on the battery" },
              { value: "electric", text: "electricity" },
            ]}
            onCommit={(on) => change("Heater", { heater: { ...zone.heater, electric: on === "electric" ? true : null } })}
          />
        )}
      </div>
      {heat && (
        <Stale as="p" stale={stale}>
          <span className="text-muted">Air tonight </span>
          <strong className="font-semibold">{print(heat.airC, "temperature")}</strong>
          <span className="text-muted">
            ; air leakage {print(heat.leakWPerK, "conductance")}
            {zone.measured && `; all to outdoors is ${print(zone.measured.lossFactor, "share")} of what is typed, as measured`}
          </span>
          {heat.heaterW > 0.5 && <span className="text-muted">; its heater gives {print(heat.heaterW, "power")}</span>}
        </Stale>
      )}
      <section>
        <h3 className="flex items-center justify-between font-semibold">
          Faces
          <Button
            quiet
            onClick={() => document.commit(`Faces of ${zone.name}`, [{ kind: "faces", zoneIds: [zone.id] } as unknown as Edit])}
          >
            Areas from the box
          </Button>
        </h3>
        <ul className="divide-y divide-rule">
          {zone.faces.map((f) => (
            <FaceRow key={f.id} path={path} zone={zone} face={f} heat={heat?.faces.find((h) => h.faceId === f.id)} rig={rig} />
          ))}
        </ul>
      </section>
      <Openings rig={rig} zone={zone} />
      <Button
        onClick={() => document.commit(`Room ${zone.name} deleted`, [removed(path), ...(rig.shell.zones.length > 1 ? [drawFaces] : [])])}
      >
        <Trash2 size={16} /> Delete room
      </Button>
    </Panel>
  );
}

const lies = [
  { value: "wall", text: "a wall" },
  { value: "roof", text: "the roof: it opens upward" },
  { value: "floor", text: "the floor: it opens downward" },
];

/** Louvres and doors to other rooms. */
function Openings({ rig, zone }: { rig: Rig; zone: Zone }) {
  const { document } = useStores();
  const path = `shell/zones/${zone.id}`;
  const others = rig.shell.zones.filter((z) => z.id !== zone.id);
  const add = (towards: string) => {
    if (!towards) return;
    const other = others.find((z) => z.id === towards);
    // No higher than its rooms are.
    const heightM = Math.min(0.4, zone.box.size.zM, other?.box.size.zM ?? 0.4);
    const value = { id: newId("opening"), towards, areaM2: 0.02, heightM };
    document.commit(`Opening in ${zone.name}`, [added(`${path}/openings`, value)]);
  };
  if (others.length === 0) return null;
  return (
    <section>
      <h3 className="font-semibold">Openings to other rooms</h3>
      {zone.openings.map((o) => {
        const at = `${path}/openings/${o.id}`;
        const set = (values: Record<string, unknown>) => document.commit(`Opening of ${zone.name}`, [changed(at, values)]);
        return (
          <div key={o.id} className="grid grid-cols-[minmax(0,1fr)_5.5rem_5.5rem_minmax(0,8.5rem)_2.5rem] items-end gap-2 py-1">
            <PickField
              label="To"
              value={o.towards}
              options={others.map((z) => ({ value: z.id, text: z.name }))}
              onCommit={(towards) => set({ towards })}
            />
            <QuantityField
              label="Open area"
              value={o.areaM2}
              quantity="area"
              limit="opening.areaM2"
              onCommit={(areaM2) => set({ areaM2 })}
            />
            <QuantityField
              label={o.side ? "Length" : "Height"}
              value={o.heightM}
              quantity="length"
              limit="opening.heightM"
              onCommit={(heightM) => set({ heightM })}
            />
            <PickField
              label="In face"
              value={o.side ?? "wall"}
              options={lies}
              onCommit={(side) => set({ side: side === "wall" ? null : side })}
            />
            <button
              type="button"
              aria-label="Delete opening"
              className="grid size-10 place-items-center rounded-md hover:bg-sunk"
              onClick={() => document.commit(`Opening of ${zone.name} deleted`, [removed(at)])}
            >
              <Trash2 size={16} />
            </button>
          </div>
        );
      })}
      <PickField
        label="New opening to"
        value=""
        options={[{ value: "", text: "choose a room" }, ...others.map((z) => ({ value: z.id, text: z.name }))]}
        onCommit={add}
      />
    </section>
  );
}

import { Trash2 } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { useStarts } from "../../app/starts";
import { usePrint } from "../../app/units";
import { changed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { Button } from "../../ui/controls";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { useStores } from "../bench/benchStores";

type Zone = Schema["Zone"];

/** A face: its area, what it lets through, and its layers from inside to outside. */
export function FaceRow({
  path,
  zone,
  face,
  heat,
  rig,
}: {
  path: string;
  zone: Zone;
  face: Schema["Face"];
  heat: Schema["FaceHeat"] | undefined;
  rig: Rig;
}) {
  const { document } = useStores();
  const { catalogue, usual } = useCatalogue();
  const print = usePrint();
  const starts = useStarts();
  const [open, setOpen] = useState(false);
  const at = `${path}/faces/${face.id}`;
  const change = (what: string, values: Record<string, unknown>) => document.commit(`${what}: ${face.name}`, [changed(at, values)]);
  const behind = face.towards ? rig.shell.zones.find((z) => z.id === face.towards)?.name : "outdoors";
  const off = heat?.drawnM2 != null && Math.abs(heat.drawnM2 - face.areaM2) > 0.05 * Math.max(heat.drawnM2, 0.05);
  return (
    <li className="py-1.5" data-face={`${zone.id}/${face.id}`}>
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="flex min-h-10 w-full items-center gap-2 text-left"
      >
        <span className="min-w-0 grow truncate">
          {face.name} <span className="text-muted">to {behind}</span>
        </span>
        <span className="shrink-0">{print(face.areaM2, "area")}</span>
        <span className="shrink-0 text-muted">{heat ? print(heat.transmittanceWPerM2K, "transmittance") : ""}</span>
        <span className="w-20 shrink-0 text-right font-semibold">{heat ? print(heat.wPerK, "conductance") : ""}</span>
      </button>
      {off && <p className="text-muted">Typed; the box has {print(heat?.drawnM2, "area")}.</p>}
      {open && (
        <div className="mt-1 flex flex-col gap-2 rounded-md bg-sunk p-2">
          <div className="grid grid-cols-2 gap-2">
            <QuantityField
              label="Area"
              value={face.areaM2}
              quantity="area"
              limit="face.areaM2"
              onCommit={(areaM2) => change("Area", { areaM2 })}
            />
            <PickField
              label="Build-up"
              value=""
              options={[{ value: "", text: "as listed" }, ...(starts?.buildUps ?? []).map((b) => ({ value: b.id, text: b.name }))]}
              onCommit={(id) => {
                const b = starts?.buildUps.find((x) => x.id === id);
                if (b) change("Layers", { layers: b.layers, bridgeFraction: b.bridgeFraction, bridgeLayers: b.bridgeLayers });
              }}
            />
          </div>
          {face.layers.map((layer, i) => (
            <div key={i} className="grid grid-cols-[minmax(0,1fr)_7rem_2.5rem] items-end gap-2">
              <PickField
                label={i === 0 ? "Inside" : "then"}
                value={layer.material}
                options={(catalogue?.solids ?? []).map((x) => ({ value: x.id, text: x.name }))}
                onCommit={(material) => change("Layers", { layers: face.layers.with(i, { ...layer, material }) })}
              />
              <QuantityField
                label="Thickness"
                value={layer.thicknessM}
                quantity="length"
                limit="layer.thicknessM"
                onCommit={(thicknessM) => change("Layers", { layers: face.layers.with(i, { ...layer, thicknessM }) })}
              />
              <button
                type="button"
                aria-label={`Delete layer ${i + 1}`}
                className="grid size-10 place-items-center rounded-md hover:bg-panel"
                onClick={() => change("Layers", { layers: face.layers.filter((_, k) => k !== i) })}
              >
                <Trash2 size={16} />
              </button>
            </div>
          ))}
          {!face.towards && (
            <label className="flex min-h-10 items-center gap-2">
              <input
                type="checkbox"
                className="size-5 accent-[var(--ink)]"
                checked={face.rearward === true}
                onChange={(e) => change("Rearward", { rearward: e.target.checked || null })}
              />
              Faces the rear: half the wind when driving
            </label>
          )}
          <div className="flex flex-wrap items-end gap-2">
            <Button onClick={() => change("Layers", { layers: [...face.layers, { material: usual("sleeve"), thicknessM: 0.025 }] })}>
              Add a layer outside
            </Button>
            <div className="w-40">
              <QuantityField
                label="Bridged by metal"
                value={face.bridgeFraction}
                quantity="share"
                limit="face.bridgeFraction"
                onCommit={(bridgeFraction) =>
                  change("Bridges", {
                    bridgeFraction,
                    ...(face.bridgeLayers.length === 0 &&
                      bridgeFraction > 0 && { bridgeLayers: [{ material: "steel", thicknessM: 0.026 }] }),
                  })
                }
              />
            </div>
          </div>
        </div>
      )}
    </li>
  );
}

import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import type { Part, Rig } from "../../document/geometry";
import { Button, Caution } from "../../ui/controls";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { useChange } from "./inspectorFields";
import { supplies } from "./inspectorHeat";

/** Whether electric heat lies in its water, as an element, and not on it, as a pad. */
export const takesElement = (kind: Schema["StockPart"] | undefined) => kind?.group === "heat" && kind.passage === "vessel";

/** A heating pad or tape on what holds water, or an element in what heats it. */
export function PadFields({ rig, part }: { rig: Rig; part: Part }) {
  const { stock, catalogue } = useCatalogue();
  const change = useChange();
  const kind = stock.get(part.stock);
  const pad = part.pad;
  const element = takesElement(kind);
  const what = element ? "Element" : "Pad";
  const put = (words: string, next: Schema["Pad"] | null) => change(words, `parts/${part.id}`, { pad: next });
  if (!pad) {
    const usual = element ? catalogue?.usualElement : catalogue?.usualPad;
    if (!usual || !kind || (kind.holdsL === 0 && kind.passage !== "vessel") || (kind.heat && kind.passage !== "pump")) return null;
    return <Button onClick={() => put(`${what} on ${part.name}`, usual)}>{element ? "Add an element" : "Add a pad"}</Button>;
  }
  const field = (name: "powerW" | "onC" | "offC" | "areaM2", label: string, quantity: Schema["Quantity"]) => (
    <QuantityField
      label={label}
      value={pad[name]}
      quantity={quantity}
      limit={`pad.${name}`}
      onCommit={(v) => put(`${what} on ${part.name}`, { ...pad, [name]: v })}
    />
  );
  return (
    <fieldset data-pad>
      <legend className="text-muted">{element ? "Electric element" : "Heating pad"}, estimates</legend>
      <div className="mt-1 grid grid-cols-2 gap-2">
        {field("powerW", "Power", "power")}
        {!element && field("areaM2", "Covers", "area")}
        {field("onC", "On below", "temperature")}
        {field("offC", "Off above", "temperature")}
        <PickField
          label="Runs on"
          value={pad.supply}
          options={supplies}
          onCommit={(supply) => put(`${what} on ${part.name}`, { ...pad, supply: supply as Schema["ElectricSupply"] })}
        />
        {!element && (
          <PickField
            label="Lies"
            value={pad.side ?? ""}
            options={sides}
            onCommit={(side) => put(`Pad on ${part.name}`, { ...pad, side: side ? (side as Schema["Facing"]) : null })}
          />
        )}
        {!element && <SensorField rig={rig} part={part} put={(sensor) => put(`Sensor of the pad on ${part.name}`, { ...pad, sensor })} />}
        <Button className="self-end" onClick={() => put(`${part.name} without ${element ? "an element" : "a pad"}`, null)}>
          Remove the {what.toLowerCase()}
        </Button>
      </div>
      <div className="mt-2">
        <Caution>
          {pad.supply === "mains"
            ? "Mains beside water: a licensed electrician connects it, behind a residual current device. "
            : "Fuse its wire for its power. "}
          {element
            ? "Never switch it on dry, and store water at 60 °C now and then against Legionella: it scalds."
            : `A pad with no water over it melts what it lies on: fit one with its own overheat cut-out.${
                pad.side && pad.side !== "down" ? " On a side it wants water up to its upper edge, all winter." : ""
              }${
                pad.sensor && pad.sensor.kind !== "inPad"
                  ? " With its sensor elsewhere, nothing else stops it when its own water is warm."
                  : ""
              }`}
        </Caution>
      </div>
    </fieldset>
  );
}

/** Pads that go by this part, said before it is taken away. */
export function SensedHere({ rig, part }: { rig: Rig; part: Part }) {
  const by = rig.parts.filter((p) => p.pad?.sensor?.partId === part.id).map((p) => p.name);
  if (by.length === 0) return null;
  return (
    <p className="text-muted" data-sensed-here>
      The sensor of the pad on {by.join(", ")} sits here. Without this part it hangs in the air.
    </p>
  );
}

const sides: { value: NonNullable<Schema["Facing"]> | ""; text: string }[] = [
  { value: "", text: "around it, or underneath" },
  { value: "down", text: "underneath" },
  { value: "rear", text: "on its rear side" },
  { value: "forward", text: "on its front side" },
  { value: "kerbSide", text: "on its kerb side" },
  { value: "farSide", text: "on its far side" },
];

const OTHER = "part:";

/** Where the sensor of a pad's thermostat sits; a part to sit on holds water. */
function SensorField({ rig, part, put }: { rig: Rig; part: Part; put(sensor: Schema["PadSensor"] | null): void }) {
  const { stock } = useCatalogue();
  const sensor = part.pad?.sensor;
  const holds = (p: Part) => stock.get(p.stock)?.passage === "vessel" || p.id === sensor?.partId;
  const others = rig.parts.filter((p) => p.id !== part.id && holds(p));
  return (
    <PickField
      wide
      label="Sensor of its thermostat"
      value={sensor ? (sensor.kind === "part" ? OTHER + sensor.partId : sensor.kind) : ""}
      options={[
        { value: "", text: "on the part, clear of the pad" },
        { value: "inPad", text: "in the pad itself" },
        { value: "room", text: "in the air of its room" },
        ...others.map((p) => ({ value: OTHER + p.id, text: `on ${p.name}` })),
      ]}
      onCommit={(value) =>
        put(
          value.startsWith(OTHER)
            ? { kind: "part", partId: value.slice(OTHER.length) }
            : value
              ? { kind: value as Schema["PadSensorKind"], partId: null }
              : null,
        )
      }
    />
  );
}

import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { indexOf, type Part, type Rig } from "../../document/geometry";
import { QuantityField } from "../../ui/QuantityField";
import { useChange } from "./inspectorFields";
import { TakeOut } from "./water/WaterSums";

type Flow = Schema["PartFlow"];

const BAR = 1e5;

/** The figures of flow that a part can have, in the order in which they are typed. */
const fields: { field: keyof Flow; label: string; quantity: Schema["Quantity"]; limit: string; per?: number }[] = [
  { field: "outletLPerMin", label: "Flow at 1 bar", quantity: "flow", limit: "flow.lPerMin" },
  { field: "lossBar", label: "Pressure lost at 7 L/min", quantity: "pressure", limit: "flow.bar", per: BAR },
  { field: "fouledBar", label: "Lost when due for change", quantity: "pressure", limit: "flow.bar", per: BAR },
  { field: "opensBar", label: "Opening pressure", quantity: "pressure", limit: "flow.bar", per: BAR },
  { field: "holdsBar", label: "Set pressure", quantity: "pressure", limit: "flow.bar", per: BAR },
  { field: "mixesToC", label: "Set temperature", quantity: "temperature", limit: "flow.temperatureC" },
  { field: "freeLPerMin", label: "Free flow", quantity: "flow", limit: "flow.lPerMin" },
  { field: "shutoffBar", label: "Shut-off pressure", quantity: "pressure", limit: "flow.bar", per: BAR },
  { field: "cutInBar", label: "Cut-in", quantity: "pressure", limit: "flow.bar", per: BAR },
  { field: "cutOutBar", label: "Cut-out", quantity: "pressure", limit: "flow.bar", per: BAR },
  { field: "liftM", label: "Suction lift", quantity: "length", limit: "flow.liftM" },
  { field: "volts", label: "Voltage", quantity: "number", limit: "flow.volts" },
  { field: "prechargeBar", label: "Air precharge", quantity: "pressure", limit: "flow.bar", per: BAR },
  { field: "lightsLPerMin", label: "Lights at", quantity: "flow", limit: "flow.lPerMin" },
];

const typedOr = (value: number | null | undefined, per: number) => (value == null ? null : value * per);

/** What the part does to water that flows through it: as stock has it, until it is typed. */
export function FlowFields({ rig, part }: { rig: Rig; part: Part }) {
  const { stock } = useCatalogue();
  const change = useChange();
  const usual = stock.get(part.stock)?.flow;
  const shown = fields.filter((f) => usual?.[f.field] != null || (f.field === "prechargeBar" && part.stock === "accumulator"));
  const joined = (indexOf(rig).runsAt.get(part.id) ?? []).some((r) => r.service === "cold" || r.service === "hot");
  if (shown.length === 0) return joined ? <TakeOut partId={part.id} /> : null;
  return (
    <fieldset data-flow-figures>
      <legend className="text-muted">Flow{part.flow ? ", yours" : ", estimates"}</legend>
      <div className="mt-1 grid grid-cols-2 gap-2">
        {shown.map(({ field, label, quantity, limit, per = 1 }) => (
          <QuantityField
            key={field}
            label={label}
            value={typedOr(part.flow?.[field] ?? usual?.[field], per)}
            placeholder="by the brief"
            quantity={quantity}
            limit={limit}
            per={per}
            onCommit={(value) => change(`${label} of ${part.name}`, `parts/${part.id}`, { flow: { ...part.flow, [field]: value / per } })}
          />
        ))}
      </div>
      {joined && <TakeOut partId={part.id} />}
    </fieldset>
  );
}

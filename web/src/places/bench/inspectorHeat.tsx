import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { newId } from "../../app/ids";
import { courseOf, indexOf, type Part, plus, type Rig, type Run } from "../../document/geometry";
import { Button } from "../../ui/controls";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { useStores } from "./benchStores";
import { SleeveFields, useChange } from "./inspectorFields";
import { useActions } from "./useActions";

type Heat = Schema["PartHeat"];

/** The figures of heat that a part can have, in the order in which they are typed. */
const fields: {
  field: Exclude<keyof Heat, "supply" | "doubleWall" | "switch" | "fan">;
  label: string;
  quantity: Schema["Quantity"];
  limit: string;
}[] = [
  { field: "powerW", label: "Output at full", quantity: "power", limit: "heat.powerW" },
  { field: "leastW", label: "Lowest stage", quantity: "power", limit: "heat.powerW" },
  { field: "startsC", label: "Starts below", quantity: "temperature", limit: "heat.fluidC" },
  { field: "stopsC", label: "Stops at", quantity: "temperature", limit: "heat.fluidC" },
  { field: "fuelLPerH", label: "Fuel at full", quantity: "fuelRate", limit: "heat.fuelLPerH" },
  { field: "leastRunS", label: "Least run", quantity: "duration", limit: "heat.s" },
  { field: "restS", label: "Least rest", quantity: "duration", limit: "heat.s" },
  { field: "ratedW", label: "Rated output", quantity: "power", limit: "heat.powerW" },
  { field: "ratedK", label: "at, over the room", quantity: "temperatureDifference", limit: "heat.ratedK" },
  { field: "fanFromC", label: "Fan starts at", quantity: "temperature", limit: "heat.fluidC" },
  { field: "stillShare", label: "Output without fan", quantity: "share", limit: "heat.stillShare" },
  { field: "coilWPerK", label: "Coil", quantity: "conductance", limit: "heat.coilWPerK" },
  { field: "holdC", label: "Thermostat", quantity: "temperature", limit: "heat.holdC" },
  { field: "drawW", label: "Electric power", quantity: "power", limit: "heat.drawW" },
  { field: "startW", label: "While it starts", quantity: "power", limit: "heat.drawW" },
  { field: "startS", label: "A start takes", quantity: "duration", limit: "heat.s" },
  { field: "pumpW", label: "Its own pump", quantity: "power", limit: "heat.drawW" },
  { field: "runsC", label: "While it runs", quantity: "temperature", limit: "heat.fluidC" },
  { field: "coolsS", label: "Cools, time constant", quantity: "duration", limit: "heat.coolsS" },
];

/** What the same figures are called of an engine. */
const ofEngine: { [field in keyof Heat]?: string } = { powerW: "Heat to spare", ratedW: "Loses, parked", ratedK: "at, over outdoors" };

export const supplies: { value: Schema["ElectricSupply"]; text: string }[] = [
  { value: "battery", text: "battery" },
  { value: "mains", text: "mains, when plugged in" },
  { value: "surplus", text: "alternator, while driving" },
];

const fans: { value: NonNullable<Schema["FanControl"]>; text: string }[] = [
  { value: "pipeTemperature", text: "by the pipe's temperature" },
  { value: "on", text: "always on" },
  { value: "off", text: "always off" },
];

/** What the part does with heat: as stock has it, until it is typed. A thermostat can be put on any emitter or coil. */
export function HeatFields({ part }: { part: Part }) {
  const { stock } = useCatalogue();
  const change = useChange();
  const usual = stock.get(part.stock)?.heat;
  if (!usual) return null;
  const hands = (usual.ratedW != null && usual.runsC == null) || usual.coilWPerK != null;
  const shown = fields.filter((f) => usual[f.field] != null || (f.field === "holdC" && hands));
  const fanByHand = part.heat?.fan != null && part.heat.fan !== "pipeTemperature";
  return (
    <fieldset data-heat-figures>
      <legend className="text-muted">Heat{part.heat ? ", yours" : ", estimates"}</legend>
      <div className="mt-1 grid grid-cols-2 gap-2">
        {shown.map(({ field, label, quantity, limit }) => (
          <QuantityField
            key={field}
            label={(usual.runsC != null && ofEngine[field]) || label}
            value={part.heat?.[field] ?? usual[field]}
            placeholder={field === "holdC" ? "none" : undefined}
            disabled={field === "fanFromC" && fanByHand}
            quantity={quantity}
            limit={limit}
            onCommit={(value) => change(`${label} of ${part.name}`, `parts/${part.id}`, { heat: { ...part.heat, [field]: value } })}
          />
        ))}
        {usual.fanFromC != null && (
          <PickField
            wide
            label="Fan"
            value={part.heat?.fan ?? "pipeTemperature"}
            options={fans}
            onCommit={(fan) => change(`Fan of ${part.name}`, `parts/${part.id}`, { heat: { ...part.heat, fan } })}
          />
        )}
        {usual.supply && (
          <PickField
            label="Runs on"
            value={part.heat?.supply ?? usual.supply}
            options={supplies}
            onCommit={(supply) => change(`${part.name} runs on ${supply}`, `parts/${part.id}`, { heat: { ...part.heat, supply } })}
          />
        )}
        {usual.coilWPerK != null && (
          <PickField
            label="Wall to the water"
            value={part.heat?.doubleWall ? "double" : "single"}
            options={[
              { value: "single", text: "one wall" },
              { value: "double", text: "double, shows a leak" },
            ]}
            onCommit={(wall) =>
              change(`Wall of ${part.name}`, `parts/${part.id}`, { heat: { ...part.heat, doubleWall: wall === "double" } })
            }
          />
        )}
      </div>
    </fieldset>
  );
}

const kinds: { value: Schema["TraceKind"]; text: string }[] = [
  { value: "plain", text: "side by side" },
  { value: "aluminiumTape", text: "aluminium tape" },
  { value: "spreadingPlate", text: "spreading plate" },
];

/** The water lines along which a heating line is taped. */
export function TraceFields({ rig, run }: { rig: Rig; run: Run }) {
  const change = useChange();
  if (run.service !== "coolant" || run.floor) return null;
  const traces = run.traces ?? [];
  const { runs } = indexOf(rig);
  const free = rig.runs.filter(
    (r) => (r.service === "cold" || r.service === "hot" || r.service === "waste") && !traces.some((t) => t.id === r.id),
  );
  // In order of id, as the document keeps them: what stands first is first before and after it is saved.
  const put = (next: Schema["Trace"][]) =>
    change(`Traces of ${run.name}`, `runs/${run.id}`, { traces: next.length > 0 ? next.sort((a, b) => (a.id < b.id ? -1 : 1)) : null });
  const set = (id: string, values: Partial<Schema["Trace"]>) => put(traces.map((t) => (t.id === id ? { ...t, ...values } : t)));
  return (
    <fieldset data-traces>
      <legend className="text-muted">Taped along</legend>
      {traces.map((t) => (
        <div key={t.id} className="mt-1 border-b border-rule pb-2">
          <div className="flex items-center justify-between gap-2">
            <span className="min-w-0 truncate font-semibold">{runs.get(t.id)?.name ?? t.id}</span>
            <Button onClick={() => put(traces.filter((o) => o.id !== t.id))}>Remove</Button>
          </div>
          <PickField label="Contact" value={t.kind} options={kinds} onCommit={(kind) => set(t.id, { kind: kind as Schema["TraceKind"] })} />
          <PickField
            label="Insulation"
            value={t.wrapped ? "both" : ""}
            options={[
              { value: "both", text: "one sleeve around both" },
              { value: "", text: "each its own" },
            ]}
            onCommit={(v) => set(t.id, { wrapped: v ? true : null })}
          />
        </div>
      ))}
      <PickField
        label="Tape along another line"
        value=""
        options={[{ value: "", text: "choose a line" }, ...free.map((r) => ({ value: r.id, text: r.name }))]}
        onCommit={(id) => id && put([...traces, { id, kind: "plain", wrapped: true }])}
      />
      <p className="mt-1 text-muted">
        It warms the metres that lie against it: within a finger's breadth. One sleeve around both is the insulation of the water line.
        Insulation of their own lies between the two and keeps most of the heat back.
      </p>
    </fieldset>
  );
}

/** A heating line in the floor: what lies over it and below. */
export function FloorFields({ run }: { run: Run }) {
  const { catalogue } = useCatalogue();
  const change = useChange();
  if (run.service !== "coolant" || run.traces) return null;
  const floor = run.floor;
  const put = (words: string, next: Schema["FloorLoop"] | null) => change(words, `runs/${run.id}`, { floor: next });
  if (!floor)
    return <Button onClick={() => catalogue && put(`${run.name} lies in the floor`, catalogue.usualFloor)}>Lay it in the floor</Button>;
  return (
    <fieldset data-floor>
      <legend className="text-muted">In the floor, in a plate; estimates</legend>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <SleeveFields
          label="Over it"
          none="bare"
          sleeve={floor.cover}
          onCommit={(cover) => put(`Floor over ${run.name}`, { ...floor, cover: cover ?? { ...floor.cover, thicknessM: 0 } })}
        />
        <SleeveFields
          label="Below it"
          none="none"
          sleeve={floor.below}
          onCommit={(below) => put(`Floor below ${run.name}`, { ...floor, below })}
        />
        <Button className="self-end" onClick={() => put(`${run.name} out of the floor`, null)}>
          Take it out of the floor
        </Button>
      </div>
    </fieldset>
  );
}

/** A heating line along all of a water line, taped to it: its ends are loose until they are joined into a circuit. */
export function TraceAlong({ rig, run }: { rig: Rig; run: Run }) {
  const { catalogue } = useCatalogue();
  const { commit } = useActions();
  const { selection } = useStores();
  if (run.service !== "cold" && run.service !== "hot" && run.service !== "waste") return null;
  const across = (id: string) => catalogue?.pipes.find((p) => p.id === id)?.outerDiameterM ?? 0;
  const pipe = rig.runs.find((r) => r.service === "coolant")?.pipe ?? catalogue?.pipes.find((p) => p.id.startsWith("epdm"))?.id;
  if (!pipe) return null;
  const lay = () => {
    // On top of it, skin to skin.
    const course = courseOf(rig, run).map((p) => plus(p.at, { xM: 0, yM: 0, zM: (across(run.pipe) + across(pipe)) / 2 }));
    const id = newId("trace");
    const made = {
      id,
      name: `Trace along ${run.name}`.slice(0, 80),
      service: "coolant",
      pipe,
      from: { at: course[0] },
      to: { at: course.at(-1) },
      bends: course.slice(1, -1).map((at, i) => ({ id: `b${i + 1}`, at })),
      traces: [{ id: run.id, kind: "aluminiumTape", wrapped: true }],
    };
    commit(`Trace along ${run.name}`, [{ kind: "fragment", name: made.name, parts: [], runs: [made] } as Schema["Edit"]]);
    selection.take({ kind: "run", runId: id });
  };
  return (
    <Button data-trace-along onClick={lay}>
      Lay a heating line along it
    </Button>
  );
}

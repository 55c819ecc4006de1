import { FlipHorizontal2, RotateCcw } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { usePrint } from "../../app/units";
import { called, indexOf, type Part, type Rig } from "../../document/geometry";
import { Button, Caution } from "../../ui/controls";
import { PickField, QuantityField, TextField } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useAnswers, useStores } from "./benchStores";
import { copyOf } from "./drawingTools";
import { Heading, JacketSides, PlaceFields, SleeveFields, useChange } from "./inspectorFields";
import { FlowFields } from "./inspectorFlow";
import { HeatFields } from "./inspectorHeat";
import { PadFields, SensedHere } from "./inspectorPad";
import { ReachFields } from "./inspectorReach";
import { SwitchFields } from "./inspectorSwitch";
import { useActions } from "./useActions";

type Edit = Schema["Edit"];

/** A part, with everything about it that can be typed. */
export function PartForm({ rig, id }: { rig: Rig; id: string }) {
  const part = indexOf(rig).parts.get(id);
  const { stock } = useCatalogue();
  const { selection } = useStores();
  const change = useChange();
  const { commit, remove } = useActions();
  const fullL = useAnswers((s) => s.answers?.drainDown.parts.find((p) => p.partId === id)?.fullL);
  const emptyKg = useAnswers((s) => s.answers?.tanks?.tanks.find((t) => t.partId === id)?.emptyKg);
  if (!part) return null;
  const kind = stock.get(part.stock);
  const turned = part.orientation?.quarterTurns ?? 0;
  // Another of the same place in the work, whose ports this part has.
  const has = new Set(part.ports.map((p) => p.id));
  const alike = [...stock.values()].filter((p) => p.id === part.stock || (p.group === kind?.group && p.ports.every((q) => has.has(q.id))));
  const path = `parts/${id}`;
  // Of a tank the core works out the content from its box.
  const holdsL = part.holdsL ?? fullL ?? kind?.holdsL;
  const make = () => {
    const made = copyOf(part);
    selection.takeWhenThere(made.thing);
    commit(`Copy of ${part.name}`, made.edits);
  };
  return (
    <>
      <Heading kind={`${part.own ? "your own part: " : ""}${kind?.name ?? part.stock}`}>{part.name}</Heading>
      <TextField label="Name" value={part.name} onCommit={(name) => change(`Name of ${part.name}`, path, { name })} />
      <MeasuredAt rig={rig} part={part} />
      <div className="grid grid-cols-2 gap-2">
        <PickField
          label="Stock part"
          value={part.stock}
          options={alike.map((p) => ({ value: p.id, text: p.name }))}
          disabled={alike.length < 2}
          onCommit={(stock) => change(`Stock of ${part.name}`, path, { stock })}
        />
        <PickField
          label={`Turned${part.orientation?.mirrored ? ", mirrored" : ""}`}
          value={String(turned)}
          options={[0, 1, 2, 3].map((q) => ({ value: String(q), text: q === 0 ? "default" : `${q * 90}°` }))}
          onCommit={(q) => commit(`Turn ${part.name}`, [{ kind: "turn", partId: id, quarterTurns: Number(q) - turned } as Edit])}
        />
      </div>
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => commit(`Turn ${part.name}`, [{ kind: "turn", partId: id, quarterTurns: 1 } as Edit])}>
          <RotateCcw size={16} /> Turn
        </Button>
        <Button onClick={() => commit(`Mirror ${part.name}`, [{ kind: "mirror", partId: id, axis: "x" } as Edit])}>
          <FlipHorizontal2 size={16} /> Mirror
        </Button>
        <Button onClick={make}>Copy</Button>
        <Button
          aria-pressed={part.own === true}
          title="Keeps its size, ports and figures, and offers it in every rig"
          onClick={() => change(`${part.name}, ${part.own ? "no longer" : "kept as"} your own part`, path, { own: part.own ? null : true })}
        >
          {part.own ? "Remove from my parts" : "Add to my parts"}
        </Button>
        <Button onClick={remove}>Remove</Button>
      </div>
      <fieldset>
        <legend className="text-muted">Size</legend>
        <div className="mt-1 grid grid-cols-[repeat(auto-fit,minmax(4.9rem,1fr))] gap-2">
          {(["xM", "yM", "zM"] as const).map((axis) => (
            <QuantityField
              key={axis}
              label={sizeWords[axis]}
              value={part.box.size[axis]}
              quantity="length"
              limit="edge.m"
              onCommit={(m) =>
                commit(`Size of ${part.name}`, [{ kind: "resize", partId: id, size: { ...part.box.size, [axis]: m } } as Edit])
              }
            />
          ))}
        </div>
      </fieldset>
      <TankFigures rig={rig} part={part} />
      {kind?.caution && <Caution>{kind.caution}</Caution>}
      <div className="grid grid-cols-[repeat(auto-fit,minmax(4.9rem,1fr))] gap-2">
        <QuantityField
          label={part.holdsL == null ? "Volume" : "Volume, yours"}
          value={holdsL}
          quantity="volume"
          limit="part.holdsL"
          onCommit={(holdsL) => change(`Content of ${part.name}`, path, { holdsL })}
        />
        <QuantityField
          label={part.massKg == null ? "Mass, empty" : "Mass, yours"}
          value={part.massKg ?? emptyKg ?? kind?.massKg}
          quantity="mass"
          limit="part.massKg"
          onCommit={(massKg) => change(`Mass of ${part.name}`, path, { massKg })}
        />
        <QuantityField
          label={part.lossWPerK == null ? "Heat loss" : "Heat loss, yours"}
          value={part.lossWPerK ?? (kind?.lossWPerK || null)}
          quantity="conductance"
          limit="part.lossWPerK"
          onCommit={(lossWPerK) => change(`Heat loss of ${part.name}`, path, { lossWPerK })}
        />
        <SleeveFields
          label="Jacket"
          none="none"
          sleeve={part.jacket}
          onCommit={(jacket) => change(`Jacket of ${part.name}`, path, { jacket, ...(!jacket && { jacketOff: null }) })}
        />
        {part.jacket && (
          <JacketSides off={part.jacketOff ?? []} onCommit={(jacketOff) => change(`Jacket of ${part.name}`, path, { jacketOff })} />
        )}
      </div>
      <FlowFields rig={rig} part={part} />
      <HeatFields part={part} />
      <SwitchFields rig={rig} part={part} />
      <PadFields rig={rig} part={part} />
      <SensedHere rig={rig} part={part} />
      <Positions rig={rig} part={part} />
      <ReachFields part={part} />
      <section>
        <h4 className="text-muted">Ports</h4>
        <ul>
          {part.ports.map((port) => {
            const run = (indexOf(rig).runsAt.get(id) ?? []).find((r) => [r.from, r.to].some((e) => e.part === id && e.port === port.id));
            return (
              <li key={port.id}>
                <button
                  type="button"
                  className="flex h-10 w-full items-center gap-2 rounded-md px-2 text-left hover:bg-sunk"
                  onClick={() => selection.take({ kind: "port", partId: id, portId: port.id })}
                >
                  <span className="font-semibold">{called(port)}</span>
                  <span className="min-w-0 truncate text-muted">{run ? run.name : "no pipe yet"}</span>
                </button>
              </li>
            );
          })}
        </ul>
      </section>
    </>
  );
}

/** Where the part is, measured at its corner or at one of its ports: the point that was chosen is the one that is typed. */
function MeasuredAt({ rig, part }: { rig: Rig; part: Part }) {
  const [chosen, setChosen] = useState("");
  const port = part.ports.find((p) => p.id === chosen);
  return (
    <div className="flex flex-col gap-2">
      <PickField
        label="Measured at"
        value={port ? port.id : ""}
        options={[
          { value: "", text: "its lowest corner, rear and kerb side" },
          ...part.ports.map((p) => ({ value: p.id, text: `port ${called(p)}, invert of the pipe` })),
        ]}
        onCommit={setChosen}
      />
      <PlaceFields
        key={chosen}
        rig={rig}
        thing={{ kind: "part", partId: part.id }}
        by={port?.offset}
        of={port ? `Port ${called(port)}; the part moves with it` : "Its lowest corner, rear and kerb side"}
      />
    </div>
  );
}

const sizeWords = { xM: "Along", yM: "Across", zM: "High" } as const;

/** What a tank's ports decide, and how it breathes. */
function TankFigures({ rig, part }: { rig: Rig; part: Part }) {
  const { stock } = useCatalogue();
  const change = useChange();
  const print = usePrint();
  const tank = useAnswers((s) => s.answers?.tanks?.tanks.find((t) => t.partId === part.id));
  const stale = useAnswers((s) => s.stale);
  if (!tank) return null;
  const named = (id: string) => indexOf(rig).parts.get(id)?.name ?? id;
  const lines: [string, string][] = [
    ...(tank.neverPumpedL == null ? [] : [["Below the outlet, can't be pumped", print(tank.neverPumpedL, "volume")] as [string, string]]),
    [`Below its lowest port (${tank.lowestPort}), can't drain`, print(tank.neverDrainedL, "volume")],
    ...(tank.overFillL == null
      ? []
      : [[`Above ${tank.overFillBy ?? "its highest port"}, can't fill`, print(tank.overFillL, "volume")] as [string, string]]),
    [
      "Breathes through",
      !tank.ventEnd
        ? "nothing: no vent to the open air"
        : tank.ventDipM != null
          ? `nothing while water lies in the dip of its vent, ${print(tank.ventDipM, "length")} deep`
          : `${tank.ventEnd}, at ${print((tank.ventPa ?? 0) / 1e5, "pressure")}`,
    ],
    ...(tank.twins.length > 0
      ? [["Levels with", `${tank.twins.map(named).join(", ")}, if each of them breathes`] as [string, string]]
      : []),
  ];
  return (
    <Stale as="section" stale={stale}>
      <h4 className="text-muted">As it is parked; estimates</h4>
      <dl>
        {lines.map(([what, figure]) => (
          <div key={what} className="flex justify-between gap-3 border-b border-rule py-1">
            <dt>{what}</dt>
            <dd className="shrink-0 text-right font-semibold">{figure}</dd>
          </div>
        ))}
      </dl>
      {stock.get(part.stock)?.group === "store" && (
        <div className="mt-2">
          <PickField
            label="Light"
            value={part.covered ? "kept" : ""}
            options={[
              { value: "", text: "reaches it, or not known" },
              { value: "kept", text: "is kept out" },
            ]}
            onCommit={(v) => change(`Light on ${part.name}`, `parts/${part.id}`, { covered: v ? true : null })}
          />
        </div>
      )}
    </Stale>
  );
}

/** How a valve, tap or pump stands in the scenario that is asked about. */
function Positions({ rig, part }: { rig: Rig; part: Part }) {
  const { stock } = useCatalogue();
  const { commit } = useActions();
  const scenarioId = useAnswers((s) => s.conditions?.scenarioId);
  const positions = stock.get(part.stock)?.positions ?? [];
  // The pump and valves of a heating circuit are as they are in use.
  const joined = indexOf(rig).runsAt.get(part.id) ?? [];
  const heats = joined.length > 0 && joined.every((r) => r.service === "coolant");
  const scenario = heats
    ? rig.scenarios.find((s) => s.kind === "inUse")
    : (rig.scenarios.find((s) => s.id === scenarioId) ?? rig.scenarios.find((s) => s.kind === "drain"));
  if (positions.length === 0 || !scenario) return null;
  const now = scenario.settings.find((s) => s.id === part.id)?.position ?? "";
  return (
    <PickField
      label={`In “${scenario.name}”`}
      value={now}
      options={[{ value: "", text: "default" }, ...positions.map((p) => ({ value: p.id, text: p.name }))]}
      onCommit={(position) =>
        commit(`${part.name} in ${scenario.name}`, [
          { kind: "setPosition", scenarioId: scenario.id, partId: part.id, position: position || null } as Edit,
        ])
      }
    />
  );
}

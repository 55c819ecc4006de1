import { useState } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { plural, say, usePrint } from "../../../app/units";
import { indexOf, type Rig } from "../../../document/geometry";
import { Button, Slider, Switch } from "../../../ui/controls";
import { Stale } from "../../../ui/Stale";
import { useTurn, useWater } from "./useWater";
import { WaterSums } from "./WaterSums";
import { Tasks } from "./WaterTasks";
import { Keep, Valves } from "./WaterValves";
import { useWaterStore } from "./waterStore";

/** The rig in use: what its valves are set for, what comes out of each tap, its pumps and valves. */
export function WaterPanel() {
  const { flow, stale, tasks, task, used, rig, error } = useWater(true);
  if (error)
    return (
      <p role="alert" className="p-4">
        Couldn't calculate the flow. {error.message}
      </p>
    );
  if (!flow || !tasks) return <p className="p-4 text-muted">Calculating where the water goes…</p>;
  return (
    <Stale stale={stale} className="min-h-0 grow overflow-y-auto px-3 pb-3" data-water>
      <Tasks tasks={tasks} task={task} rig={rig} />
      <Remarks name="What is wrong" remarks={flow.remarks.filter((r) => r.fault)} />
      <Outlets flow={flow} rig={rig} />
      <Pumps flow={flow} rig={rig} />
      <TankLevel rig={rig} level={used.level} fouled={used.fouled} />
      <Remarks name="Good to know" remarks={flow.remarks.filter((r) => !r.fault)} />
      <Valves flow={flow} rig={rig} />
      <WaterSums rig={rig} />
      {Object.keys(used.turned).length > 0 && <Keep rig={rig} turned={used.turned} task={task} />}
      <p className="mt-3 text-muted">Estimates, for lines full of water. Local codes decide on town water and backflow.</p>
    </Stale>
  );
}

function Remarks({ name, remarks }: { name: string; remarks: Schema["FlowRemark"][] }) {
  const print = usePrint();
  if (remarks.length === 0) return null;
  return (
    <ul className="mt-2.5 flex flex-col gap-1 rounded-md bg-sunk px-3 py-2" aria-label={name}>
      {remarks.map((r) => (
        <li key={r.id} className={r.fault ? "font-medium" : ""} data-remark={r.id}>
          {say(r.words, print)}
        </li>
      ))}
    </ul>
  );
}

const heading = "mt-3 font-semibold";

/** Every tap: opened and closed here, with what comes out. */
function Outlets({ flow, rig }: { flow: Schema["WaterFlowAnswer"]; rig: Rig }) {
  const turn = useTurn(rig, flow);
  const print = usePrint();
  const open = flow.outlets.filter((o) => o.open);
  return (
    <section>
      <h3 className={heading}>Taps</h3>
      {flow.outlets.length === 0 && <p className="text-muted">No tap is drawn yet.</p>}
      <ul>
        {flow.outlets.map((o) => (
          <li key={o.partId} className="border-b border-rule py-1">
            <div className="flex items-center gap-2">
              <Button quiet={!o.open} aria-pressed={o.open} className="w-18" onClick={() => turn(o.partId)}>
                {o.open ? "Close" : "Open"}
              </Button>
              <span className="min-w-0 grow">
                <span className="block truncate" title={o.name}>
                  {o.name}
                </span>
                {o.open && (
                  <span className="text-muted" data-outlet={o.partId}>
                    <strong className="font-semibold text-ink">{print(o.lPerMin, "flow")}</strong> · {print(o.bar * 1e5, "pressure")}
                    {o.c != null && ` · ${print(o.c, "temperature")}`}
                  </span>
                )}
              </span>
            </div>
          </li>
        ))}
      </ul>
      {open.length > 0 && <Details names={open.map((o) => o.partId)} />}
    </section>
  );
}

/** What takes the pressure, and what other bores would give: asked when it is looked at. */
function Details({ names }: { names: string[] }) {
  const [shown, setShown] = useState(false);
  return (
    <details className="mt-1.5" open={shown} onToggle={(e) => setShown(e.currentTarget.open)}>
      <summary className="h-10 cursor-pointer content-center font-medium">Why not more?</summary>
      {shown && <Costs names={names} />}
    </details>
  );
}

function Costs({ names }: { names: string[] }) {
  const { flow, rig } = useWater(true, true);
  const print = usePrint();
  if (flow?.outlets.find((o) => o.partId === names[0])?.halfInchLPerMin == null) return <p className="text-muted">Calculating…</p>;
  return flow.outlets
    .filter((o) => o.open)
    .map((o) => (
      <div key={o.partId} className="mb-2" data-costs={o.partId}>
        <p className="font-medium">
          {o.name}
          {o.aloneLPerMin != null && <span className="font-normal text-muted"> · alone {print(o.aloneLPerMin, "flow")}</span>}
        </p>
        <table className="w-full">
          <tbody>
            {o.costs.slice(0, 4).map((c) => (
              <tr key={`${c.kind}${c.runId}${c.partId}`} className="border-b border-rule">
                <td>
                  {c.name} <span className="text-muted">{costWords[c.kind]}</span>
                </td>
                <td className="text-right whitespace-nowrap">{print(c.bar * 1e5, "pressure")}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="text-muted">Way: {o.way.map((id) => indexOf(rig).runs.get(id)?.name ?? id).join(", ")}.</p>
        {o.halfInchLPerMin != null && o.threeEighthsLPerMin != null && (
          <p className="text-muted">
            All lines 1/2 in: {print(o.halfInchLPerMin, "flow")}; 3/8 in: {print(o.threeEighthsLPerMin, "flow")}.
          </p>
        )}
      </div>
    ));
}

const costWords: Record<Schema["CostKind"], string> = {
  friction: "pipe friction",
  bends: "bends",
  fitting: "fitting",
  filter: "filter",
  valve: "valve",
  heater: "heater",
  height: "climb",
};

function Pumps({ flow, rig }: { flow: Schema["WaterFlowAnswer"]; rig: Rig }) {
  const print = usePrint();
  const { parts } = indexOf(rig);
  const turn = useTurn(rig, flow);
  const { stock } = useCatalogue();
  const pumps = flow.settings.filter((s) => stock.get(parts.get(s.id)?.stock ?? "")?.passage === "pump");
  if (pumps.length === 0) return null;
  return (
    <section>
      <h3 className={heading}>Pumps</h3>
      {pumps.map((s) => {
        const pump = flow.pumps.find((p) => p.partId === s.id);
        return (
          <div key={s.id} className="flex items-center gap-2 border-b border-rule py-1">
            <Button quiet={!pump} aria-pressed={pump !== undefined} className="w-18" onClick={() => turn(s.id)}>
              {pump ? "Stop" : "Run"}
            </Button>
            <span className="min-w-0 grow">
              <span className="block truncate">{parts.get(s.id)?.name}</span>
              {pump && (
                <span className="text-muted">
                  <strong className="font-semibold text-ink">{print(pump.lPerMin, "flow")}</strong> · {print(pump.bar * 1e5, "pressure")}
                  {pump.startsPerHour != null && ` · ${plural(Math.round(pump.startsPerHour), "start")} an hour`}
                </span>
              )}
            </span>
          </div>
        );
      })}
    </section>
  );
}

function TankLevel({ rig, level, fouled }: { rig: Rig; level: number | null; fouled: boolean }) {
  const { fill, foul } = useWaterStore.getState();
  const { stock } = useCatalogue();
  const filters = rig.parts.some((p) => stock.get(p.stock)?.flow?.fouledBar != null);
  const print = usePrint();
  return (
    <section>
      <h3 className={heading}>Tank level {level === null ? "full" : print(level, "share")}</h3>
      <Slider
        label="Tank level"
        value={level ?? 1}
        min={0}
        max={1}
        step={0.05}
        text={print(level ?? 1, "share")}
        onChange={(v) => fill(rig.id, v)}
      />
      {filters && (
        <div className="mt-2 flex items-center justify-between gap-2">
          <span>Filters due for change</span>
          <Switch label="Filters due for change" on={fouled} onChange={(on) => foul(rig.id, on)} />
        </div>
      )}
    </section>
  );
}

import { useMemo, useState } from "react";
import type { Schema } from "../../api/client";
import { lasting, say, usePrint } from "../../app/units";
import { carryWords } from "../../drawing/AirMarks";
import { Panel, Slider, Switch } from "../../ui/controls";
import { useAsked } from "../bench/useAsked";
import { airInput, useLayUp } from "./layUpStore";

const [WIDTH, HEIGHT, EDGE] = [400, 120, 4];

/** A compressor to try mistakes on: its gauges, second by second, on the lines of this rig. */
export function Compressor({ air, outlet }: { air: Schema["BlowOutAnswer"]; outlet: Schema["BlowStep"] | undefined }) {
  const [shown, setShown] = useState(false);
  return (
    <Panel className="p-3" aria-label="Compressor">
      <details open={shown} onToggle={(e) => setShown(e.currentTarget.open)}>
        <summary className="h-10 cursor-pointer content-center font-semibold">Try it on a simulated compressor</summary>
        {shown && <Simulated air={air} outlet={outlet ?? air.steps.find((s) => s.runIds.length > 0)} />}
      </details>
    </Panel>
  );
}

function Simulated({ air, outlet }: { air: Schema["BlowOutAnswer"]; outlet: Schema["BlowStep"] | undefined }) {
  const lay = useLayUp();
  const print = usePrint();
  const [regulator, setRegulator] = useState<number | null>(null);
  const [open, setOpen] = useState(true);
  const [seconds, setSeconds] = useState(60);
  const input = useMemo(
    () => ({
      air: { ...airInput(lay), freeLPerMin: null, tankL: null, tankBar: null, skip: null },
      regulatorBar: regulator,
      outletId: open ? (outlet?.id ?? null) : null,
      forS: seconds,
    }),
    [lay, regulator, open, outlet, seconds],
  );
  const run = useAsked("compressor", input).data;
  const bar = regulator ?? air.lineBar;
  return (
    <div data-compressor={run ? (run.fault ? "fault" : "well") : "asked"}>
      <p className="text-muted">Regulator: {print(bar * 1e5, "pressure")}</p>
      <Slider label="Regulator" value={bar} min={0} max={8} step={0.1} text={print(bar * 1e5, "pressure")} onChange={setRegulator} />
      <div className="mt-2 flex items-center justify-between gap-2">
        <span className="min-w-0 grow truncate">{outlet ? `${outlet.name} open` : "No outlet gets air"}</span>
        <Switch label="Outlet open" on={open} onChange={setOpen} />
      </div>
      <p className="mt-2 text-muted">For {lasting(seconds, print)}</p>
      <Slider label="For" value={seconds} min={5} max={300} step={5} text={lasting(seconds, print)} onChange={setSeconds} />
      {run && <Ran run={run} />}
    </div>
  );
}

function Ran({ run }: { run: Schema["CompressorAnswer"] }) {
  const print = usePrint();
  const last = run.gauges.at(-1);
  const most = Math.max(run.limitBar, ...run.gauges.map((g) => Math.max(g.tankBar, g.lineBar)), 1) * 1.05;
  const end = Math.max(1, last?.s ?? 1);
  const y = (bar: number) => HEIGHT - EDGE - (bar / most) * (HEIGHT - 2 * EDGE);
  const line = (of: (g: Schema["Gauges"]) => number) =>
    run.gauges.map((g, i) => `${i === 0 ? "M" : "L"}${((g.s / end) * WIDTH).toFixed(1)} ${y(of(g)).toFixed(1)}`).join("");
  return (
    <>
      <p className={`mt-2 ${run.fault ? "font-medium" : ""}`} role="status">
        {say(run.words, print)}
      </p>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="mt-2 w-full rounded-[5px] bg-ground"
        role="img"
        aria-label="Pressure in tank and lines, second by second"
      >
        <path d={`M0 ${y(run.limitBar)}H${WIDTH}`} stroke="var(--verdict-damage)" strokeDasharray="6 4" />
        <path d={line((g) => g.tankBar)} fill="none" stroke="var(--muted)" strokeWidth={2} />
        <path d={line((g) => g.lineBar)} fill="none" stroke="var(--ink)" strokeWidth={3} />
      </svg>
      <p className="mt-1 text-muted">
        Lines thick, tank thin, limit dashed.{" "}
        {last && (
          <>
            In the end: tank {print(last.tankBar * 1e5, "pressure")}, lines {print(last.lineBar * 1e5, "pressure")}
            {last.carries !== "none" && `, ${carryWords[last.carries]}`}.{" "}
          </>
        )}
        {print(run.leftL, "volume")} of air went through. A simulation, with estimates.
      </p>
    </>
  );
}

import { useEffect, useState } from "react";
import { useLocation } from "wouter";
import type { Problem, Schema } from "../../api/client";
import { usePrint } from "../../app/units";
import { Patterns } from "../../drawing/patterns";
import type { View } from "../../drawing/projection";
import { Button, Choice } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { BenchHeader } from "./BenchHeader";
import { type Lens, partOf, runOf, useBench } from "./benchStore";
import { DrawingPane, whole } from "./DrawingPane";
import { FallStrip } from "./FallStrip";
import { Findings } from "./Findings";
import { Ladder } from "./Ladder";
import { ColdLegend } from "./Legend";
import { WeatherStrip } from "./WeatherStrip";

/** The heart: plan and side, linked and to scale, the fall strip under them, the night as a control, and what follows from all of it. */
export function BenchPlace({ id }: { id: string }) {
  const { rig, lens, setLens, load, move } = useBench();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [zoom, setZoom] = useState(whole);
  const [only, setOnly] = useState<View | null>(null);

  useEffect(() => {
    setProblem(null);
    load(id).catch(setProblem);
  }, [id, load]);

  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement;
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !typing) {
        event.preventDefault();
        void move(event.shiftKey ? "redo" : "undo");
      }
      if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "d") setLens("drain");
      if (event.key === "c") setLens("cold");
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, [move, setLens]);

  if (problem) return <NotThere problem={problem} id={id} />;
  const pane = (view: View) =>
    only === null || only === view ? (
      <DrawingPane view={view} zoom={zoom} wide={only === view} onZoom={setZoom} onWide={() => setOnly(only ? null : view)} />
    ) : null;
  return (
    <div className="flex h-full flex-col">
      <Patterns />
      <BenchHeader />
      {!rig ? (
        <p className="p-8 text-muted">Fetching the rig…</p>
      ) : (
        <main className="grid min-h-0 grow grid-cols-[minmax(0,1fr)_20.5rem] grid-rows-[minmax(0,1fr)_auto] gap-2.5 p-2.5 max-[1100px]:grid-cols-[minmax(0,1fr)_17rem]">
          <div className="flex min-h-0 flex-col gap-2.5">
            <div className="flex items-center gap-3">
              <Choice<Lens>
                label="Lens"
                value={lens}
                onChange={setLens}
                options={[
                  { value: "drain", text: "Drain", title: "Falls, pools and drains (D)" },
                  { value: "cold", text: "Cold", title: "Temperatures and ice (C)" },
                ]}
              />
              {lens === "drain" ? <DrainSummary /> : <ColdLegend />}
            </div>
            <div className={`grid min-h-0 grow basis-64 gap-2.5 ${only ? "" : "grid-cols-2"}`}>
              {pane("plan")}
              {pane("side")}
            </div>
            <div className="flex min-h-0 grow basis-56 flex-col [&>*]:grow">
              <FallStrip />
            </div>
          </div>
          <div className="flex min-h-0 flex-col gap-2.5 [&>*]:basis-1/2">
            <Findings />
            <Ladder />
          </div>
          <div className="col-span-2 min-w-0">
            <WeatherStrip />
          </div>
        </main>
      )}
      <Clash />
    </div>
  );
}

function DrainSummary() {
  const drain = useBench((s) => s.answers?.drainDown);
  const problem = useBench((s) => s.studyProblem);
  const stale = useBench((s) => s.stale);
  const print = usePrint();
  if (problem) return <p role="alert">No answer: {problem}</p>;
  if (!drain) return null;
  const pools = drain.poolCount;
  return (
    <p className={`min-w-0 truncate ${stale ? "opacity-60" : ""}`} data-summary data-stale={stale}>
      <span className="text-muted">After draining </span>
      <strong className="text-[17px] font-semibold">{print(drain.retainedL, "volume")} stays</strong>
      <span className="text-muted">
        {" "}
        in {pools === 1 ? "1 pool" : `${pools} pools`}
        {drain.byDesignL > 0 && ` and parts that keep it (${print(drain.byDesignL, "volume")})`}
        {drain.byHandL > 0 && `; ${print(drain.byHandL, "volume")} is taken out by hand`}
      </span>
    </p>
  );
}

/** Two saves from one state: both are kept, the builder says which goes on. */
function Clash() {
  const { conflict, resolveConflict, rig } = useBench();
  const [, go] = useLocation();
  const both = async () => {
    const copy = await resolveConflict("both");
    if (copy) go(`/rigs/${copy}`);
  };
  return (
    <Dialog
      open={conflict !== null}
      title={`${rig?.name} was changed elsewhere meanwhile`}
      text={
        <>
          <p>Another window changed the same thing: {rig && conflict && namesOf(rig, conflict.clash)}.</p>
          <p className="mt-2">
            The other is revision {conflict?.current}.
            {conflict?.keptAs ? ` What is on this screen is safe too, as revision ${conflict.keptAs}.` : ""} Which one shall go on?
          </p>
        </>
      }
    >
      {conflict?.keptAs && <Button onClick={both}>Open this one beside it</Button>}
      <Button onClick={() => resolveConflict("theirs")}>Go on with the other</Button>
      <Button onClick={() => resolveConflict("mine")}>Put this one on top</Button>
    </Dialog>
  );
}

/** Things by name, for paths such as `runs/kitchen-cold/bends/b2/at/zM`. */
function namesOf(rig: Schema["Rig"], paths: string[]) {
  const names = paths.map((path) => {
    const [list, id] = path.split("/");
    const thing = list === "parts" ? partOf(rig, id ?? null) : list === "runs" ? runOf(rig, id ?? null) : undefined;
    return thing?.name ?? (list === "brief" ? "the brief" : list === "shell" ? "the shell" : "the rig");
  });
  return [...new Set(names)].join(", ");
}

function NotThere({ problem, id }: { problem: Problem; id: string }) {
  return (
    <main className="mx-auto mt-24 max-w-md p-6">
      <h1 className="text-[17px] font-semibold">{problem.status === 404 ? `There is no rig “${id}” on this shelf` : problem.title}</h1>
      <p className="mt-2 text-muted">
        {problem.status === 404 ? "It may have been taken off, or the address is misspelt." : problem.detail}
      </p>
      <a href="/" className="mt-4 inline-block underline">
        To the shelf
      </a>
    </main>
  );
}

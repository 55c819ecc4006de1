import { useCallback, useEffect, useMemo, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { Link } from "wouter";
import { say as inWords, plural, usePrint } from "../../app/units";
import { ofLayUp } from "../../document/answersStore";
import type { Rig } from "../../document/geometry";
import { whenWords } from "../../drawing/left";
import { Panel } from "../../ui/controls";
import { RigPlace } from "../bench/RigPlace";
import { StepDrawing } from "../layup/StepDrawing";
import { StepAtHand } from "./StepAtHand";
import { StepList } from "./StepList";
import { Timers } from "./Timers";
import { useWalkThrough } from "./useWalkThrough";
import { WalkEnd } from "./WalkEnd";

/** A procedure as it is done beside the vehicle: one big step at a time. */
export function WalkPlace({ id, walkId }: { id: string; walkId: string }) {
  return (
    <RigPlace id={id} place="layup" wanted={ofLayUp} alone>
      {(rig) => <WalkThrough key={walkId} rig={rig} walkId={walkId} />}
    </RigPlace>
  );
}

function WalkThrough({ rig, walkId }: { rig: Rig; walkId: string }) {
  const walk = useWalkThrough(rig.id, walkId);
  const { view } = walk;
  const print = usePrint();
  const [at, setAt] = useState<number | null>(null);
  const count = view?.steps.length ?? 0;
  // It goes on at the first step that is still to do, on whatever device.
  const next = view?.steps.findIndex((s) => s.stand === "open") ?? -1;
  const index = at ?? (next < 0 ? count : next);
  const made = view?.procedure.steps[index];
  const stand = view?.steps[index];
  const go = useCallback((to: number) => setAt(Math.max(0, Math.min(to, count))), [count]);
  const said = useCallback(() => setAt(null), []);
  useHotkeys("ArrowRight", () => go(index + 1), [go, index]);
  useHotkeys("ArrowLeft", () => go(index - 1), [go, index]);
  // A step that another device has said goes by.
  const current = stand?.stepId;
  useEffect(() => {
    if (current) window.scrollTo({ top: 0 });
  }, [current]);
  const shown = useMemo(
    () => ({
      partIds: made?.partIds.filter((p) => rig.parts.some((q) => q.id === p)) ?? [],
      number: made ? index + 1 : null,
      title: made ? inWords(made.words, print) : (view?.procedure.name ?? ""),
      air: null,
      stepId: null,
    }),
    [made, index, print, view?.procedure.name, rig.parts],
  );
  if (walk.problem && !view)
    return (
      <main className="p-4" role="alert">
        {walk.problem.status === 404 ? "There is no such walk-through." : `Couldn't load the steps. ${walk.problem.message}`}
      </main>
    );
  if (!view) return <main className="p-4 text-muted">Loading the steps…</main>;
  const done = view.steps.filter((s) => s.stand !== "open").length;
  return (
    <main className="mx-auto grid w-full max-w-[96rem] grid-cols-[minmax(0,1fr)] items-start gap-3 p-3 min-[1000px]:grid-cols-[28rem_minmax(0,1fr)]">
      <div className="flex min-w-0 flex-col gap-3">
        <Panel className="p-3" aria-label="Walk-through">
          <div className="flex items-baseline gap-2">
            <h2 className="min-w-0 grow truncate text-[17px] font-semibold">{view.procedure.name}</h2>
            {made && !view.endedAt && (
              <button type="button" className="inline-flex h-10 shrink-0 items-center underline" onClick={() => go(count)}>
                To the end
              </button>
            )}
            <Link href={`/rigs/${rig.id}/layup`} className="inline-flex h-10 shrink-0 items-center underline">
              Procedures
            </Link>
          </div>
          <div className="h-2 overflow-hidden rounded-full bg-sunk" data-walked={`${done}/${count}`}>
            <div className="h-full bg-ink" style={{ width: `${(100 * done) / Math.max(1, count)}%` }} />
          </div>
          <p className="mt-1 text-muted max-[700px]:hidden">
            {done} of {plural(count, "step")} behind you. Begun {whenWords(view.startedAt)}
            {view.who && ` by ${view.who}`}.
          </p>
          {view.changed.length > 0 && (
            <p className="mt-1">
              Changed in the drawing since: {view.changed.slice(0, 4).join(", ")}
              {view.changed.length > 4 && ` and ${view.changed.length - 4} more`}. These steps go on as they were begun.
            </p>
          )}
          {walk.waiting > 0 && walk.away && (
            <p className="mt-1 font-medium" role="status">
              No connection: {plural(walk.waiting, "step")} kept on this device, and sent once it is back.
            </p>
          )}
          {walk.told && (
            <p className="mt-1 font-medium" role="alert" data-told>
              {walk.told}
            </p>
          )}
        </Panel>
        <Timers view={view} index={index} onStep={go} />
        {made && stand ? (
          <StepAtHand key={made.id} rig={rig} walk={walk} view={view} made={made} stand={stand} index={index} onStep={go} onSaid={said} />
        ) : (
          <WalkEnd rig={rig} view={view} waiting={walk.waiting} onEnd={() => walk.say("ended", null)} onStep={go} />
        )}
        <StepList view={view} index={index} onStep={go} />
      </div>
      <StepDrawing rig={rig} shown={shown} />
    </main>
  );
}

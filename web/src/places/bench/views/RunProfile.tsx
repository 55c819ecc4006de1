import { ChevronLeft, ChevronRight } from "lucide-react";
import { type ReactNode, useMemo, useRef } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { type Print, usePrint } from "../../../app/units";
import { indexOf, type Rig } from "../../../document/geometry";
import { Stale } from "../../../ui/Stale";
import { useAnswers, useDocument, usePreview, useSelection } from "../benchStores";
import { poolLine, type Strip, unroll } from "../profileGeometry";
import { RunPicker } from "../RunPicker";
import { profileRun } from "../selectionStore";
import { useActions } from "../useActions";
import { ProfileSvg } from "./ProfileSvg";
import { toolClass, ViewFrame } from "./ViewFrame";

/** The run in hand and its way to the drain, unrolled along its length with heights exaggerated. Heights are dragged here, or nudged with keys. */
export function RunProfile({ onClose }: { onClose?: ReactNode }) {
  const rig = useDocument((s) => s.rig) as Rig;
  const answers = useAnswers((s) => s.answers);
  const about = useAnswers((s) => s.about);
  const stale = useAnswers((s) => s.stale);
  const conditions = useAnswers((s) => s.conditions);
  const night = useAnswers((s) => s.night);
  const wantedId = useSelection(profileRun);
  const print = usePrint();
  const actions = useActions();
  const { stock, numbers, bores } = useCatalogue();
  const svg = useRef<SVGSVGElement>(null);
  const runId = wantedId ?? rig.runs[0]?.id ?? null;
  const drainDown = answers?.drainDown;
  const full = conditions?.water === "wet";
  const strip = useMemo(
    () =>
      runId
        ? unroll(
            { rig, stock, bores, parked: conditions?.parked, answers: drainDown && about ? { drain: drainDown, about } : null, full },
            runId,
          )
        : null,
    [rig, stock, bores, conditions?.parked, drainDown, about, full, runId],
  );
  const preview = usePreview();
  const ghost = useMemo(() => {
    const there = preview && runId && indexOf(preview.rig).runs.has(runId) ? preview : null;
    // It runs the way it runs now; what stays in it is not told here.
    const way = drainDown && there ? { drain: drainDown, about: there.rig } : null;
    const unrolled =
      there && unroll({ rig: there.rig, stock, bores, parked: conditions?.parked, answers: way, full: false }, runId as string);
    return there && unrolled ? { preview: there, strip: unrolled } : null;
  }, [preview, runId, stock, bores, conditions?.parked, drainDown]);
  const drain = drainDown?.runs.find((r) => r.runId === runId);
  const run = runId ? indexOf(rig).runs.get(runId) : undefined;
  const told = night?.water === "wet" ? "wet" : "drained";
  return (
    <ViewFrame
      title="Run profile"
      name={`${rig.name}, profile of ${run?.name ?? ""}`}
      svg={svg}
      onClose={onClose}
      line={
        <span className="inline-flex items-center gap-3">
          {run && <RunPicker runs={rig.runs} runId={run.id} />}
          {run && (
            <span className="inline-flex">
              <button
                type="button"
                className={toolClass}
                aria-label="Go to previous point"
                title="Previous point (,)"
                onClick={() => actions.walk(-1)}
              >
                <ChevronLeft size={18} />
              </button>
              <button
                type="button"
                className={toolClass}
                aria-label="Go to next point"
                title="Next point (.)"
                onClick={() => actions.walk(1)}
              >
                <ChevronRight size={18} />
              </button>
            </span>
          )}
          {drain && run && strip && (
            <Stale as="span" stale={stale}>
              {summary(drain, strip, numbers.dryRunL, print, told)}
            </Stale>
          )}
        </span>
      }
    >
      {strip ? (
        <ProfileSvg
          strip={strip}
          ghost={ghost}
          pool={full ? null : poolLine(strip, drainDown?.pools ?? [], runId ?? "")}
          rig={rig}
          print={print}
          svg={svg}
        />
      ) : (
        <p className="p-4 text-muted">Select a run in the drawing, or draw one.</p>
      )}
    </ViewFrame>
  );
}

function summary(drain: Schema["RunDrain"], strip: Strip, dryRunL: number, print: Print, told: "wet" | "drained") {
  const end = drain.routeEnd ? `drains to ${drain.routeEnd.words}` : "nothing drains it";
  const held = drain.staysL > dryRunL ? `keeps ${print(drain.staysL, "volume")}` : "drains empty";
  return `${print(strip.ownM, "length")} long · ${told === "wet" ? `full, ${print(drain.fullL, "volume")}` : held} · ${end}`;
}

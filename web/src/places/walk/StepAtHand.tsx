import { Camera } from "lucide-react";
import { useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { api, type Problem, type Schema, sendFile } from "../../api/client";
import { newId } from "../../app/ids";
import { useSettings } from "../../app/settings";
import { say as inWords, usePrint } from "../../app/units";
import type { Rig } from "../../document/geometry";
import { whenWords } from "../../drawing/left";
import { Button, Panel } from "../../ui/controls";
import { PickFile } from "../../ui/PickFile";
import { fieldClass } from "../../ui/QuantityField";
import { Jug } from "../drain/Jug";
import { StepWords } from "../layup/StepWords";
import { Countdown } from "./Timers";
import type { useWalkThrough } from "./useWalkThrough";

type Step = Schema["ProcedureStep"];

interface Props {
  rig: Rig;
  walk: ReturnType<typeof useWalkThrough>;
  view: Schema["WalkView"];
  made: Step;
  stand: Schema["WalkStep"];
  index: number;
  onStep(at: number): void;
  /** Something was said of this step: the next open one comes. */
  onSaid(): void;
}

/** Reasons that come up beside a cold vehicle. */
const REASONS = ["Frozen or stuck", "Can't reach it", "Done already", "Not wanted this time"];

/** The step at hand, to be read with wet hands and pressed with a knuckle. */
export function StepAtHand({ rig, walk, view, made, stand, index, onStep, onSaid }: Props) {
  const [skipping, setSkipping] = useState(false);
  const over = view.endedAt !== null;
  const open = stand.stand === "open" && !over;
  const done = () => {
    walk.say("done", made.id);
    onSaid();
  };
  const skip = (reason: string) => {
    walk.say("skipped", made.id, { reason });
    onSaid();
  };
  const start = () => walk.say("timer", made.id);
  useHotkeys("d", done, { enabled: open }, [made.id]);
  useHotkeys("s", () => setSkipping(true), { enabled: open, preventDefault: true });
  useHotkeys("t", start, { enabled: open && made.waits && !stand.timerAt }, [made.id]);
  const jug = jugOf(made, rig);
  return (
    <Panel className="p-4" aria-label="Step">
      <StepWords step={made} number={index + 1} of={view.steps.length}>
        {stand.stand !== "open" && (
          <>
            {" "}
            · {stand.stand === "done" ? "done" : `skipped: ${stand.reason}`}
            {stand.at && `, ${whenWords(stand.at)}`}
            {stand.who && `, ${stand.who}`}
          </>
        )}
      </StepWords>
      {made.waits && (
        <div className="mt-3">
          {stand.timerAt ? (
            <Countdown startedAt={stand.timerAt} step={made} large />
          ) : (
            open && (
              <Button className="h-16 w-full text-[17px]" onClick={start}>
                Start the timer
              </Button>
            )
          )}
        </div>
      )}
      {jug && !over && <Jug partId={jug} measured={stand.litres} onMeasure={(litres) => walk.say("measured", made.id, { litres })} />}
      {skipping && open ? (
        <SkipReason onSkip={skip} onCancel={() => setSkipping(false)} />
      ) : open ? (
        <div className="mt-3 flex flex-col gap-2 max-[1000px]:sticky max-[1000px]:bottom-0 max-[1000px]:-mx-4 max-[1000px]:border-rule max-[1000px]:border-t max-[1000px]:bg-panel max-[1000px]:p-3">
          <Button primary className="h-20 w-full text-[21px]" data-done onClick={done}>
            Done
          </Button>
          <div className="grid grid-cols-3 gap-2">
            <Button className="h-16" disabled={index === 0} onClick={() => onStep(index - 1)}>
              Back
            </Button>
            <Button className="h-16" onClick={() => setSkipping(true)}>
              Skip
            </Button>
            <Photo view={view} made={made} />
          </div>
        </div>
      ) : (
        <div className="mt-3 grid grid-cols-3 gap-2">
          <Button className="h-16" disabled={index === 0} onClick={() => onStep(index - 1)}>
            Back
          </Button>
          <Button className="h-16" disabled={over} onClick={() => walk.say("reopened", made.id)}>
            Not done
          </Button>
          <Button className="h-16" data-next onClick={() => onStep(index + 1)}>
            Next step
          </Button>
        </div>
      )}
    </Panel>
  );
}

/** The opening that a jug is held under; null: none, or it is gone from the drawing. */
function jugOf(step: Step, rig: Rig): string | null {
  const opened = step.marks.filter((m) => m.kind === "done");
  const part = opened.length === 1 ? opened[0]?.thing?.replace(/^parts\//, "") : undefined;
  return part && step.outL != null && rig.parts.some((p) => p.id === part) ? part : null;
}

function SkipReason({ onSkip, onCancel }: { onSkip(reason: string): void; onCancel(): void }) {
  const [text, setText] = useState("");
  return (
    <form
      className="mt-3 flex flex-col gap-2"
      aria-label="Why it is skipped"
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) onSkip(text.trim());
      }}
    >
      <p className="font-medium">Why is it skipped? What stays full counts as wet.</p>
      <div className="grid grid-cols-2 gap-2">
        {REASONS.map((reason) => (
          <Button key={reason} className="h-16" onClick={() => onSkip(reason)}>
            {reason}
          </Button>
        ))}
      </div>
      <input
        aria-label="Another reason"
        placeholder="Another reason"
        maxLength={300}
        className={`${fieldClass} h-12 border-rule`}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="grid grid-cols-2 gap-2">
        <Button className="h-16" onClick={onCancel}>
          Don't skip
        </Button>
        <Button className="h-16" type="submit" disabled={!text.trim()}>
          Skip it
        </Button>
      </div>
    </form>
  );
}

/** A picture of this step goes into the logbook. */
function Photo({ view, made }: { view: Schema["WalkView"]; made: Step }) {
  const who = useSettings((s) => s.who);
  const print = usePrint();
  const [state, setState] = useState<"none" | "sending" | "kept" | string>("none");
  async function keep(file: File) {
    setState("sending");
    try {
      const kept = await sendFile<Schema["KeptPicture"]>("/api/pictures", file.type, file);
      const body = {
        id: newId("photo"),
        kind: "note" as const,
        at: new Date().toISOString(),
        words: inWords(made.words, print),
        pictures: [kept.picture],
        walkId: view.id,
        revision: view.revision,
        ...(view.outdoorC != null && { outdoorC: view.outdoorC }),
        ...(who && { who }),
        ...(made.partIds[0] && { thing: `parts/${made.partIds[0]}` }),
      };
      await api.POST("/api/rigs/{id}/log", { params: { path: { id: view.rigId } }, body });
      setState("kept");
    } catch (problem) {
      setState((problem as Problem).message);
    }
  }
  return (
    <>
      <PickFile
        className="h-16"
        label="Photo of this step"
        accept="image/jpeg,image/png"
        camera
        disabled={state === "sending"}
        onPick={(file) => void keep(file)}
      >
        <Camera size={20} />
        {state === "kept" ? "In the logbook" : state === "sending" ? "Sending…" : "Photo"}
      </PickFile>
      {!["none", "sending", "kept"].includes(state) && (
        <p role="alert" className="col-span-3">
          The photo was not kept: {state}
        </p>
      )}
    </>
  );
}

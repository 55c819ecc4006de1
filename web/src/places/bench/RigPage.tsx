import { type ReactNode, useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { useLocation } from "wouter";
import type { Problem } from "../../api/client";
import { indexOf, type Rig } from "../../document/geometry";
import { Patterns } from "../../drawing/patterns";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { Drawn } from "../../ui/Drawn";
import { BenchHeader, type Place } from "./BenchHeader";
import { useDocument, useStores } from "./benchStores";
import { FirstWalk } from "./FirstWalk";
import { FiveQuestions } from "./FiveQuestions";
import { Help } from "./Help";
import { VerdictLine } from "./VerdictLine";
import { useView } from "./viewStore";
import { WeatherStrip } from "./WeatherStrip";

/** A key means the same where a choice, a slider or a point of the strip has the focus; in a field it is text. */
export const keyed = { enableOnFormTags: ["radio", "slider", "option"] as const };

/** Letters that edit do so in the drawing alone, and never while a run is being drawn and its words typed. */
export const inDrawing = (busy: () => boolean) => ({
  ...keyed,
  ignoreEventWhen: (e: KeyboardEvent) => busy() || !(e.target instanceof Element && e.target.closest("[role=application]")),
});

/** Places with controls of the night of their own. */
const ownNight: ReadonlySet<Place> = new Set(["night", "shell"]);

interface Props {
  id: string;
  place: Place;
  /** As high as the window, with no scrolling of its own. */
  full?: boolean;
  /** On a phone the page has all of the screen for itself. */
  alone?: boolean;
  onFind?(): void;
  children: ReactNode;
}

/** What every place of a rig has: its header, undo by key, what is said when it is gone, and when two windows clash. */
export function RigPage({ id, place, full = false, alone = false, onFind, children }: Props) {
  const { document } = useStores();
  const missing = useDocument((s) => s.missing);
  const here = useDocument((s) => s.rig !== null);
  const weather = useView((s) => s.shown.weather);
  const [help, setHelp] = useState(false);
  useHotkeys("?", () => setHelp(true), { ...keyed, useKey: true });
  useHotkeys("mod+z", () => void document.undo(), { ...keyed, preventDefault: true });
  useHotkeys("mod+shift+z, mod+y", () => void document.redo(), { ...keyed, preventDefault: true });
  if (missing) return <NotThere problem={missing} id={id} />;
  return (
    <div className={`flex flex-col ${full ? "h-full" : "min-h-full"}`}>
      <Patterns />
      <button
        type="button"
        className="fixed top-1 left-1 z-50 h-10 rounded-md border border-ink bg-panel px-3 font-medium not-focus-visible:sr-only"
        onClick={toContent}
      >
        Skip to content
      </button>
      <div className={alone ? "max-[700px]:hidden" : "contents"}>
        <BenchHeader place={place} onHelp={() => setHelp(true)} {...(onFind && { onFind })} />
        {here && <VerdictLine place={place} />}
      </div>
      {here && <FirstWalk id={id} place={place} />}
      {here && place === "bench" && <FiveQuestions id={id} />}
      {here && weather && !ownNight.has(place) && (
        <div className="shrink-0 px-2 pt-2">
          <WeatherStrip />
        </div>
      )}
      {here ? children : <Drawn picture="loading" role="status" title="Loading the rig…" />}
      {help && <Help place={place} onClose={() => setHelp(false)} />}
      <Clash />
    </div>
  );
}

/** For keys: past the header, to what the place is about. */
function toContent() {
  const main = window.document.querySelector("main");
  if (!main) return;
  main.tabIndex = -1;
  main.focus();
}

/** Two saves from one state: both are kept, the builder says which goes on. */
function Clash() {
  const { document } = useStores();
  const conflict = useDocument((s) => s.conflict);
  const rig = useDocument((s) => s.rig);
  const [, go] = useLocation();
  const both = async () => {
    const copy = await document.settle("both");
    if (copy) go(`/rigs/${copy}`);
  };
  return (
    <Dialog
      open={conflict !== null}
      title={`${rig?.name} was changed in another window`}
      text={
        <>
          <p>Both windows changed the same thing: {rig && conflict && namesOf(rig, conflict.clash)}.</p>
          <p className="mt-2">Nothing is lost: both versions are kept. Which one do you want to keep under this name?</p>
        </>
      }
    >
      {conflict?.keptAs && <Button onClick={both}>Keep both</Button>}
      <Button onClick={() => window.open(window.document.location.href, "_blank")}>Show theirs</Button>
      <Button onClick={() => document.settle("theirs")}>Keep theirs</Button>
      <Button onClick={() => document.settle("mine")}>Keep mine</Button>
    </Dialog>
  );
}

/** Things by name, for paths such as `runs/kitchen-cold/bends/b2/at/zM`. */
function namesOf(rig: Rig, paths: string[]) {
  const { parts, runs } = indexOf(rig);
  const names = paths.map((path) => {
    const [list, id = ""] = path.split("/");
    const thing = list === "parts" ? parts.get(id) : list === "runs" ? runs.get(id) : undefined;
    return thing?.name ?? (list === "brief" ? "the brief" : list === "shell" ? "the shell" : "the rig");
  });
  return names.length === 0 ? "something in the rig" : [...new Set(names)].join(", ");
}

function NotThere({ problem, id }: { problem: Problem; id: string }) {
  const waiting = useDocument((s) => s.waiting);
  return (
    <main className="mt-24">
      <Drawn
        picture={problem.status === 404 ? "empty" : "failed"}
        title={problem.status === 404 ? `There is no rig “${id}” on this shelf` : problem.title}
      >
        <p className="mt-2 text-muted">
          {problem.status === 404 ? "It may have been deleted, or the address is misspelt." : problem.detail}
        </p>
        {waiting.length > 0 && (
          <p className="mt-2" role="status">
            {waiting.length === 1 ? "One change was" : `${waiting.length} changes were`} not saved yet, and{" "}
            {waiting.length === 1 ? "is" : "are"} kept on this device: {[...new Set(waiting.map((w) => w.what))].join(", ")}. Restore the
            rig and open it here to save {waiting.length === 1 ? "it" : "them"}.
          </p>
        )}
        <a href="/" className="mt-4 inline-flex h-10 items-center underline">
          All rigs
        </a>
      </Drawn>
    </main>
  );
}

import { CircleHelp, Download, Redo2, Search, Undo2 } from "lucide-react";
import { Popover } from "radix-ui";
import { Link } from "wouter";
import { AppBar } from "../../app/AppBar";
import { plural } from "../../app/units";
import { canRedo, canUndo, type SaveState, saveStateOf } from "../../document/documentState";
import { useAnswers, useDocument, useStores } from "./benchStores";

export type Place = "bench" | "brief" | "shell" | "night" | "drain" | "layup" | "log" | "weights";

const words: Record<SaveState, string> = {
  saved: "Saved",
  unsaved: "Saving soon…",
  saving: "Saving…",
  offline: "Offline: kept on this device",
  refused: "Not saved",
};

/** The rig's name, undo and redo, whether it is saved, and whether the answers are those of what is shown. */
export function BenchHeader({ onFind, onHelp, place }: { onFind?(): void; onHelp(): void; place: Place }) {
  const { document } = useStores();
  const name = useDocument((s) => s.rig?.name ?? "");
  const id = useDocument((s) => s.id);
  const tool = "grid size-10 shrink-0 place-items-center rounded-md hover:bg-sunk disabled:opacity-30";
  return (
    <AppBar>
      <Link href="/" className="inline-flex h-10 items-center rounded-md px-2 text-muted hover:bg-sunk hover:text-ink max-[1099px]:hidden">
        Rigs
      </Link>
      <span className="text-muted max-[1099px]:hidden">/</span>
      <h1 className="min-w-16 truncate text-[17px] font-semibold" title={name}>
        {name}
      </h1>
      {/* Where all of it has no room in one line, places have one of their own. */}
      <nav
        aria-label="Place"
        className="flex items-center gap-2 max-[1199px]:gap-0 max-[860px]:order-last max-[860px]:-mx-1.5 max-[860px]:basis-full max-[860px]:overflow-x-auto"
      >
        {(["bench", "brief", "shell", "night", "drain", "layup", "log", "weights"] as const).map((p) => (
          <Link
            key={p}
            href={p === "bench" ? `/rigs/${id}` : `/rigs/${id}/${p}`}
            aria-current={p === place ? "page" : undefined}
            className="inline-flex h-10 shrink-0 items-center whitespace-nowrap rounded-md px-2.5 text-muted hover:bg-sunk hover:text-ink max-[1099px]:px-1 max-[1099px]:text-[14px] aria-[current]:font-semibold aria-[current]:text-ink aria-[current]:underline aria-[current]:decoration-2 aria-[current]:underline-offset-4"
          >
            {
              {
                bench: "Bench",
                brief: "Brief",
                shell: "Shell",
                night: "Night",
                drain: "Drain",
                layup: "Lay-up",
                log: "Logbook",
                weights: "Weights",
              }[p]
            }
          </Link>
        ))}
      </nav>
      <span className="min-w-0 grow" />
      <SaveWords />
      <AnswerWords />
      {onFind && (
        <button type="button" className={tool} aria-label="Search" title="Search parts, runs and actions (Ctrl K)" onClick={onFind}>
          <Search size={19} />
        </button>
      )}
      <button
        type="button"
        className={tool}
        aria-label="Undo"
        title="Undo (Ctrl Z)"
        disabled={!useDocument(canUndo)}
        onClick={() => document.undo()}
      >
        <Undo2 size={19} />
      </button>
      <button
        type="button"
        className={tool}
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"
        disabled={!useDocument(canRedo)}
        onClick={() => document.redo()}
      >
        <Redo2 size={19} />
      </button>
      <button type="button" className={tool} aria-label="Help" title="Help and keys (?)" onClick={onHelp}>
        <CircleHelp size={19} />
      </button>
      <SaveToFile />
    </AppBar>
  );
}

function SaveWords() {
  const state = useDocument(saveStateOf);
  const refusal = useDocument((s) => s.refusal);
  const waiting = useDocument((s) => s.waiting);
  const unkept = useDocument((s) => s.unkept);
  return (
    <>
      <span
        role="status"
        className={`min-w-0 truncate ${state === "refused" || unkept ? "font-semibold" : "text-muted"}`}
        data-save={state}
        title={refusal ?? undefined}
      >
        {unkept ? "Not saved, and this device is full: keep this window open" : words[state]}
        {refusal ? `: ${refusal}` : ""}
      </span>
      {state === "offline" && waiting.length > 0 && (
        <Popover.Root>
          <Popover.Trigger className="h-10 shrink-0 rounded-md border border-rule px-3 font-medium hover:border-strong">
            {plural(waiting.length, "unsaved edit")}
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content className="z-50 w-80 rounded-md border border-strong bg-panel p-4 shadow-xl" collisionPadding={12}>
              <h2 className="font-semibold">Waiting to be saved</h2>
              <ol className="mt-2 max-h-72 list-decimal overflow-y-auto pl-5">
                {waiting.map((w) => (
                  <li key={w.key}>{w.what}</li>
                ))}
              </ol>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      )}
    </>
  );
}

/** Answers follow the drawing; until they have, this says so. Short waits are not worth a word. */
function AnswerWords() {
  const problem = useAnswers((s) => s.problem);
  const stale = useAnswers((s) => s.stale);
  if (problem)
    return (
      <span role="alert" className="max-w-64 min-w-0 truncate font-semibold" title={problem}>
        Couldn't calculate: {problem}
      </span>
    );
  return (
    <span
      data-answers={stale ? "stale" : "current"}
      className="w-3 shrink-0 text-center text-muted"
      title={stale ? "Calculating" : "Up to date"}
    >
      {stale ? "…" : ""}
    </span>
  );
}

/** The file holds what is shown: what waits is saved first. */
function SaveToFile() {
  const { document } = useStores();
  const id = useDocument((s) => s.id);
  const save = async () => {
    if (!(await document.flush())) return;
    const link = window.document.createElement("a");
    link.href = `/api/rigs/${id}/file`;
    link.download = "";
    link.click();
  };
  return (
    <button
      type="button"
      onClick={save}
      aria-label="Save to file"
      className="inline-flex h-10 shrink-0 items-center rounded-md border border-rule px-3 font-medium hover:border-strong max-[800px]:hidden max-[1099px]:px-2.5"
    >
      <Download size={18} className="min-[1100px]:hidden" />
      <span className="max-[1099px]:hidden">Save to file</span>
    </button>
  );
}

import { Redo2, Undo2 } from "lucide-react";
import { Popover } from "radix-ui";
import { Link } from "wouter";
import { AppBar } from "../../app/AppBar";
import { type SaveState, useBench } from "./benchStore";

const words: Record<SaveState, string> = {
  saved: "Saved",
  unsaved: "Saving soon…",
  saving: "Saving…",
  offline: "Not reached; kept on this device",
  refused: "Not saved",
};

/** The rig's name, undo and redo, and whether it is saved. */
export function BenchHeader() {
  const { rig, canUndo, canRedo, saveState, refusal, waiting, move } = useBench();
  const tool = "grid size-10 place-items-center rounded-md hover:bg-sunk disabled:opacity-30";
  return (
    <AppBar>
      <nav aria-label="Place" className="flex min-w-0 items-center gap-2">
        <Link href="/" className="inline-flex h-10 items-center rounded-md px-2 text-muted hover:bg-sunk hover:text-ink">
          Rigs
        </Link>
        <span className="text-muted">/</span>
        <h1 className="truncate text-[17px] font-semibold">{rig?.name ?? ""}</h1>
      </nav>
      <span className="grow" />
      <span role="status" className={`truncate ${saveState === "refused" ? "font-semibold" : "text-muted"}`} data-save={saveState}>
        {words[saveState]}
        {refusal ? `: ${refusal}` : ""}
      </span>
      {saveState === "offline" && waiting.length > 0 && (
        <Popover.Root>
          <Popover.Trigger className="h-10 shrink-0 rounded-md border border-rule px-3 font-medium hover:border-strong">
            {waiting.length === 1 ? "1 edit waits" : `${waiting.length} edits wait`}
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content className="z-50 w-80 rounded-md border border-strong bg-panel p-4 shadow-xl" collisionPadding={12}>
              <h2 className="font-semibold">To be saved once the program answers</h2>
              <ol className="mt-2 max-h-72 list-decimal overflow-y-auto pl-5">
                {waiting.map((w, i) => (
                  <li key={i}>{w.what}</li>
                ))}
              </ol>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      )}
      <button type="button" className={tool} aria-label="Undo" title="Undo (Ctrl Z)" disabled={!canUndo} onClick={() => move("undo")}>
        <Undo2 size={19} />
      </button>
      <button type="button" className={tool} aria-label="Redo" title="Redo (Ctrl Shift Z)" disabled={!canRedo} onClick={() => move("redo")}>
        <Redo2 size={19} />
      </button>
      {rig && (
        <a
          href={`/api/rigs/${rig.id}/file`}
          download
          className="inline-flex h-10 shrink-0 items-center rounded-md border border-rule px-3 font-medium hover:border-strong"
        >
          Save to file
        </a>
      )}
    </AppBar>
  );
}

import { Redo2, Undo2 } from "lucide-react";
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
  const { rig, canUndo, canRedo, saveState, refusal, move } = useBench();
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

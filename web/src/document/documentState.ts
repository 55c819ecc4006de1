import type { StoreApi } from "zustand/vanilla";
import type { Problem, Schema } from "../api/client";
import type { Waiting } from "./drafts";

type Rig = Schema["Rig"];
type Edit = Schema["Edit"];

/** Where the document stands against the server. */
export type SaveState = "saved" | "unsaved" | "saving" | "offline" | "refused";

/** A way back or forward: edits, and the revision they belong to. */
export interface Step {
  what: string;
  base: number;
  edits: Edit[];
}

export interface Conflict {
  current: number;
  keptAs: number | null;
  clash: string[];
}

export interface DocumentState {
  id: string;
  /** The document as it is drawn: the saved one, what waits, and what is under the finger. Null until it has come. */
  rig: Rig | null;
  /** The newest saved state that is known here, and its revision. */
  saved: Rig | null;
  revision: number;
  waiting: Waiting[];
  /** Edits under the finger: shown, never saved. */
  previewEdits: Edit[];
  done: Step[];
  undone: Step[];
  sending: { key: string; count: number } | null;
  away: boolean;
  refusal: string | null;
  conflict: Conflict | null;
  /** What waits could not be kept on this device. */
  unkept: boolean;
  /** Why the rig cannot be shown. */
  missing: Problem | null;
}

export interface DocumentStore extends StoreApi<DocumentState> {
  open(): Promise<void>;
  /** Shows edits without keeping them: while dragging. */
  show(edits: Edit[]): void;
  /** The same while a pointer moves: drawn in a task of its own after the pointer's, the newest only, so that neither keeps the hand waiting. */
  drag(edits: Edit[]): void;
  /** Something is in hand, drawn already or about to be. */
  holds(): boolean;
  letGo(): void;
  /** Keeps edits. */
  commit(what: string, edits: Edit[]): void;
  undo(): Promise<void>;
  redo(): Promise<void>;
  /** Waits until all is saved; false when it cannot be. */
  flush(): Promise<boolean>;
  /** Brings the saved state up to the newest revision. */
  follow(): Promise<void>;
  /** What the server said of this rig: another revision, or that it was taken off. */
  heard(change: Schema["ShelfChange"] | null): void;
  settle(keep: "mine" | "theirs" | "both"): Promise<string | null>;
  /** A page that goes: what waits, to be sent without waiting for the answer; null when there is nothing or too much. */
  leave(): { base: number; edits: Edit[]; key: string } | null;
  close(): void;
}

export const saveStateOf = (s: DocumentState): SaveState =>
  s.conflict || s.refusal
    ? "refused"
    : s.away && s.waiting.length > 0
      ? "offline"
      : s.sending
        ? "saving"
        : s.waiting.length > 0
          ? "unsaved"
          : "saved";
export const pendingOf = (s: DocumentState) => [...s.waiting.flatMap((w) => w.edits), ...s.previewEdits];
export const canUndo = (s: DocumentState) => s.waiting.some((w) => !w.way) || s.done.length > 0;
export const canRedo = (s: DocumentState) => s.undone.length > 0;

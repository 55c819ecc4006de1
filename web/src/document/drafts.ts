import { createStore, del, get, set } from "idb-keyval";
import type { Schema } from "../api/client";

/** Edits that wait to be saved, in the words of the screen on which they were made. */
export interface Waiting {
  key: string;
  what: string;
  /** The revision on which they were made. */
  base: number;
  edits: Schema["Edit"][];
  /** A way back or forward: what it takes from the list of steps. */
  way?: "undo" | "redo";
}

/** What is kept on this device of a rig: what waits, and how much of it is on its way under which key. */
export interface Draft {
  waiting: Waiting[];
  sending: { key: string; count: number } | null;
}

/** Drafts by rig. Tests put a map in its place. */
export interface Drafts {
  read(id: string): Promise<Draft | undefined>;
  write(id: string, draft: Draft): Promise<void>;
  drop(id: string): Promise<void>;
}

let shelf: ReturnType<typeof createStore> | undefined;
const store = () => {
  shelf ??= createStore("warm-conduit", "drafts");
  return shelf;
};

export const drafts: Drafts = {
  read: (id) => get<Draft>(id, store()),
  write: (id, draft) => set(id, draft, store()),
  drop: (id) => del(id, store()),
};

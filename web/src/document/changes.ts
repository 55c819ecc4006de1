import type { Schema } from "../api/client";

/** A change on the shelf, or null after a gap in which some may have been missed. */
export type Heard = Schema["ShelfChange"] | null;

const NAME = "warm-conduit-changes";
const listeners = new Set<(change: Heard) => void>();
let channel: BroadcastChannel | null = null;

/**
 * Tells of every change on the shelf, also those made in other windows. All windows of a browser share one stream: the one that holds the lock has it, and passes on what it hears; when that
 * window closes, the next takes over. A browser allows only few connections to a server, so a stream a window would soon leave none for the rest.
 */
export function listenChanges(listener: (change: Heard) => void): () => void {
  listeners.add(listener);
  start();
  return () => listeners.delete(listener);
}

function start() {
  if (channel || typeof BroadcastChannel === "undefined" || !navigator.locks) return;
  channel = new BroadcastChannel(NAME);
  channel.onmessage = (event) => tell(event.data as Heard);
  void navigator.locks.request(NAME, () => new Promise<never>(lead));
}

function lead() {
  const stream = new EventSource("/api/changes");
  const pass = (change: Heard) => {
    tell(change);
    channel?.postMessage(change);
  };
  stream.addEventListener("change", (event) => pass(JSON.parse((event as MessageEvent).data)));
  // At the start, and after each break, something may have been missed.
  stream.addEventListener("open", () => pass(null));
}

function tell(change: Heard) {
  for (const listener of listeners) listener(change);
}

import type { Schema } from "../api/client";

/** A change on the shelf, or null after a gap in which some may have been missed. */
export type Heard = Schema["ShelfChange"] | null;

/** Something new in the logbook of a rig or on one of its walk-throughs. */
export type LogNews = Pick<Schema["WalkView"], "rigId">;

type News = { change: Heard } | { job: Schema["JobProgress"] } | { log: LogNews } | { replaced: true };

const NAME = "warm-conduit-changes";
const listeners = new Set<(news: News) => void>();
let channel: BroadcastChannel | null = null;
let leads = false;

/**
 * Tells of every change on the shelf, also those made in other windows. All windows of a browser share one stream: the one that
 * holds the lock has it, and passes on what it hears; when that
 * window closes, the next takes over. A browser allows only few connections to a server, so a stream a window would soon leave none for the rest.
 */
export const listenChanges = (listener: (change: Heard) => void) => listen((news) => "change" in news && listener(news.change));

/** Tells how far jobs have come, on the same stream. */
export const listenJobs = (listener: (job: Schema["JobProgress"]) => void) => listen((news) => "job" in news && listener(news.job));

/** Tells of what is new in logbooks and on walk-throughs, on the same stream; null after a gap. */
export const listenLog = (listener: (log: LogNews | null) => void) =>
  listen((news) => {
    if ("log" in news) listener(news.log);
    else if ("change" in news && news.change === null) listener(null);
  });

function listen(listener: (news: News) => void): () => void {
  listeners.add(listener);
  start();
  return () => listeners.delete(listener);
}

function start() {
  if (leads || channel || typeof BroadcastChannel === "undefined" || typeof EventSource === "undefined") return;
  // On another machine's page a browser has no locks: each window there listens by itself.
  if (!navigator.locks) {
    leads = true;
    lead();
    return;
  }
  channel = new BroadcastChannel(NAME);
  channel.onmessage = (event) => tell(event.data as News);
  void navigator.locks.request(NAME, () => new Promise<never>(lead));
}

function lead() {
  const stream = new EventSource("/api/changes");
  const pass = (news: News) => {
    tell(news);
    channel?.postMessage(news);
  };
  stream.addEventListener("change", (event) => pass({ change: JSON.parse((event as MessageEvent).data) }));
  stream.addEventListener("job", (event) => pass({ job: JSON.parse((event as MessageEvent).data) }));
  stream.addEventListener("log", (event) => pass({ log: JSON.parse((event as MessageEvent).data) }));
  // A backup was restored: every rig may be another.
  stream.addEventListener("replaced", () => pass({ replaced: true }));
  // At the start, and after each break, something may have been missed.
  stream.addEventListener("open", () => pass({ change: null }));
}

function tell(news: News) {
  if ("replaced" in news) {
    // What this window knows, and its way back, are of rigs that are gone; what waits to be saved is kept apart, and asked about.
    sessionStorage.clear();
    // The shelf itself fetches anew, and goes on saying what was done.
    if (location.pathname === "/") return tell({ change: null });
    location.reload();
    return;
  }
  for (const listener of listeners) listener(news);
}

import type { Schema } from "../../api/client";

export type Act = Schema["WalkAct"];
type View = Schema["WalkView"];

const keyOf = (walkId: string) => `warm-conduit-acts-${walkId}`;

/** Acts that wait to be sent; they outlive the page. */
export function waitingOf(walkId: string): Act[] {
  try {
    return JSON.parse(localStorage.getItem(keyOf(walkId)) ?? "[]");
  } catch {
    return [];
  }
}

/** Keeps what waits on this device; it then lasts as long as the window where it is full. */
export function keepWaiting(walkId: string, acts: Act[]) {
  try {
    if (acts.length === 0) localStorage.removeItem(keyOf(walkId));
    else localStorage.setItem(keyOf(walkId), JSON.stringify(acts));
  } catch {
    // Said by the page while it is open.
  }
}

/** The walk-through as it is shown: what waits is done already. */
export function withWaiting(view: View, waiting: Act[]): View {
  const steps = view.steps.map((step) => waiting.filter((a) => a.stepId === step.stepId).reduce(after, step));
  const end = waiting.find((a) => a.kind === "ended");
  return { ...view, steps, endedAt: view.endedAt ?? end?.at ?? null };
}

function after(step: Schema["WalkStep"], act: Act): Schema["WalkStep"] {
  const { at, who = null } = act;
  switch (act.kind) {
    case "done":
      return { ...step, stand: "done", at, who };
    case "skipped":
      return { ...step, stand: "skipped", at, who, reason: act.reason ?? null };
    case "reopened":
      return { ...step, stand: "open", at: null, who: null, reason: null, timerAt: null };
    case "timer":
      return { ...step, timerAt: at };
    case "measured":
      return { ...step, litres: act.litres ?? null };
    default:
      return step;
  }
}

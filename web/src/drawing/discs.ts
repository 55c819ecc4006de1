import type { Schema } from "../api/client";
import type { Px } from "./projection";

/** Findings that share one disc, the first of them named on it. */
export interface Disc {
  findings: Schema["Finding"][];
  /** Number of the first in the list of findings. */
  number: number;
  at: Px;
  anchor: Px;
}

/** From afar the chosen finding and so many of the worst; close up all. */
const WORST = 5;
const REACH = 25;

/** Discs at the places of findings, one for those that would lie on each other. */
export function placeDiscs(
  findings: Schema["Finding"][],
  chosenId: string | null | undefined,
  all: boolean,
  px: (p: Schema["Point3"]) => Px,
  inside: (p: Px) => boolean,
): Disc[] {
  const discs: Disc[] = [];
  findings.forEach((finding, i) => {
    // A finding on the rig as a whole has no place.
    if (!finding.place || (!all && i >= WORST && finding.id !== chosenId)) return;
    const anchor = px(finding.place.at);
    if (!inside(anchor)) return;
    const at = { x: anchor.x + 15, y: anchor.y - 15 };
    const near = discs.find((d) => Math.hypot(d.at.x - at.x, d.at.y - at.y) < REACH);
    if (!near) discs.push({ findings: [finding], number: i + 1, at, anchor });
    else if (finding.id === chosenId) Object.assign(near, { findings: [finding, ...near.findings], number: i + 1 });
    else near.findings.push(finding);
  });
  return discs;
}

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

/** A numbered tag on a part, as it hangs on a valve. */
export interface Tag {
  partId: string;
  number: number;
  /** It was done. */
  done: boolean;
  chosen: boolean;
}

export interface PlacedTag extends Tag {
  at: Px;
  anchor: Px;
}

export const TAG = { width: 26, height: 18 };

/** Tags around their parts, none on another; one that finds no room is left out, but for the chosen. */
export function placeTags(tags: Tag[], px: (partId: string) => Px | undefined): PlacedTag[] {
  const placed: PlacedTag[] = [];
  const first = [...tags].sort((a, b) => Number(b.chosen) - Number(a.chosen));
  for (const tag of first) {
    const anchor = px(tag.partId);
    if (!anchor) continue;
    const spots = [26, 44, 62].flatMap((away) =>
      [-45, -135, 45, 135, -90, 90, 0, 180].map((deg) => ({
        x: anchor.x + away * Math.cos((deg * Math.PI) / 180),
        y: anchor.y + away * Math.sin((deg * Math.PI) / 180),
      })),
    );
    const free = spots.find((at) =>
      placed.every((p) => Math.abs(p.at.x - at.x) > TAG.width + 2 || Math.abs(p.at.y - at.y) > TAG.height + 2),
    );
    const at = free ?? (tag.chosen ? spots[0] : undefined);
    if (at) placed.push({ ...tag, anchor, at });
  }
  return placed;
}

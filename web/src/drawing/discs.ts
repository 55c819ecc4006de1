import type { Schema } from "../api/client";
import { type Area, overlap } from "./labels";
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

export type Hung<T> = T & { at: Px; anchor: Px };
export type PlacedTag = Hung<Tag>;

export const TAG = { width: 26, height: 18 };

/** How much room a tag takes from labels and from other tags. */
export const tagRoom = (t: { at: Px }): Area => ({
  x: t.at.x - TAG.width / 2 - 1,
  y: t.at.y - TAG.height / 2 - 1,
  width: TAG.width + 2,
  height: TAG.height + 2,
});

/** What hangs on parts, around them, none on another; one that finds no room is left out, but for the chosen, which come first. */
export function placeTags<T extends { partId: string; chosen: boolean }>(
  tags: T[],
  px: (partId: string) => Px | undefined,
  room: (t: Hung<T>) => Area = tagRoom,
  frame?: { width: number; height: number },
): Hung<T>[] {
  const seen = ({ x, y, width, height }: Area) => !frame || (x >= 0 && y >= 0 && x + width <= frame.width && y + height <= frame.height);
  const placed: Hung<T>[] = [];
  const taken: Area[] = [];
  const first = [...tags].sort((a, b) => Number(b.chosen) - Number(a.chosen));
  for (const tag of first) {
    const anchor = px(tag.partId);
    if (!anchor) continue;
    const spots = [26, 44, 62].flatMap((away) =>
      [-45, -135, 45, 135, -90, 90, 0, 180].map((deg) => ({
        ...tag,
        anchor,
        at: { x: anchor.x + away * Math.cos((deg * Math.PI) / 180), y: anchor.y + away * Math.sin((deg * Math.PI) / 180) },
      })),
    );
    const free = spots.find((s) => seen(room(s)) && taken.every((area) => !overlap(area, room(s))));
    const hung = free ?? (tag.chosen ? spots[0] : undefined);
    if (!hung) continue;
    placed.push(hung);
    taken.push(room(hung));
  }
  return placed;
}

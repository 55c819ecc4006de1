import type { Schema } from "../api/client";

type Photo = Schema["Photo"];

/** Where a picture seen square on is asked for. */
export const straightOf = (p: Photo) =>
  `/api/pictures/${p.picture}/straight?ratio=${p.widthM / p.heightM}&${p.corners.map((c) => `x=${c.x}&y=${c.y}`).join("&")}`;

/** What it covers: the thing whose size is known is its middle third both ways. */
export function coverOf(p: Photo): Schema["Box"] {
  const [along, other] = [p.alongM - p.widthM, p.otherM - p.heightM];
  return p.view === "side"
    ? { at: { xM: along, yM: 0, zM: other }, size: { xM: 3 * p.widthM, yM: 0, zM: 3 * p.heightM } }
    : { at: { xM: along, yM: other, zM: 0 }, size: { xM: 3 * p.widthM, yM: 3 * p.heightM, zM: 0 } };
}

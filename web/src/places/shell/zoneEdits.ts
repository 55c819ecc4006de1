import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { changed } from "../../document/edits";
import type { Rig, Xyz } from "../../document/geometry";

type Edit = Schema["Edit"];

/** Every zone gets the faces that its box has. */
export const drawFaces = { kind: "faces", zoneIds: [] } as unknown as Edit;

/** A zone gets another box. */
export const boxOf = (zone: string, box: Schema["Box"]) => changed(`shell/zones/${zone}`, { box });

type Zone = Schema["Zone"];
type Box = Schema["Box"];

/** A cupboard in a box; its faces are drawn from it. */
export const newRoom = (rig: Rig, box: Box): Zone => ({
  id: newId("zone"),
  name: freeName(rig, "new room"),
  kind: "cupboard",
  box,
  airChangesPerHour: 1,
  faces: [],
  openings: [],
});

/** A room built like another, beside it: ahead of it where the body goes on, else behind it. */
export function copyOf(rig: Rig, zone: Zone): Zone {
  const { at, size } = zone.box;
  const end = rig.shell.body.at.xM + rig.shell.body.size.xM;
  const ahead = at.xM + 2 * size.xM <= end + 1e-6;
  const xM = ahead ? at.xM + size.xM : at.xM - size.xM;
  // Faces and openings lead to rooms that the copy may not meet; how a face is built up is taken from what looks the same way.
  return { ...zone, id: newId("zone"), name: freeName(rig, zone.name), box: { size, at: { ...at, xM } }, faces: [], openings: [] };
}

/** So large is a room until its edges are pulled, m. */
const USUAL: Xyz = { xM: 0.6, yM: 0.6, zM: 0.7 };

/** The box of a room in a corner of the body, or as long and high as was drawn. */
export function roomIn(rig: Rig, drawn: Partial<Record<keyof Xyz, [number, number]>> = {}): Box {
  const { body } = rig.shell;
  const box: Box = { at: { ...body.at }, size: { ...USUAL } };
  for (const axis of ["xM", "yM", "zM"] as const) {
    const [from, to] = drawn[axis] ?? [body.at[axis], body.at[axis] + Math.min(USUAL[axis], body.size[axis])];
    box.at[axis] = Math.min(from, to);
    box.size[axis] = Math.abs(to - from);
  }
  return box;
}

function freeName(rig: Rig, name: string) {
  const names = new Set(rig.shell.zones.map((z) => z.name));
  const stem = name.replace(/ \d+$/, "");
  let free = names.has(name) ? "" : name;
  for (let n = 2; !free; n++) if (!names.has(`${stem} ${n}`)) free = `${stem} ${n}`;
  return free;
}

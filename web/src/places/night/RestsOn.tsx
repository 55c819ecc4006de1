import type { Rig } from "../../document/geometry";

/** Rooms of which thermometers have said what they lose. */
export const measuredRooms = (rig: Rig) => rig.shell.zones.filter((z) => z.measured != null);

/** Says that figures rest on a measurement, where there was one. */
export function RestsOn({ rig }: { rig: Rig }) {
  const rooms = measuredRooms(rig);
  if (rooms.length === 0) return null;
  return <span className="text-muted">Rests on a measurement of {rooms.map((z) => z.name).join(", ")}.</span>;
}

import type { Schema } from "../api/client";
import { courseOf, indexOf, type Rig, type Xyz } from "./geometry";

/** What is left out of the drawings: services, and all that is not in one room. */
export interface Hidden {
  services: Schema["Service"][];
  zoneId: string | null;
}

export const nothingHidden: Hidden = { services: [], zoneId: null };

const holds = (box: Schema["Box"], p: Xyz) =>
  (["xM", "yM", "zM"] as const).every((a) => p[a] >= box.at[a] - 1e-6 && p[a] <= box.at[a] + box.size[a] + 1e-6);

/** The rig with what is hidden left out. A part goes with the last of its runs. The same object where nothing is hidden. */
export function shownOf(rig: Rig, hidden: Hidden): Rig {
  const zone = rig.shell.zones.find((z) => z.id === hidden.zoneId);
  if (hidden.services.length === 0 && !zone) return rig;
  const { runsAt } = indexOf(rig);
  const runs = rig.runs.filter(
    (r) => !hidden.services.includes(r.service) && (!zone || courseOf(rig, r).some((p) => holds(zone.box, p.at))),
  );
  const left = new Set(runs.map((r) => r.id));
  // A run that stays keeps its ends.
  const ends = new Set(runs.flatMap((r) => [r.from.part, r.to.part]));
  const parts = rig.parts.filter((p) => {
    if (ends.has(p.id)) return true;
    const middle = { xM: p.box.at.xM + p.box.size.xM / 2, yM: p.box.at.yM + p.box.size.yM / 2, zM: p.box.at.zM + p.box.size.zM / 2 };
    return (!zone || holds(zone.box, middle)) && (runsAt.get(p.id) ?? []).every((r) => left.has(r.id));
  });
  return { ...rig, runs, parts };
}

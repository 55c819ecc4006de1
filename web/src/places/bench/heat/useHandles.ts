import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { indexOf, type Rig } from "../../../document/geometry";

/** Valves, pumps and heaters by name, and their positions as the catalogue names them. */
export function useHandles(rig: Rig) {
  const { stock } = useCatalogue();
  const { parts } = indexOf(rig);
  const found = (s: Schema["Setting"]) => stock.get(parts.get(s.id)?.stock ?? "")?.positions.find((p) => p.id === s.position);
  return {
    nameOf: (id: string) => parts.get(id)?.name ?? id,
    positionOf: (s: Schema["Setting"]) => found(s)?.name ?? s.position,
    passes: (s: Schema["Setting"]) => found(s)?.passes === true,
  };
}

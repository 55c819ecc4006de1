import type { Schema } from "../../api/client";
import { changed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { PickField } from "../../ui/QuantityField";
import { useStores } from "../bench/benchStores";

const fronts: Record<NonNullable<Schema["VehicleFront"]>, string> = {
  bonnet: "cab with a bonnet",
  flatCab: "flat cab",
  drawbar: "drawbar",
};

/** What is before the load bay: it is drawn, so that the vehicle is known again. */
export function FrontField({ rig }: { rig: Rig }) {
  const { document } = useStores();
  return (
    <PickField
      label="Front"
      value={rig.shell.front ?? ""}
      options={[{ value: "", text: "none" }, ...Object.entries(fronts).map(([value, text]) => ({ value, text }))]}
      onCommit={(front) => document.commit("Front of the vehicle", [changed("shell", { front: front || null })])}
    />
  );
}

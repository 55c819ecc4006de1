import type { Schema } from "../../api/client";
import { Choice } from "../../ui/controls";
import { useDocument, useStores } from "./benchStores";

type Water = Schema["Conditions"]["water"];

/** Full, drained, or as it was left where that is known. */
export function WaterChoice({ value }: { value: Water }) {
  const { setConditions } = useStores().answers;
  const known = useDocument((s) => (s.rig?.left?.length ?? 0) > 0);
  return (
    <Choice<Water>
      label="Water in the system"
      value={value}
      onChange={(water) => setConditions({ water })}
      options={[
        { value: "wet", text: "Full" },
        { value: "drained", text: "Drained" },
        ...(known || value === "asLeft" ? [{ value: "asLeft" as const, text: "As left" }] : []),
      ]}
    />
  );
}

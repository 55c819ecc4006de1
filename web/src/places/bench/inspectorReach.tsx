import type { Schema } from "../../api/client";
import type { Part } from "../../document/geometry";
import { PickField, QuantityField } from "../../ui/QuantityField";
import { useChange } from "./inspectorFields";

const reaches: { value: Schema["ReachKind"] | ""; text: string }[] = [
  { value: "", text: "not said" },
  { value: "outside", text: "from outside" },
  { value: "standing", text: "inside, standing" },
  { value: "kneeling", text: "kneeling" },
  { value: "onBack", text: "on your back" },
  { value: "panel", text: "behind a panel" },
];

/** How a hand gets to it once the rig is built: it decides how long emptying takes. */
export function ReachFields({ part }: { part: Part }) {
  const change = useChange();
  const set = (reach: Part["reach"] | null) => change(`Reach of ${part.name}`, `parts/${part.id}`, { reach });
  return (
    <div className="grid grid-cols-2 gap-2">
      <PickField
        label="Reached"
        value={part.reach?.kind ?? ""}
        options={reaches}
        onCommit={(v) =>
          set(
            v
              ? { kind: v as Schema["ReachKind"], ...(part.reach?.screws != null && v === "panel" && { screws: part.reach.screws }) }
              : null,
          )
        }
      />
      {part.reach?.kind === "panel" && (
        <QuantityField
          label="Screws"
          value={part.reach.screws ?? 0}
          quantity="number"
          limit="part.reach.screws"
          onCommit={(screws) => set({ kind: "panel", screws: Math.round(screws) })}
        />
      )}
    </div>
  );
}

import { Link } from "wouter";
import type { Schema } from "../../api/client";
import { changed } from "../../document/edits";
import { Button } from "../../ui/controls";
import { QuantityField } from "../../ui/QuantityField";
import { useDocument, useStores } from "./benchStores";
import { useWalk } from "./walkStore";

const questions = [
  { field: "people", label: "People", quantity: "number" },
  { field: "litresPerPersonDay", label: "Water a person and day", quantity: "volume" },
  { field: "daysBetweenFills", label: "Days between fills", quantity: "number" },
  { field: "lowestC", label: "Lowest temperature", quantity: "temperature" },
  { field: "hoursWithoutHeat", label: "Hours without heat", quantity: "number" },
] as const satisfies { field: keyof Schema["Brief"]; label: string; quantity: Schema["Quantity"] }[];

/** What the verdict of a new rig rests on, to be typed without leaving the bench. */
export function FiveQuestions({ id }: { id: string }) {
  const brief = useDocument((s) => s.rig?.brief);
  const { document } = useStores();
  const { asks, ask } = useWalk();
  if (asks !== id || !brief) return null;
  return (
    <section
      aria-label="Five questions"
      className="flex shrink-0 flex-wrap items-end gap-x-3 gap-y-1 border-b border-rule bg-sunk px-3 py-1.5"
    >
      {questions.map(({ field, label, quantity }) => (
        <div key={field} className="w-40">
          <QuantityField
            label={label}
            value={brief[field]}
            quantity={quantity}
            limit={`brief.${field}`}
            onCommit={(value) => document.commit(label, [changed("brief", { [field]: field === "people" ? Math.round(value) : value })])}
          />
        </div>
      ))}
      <span className="grow" />
      <Link
        href={`/rigs/${id}/brief`}
        className="inline-flex h-10 items-center rounded-md border border-rule bg-panel px-3 font-medium hover:border-strong"
      >
        Open the brief
      </Link>
      <Button onClick={() => ask(null)}>Done</Button>
    </section>
  );
}

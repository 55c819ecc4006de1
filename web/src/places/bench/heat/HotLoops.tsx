import { say, usePrint } from "../../../app/units";
import { Caution } from "../../../ui/controls";
import { useDocument } from "../benchStores";
import { useAsked, useLast } from "../useAsked";

/** A recirculating hot loop: what it saves, what it costs, and how cold a night it stands. */
export function HotLoops() {
  const id = useDocument((s) => s.id);
  const answer = useLast(id, useAsked("hotLoops").data);
  const print = usePrint();
  if (!answer || (answer.loops.length === 0 && answer.notes.length === 0)) return null;
  const words = [...answer.loops.flatMap((l) => l.words), ...answer.notes].map((w) => say(w, print));
  return (
    <section aria-label="Hot loop" data-hot-loops={answer.loops.length}>
      <h3 className="mt-4 font-semibold">Hot loop</h3>
      <ul className="mt-2 flex flex-col gap-1">
        {words.map((w) => (
          <li key={w}>{w}</li>
        ))}
      </ul>
      {answer.loops[0] && (
        <div className="mt-2">
          <Caution>{answer.loops[0].caution}</Caution>
        </div>
      )}
    </section>
  );
}

import { Check } from "lucide-react";
import { useState } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import type { Schema } from "../../api/client";
import { type Print, plural, say, usePrint } from "../../app/units";
import { Button } from "../../ui/controls";
import { Working } from "../../ui/Working";
import { usePreview, useStores } from "./benchStores";
import { inDrawing } from "./RigPage";
import { useJob } from "./useAsked";
import { useLook } from "./useLook";

/** Ways to mend a finding that were tried on the whole rig: looked at in the drawings first, done by a press. */
export function Fixes({ finding }: { finding: Schema["Finding"] }) {
  const { document, drawing } = useStores();
  const { look } = useLook();
  const shown = usePreview();
  const asked = useJob("fixes", { findingId: finding.id });
  const print = usePrint();
  const [pinned, setPinned] = useState<string | null>(null);
  const { data } = asked;
  const apply = (fix: Schema["Fix"]) => {
    look(null);
    document.commit(say(fix.words, print), fix.edits);
  };
  useHotkeys(
    "m",
    () => {
      const fix = data?.fixes.find((f) => f.id === shown?.id) ?? data?.fixes[0];
      if (fix) apply(fix);
    },
    inDrawing(() => drawing.getState().drawing !== null),
  );
  if (!data) return <Working className="px-3 pb-3" words="Trying fixes…" asked={asked} />;
  if (data.fixes.length === 0) return <p className="px-3 pb-3 text-muted">{data.refused}</p>;
  return (
    <ul className="flex flex-col gap-1.5 px-2 pb-2" aria-label="Fixes" onPointerLeave={() => pinned === null && look(null)}>
      {data.fixes.map((fix, i) => (
        <li
          key={fix.id}
          className={`flex flex-wrap items-center justify-end gap-x-2 rounded-md border bg-panel ${shown?.id === fix.id ? "border-ink" : "border-rule"}`}
          onPointerEnter={(e) => e.pointerType === "mouse" && look(fix)}
        >
          <button
            type="button"
            aria-pressed={pinned === fix.id}
            onFocus={() => look(fix)}
            onClick={() => {
              setPinned(pinned === fix.id ? null : fix.id);
              look(fix);
            }}
            className="min-h-10 min-w-0 grow basis-40 px-2 py-1.5 text-left"
          >
            <span className="block font-medium">{say(fix.words, print)}</span>
            <span className="block text-muted">{winsAndCosts(fix, print)}</span>
          </button>
          <Button
            className="m-1"
            onClick={() => apply(fix)}
            aria-label={`Apply: ${say(fix.words, print)}`}
            {...(i === 0 && { title: "Best fix: M in the drawing" })}
          >
            <Check size={16} /> Apply
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** What a fix wins and costs, in one line. */
export const winsAndCosts = ({ wins, costs }: { wins: Schema["FixGain"]; costs: Schema["FixCost"] }, print: Print): string =>
  [...winWords(wins, print), costWords(costs, print)].join(" · ");

const SHOWN = 3;

/** What edits make better, and what they make worse. */
export function winWords(wins: Schema["FixGain"], print: Print): string[] {
  const worse = wins.worse.slice(0, SHOWN).map((w) => `${w.words} (${print(w.litres, "volume")})`);
  const words = [
    wins.litres > 0.0005 ? `${print(wins.litres, "volume")} less water left` : null,
    wins.litres < -0.0005 ? `${print(-wins.litres, "volume")} more water left` : null,
    wins.hoursWon > 0.2 ? `${print(wins.hoursWon * 3600, "duration")} longer until ice` : null,
    wins.hoursWon < -0.2 ? `${print(-wins.hoursWon * 3600, "duration")} sooner ice` : null,
    wins.gone.length > 1 ? `fixes ${plural(wins.gone.length, "issue")}` : null,
    worse.length > 0
      ? `more water left in ${worse.join(", ")}${wins.worse.length > SHOWN ? ` and ${plural(wins.worse.length - SHOWN, "other place")}` : ""}`
      : null,
    wins.made.length > 0 ? `adds: ${wins.made.join(", ")}` : null,
  ];
  return words.filter((w) => w !== null);
}

export function costWords(costs: Schema["FixCost"], print: Print): string {
  const words = [
    costs.parts > 0 ? plural(costs.parts, "new part") : null,
    costs.pipeM > 0.01 ? `${print(costs.pipeM, "length")} of pipe` : null,
    costs.storageL > 0.05 ? `${print(costs.storageL, "volume")} less tank room` : null,
    costs.money != null ? `costs ${costs.money.toFixed(2)}` : null,
    costs.outOfReach > 0 ? "joint out of reach" : null,
  ].filter(Boolean);
  return words.length > 0 ? words.join(", ") : "no new part";
}

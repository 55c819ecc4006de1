import { X } from "lucide-react";
import { useState } from "react";
import type { Schema } from "../../api/client";
import { newId } from "../../app/ids";
import { plural } from "../../app/units";
import { added, removed } from "../../document/edits";
import { indexOf, type Rig } from "../../document/geometry";
import { Button, Panel } from "../../ui/controls";
import { fieldClass } from "../../ui/QuantityField";
import { useStores } from "../bench/benchStores";
import { useLayUp } from "./layUpStore";

type Kind = Schema["OwnStepKind"];

const kinds: Record<Kind, string> = {
  step: "A step of my own",
  maker: "The maker's steps for a part",
  home: "Something that goes home",
};

/** The builder's own steps, those of a part's maker in the place of ours, and what goes home and comes back in spring. */
export function OwnSteps({ rig, all }: { rig: Rig; all: Schema["ProcedureName"][] }) {
  const { document } = useStores();
  const lay = useLayUp();
  const [kind, setKind] = useState<Kind>("step");
  const [words, setWords] = useState("");
  const [part, setPart] = useState("");
  const [first, setFirst] = useState(false);
  const own = rig.ownSteps ?? [];
  const { parts } = indexOf(rig);
  const nameOf = (k: Schema["ProcedureKind"]) => all.find((p) => p.kind === k)?.name ?? k;
  const add = () => {
    const value = {
      id: newId("step"),
      kind,
      words: words.trim(),
      on: kind === "home" ? [] : [lay.kind],
      ...(kind === "maker" && { thing: `parts/${part}` }),
      ...(kind === "step" && first && { first }),
    };
    document.commit(`Added ${value.words}`, [added("ownSteps", value)]);
    setWords("");
  };
  return (
    <Panel className="p-3" aria-label="Your own steps">
      <details>
        <summary className="h-10 cursor-pointer content-center font-semibold">
          Your own steps{own.length > 0 && `: ${plural(own.length, "step")}`}
        </summary>
        <ul>
          {own.map((s) => (
            <li key={s.id} className="flex items-center gap-2 border-b border-rule" data-own={s.kind}>
              <span className="min-w-0 grow py-1">
                {s.words}
                <span className="block text-muted">
                  {s.kind === "home"
                    ? "goes home on lay-up, comes back in spring"
                    : s.kind === "maker"
                      ? `by the maker of ${parts.get(s.thing?.replace(/^parts\//, "") ?? "")?.name ?? "a part"}, in the place of ours: ${s.on.map(nameOf).join(", ")}`
                      : `${s.first ? "first" : "at the end"}: ${s.on.map(nameOf).join(", ")}`}
                </span>
              </span>
              <Button
                quiet
                aria-label={`Remove: ${s.words}`}
                onClick={() => document.commit(`Removed ${s.words}`, [removed(`ownSteps/${s.id}`)])}
              >
                <X size={18} />
              </Button>
            </li>
          ))}
        </ul>
        <form
          className="mt-2 flex flex-col gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <select
            aria-label="What it is"
            className={`${fieldClass} border-rule`}
            value={kind}
            onChange={(e) => setKind(e.target.value as Kind)}
          >
            {Object.entries(kinds).map(([k, text]) => (
              <option key={k} value={k}>
                {text}
              </option>
            ))}
          </select>
          {kind === "maker" && (
            <select aria-label="Part" className={`${fieldClass} border-rule`} value={part} onChange={(e) => setPart(e.target.value)}>
              <option value="">Choose the part</option>
              {rig.parts.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </select>
          )}
          <input
            aria-label={kind === "home" ? "What goes home" : "What to do"}
            placeholder={kind === "home" ? "What goes home" : "What to do"}
            maxLength={300}
            className={`${fieldClass} border-rule`}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
          {kind === "step" && (
            <label className="flex h-10 items-center gap-2">
              <input type="checkbox" className="size-5" checked={first} onChange={(e) => setFirst(e.target.checked)} />
              Before all other steps
            </label>
          )}
          <Button type="submit" disabled={!words.trim() || (kind === "maker" && !part)}>
            {kind === "home" ? "Add to every lay-up" : `Add to “${nameOf(lay.kind)}”`}
          </Button>
        </form>
      </details>
    </Panel>
  );
}

import { useQuery } from "@tanstack/react-query";
import { useId, useRef, useState } from "react";
import { api, data, type Problem } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { useSettings } from "../../../app/settings";
import { say, usePrint } from "../../../app/units";
import type { Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { fieldClass } from "../../../ui/QuantityField";
import { useDocument, useDrawing, useStores } from "../benchStores";
import { lastOf } from "../runDrawing";
import { useDrawRun } from "../useDrawRun";

/** What a drawing run can be told by words, and how it is ended. */
export function RunBar() {
  const { drawing: store } = useStores();
  const drawing = useDrawing((d) => d);
  const rig = useDocument((s) => s.rig) as Rig;
  const draw = useDrawRun();
  const { catalogue } = useCatalogue();
  const system = useSettings((s) => s.system);
  const print = usePrint();
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const [text, setText] = useState("");
  const from = drawing && lastOf(drawing);
  const towards = drawing?.pointer ?? from;
  const read = useQuery({
    queryKey: ["step", text, from, towards, system],
    queryFn: async ({ signal }) =>
      data(
        await api.POST("/api/units/step", {
          // biome-ignore lint/style/noNonNullAssertion: asked only while there is a last point
          body: { text, from: from!, towards: towards!, obstacles: rig.shell.obstacles, system },
          signal,
        }),
      ),
    enabled: text.trim() !== "" && from !== null && from !== undefined,
    retry: false,
  });
  if (!drawing) return null;
  const lastWord =
    text
      .toLowerCase()
      .split(/[\s,]+/)
      .at(-1) ?? "";
  const next = (catalogue?.stepWords ?? []).filter((w) => w.word.startsWith(lastWord) && w.word !== lastWord);
  const problem = read.error as Problem | null;
  return (
    <section
      aria-label="The run that is drawn"
      className="min-h-[5.25rem] shrink-0 rounded-md border-2 border-ink bg-panel px-3 py-1.5 max-[899px]:sticky max-[899px]:top-0 max-[899px]:z-10"
      data-run-bar
    >
      <div className="flex flex-wrap items-center gap-2">
        <p className="min-w-0 grow">
          {drawing.start
            ? "Tap where it bends; end it on a port or on a run. Shift keeps it square."
            : "Begin on a port (a square) or on a run."}
        </p>
        <Button quiet onClick={() => store.back()}>
          Back one
        </Button>
        {drawing.bends.length > 0 && <Button onClick={() => draw.endLoose()}>End here</Button>}
        <Button onClick={() => store.end()}>Leave it</Button>
      </div>
      {drawing.start && (
        <form
          className="mt-1 flex flex-wrap items-center gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (!read.data || text.trim() === "") return;
            store.bend(read.data.at);
            setText("");
          }}
        >
          <label htmlFor={id} className="text-muted">
            Next point
          </label>
          <div className="w-56">
            <input
              ref={input}
              id={id}
              value={text}
              placeholder="rear 1.2 m, fall 2 %"
              autoComplete="off"
              maxLength={100}
              aria-describedby={`${id}-said`}
              aria-invalid={problem !== null}
              onChange={(e) => setText(e.target.value)}
              onKeyDown={(e) => {
                if (e.key === "Escape") store.end();
              }}
              className={`${fieldClass} border-rule`}
            />
          </div>
          {next.map((w) => (
            <button
              key={w.word}
              type="button"
              title={w.means}
              className="h-10 rounded-md border border-rule px-2.5 hover:border-strong"
              onClick={() => {
                const said = `${text.slice(0, text.length - lastWord.length)}${w.word} `;
                setText(said);
                // The hand types on behind the word.
                requestAnimationFrame(() => {
                  input.current?.focus();
                  input.current?.setSelectionRange(said.length, said.length);
                });
              }}
            >
              {w.word}
            </button>
          ))}
          <p id={`${id}-said`} role={problem ? "alert" : undefined} className="min-w-40 grow basis-40">
            {problem ? (problem.fields.text?.[0] ?? problem.message) : read.data && text ? say(read.data.understood, print) : ""}
          </p>
        </form>
      )}
    </section>
  );
}

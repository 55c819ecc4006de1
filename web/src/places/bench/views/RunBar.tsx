import { useQuery } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import { api, data, type Problem, type Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { useSettings } from "../../../app/settings";
import { say, usePrint } from "../../../app/units";
import { freePorts, type Rig } from "../../../document/geometry";
import { services } from "../../../drawing/services";
import { Button } from "../../../ui/controls";
import { fieldClass, TypedFigure } from "../../../ui/QuantityField";
import { useReturnFocus } from "../../../ui/useReturnFocus";
import { useDocument, useDrawing, useStores } from "../benchStores";
import { lastOf } from "../runDrawing";
import { useDrawRun } from "../useDrawRun";

/** What the view that a bend was put in cannot tell. */
const asks = {
  zM: { label: "Height of this bend", why: "plan can't tell" },
  yM: { label: "This bend, from the kerb", why: "side can't tell" },
} as const;

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
  const begun = drawing?.start != null;
  // A run begins at a port by its name, as it ends on one.
  const asked = begun || /^to /i.test(text) ? text : `to ${text}`;
  const ports = /^to /i.test(asked) ? freePorts(rig) : [];
  const ask = async (signal?: AbortSignal) => {
    const there = from ?? { xM: 0, yM: 0, zM: 0 };
    const body = { text: asked, from: there, towards: towards ?? there, obstacles: rig.shell.obstacles, ports, system };
    return data(await api.POST("/api/units/step", { body, signal }));
  };
  const read = useQuery({
    queryKey: ["step", asked, from, towards, system, ports],
    queryFn: ({ signal }) => ask(signal),
    enabled: drawing != null && text.trim() !== "",
    retry: false,
  });
  const drawn = drawing != null;
  useReturnFocus(drawn);
  // What is typed next is where it begins, or its next point, and no shortcut. A finger is not given a keyboard before it has begun.
  useEffect(() => {
    if (begun || (drawn && window.matchMedia("(pointer: fine)").matches)) input.current?.focus({ preventScroll: true });
  }, [begun, drawn]);
  if (!drawing) return null;
  // Enter may come before the answer does: it waits for one of its own, which nothing that changes meanwhile takes back.
  const go = async () => {
    if (text.trim() === "") return drawing.bends.length > 0 ? draw.endLoose() : undefined;
    const said = read.data ?? (await ask().catch(() => null));
    if (!said || (said.next.length > 0 && !said.to)) return;
    const tie = said.to && ({ kind: "port", partId: said.to.part, portId: said.to.port, at: said.to.at } as const);
    if (!begun && tie) store.begin(tie);
    else if (tie) draw.finish(tie);
    else if (begun) store.bend(said.at);
    setText("");
  };
  const lastWord =
    text
      .toLowerCase()
      .split(/[\s,]+/)
      .at(-1) ?? "";
  const next = (catalogue?.stepWords ?? []).filter((w) => w.word.startsWith(lastWord) && w.word !== lastWord);
  const problem = read.error as Problem | null;
  return (
    <section
      aria-label="Line being drawn"
      className="min-h-[5.25rem] shrink-0 rounded-md border-2 border-ink bg-panel px-3 py-1.5 max-[899px]:sticky max-[899px]:top-0 max-[899px]:z-10"
      data-run-bar
    >
      <div className="flex flex-wrap items-center gap-2">
        <p className="min-w-0 grow" data-asks={drawing.asks}>
          {drawing.asks && from ? (
            <>
              {asks[drawing.asks].label}{" "}
              <TypedFigure
                key={`${drawing.bends.length}${drawing.asks}`}
                label={asks[drawing.asks].label}
                value={from[drawing.asks]}
                quantity="length"
                limit="place.m"
                onCommit={(m) => drawing.asks && store.amend(drawing.asks, m)}
              />{" "}
              <span className="text-muted">same as the point before; {asks[drawing.asks].why}</span>
            </>
          ) : drawing.start ? (
            "Tap where it bends; finish on a port or a run. Shift keeps it square."
          ) : (
            "Start on a port (a square) or on a run, or type a port's name."
          )}
        </p>
        <label className="flex shrink-0 items-center gap-2 whitespace-nowrap text-muted">
          Carries
          <select
            value={drawing.service ?? ""}
            onChange={(e) => store.carry((e.target.value || null) as Schema["Service"] | null)}
            className={`${fieldClass} w-40 border-rule text-ink`}
          >
            <option value="">same as its start</option>
            {Object.entries(services).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <Button quiet onClick={() => store.back()}>
          Undo point
        </Button>
        {drawing.bends.length > 0 && <Button onClick={() => draw.endLoose()}>Finish here</Button>}
        <Button onClick={() => store.end()}>Cancel</Button>
      </div>
      <form
        className="mt-1 flex flex-wrap items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void go();
        }}
      >
        <label htmlFor={id} className="text-muted">
          {begun ? "Next point" : "Start at"}
        </label>
        <div className="w-56">
          <input
            ref={input}
            id={id}
            value={text}
            placeholder={begun ? "rear 1.2 m, fall 2 %" : "fresh tank outlet"}
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
        {(begun ? next : []).map((w) => (
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
        {(read.data?.next ?? []).map((words) => (
          <button
            key={words}
            type="button"
            className="h-10 rounded-md border border-rule px-2.5 hover:border-strong"
            onClick={() => {
              setText(begun ? words : words.replace(/^to /, ""));
              input.current?.focus();
            }}
          >
            {words.replace(/^to /, "")}
          </button>
        ))}
        <p id={`${id}-said`} role={problem ? "alert" : undefined} className="min-w-40 grow basis-40">
          {problem
            ? (problem.fields.text?.[0] ?? problem.message).replace(begun ? "" : / \(at character.*/, "")
            : read.data && text
              ? say(read.data.understood, print)
              : ""}
        </p>
      </form>
    </section>
  );
}

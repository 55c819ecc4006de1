import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { Link, useLocation } from "wouter";
import { api, data, type Problem, type Schema } from "../../api/client";
import { AppBar } from "../../app/AppBar";
import { useCatalogue } from "../../app/catalogue";
import { useStarts } from "../../app/starts";
import { Patterns } from "../../drawing/patterns";
import { type Frame, threeViews } from "../../drawing/projection";
import { RigDrawing } from "../../drawing/RigDrawing";
import { ShellMarks } from "../../drawing/SheetMarks";
import { Button, Choice, Panel } from "../../ui/controls";
import { QuantityField, TextField } from "../../ui/QuantityField";
import { Stale } from "../../ui/Stale";
import { useSize } from "../../ui/useSize";
import { useTyped } from "../../ui/useTyped";
import { useWalk } from "../bench/walkStore";

type Ask = Schema["NewRig"];

const first: Ask = {
  name: "My rig",
  lengthM: 3.7,
  widthM: 1.75,
  heightM: 1.9,
  living: "weekends",
  school: "drain",
  body: "long-van",
  starter: null,
};

/** A rig to begin with: a body like the vehicle, scaled by the tape, or nothing but a box. */
export function NewRigPlace() {
  const starts = useStarts();
  const { catalogue } = useCatalogue();
  const { value: ask, change, whole } = useTyped<Ask>(first);
  const [, go] = useLocation();
  const draft = useQuery({
    queryKey: ["draft", ask],
    queryFn: async ({ signal }) => data(await api.POST("/api/starts/draft", { body: ask, signal })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const make = useMutation({
    mutationFn: async () => data(await api.POST("/api/starts", { body: await whole() })) as Schema["OpenRig"],
    onSuccess: ({ id }) => {
      useWalk.getState().ask(id);
      go(`/rigs/${id}`);
    },
  });
  const body = starts?.bodies.find((b) => b.id === ask.body);
  const takeBody = (id: string | null) => {
    const kind = starts?.bodies.find((b) => b.id === id);
    const fits = starts?.starters.some((s) => s.id === ask.starter && id !== null && s.bodies.includes(id));
    change({
      body: id,
      ...(kind && { lengthM: kind.length.usual, widthM: kind.width.usual, heightM: kind.height.usual }),
      ...(!fits && { starter: null }),
    });
  };
  const measures = [
    { field: "lengthM", label: "Inside length", of: body?.length ?? { least: 0.5, most: 20 } },
    { field: "widthM", label: "Inside width", of: body?.width ?? { least: 0.5, most: 4 } },
    { field: "heightM", label: "Inside height", of: body?.height ?? { least: 0.5, most: 4 } },
  ] as const;
  const ways = (field: string) => catalogue?.schools.find((s) => s.field === field)?.ways ?? [];
  const card =
    "flex flex-col justify-start rounded-md border p-3 text-left hover:border-strong aria-[checked=true]:border-ink aria-[checked=true]:shadow-[inset_0_0_0_1.5px_var(--ink)]";
  return (
    <div className="flex min-h-full flex-col">
      <Patterns />
      <AppBar>
        <nav aria-label="Place" className="flex min-w-0 items-center gap-2">
          <Link href="/" className="inline-flex h-10 items-center rounded-md px-2 text-muted hover:bg-sunk hover:text-ink">
            Rigs
          </Link>
          <span className="text-muted">/</span>
          <h1 className="truncate text-[17px] font-semibold">New rig</h1>
        </nav>
        <span className="grow" />
      </AppBar>
      <main className="mx-auto grid w-full max-w-[84rem] gap-4 p-4 min-[1000px]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <div className="flex flex-col gap-4">
          <Panel className="p-4" aria-label="Body">
            <div className="max-w-80">
              <TextField label="Name" value={ask.name} onCommit={(name) => change({ name })} />
            </div>
            <h2 className="mt-4 font-semibold">Body</h2>
            <div role="radiogroup" aria-label="Body" className="mt-2 grid gap-2 min-[560px]:grid-cols-2">
              {starts?.bodies.map((b, i) => (
                // biome-ignore lint/a11y/useSemanticElements: a card is pressed like a button
                <button
                  key={b.id}
                  type="button"
                  role="radio"
                  aria-checked={b.id === ask.body}
                  className={`${card} border-rule`}
                  onClick={() => takeBody(b.id)}
                >
                  <Shape shell={starts.shapes[i]} />
                  <span className="block font-semibold">{b.name}</span>
                  <span className="block text-muted">{b.words}</span>
                </button>
              ))}
              {/* biome-ignore lint/a11y/useSemanticElements: a card is pressed like a button */}
              <button
                type="button"
                role="radio"
                aria-checked={ask.body === null}
                className={`${card} border-rule`}
                onClick={() => takeBody(null)}
              >
                <span className="block font-semibold">Empty box</span>
                <span className="block text-muted">A box of your own size.</span>
              </button>
            </div>
            <div className="mt-4 grid grid-cols-3 gap-3">
              {measures.map((m) => (
                <QuantityField
                  key={m.field}
                  label={m.label}
                  value={ask[m.field]}
                  quantity="length"
                  least={m.of.least}
                  most={m.of.most}
                  onCommit={(value) => change({ [m.field]: value })}
                />
              ))}
            </div>
            <p className="mt-1 text-muted">Measure inside the lining. Any unit works: 3.7 m, 146 in, 12 ft.</p>
          </Panel>
          <Panel className="p-4" aria-label="Way of living">
            <h2 className="font-semibold">Way of living</h2>
            <div className="mt-2">
              <Choice
                label="Way of living"
                value={ask.living}
                options={ways("living").map((w) => ({ value: w.id as Ask["living"], text: w.name }))}
                onChange={(living) => change({ living })}
              />
            </div>
            <p className="mt-1.5">{ways("living").find((w) => w.id === ask.living)?.goodFor}</p>
            <h2 className="mt-4 font-semibold">Frost protection</h2>
            <div className="mt-2">
              <Choice
                label="Frost protection"
                value={ask.school}
                options={ways("school").map((w) => ({ value: w.id as Ask["school"], text: w.name }))}
                onChange={(school) => change({ school })}
              />
            </div>
            <p className="mt-1.5">{ways("school").find((w) => w.id === ask.school)?.goodFor}</p>
          </Panel>
        </div>
        <div className="flex flex-col gap-4">
          <Panel className="p-4" aria-label="Preview">
            <h2 className="font-semibold">Preview</h2>
            <Preview rig={draft.data} stale={draft.isPlaceholderData} />
            {draft.isError && (
              <p role="alert" className="font-semibold">
                {Object.values((draft.error as Problem).fields ?? {})
                  .flat()
                  .join("; ") || draft.error.message}
              </p>
            )}
          </Panel>
          <Panel className="p-4" aria-label="Plumbing">
            <h2 className="font-semibold">Plumbing</h2>
            <div role="radiogroup" aria-label="Plumbing" className="mt-2 grid gap-2">
              {/* biome-ignore lint/a11y/useSemanticElements: a card is pressed like a button */}
              <button
                type="button"
                role="radio"
                aria-checked={!ask.starter}
                className={`${card} border-rule`}
                onClick={() => change({ starter: null })}
              >
                <span className="block font-semibold">None yet</span>
                <span className="block text-muted">You draw it.</span>
              </button>
              {starts?.starters.map((s) => {
                const fits = ask.body != null && s.bodies.includes(ask.body);
                return (
                  // biome-ignore lint/a11y/useSemanticElements: a card is pressed like a button
                  <button
                    key={s.id}
                    type="button"
                    role="radio"
                    aria-checked={s.id === ask.starter}
                    disabled={!fits}
                    className={`${card} border-rule disabled:opacity-50`}
                    onClick={() => change({ starter: s.id, living: s.living, school: s.school })}
                  >
                    <span className="block font-semibold">{s.name}</span>
                    <span className="block text-muted">
                      {fits ? s.words : "No room under its floor for the grey tank: draw this one yourself."}
                    </span>
                  </button>
                );
              })}
            </div>
            <Button
              className="mt-4 border-ink! bg-ink! text-panel"
              onClick={() => make.mutate()}
              disabled={make.isPending || draft.isError}
            >
              {make.isPending ? "Creating…" : "Create rig"}
            </Button>
            {make.isError && (
              <p role="alert" className="mt-2 font-semibold">
                {make.error.message}
              </p>
            )}
          </Panel>
        </div>
      </main>
    </div>
  );
}

/** A body from the side, all of them on one scale. */
function Shape({ shell }: { shell: Schema["Shell"] | undefined }) {
  const scale = 20;
  if (!shell) return null;
  const { size } = shell.body;
  const frame: Frame = { width: size.xM * scale + 4, height: 56, scale, alongM: size.xM / 2, otherM: 0.85 };
  return (
    <svg width={frame.width} height={frame.height} aria-hidden="true" className="mb-1.5 max-w-full">
      <ShellMarks shell={shell} view="side" frame={frame} bare zoneId={null} />
    </svg>
  );
}

/** The draft from the side, from the rear and from above, on one scale. */
function Preview({ rig, stale }: { rig: Schema["Rig"] | undefined; stale: boolean }) {
  const [box, size] = useSize<HTMLDivElement>();
  const frames = rig && threeViews(rig, size);
  return (
    <Stale stale={stale} ref={box} className="mt-2 h-96 overflow-hidden rounded-[5px] bg-ground" data-draft={stale ? "stale" : "current"}>
      {rig && frames && (
        <div className="flex flex-wrap">
          {(["side", "rear", "plan"] as const).map((view) => (
            <svg
              key={view}
              width={frames[view].width}
              height={frames[view].height}
              role="img"
              aria-label={{ side: "From the kerb", rear: "From the rear", plan: "From above" }[view]}
              className="block"
            >
              {view === "rear" ? (
                <ShellMarks shell={rig.shell} view="rear" frame={frames.rear} bare zoneId={null} />
              ) : (
                <RigDrawing rig={rig} about={null} answers={null} view={view} frame={frames[view]} lens="drain" bare />
              )}
            </svg>
          ))}
        </div>
      )}
    </Stale>
  );
}

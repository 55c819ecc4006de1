import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { Command } from "cmdk";
import { useState } from "react";
import { api, data, type Problem, type Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { newId } from "../../app/ids";
import { useSettings } from "../../app/settings";
import { say, usePrint } from "../../app/units";
import { middleOf, plumbingOf, type Rig } from "../../document/geometry";
import { keyOf, placeOf, type Thing } from "../../document/things";
import { PartGlyph } from "../../drawing/PartGlyph";
import { useDocument, useStores } from "./benchStores";
import { freeSpot, place, placeOwn, placeSet } from "./drawingTools";
import { paletteClass } from "./SearchSoon";
import { useActions } from "./useActions";
import { useOwnParts } from "./useOwnParts";
import { useView } from "./viewStore";

const item = "flex min-h-10 cursor-pointer items-center gap-3 rounded-[5px] px-3 outline-none data-[selected=true]:bg-sunk";

const groups: { id: Schema["PartGroup"]; name: string }[] = [
  { id: "store", name: "Add: store" },
  { id: "fill", name: "Add: fill" },
  { id: "move", name: "Add: move" },
  { id: "clean", name: "Add: clean" },
  { id: "heat", name: "Add: heat" },
  { id: "use", name: "Add: use" },
  { id: "waste", name: "Add: waste" },
  { id: "drain", name: "Add: drain" },
  { id: "vent", name: "Add: vent" },
  { id: "valves", name: "Add: valves" },
  { id: "joints", name: "Add: joints" },
];

/** How well what is typed names something: every word of it has to be there, and its own name counts most. */
export function rank(value: string, typed: string, named: string[] = []): number {
  const keywords = named.length > 0 ? named : [value];
  const words = typed.toLowerCase().trim().split(/\s+/);
  const text = ` ${keywords.join(" ").toLowerCase()}`;
  if (!words.every((w) => text.includes(w))) return 0;
  const name = (keywords[0] ?? value).toLowerCase();
  const wanted = words.filter((w) => w !== "place").join(" ");
  if (name === wanted) return 1;
  if (wanted && name.startsWith(wanted)) return 0.9;
  return words.every((w) => text.includes(` ${w}`)) ? 0.6 : 0.3;
}

interface Props {
  open: boolean;
  /** Parts to add alone. */
  parts: boolean;
  /** What was typed before it was there. */
  begun: string;
  onOpen(open: boolean): void;
  onTables(): void;
  onHistory(): void;
  onPhotos(): void;
  onPrices(): void;
}

/** Everything in the rig by name, everything in stock, and what can be done: found by typing. */
export function Palette({ open, parts, begun, onOpen, onTables, onHistory, onPhotos, onPrices }: Props) {
  const rig = useDocument((s) => s.rig);
  const { document, selection, drawing } = useStores();
  const { catalogue } = useCatalogue();
  const actions = useActions();
  const view = useView();
  const own = useOwnParts();
  const [typed, setTyped] = useState(begun);
  const said = / at( |$)/i.test(typed);
  if (!rig) return null;
  const then = (act: () => void) => () => {
    onOpen(false);
    act();
  };
  const put = (stock: NonNullable<typeof catalogue>["parts"][number]) => {
    const made = place(stock, placeForNew(rig, selection.getState().things.at(-1), stock.size));
    selection.takeWhenThere(made.thing);
    actions.commit(`Add ${stock.name}`, made.edits);
  };
  const putSet = (set: Schema["PartSet"]) => {
    const made = placeSet(set, placeForNew(rig, selection.getState().things.at(-1), set.size));
    actions.commit(`Add ${set.name}`, made);
  };
  const putOwn = (part: Schema["Part"]) => {
    const made = placeOwn(part, placeForNew(rig, selection.getState().things.at(-1), part.box.size));
    selection.takeWhenThere(made.thing);
    actions.commit(`Add ${part.name}`, made.edits);
  };
  const commands: [string, string, () => void][] = [
    ["Undo", "Ctrl Z", () => void document.undo()],
    ["Redo", "Ctrl Shift Z", () => void document.redo()],
    ["History", "H", onHistory],
    ["Draw line", "R", () => drawing.begin(null)],
    ["Copy selection", "Ctrl C", () => actions.carry()],
    ["Paste, here or in another rig", "Ctrl V", () => actions.paste()],
    ["Set even fall", "F", () => actions.evenFall()],
    ["Set same height, that of the first selected", "", () => actions.level()],
    ["Move to other side", "", () => actions.mirrorAcross()],
    ["Delete selection", "Delete", () => actions.remove()],
    ["Import or copy tables", "", onTables],
    ["Add photo under the drawing", "", onPhotos],
    ["Your prices", "", onPrices],
    ["Show water", "W", () => view.setLens("water")],
    ["Show drain", "D", () => view.setLens("drain")],
    ["Show cold", "C", () => view.setLens("cold")],
    ["Show heat", "G", () => view.setLens("heat")],
    ["Show air", "X", () => view.setLens("air")],
    ["Show side and plan", "1", () => view.setLarge("sheet")],
    ["Show 3D", "2", () => view.setLarge("corner")],
    [`${view.shown.rail ? "Hide" : "Show"} the side panel`, "4", () => view.toggle("rail")],
    [`${view.shown.weather ? "Hide" : "Show"} the night`, "N", () => view.toggle("weather")],
    [view.follow ? "Show all lines alike" : "Follow the selected line", "", () => view.setFollow(!view.follow)],
  ];
  const things: { thing: Thing; name: string; kind: string }[] = [
    ...rig.parts.map((p) => ({ thing: { kind: "part" as const, partId: p.id }, name: p.name, kind: "part" })),
    ...rig.runs.map((r) => ({ thing: { kind: "run" as const, runId: r.id }, name: r.name, kind: "run" })),
    ...rig.shell.zones.map((z) => ({ thing: { kind: "zone" as const, zoneId: z.id }, name: z.name, kind: "zone" })),
  ];
  return (
    <Command.Dialog
      open={open}
      onOpenChange={onOpen}
      label={parts ? "Add part" : "Search"}
      filter={rank}
      overlayClassName="fixed inset-0 z-40 bg-black/40"
      contentClassName={paletteClass}
    >
      <Command.Input
        value={typed}
        onValueChange={setTyped}
        placeholder={parts ? "Tank, pump, tap, drain…" : "A part, a run, a part from stock, or an action"}
        className="h-11 w-full rounded-md border border-rule bg-panel px-3 text-[15px]"
      />
      <Command.List className="mt-2 max-h-[60vh] overflow-y-auto">
        <Command.Empty className="p-3 text-muted">Nothing found.</Command.Empty>
        {said && <InWords text={typed} onText={setTyped} onDone={() => onOpen(false)} />}
        {!parts && (
          <Command.Group heading="Actions">
            {commands.map(([words, key, act]) => (
              <Command.Item key={words} className={item} onSelect={then(act)}>
                {words} {key && <kbd className="ml-auto text-muted">{key}</kbd>}
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {!parts && (
          <Command.Group heading="In this rig">
            {things.map((t) => (
              <Command.Item
                key={keyOf(t.thing)}
                value={keyOf(t.thing)}
                keywords={[t.name, t.kind]}
                className={item}
                onSelect={then(() => selection.take(t.thing))}
              >
                <span className="min-w-0 truncate">{t.name}</span>
                <span className="ml-auto text-muted">{t.kind}</span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {own.length > 0 && (
          <Command.Group heading="Add: your own">
            {own.map(({ part, rigName }) => (
              <Command.Item
                key={`${part.stock}/${part.name}`}
                value={`own/${part.stock}/${part.name}`}
                keywords={[part.name, "place", "own", part.stock]}
                className={item}
                onSelect={then(() => putOwn(part))}
              >
                <PartGlyph stock={part.stock} />
                <span className="min-w-0 truncate">{part.name}</span>
                <span className="ml-auto shrink-0 text-muted">yours, from {rigName}</span>
              </Command.Item>
            ))}
          </Command.Group>
        )}
        {groups.map(({ id, name }) => (
          <Command.Group key={id} heading={name}>
            {catalogue?.sets
              .filter((x) => x.group === id)
              .map((set) => (
                <Command.Item
                  key={set.id}
                  value={`set/${set.id}`}
                  keywords={[set.name, "place", "set", name]}
                  className={item}
                  onSelect={then(() => putSet(set))}
                >
                  <PartGlyph stock={set.id} />
                  <span className="min-w-0">
                    <span className="block truncate">{set.name}</span>
                    <span className="block text-muted">{set.words}</span>
                  </span>
                  <span className="ml-auto shrink-0 text-muted">set</span>
                </Command.Item>
              ))}
            {catalogue?.parts
              .filter((x) => x.group === id)
              .map((part) => (
                <Command.Item
                  key={part.id}
                  value={`stock/${part.id}`}
                  keywords={[part.name, "place", part.id, name]}
                  className={item}
                  onSelect={then(() => put(part))}
                >
                  <PartGlyph stock={part.id} />
                  <span className="min-w-0 truncate">{part.name}</span>
                  <span className="ml-auto text-muted">place</span>
                </Command.Item>
              ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command.Dialog>
  );
}

/** A part in words, with its place and what it joins: how it is understood, what can be typed next, or what is wrong. */
function InWords({ text, onText, onDone }: { text: string; onText(text: string): void; onDone(): void }) {
  const { document, selection } = useStores();
  const id = useDocument((s) => s.id);
  const base = useDocument((s) => s.revision);
  const system = useSettings((s) => s.system);
  const print = usePrint();
  const [ids] = useState(() => ({ partId: newId("part"), runId: newId("run") }));
  const ask = async (signal?: AbortSignal) =>
    data(await api.POST("/api/rigs/{id}/words", { params: { path: { id } }, body: { base, text, system, ...ids }, signal }));
  const read = useQuery({
    queryKey: ["words", id, base, text, system],
    queryFn: ({ signal }) => ask(signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
  // Enter straight after typing waits for what the last letter says, asked again: a save meanwhile takes the question of before back.
  const put = async () => {
    const said = (!read.isPlaceholderData && read.data) || (await ask().catch(() => null));
    if (!said?.understood) return;
    selection.takeWhenThere({ kind: "part", partId: ids.partId });
    document.commit("Add in words", said.edits);
    onDone();
  };
  const problem = read.error as Problem | null;
  // What is typed names these items, so that they stay in the list whatever it is.
  return (
    <Command.Group heading="In words: place … at from the rear, from the kerb, above the floor, joining …">
      {problem && (
        <Command.Item className={item} value={`words ${text}`} keywords={[text]} disabled>
          <span role="alert">{problem.fields.text?.[0] ?? problem.message}</span>
        </Command.Item>
      )}
      {!problem && read.data?.understood && (
        <Command.Item className={item} value={`words ${text}`} keywords={[text]} onSelect={() => void put()}>
          {say(read.data.understood, print)} <kbd className="ml-auto text-muted">place</kbd>
        </Command.Item>
      )}
      {!problem &&
        read.data?.next.map((next) => (
          <Command.Item key={next} className={item} value={`next ${next}`} keywords={[text, next]} onSelect={() => onText(next)}>
            <span className="text-muted">{next}</span>
          </Command.Item>
        ))}
    </Command.Group>
  );
}

/** Beside what is in hand, else in the middle of the plumbing, on the floor. */
function placeForNew(rig: Rig, beside: Thing | undefined, size: { xM: number; yM: number; zM: number }) {
  const at = beside && placeOf(rig, beside);
  if (at) return freeSpot(rig, size, { xM: at.xM + 0.15, yM: at.yM, zM: at.zM });
  const middle = middleOf(rig.parts.length > 0 ? plumbingOf(rig) : rig.shell.body);
  return freeSpot(rig, size, { xM: middle.xM - size.xM / 2, yM: middle.yM - size.yM / 2, zM: 0 });
}

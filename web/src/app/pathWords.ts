const lists: Record<string, string> = {
  edits: "edit",
  parts: "part",
  runs: "line",
  bends: "bend",
  ports: "port",
  zones: "room",
  faces: "face",
  layers: "layer",
  openings: "opening",
  obstacles: "obstacle",
  keepOuts: "no-go area",
  access: "access",
  scenarios: "scenario",
  settings: "setting",
  plans: "plan",
  events: "event",
  byHand: "step by hand",
  left: "draining step",
  prices: "price",
  photos: "photo",
};
const fields: Record<string, string> = {
  xM: "distance from the rear",
  yM: "distance from the kerb",
  zM: "height above the floor",
  formatVersion: "version",
  at: "place",
  box: "place and size",
};
/** Units that names of fields end on. */
const unit = /(?<=[a-z])(MPerS|WPerK|JPerK|KPerM|Kg|Wh|Deg|[MLCWSH])$/;

/** Where a fault is in a rig's file, in words: "part 4, size, height above the floor". */
export function pathWords(path: string): string {
  return path
    .split(".")
    .filter((step) => step !== "shell" && step !== "rig")
    .map((step) => {
      const [, name = step, index] = /^(\w+)\[(\d+)\]$/.exec(step) ?? [];
      if (index !== undefined) return `${lists[name] ?? name} ${Number(index) + 1}`;
      return fields[name] ?? lists[name] ?? name.replace(unit, "").replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);
    })
    .join(", ");
}

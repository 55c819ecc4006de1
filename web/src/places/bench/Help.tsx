import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import type { Place } from "./BenchHeader";

/** What each place is for, in a paragraph. */
const about: Record<Place, string> = {
  bench:
    "Draw the water system where it really runs: parts, lines, and the height of every bend. Water shows where it goes: open a tap, turn a valve. Drain shows what stays, Cold what freezes, Heat where circuits and pads bring warmth, Air what blowing out sweeps. Select a line to see its whole way and its profile; drag a height and everything answers. The side panel lists what is wrong, worst first, with fixes that were tried.",
  brief:
    "Say how you use the rig and how cold it gets. Beside each answer stands what follows from it. Build preferences decide which rules the rig is checked by, and Measure next tells which guess is worth a tape or a thermometer.",
  shell:
    "Rooms decide how cold each line gets. Draw each room as a box, describe its walls, openings and heater, and see its temperature and which room with water gets coldest.",
  night:
    "One night hour by hour: what freezes, when, and how sure that is. Add events such as a heater that fails, compare plans, find out which insulation helps most, and see how many winters do damage.",
  drain:
    "The steps that drain the rig, with what comes out at each. Tick them as you do them, and the rig remembers what is left. Parking slope shows on which slopes it drains.",
  layup:
    "Out with it, step by step, for this rig: drained, blown out, or filled with antifreeze, and opened again in spring. Choose a procedure, look through its steps, and begin it beside the vehicle: by touch, or by D for done, S to skip and T for the timer. Blow out shows what the air of each outlet sweeps; Antifreeze how much to buy and how strong it is at each tap.",
  log: "What was done, read, drained, leaked and mended, with its date, the temperature outdoors and who wrote it. Entries are never changed: a later one corrects them. Due tells what is to be done next, and the season shows it beside the frost.",
  weights:
    "What each axle carries, empty and full, and the load on the straps of each tank. Weigh your axles first: a weighbridge knows best.",
};

const keys: [string, string][] = [
  ["A", "add a part"],
  ["R", "draw a line"],
  ["Ctrl K", "search parts, runs and actions"],
  ["Arrow keys", "move the selection; with Shift in fine steps"],
  [", and .", "previous and next point along the whole way of the line"],
  ["Page up, page down", "move a height by larger steps"],
  ["F", "set even fall"],
  ["M", "apply the best fix"],
  ["W, D, C, G, X", "show water, drain, cold, heat, air"],
  ["1, 2", "large view: side and plan, 3D"],
  ["Z", "zoom to the selection"],
  ["4, N", "side panel, night"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["H", "history"],
  ["Delete", "delete the selection"],
  ["Escape", "cancel, or select nothing"],
  ["?", "this help"],
];

/** What the place is for, and its keys. */
export function Help({ place, onClose }: { place: Place; onClose(): void }) {
  return (
    <Dialog
      open
      title="Help"
      onClose={onClose}
      text={
        <div className="text-ink">
          <p>{about[place]}</p>
          {place === "bench" && (
            <>
              <h3 className="mt-4 font-semibold">Keys</h3>
              <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
                {keys.map(([key, words]) => (
                  <div key={key} className="contents">
                    <dt className="font-medium">
                      <kbd className="font-sans">{key}</kbd>
                    </dt>
                    <dd className="text-muted">{words}</dd>
                  </div>
                ))}
              </dl>
            </>
          )}
        </div>
      }
    >
      <Button onClick={onClose}>Close</Button>
    </Dialog>
  );
}

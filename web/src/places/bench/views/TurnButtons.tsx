import { ArrowDown, ArrowUp, RotateCcw, RotateCw } from "lucide-react";
import { useView } from "../viewStore";
import { toolClass } from "./ViewFrame";

/** Turns and tips the 3D view without dragging it. */
export function TurnButtons() {
  const { turnDeg, tipDeg } = useView((s) => s.corner);
  const turn = useView((s) => s.turn);
  const buttons: [string, typeof ArrowUp, () => void][] = [
    ["Turn left", RotateCcw, () => turn({ turnDeg: turnDeg - 15 })],
    ["Turn right", RotateCw, () => turn({ turnDeg: turnDeg + 15 })],
    ["Look from higher up", ArrowUp, () => turn({ tipDeg: tipDeg + 12 })],
    ["Look from lower down", ArrowDown, () => turn({ tipDeg: tipDeg - 12 })],
  ];
  return (
    <fieldset className="absolute right-1 bottom-1 flex">
      <legend className="sr-only">Turn the 3D view</legend>
      {buttons.map(([label, Icon, act]) => (
        <button key={label} type="button" className={`${toolClass} bg-panel/80`} aria-label={label} onClick={act}>
          <Icon size={17} />
        </button>
      ))}
    </fieldset>
  );
}

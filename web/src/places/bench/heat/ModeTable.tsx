import { useRef } from "react";
import type { Schema } from "../../../api/client";
import type { Rig } from "../../../document/geometry";
import { Button } from "../../../ui/controls";
import { Dialog } from "../../../ui/Dialog";
import { printSvg, saveSvg } from "../views/saving";
import { useHandles } from "./useHandles";

/** Pixels to a millimetre, so that it is printed in its true size. */
const MM = 96 / 25.4;
const [WIDTH, EDGE, NAME, ROW] = [148 * MM, 8 * MM, 46 * MM, 8 * MM];

/** One table for all valves, pumps and heaters: a row for each mode, for the inside of the cupboard door. */
export function ModeTable({ rig, modes, onClose }: { rig: Rig; modes: Schema["ModesAnswer"]; onClose(): void }) {
  const svg = useRef<SVGSVGElement>(null);
  const name = `${rig.name}, heating modes`;
  return (
    <Dialog open title="Heating modes" text={<Table rig={rig} modes={modes} svg={svg} />} onClose={onClose}>
      <Button onClick={onClose}>Close</Button>
      <Button onClick={() => svg.current && void saveSvg(svg.current, name)}>Save as SVG</Button>
      <Button onClick={() => svg.current && void printSvg(svg.current, name, "A5")}>Print</Button>
    </Dialog>
  );
}

function Table({ rig, modes, svg }: { rig: Rig; modes: Schema["ModesAnswer"]; svg: React.RefObject<SVGSVGElement | null> }) {
  const handles = useHandles(rig);
  const text = (size: number, weight = 400) => ({ fontSize: size, fontWeight: weight, fill: "#000" });
  const column = (WIDTH - 2 * EDGE - NAME) / Math.max(1, modes.turned.length);
  const top = EDGE + 26;
  const body = top + ROW;
  const key = body + modes.modes.length * ROW + 22;
  const height = key + modes.turned.length * 16 + 46;
  const settingOf = (mode: Schema["HeatMode"], id: string) => mode.settings.find((s) => s.id === id);
  return (
    <svg
      ref={svg}
      width={WIDTH}
      height={height}
      viewBox={`0 0 ${WIDTH} ${height}`}
      className="max-w-full border border-rule bg-white"
      style={{ height: "auto" }}
      role="img"
      aria-label="Positions in each heating mode"
      data-mode-table={modes.modes.length}
    >
      <rect width={WIDTH} height={height} fill="#fff" />
      <text x={EDGE} y={EDGE + 10} style={text(18, 700)}>
        Heating modes
      </text>
      <text x={WIDTH - EDGE} y={EDGE + 10} textAnchor="end" style={text(12)}>
        {rig.name}
      </text>
      {modes.turned.map((id, i) => {
        const x = EDGE + NAME + column * (i + 0.5);
        return (
          <g key={id}>
            <circle cx={x} cy={top + ROW / 2} r={10} fill="#fff" stroke="#000" strokeWidth={1.3} />
            <text x={x} y={top + ROW / 2 + 4} textAnchor="middle" style={text(12, 700)}>
              {i + 1}
            </text>
          </g>
        );
      })}
      {modes.modes.map((mode, row) => {
        const y = body + row * ROW;
        return (
          <g key={mode.key}>
            <path d={`M${EDGE} ${y}H${WIDTH - EDGE}`} stroke="#000" strokeWidth={0.6} />
            {lines(mode.name, 26).map((line, i, all) => (
              <text key={line} x={EDGE} y={y + ROW / 2 + 4 + (i - (all.length - 1) / 2) * 12} style={text(11, 600)}>
                {line}
              </text>
            ))}
            {modes.turned.map((id, i) => {
              const setting = settingOf(mode, id);
              return (
                <text
                  key={id}
                  x={EDGE + NAME + column * (i + 0.5)}
                  y={y + ROW / 2 + 4}
                  textAnchor="middle"
                  style={text(column < 44 ? 9.5 : 11, setting && handles.passes(setting) ? 700 : 400)}
                >
                  {setting && handles.positionOf(setting)}
                </text>
              );
            })}
          </g>
        );
      })}
      {modes.turned.map((id, i) => (
        <text key={id} x={EDGE} y={key + i * 16} style={text(11.5)}>
          {i + 1} = {handles.nameOf(id)}
        </text>
      ))}
      <text x={EDGE} y={key + modes.turned.length * 16 + 12} style={text(11, 700)}>
        Stop the pump before you turn a valve. Hot coolant scalds.
      </text>
    </svg>
  );
}

/** A name in two lines at the most. */
function lines(name: string, letters: number): string[] {
  if (name.length <= letters) return [name];
  const cut = name.lastIndexOf(" ", letters);
  const rest = name.slice(cut + 1);
  return [name.slice(0, cut), rest.length > letters ? `${rest.slice(0, letters - 1)}…` : rest];
}

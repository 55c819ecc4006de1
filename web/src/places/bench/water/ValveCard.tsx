import { useMemo, useRef } from "react";
import type { Schema } from "../../../api/client";
import { useCatalogue } from "../../../app/catalogue";
import { say, usePrint } from "../../../app/units";
import { courseOf, indexOf, type Part, plus, type Rig } from "../../../document/geometry";
import { type Hung, placeTags } from "../../../drawing/discs";
import { type Frame, pathOf, rectOf, toPx, wholeFrame } from "../../../drawing/projection";
import { Button } from "../../../ui/controls";
import { Dialog } from "../../../ui/Dialog";
import { printSvg, saveSvg } from "../views/saving";

/** Pixels to a millimetre, so that it is printed in its true size. */
const MM = 96 / 25.4;
const [WIDTH, HEIGHT, EDGE] = [148 * MM, 210 * MM, 8 * MM];
const DRAWING = 58 * MM;
/** A handle that is read with a torch in one hand. */
const HANDLE = 15 * MM;
const ROW = 17.5 * MM;
const MOST = 12;

interface Handle {
  partId: string;
  number: number;
  name: string;
  position: string;
  passes: boolean;
  /** A switch, and no handle. */
  isSwitch: boolean;
  /** The way of the pipe through it on the drawing, degrees. */
  turnDeg: number;
  chosen: boolean;
}

/** A card for the inside of the cupboard door: a drawing with numbered valves, and which way each handle points. */
export function ValveCard({ rig, task, onClose }: { rig: Rig; task: Schema["TaskSetting"]; onClose(): void }) {
  const svg = useRef<SVGSVGElement>(null);
  const name = `${rig.name}, ${task.name}`;
  return (
    <Dialog open title="Valve card" text={<CardSvg rig={rig} task={task} svg={svg} />} onClose={onClose}>
      <Button onClick={onClose}>Close</Button>
      <Button onClick={() => svg.current && void saveSvg(svg.current, name)}>Save as SVG</Button>
      <Button onClick={() => svg.current && void printSvg(svg.current, name, "A5")}>Print</Button>
    </Dialog>
  );
}

function CardSvg({ rig, task, svg }: { rig: Rig; task: Schema["TaskSetting"]; svg: React.RefObject<SVGSVGElement | null> }) {
  const { stock } = useCatalogue();
  const print = usePrint();
  const frame = wholeFrame(rig, "side", { width: WIDTH - 2 * EDGE, height: DRAWING }, 16);
  const handles = useMemo(() => handlesOf(rig, task, (id) => stock.get(id), frame), [rig, task, stock, frame]);
  const { parts } = indexOf(rig);
  const placed = placeTags(handles, (id) => {
    const part = parts.get(id);
    const r = part && rectOf("side", frame, part.box);
    return r && { x: r.x + r.width / 2, y: r.y + r.height / 2 };
  });
  const body = rectOf("side", frame, rig.shell.body);
  const text = (size: number, weight = 400) => ({ fontSize: size, fontWeight: weight, fill: "#000" });
  const joined = task.gear.length > 0 ? ` Joined for it: ${task.gear.map((g) => say(g.words, print)).join("; ")}.` : "";
  const lines = wrapped(`${say(task.words, print)}${joined}`, 74).slice(0, 3);
  const top = EDGE + DRAWING + 26 + lines.length * 14;
  return (
    <svg
      ref={svg}
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="max-w-full border border-rule bg-white"
      style={{ height: "auto" }}
      role="img"
      aria-label={`Valve card: ${task.name}`}
      data-valve-card={handles.length}
    >
      <rect width={WIDTH} height={HEIGHT} fill="#fff" />
      <text x={EDGE} y={EDGE + 8} style={text(20, 700)}>
        {task.name}
      </text>
      <text x={WIDTH - EDGE} y={EDGE + 8} textAnchor="end" style={text(12)}>
        {rig.name}
      </text>
      <g transform={`translate(${EDGE} ${EDGE + 14})`}>
        <rect {...body} fill="none" stroke="#000" strokeWidth={1.2} />
        {rig.runs
          .filter((r) => r.service === "cold" || r.service === "hot")
          .map((r) => (
            <path
              key={r.id}
              d={pathOf(courseOf(rig, r).map((p) => toPx("side", frame, p.at)))}
              fill="none"
              stroke="#000"
              strokeWidth={1.3}
              strokeDasharray={r.service === "hot" ? "4 2" : undefined}
            />
          ))}
        {rig.parts
          .filter((p) => stock.get(p.stock)?.landmark)
          .map((p) => (
            <rect key={p.id} {...rectOf("side", frame, p.box)} fill="#fff" stroke="#000" strokeWidth={1} />
          ))}
        {placed.map((h: Hung<Handle>) => (
          <g key={h.partId}>
            <path d={pathOf([h.anchor, h.at])} stroke="#000" strokeWidth={0.8} />
            <circle cx={h.at.x} cy={h.at.y} r={9} fill="#fff" stroke="#000" strokeWidth={1.3} />
            <text x={h.at.x} y={h.at.y + 4} textAnchor="middle" style={text(11, 700)}>
              {h.number}
            </text>
          </g>
        ))}
      </g>
      {lines.map((l, i) => (
        <text key={l} x={EDGE} y={EDGE + DRAWING + 30 + i * 14} style={text(11.5)}>
          {l}
        </text>
      ))}
      {handles.map((h, i) => (
        <Row key={h.partId} handle={h} x={EDGE + (i % 2) * ((WIDTH - 2 * EDGE) / 2)} y={top + Math.floor(i / 2) * ROW} text={text} />
      ))}
      <text x={EDGE} y={HEIGHT - EDGE - 30} style={text(11.5, 700)}>
        Check
      </text>
      {wrapped([task.check, task.caution].filter(Boolean).join(" "), 84)
        .slice(0, 2)
        .map((l, i) => (
          <text key={l} x={EDGE} y={HEIGHT - EDGE - 15 + i * 14} style={text(11.5)}>
            {l}
          </text>
        ))}
    </svg>
  );
}

/** The pipe through it, and the handle: along the pipe it is open, across it closed. */
function Row({
  handle: h,
  x,
  y,
  text,
}: {
  handle: Handle;
  x: number;
  y: number;
  text(size: number, weight?: number): React.CSSProperties;
}) {
  const [cx, cy, r] = [x + 26 + HANDLE / 2, y + HANDLE / 2, HANDLE / 2];
  return (
    <g>
      <circle cx={x + 11} cy={cy} r={10} fill="#fff" stroke="#000" strokeWidth={1.3} />
      <text x={x + 11} y={cy + 4} textAnchor="middle" style={text(12, 700)}>
        {h.number}
      </text>
      {h.isSwitch ? (
        <g>
          <rect
            x={cx - r}
            y={cy - r}
            width={2 * r}
            height={2 * r}
            rx={6}
            fill={h.passes ? "#000" : "#fff"}
            stroke="#000"
            strokeWidth={1.6}
          />
          <text x={cx} y={cy + 7} textAnchor="middle" style={{ ...text(20, 700), fill: h.passes ? "#fff" : "#000" }}>
            {h.passes ? "I" : "O"}
          </text>
        </g>
      ) : (
        <>
          <path
            d={`M${cx - r} ${cy - 5}H${cx + r}M${cx - r} ${cy + 5}H${cx + r}`}
            stroke="#000"
            strokeWidth={1.2}
            fill="none"
            transform={`rotate(${h.turnDeg} ${cx} ${cy})`}
          />
          <g transform={`rotate(${h.turnDeg + (h.passes ? 0 : 90)} ${cx} ${cy})`} data-handle-turn={h.turnDeg + (h.passes ? 0 : 90)}>
            <rect x={cx - r} y={cy - 4.5} width={2 * r} height={9} rx={4.5} fill="#000" />
          </g>
        </>
      )}
      <text x={cx + r + 8} y={cy - 3} style={text(12, 600)}>
        {h.name.length > 24 ? `${h.name.slice(0, 23)}…` : h.name}
      </text>
      <text x={cx + r + 8} y={cy + 13} style={text(13, 700)}>
        {h.position}
      </text>
    </g>
  );
}

/** Valves, drains and switches with their numbers; those that are turned first, as many as a card has room for. */
function handlesOf(rig: Rig, task: Schema["TaskSetting"], stock: (id: string) => Schema["StockPart"] | undefined, frame: Frame): Handle[] {
  const { parts } = indexOf(rig);
  const turned = new Set(task.turns.map((t) => t.id));
  return [...task.settings]
    .filter((s) => stock(parts.get(s.id)?.stock ?? "")?.passage !== "mixer")
    .sort((a, b) => Number(turned.has(b.id)) - Number(turned.has(a.id)))
    .slice(0, MOST)
    .flatMap((s, i): Handle[] => {
      const part = parts.get(s.id);
      const position = part && stock(part.stock)?.positions.find((p) => p.id === s.position);
      if (!part || !position) return [];
      return [
        {
          partId: s.id,
          number: i + 1,
          name: part.name,
          position: position.name,
          passes: position.passes,
          isSwitch: stock(part.stock)?.passage === "pump",
          turnDeg: wayOf(part, frame),
          chosen: true,
        },
      ];
    });
}

/** The way from its first port to its last as the drawing shows it, to the nearest eighth of a turn. */
function wayOf(part: Part, frame: Frame): number {
  const at = part.ports.map((p) => toPx("side", frame, plus(part.box.at, p.offset)));
  const [a, b] = [at[0], at.at(-1)];
  if (!a || !b || Math.hypot(b.x - a.x, b.y - a.y) < 0.5) return 0;
  return Math.round((Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI / 45) * 45;
}

/** A text in lines of about so many letters. */
function wrapped(text: string, letters: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + word.length < letters) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

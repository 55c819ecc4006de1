import type { Schema } from "../api/client";
import { type Part, plus, type Xyz } from "../document/geometry";
import { type Disc, type PlacedTag, TAG } from "./discs";
import type { Placed } from "./labels";
import { type Px, pathOf } from "./projection";

/** Names where they were placed, readable over lines. */
export function Labels({ labels, styleOf }: { labels: Placed[]; styleOf?(id: string): React.CSSProperties }) {
  return labels.map((l) => (
    <g key={l.id} data-label>
      {l.leader && <path d={pathOf(l.leader)} stroke="var(--strong)" strokeWidth={1} />}
      <text
        x={l.x}
        y={l.y}
        textAnchor={l.anchor}
        className="pointer-events-none"
        style={{ paintOrder: "stroke", ...styleOf?.(l.id) }}
        stroke="var(--panel)"
        strokeWidth={3}
        strokeLinejoin="round"
      >
        {l.text}
      </text>
    </g>
  ));
}

/** How much room a disc takes from labels, and the figure of those beneath it. */
export const roomOf = (d: Disc) => [
  { x: d.at.x - 12, y: d.at.y - 12, width: 24, height: 24 },
  ...(d.findings.length > 1 ? [{ x: d.at.x + 12, y: d.at.y - 16, width: 18, height: 11 }] : []),
];

interface DiscsProps {
  discs: Disc[];
  chosenId: string | null | undefined;
  onFinding: ((finding: Schema["Finding"]) => void) | undefined;
}

/** Numbered discs at the places of findings. */
export function Discs({ discs, chosenId, onFinding }: DiscsProps) {
  return discs.map(({ at, anchor, findings, number }) => {
    const [first] = findings as [Schema["Finding"]];
    const chosen = findings.some((f) => f.id === chosenId);
    return (
      // biome-ignore lint/a11y/noStaticElementInteractions: the keys' way to a finding is the list beside the drawing
      <g key={number} className="cursor-pointer" onClick={() => onFinding?.(first)} data-finding={first.id}>
        <title>{findings.map((f) => f.title).join("\n")}</title>
        <path d={pathOf([anchor, at])} stroke="var(--ink)" strokeWidth={1} />
        <circle cx={at.x} cy={at.y} r={20} fill="transparent" />
        <circle cx={at.x} cy={at.y} r={10.5} fill={chosen ? "var(--ink)" : "var(--panel)"} stroke="var(--ink)" strokeWidth={1.5} />
        <text
          x={at.x}
          y={at.y + 4.2}
          textAnchor="middle"
          fontWeight={700}
          style={{ fill: chosen ? "var(--panel)" : "var(--ink)", fontStretch: "100%" }}
        >
          {number}
        </text>
        {findings.length > 1 && (
          <text x={at.x + 12} y={at.y - 6} fontWeight={600} style={{ paintOrder: "stroke" }} stroke="var(--panel)" strokeWidth={3}>
            +{findings.length - 1}
          </text>
        )}
      </g>
    );
  });
}

/** Numbered tags on valves, taps and all that is handled, each on its string. */
export function Tags({ tags, onTag }: { tags: PlacedTag[]; onTag: ((number: number) => void) | undefined }) {
  return tags.map(({ at, anchor, number, done, chosen, partId }) => {
    const [paper, ink] = chosen ? ["var(--ink)", "var(--panel)"] : ["var(--panel)", done ? "var(--muted)" : "var(--ink)"];
    const [left, top, nick] = [at.x - TAG.width / 2, at.y - TAG.height / 2, 6];
    return (
      // biome-ignore lint/a11y/noStaticElementInteractions: the keys' way to a step is the list beside the drawing
      <g key={partId} className="cursor-pointer" onClick={() => onTag?.(number)} data-tag={number} data-part={partId}>
        <path d={pathOf([anchor, at])} stroke={ink} strokeWidth={1} />
        <circle cx={anchor.x} cy={anchor.y} r={2.5} fill={ink} />
        <circle cx={at.x} cy={at.y} r={20} fill="transparent" />
        <path
          d={`M${left + nick} ${top}h${TAG.width - nick}v${TAG.height}h${nick - TAG.width}l${-nick} ${-nick}v${2 * nick - TAG.height}z`}
          fill={paper}
          stroke={chosen ? paper : ink}
          strokeWidth={1.5}
          strokeDasharray={done && !chosen ? "3 2" : undefined}
        />
        <circle cx={left + 5} cy={at.y} r={1.6} fill={ink} />
        <text x={at.x + 2.5} y={at.y + 4.6} textAnchor="middle" fontWeight={700} style={{ fill: ink, fontStretch: "100%" }}>
          {number}
        </text>
      </g>
    );
  });
}

interface PortsProps {
  part: Part;
  portId: string | null;
  taken: ReadonlySet<string>;
  px(p: Xyz): Px;
}

/** Ports of the part in hand: square, as what a pipe is joined to; empty where none is. */
export function Ports({ part, portId, taken, px }: PortsProps) {
  return part.ports.map((port) => {
    const at = px(plus(part.box.at, port.offset));
    const chosen = port.id === portId;
    const r = chosen ? 7 : 5;
    return (
      <rect
        key={port.id}
        data-handle={`${part.id}:${port.id}`}
        x={at.x - r}
        y={at.y - r}
        width={2 * r}
        height={2 * r}
        fill={chosen ? "var(--ink)" : taken.has(port.id) ? "var(--pipe)" : "var(--panel)"}
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
    );
  });
}

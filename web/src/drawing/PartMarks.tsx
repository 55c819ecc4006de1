import { memo } from "react";
import type { Schema } from "../api/client";
import { glyphOf } from "./PartGlyph";
import { type Frame, type Px, rectOf, type View } from "./projection";
import { sameIn, shallow } from "./stretches";
import { colourOf, cssOf } from "./temperature";

type Rect = { x: number; y: number; width: number; height: number };
const GLYPH_PX = 28;

export interface PartProps {
  part: Schema["Part"];
  view: View;
  frame: Frame;
  look: Schema["PartLook"];
  numbers: Schema["TradeNumbers"];
  rung: Schema["Rung"] | undefined;
  /** How full of water that stays. */
  share: number;
  chosen: boolean;
  bare: boolean;
}

export const PartMarks = memo(
  ({ marks }: { marks: PartProps[] }) => marks.map((m) => <PartMark key={m.part.id} {...m} />),
  sameIn<PartProps>((a, b) => shallow(a, b)),
);

const PartMark = memo(function PartMark(props: PartProps) {
  const { part, view, rung, chosen, bare, share } = props;
  const rect = rectOf(view, props.frame, part.box);
  const mid = { x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 };
  // Under the floor, seen from above.
  const hidden = view === "plan" && part.box.at.zM + part.box.size.zM <= 0;
  const line = { stroke: "var(--ink)", strokeDasharray: hidden ? "4 3" : undefined, strokeWidth: chosen ? 2.5 : bare ? 0.8 : 1.25 };
  const iced = rung !== undefined && rung.morningIce > 0;
  const name = { "data-name": part.name };
  // One element wherever one will do: there are hundreds of them.
  if (props.look === "joint") return <circle {...name} cx={mid.x} cy={mid.y} r={bare ? 1.5 : chosen ? 5 : 3} fill="var(--ink)" />;
  if (props.look === "openEnd")
    return <circle {...name} cx={mid.x} cy={mid.y} r={bare ? 2 : chosen ? 6 : 4} fill="var(--panel)" {...line} />;
  if (props.look === "drain")
    return <path {...name} d={funnel(mid, bare ? 4 : chosen ? 9 : 7)} fill="var(--ink)" stroke="var(--panel)" strokeWidth={1} />;
  const plain = !rung && share <= 0.002;
  return (
    <>
      <rect {...name} {...rect} rx={2} fill="var(--panel)" {...(plain && line)} />
      {!plain && (
        <>
          {/* Water stands from the bottom up; from above it is as deep a tint as it is full. */}
          {share > 0.002 && (
            <rect {...filled(rect, view, share)} rx={2} fill="var(--stays)" fillOpacity={view === "plan" ? 0.08 + 0.34 * share : 0.42} />
          )}
          {rung && (
            <rect
              {...rect}
              rx={2}
              fill={iced ? "url(#ice-hatch)" : cssOf(colourOf(props.numbers, rung.morningC))}
              fillOpacity={iced ? 1 : 0.35}
            />
          )}
          <rect {...name} {...rect} rx={2} fill="none" {...line} />
        </>
      )}
      {/* Where there is room for it a part shows what it is. */}
      {!bare && Math.min(rect.width, rect.height) > GLYPH_PX && (
        <path
          d={glyphOf(part.stock)}
          transform={`translate(${mid.x - 12} ${mid.y - 12})`}
          fill="none"
          stroke="var(--muted)"
          strokeWidth={1.4}
          strokeLinejoin="round"
          strokeLinecap="round"
          className="pointer-events-none"
        />
      )}
    </>
  );
});

const funnel = (mid: Px, r: number) => `M${mid.x - r} ${mid.y - r / 2}h${2 * r}l${-r} ${r * 1.3}z`;
const filled = (r: Rect, view: View, share: number): Rect =>
  view === "plan" ? r : { x: r.x, width: r.width, y: r.y + r.height * (1 - share), height: r.height * share };

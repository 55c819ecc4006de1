import { memo } from "react";
import type { Schema } from "../api/client";
import { volumeOf } from "../document/geometry";
import { coverOf, straightOf } from "./photos";
import { type Frame, type Look, rectOf, toPx, wheelUnder } from "./projection";

/** The body, its rooms, and what is in the way. */
export const Backdrop = memo(function Backdrop(props: {
  shell: Schema["Shell"];
  view: Look;
  frame: Frame;
  bare: boolean;
  zoneId: string | null;
}) {
  const { shell, view, frame, bare } = props;
  const zones = [...shell.zones].sort((a, b) => volumeOf(b.box) - volumeOf(a.box));
  return (
    <g>
      {view === "side" && <Wheel shell={shell} frame={frame} />}
      <rect {...rectOf(view, frame, shell.body)} fill="var(--panel)" stroke="var(--ink)" strokeWidth={bare ? 1 : 1.5} rx={4} />
      {zones.map((zone) => {
        const chosen = zone.id === props.zoneId;
        if (!chosen && (zone.kind === "living" || (view === "plan" && zone.kind === "openUnderfloor"))) return null;
        return (
          <rect
            key={zone.id}
            {...rectOf(view, frame, zone.box)}
            fill="var(--sunk)"
            opacity={0.75}
            stroke={chosen ? "var(--ink)" : "var(--strong)"}
            strokeWidth={chosen ? 2 : 0.75}
            strokeDasharray={chosen ? "6 3" : "2 3"}
          />
        );
      })}
      {!bare &&
        shell.photos
          ?.filter((p) => p.view === view)
          .map((p) => (
            <image
              key={p.id}
              {...rectOf(view, frame, coverOf(p))}
              href={straightOf(p)}
              opacity={0.4}
              preserveAspectRatio="none"
              className="pointer-events-none"
              data-photo={p.id}
            />
          ))}
      {shell.obstacles.map((o) => (
        <rect key={o.id} {...rectOf(view, frame, o.box)} fill="url(#solid-hatch)" stroke="var(--strong)" strokeWidth={0.75} />
      ))}
    </g>
  );
});

function Wheel({ shell, frame }: { shell: Schema["Shell"]; frame: Frame }) {
  const arch = shell.obstacles.find((o) => o.kind === "wheelArch");
  if (!arch) return null;
  const wheel = wheelUnder(arch.box);
  const at = toPx("side", frame, wheel.centre);
  const r = wheel.radiusM * frame.scale;
  return (
    <g opacity={0.7}>
      <circle cx={at.x} cy={at.y} r={r} fill="var(--sunk)" stroke="var(--strong)" />
      <circle cx={at.x} cy={at.y} r={r * 0.45} fill="none" stroke="var(--strong)" />
    </g>
  );
}

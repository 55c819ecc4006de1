import type { Rig, Xyz } from "../../../document/geometry";
import type { Thing } from "../../../document/things";
import { type Camera, type Eye, placeAtHeight } from "../../../drawing/corner";
import { type Px, pathOf } from "../../../drawing/projection";
import { snapped } from "../moving";

export const PORT_PX = 14;
/** How long the lead over what is selected is, and how near it is taken. */
export const [LEAD_LONG, LEAD_PX] = [40, 20];

/** What is pulled in the corner view. */
export interface Grip {
  rig: Rig;
  thing: Thing;
  /** Up and down, else in its plane. */
  lead: boolean;
  at: Xyz;
  camera: Camera;
  eye: Eye;
}

export const distance = (a: Px, b: Px) => Math.hypot(a.x - b.x, a.y - b.y);

/** How far a pull from one place on the screen to another takes it: by its lead up and down, else in the plane it lies in. */
export function pulledBy(grip: Grip, from: Px, to: Px, downPx: number, step: number): Xyz {
  const by = { xM: 0, yM: 0, zM: 0 };
  if (grip.lead) {
    const up = -downPx / (grip.camera.scale * Math.max(0.2, Math.cos((grip.camera.tipDeg * Math.PI) / 180)));
    by.zM = snapped(grip.at.zM + up, step) - grip.at.zM;
    return by;
  }
  // Where the sight is too level to tell, it stays.
  const [start, end] = [placeAtHeight(grip.eye, from, grip.at.zM), placeAtHeight(grip.eye, to, grip.at.zM)];
  if (start && end)
    for (const axis of ["xM", "yM"] as const) by[axis] = snapped(grip.at[axis] + end[axis] - start[axis], step) - grip.at[axis];
  return by;
}

/** What is pulled up and down. */
export function Lead({ lead }: { lead: { foot: Px; top: Px } }) {
  return (
    <g data-lead>
      <path d={pathOf([lead.foot, lead.top])} stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="2 3" />
      <circle cx={lead.top.x} cy={lead.top.y} r={20} fill="transparent" className="cursor-ns-resize" />
      <path
        d={`M${lead.top.x - 6} ${lead.top.y - 3}l6 -7l6 7zM${lead.top.x - 6} ${lead.top.y + 3}l6 7l6 -7z`}
        fill="var(--ink)"
        stroke="var(--panel)"
        strokeWidth={1.5}
        className="pointer-events-none"
      />
    </g>
  );
}

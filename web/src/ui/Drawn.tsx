import type { ReactNode } from "react";

const pictures = {
  /** Water on its way. */
  loading: (
    <>
      <path d="M8 22C30 4 46 16 62 36S98 68 132 34" stroke="var(--rule)" strokeWidth={11} />
      <path d="M8 22C30 4 46 16 62 36S98 68 132 34" stroke="var(--stays)" strokeWidth={6} pathLength={100} className="drawn-filling" />
    </>
  ),
  /** A vehicle with nothing in it. */
  empty: (
    <>
      <path d="M10 10H92V52H10zM92 16L106 20L116 38L132 42V52H92" stroke="var(--strong)" strokeWidth={2} strokeDasharray="5 4" />
      <circle cx={34} cy={54} r={8} stroke="var(--strong)" strokeWidth={2} fill="var(--ground)" />
      <circle cx={112} cy={54} r={8} stroke="var(--strong)" strokeWidth={2} fill="var(--ground)" />
      <path d="M42 31h18M51 22v18" stroke="var(--ink)" strokeWidth={3} />
    </>
  ),
  /** A pipe that came apart, and a drop. */
  failed: (
    <>
      <path d="M6 26H54M92 38H134" stroke="var(--strong)" strokeWidth={11} />
      <path d="M54 18v16M92 30v16" stroke="var(--ink)" strokeWidth={3} />
      <path d="M66 40c6 8 8 11 8 15a8 8 0 0 1 -16 0c0 -4 2 -7 8 -15z" fill="var(--stays)" stroke="none" />
    </>
  ),
  /** A hose off its tap. */
  offline: (
    <>
      <path d="M6 30H50M50 20V40M58 24V36" stroke="var(--ink)" strokeWidth={4} />
      <path d="M134 44C118 60 104 44 84 30" stroke="var(--strong)" strokeWidth={11} />
      <path d="M80 20l8 18" stroke="var(--ink)" strokeWidth={3} />
    </>
  ),
} as const;

/** A page or panel that has nothing of its own to show: why, in a picture and words, and the ways on. */
export function Drawn(props: { picture: keyof typeof pictures; title: string; role?: "alert" | "status"; children?: ReactNode }) {
  return (
    <div className="mx-auto flex max-w-lg items-start gap-5 p-6" role={props.role}>
      <svg
        viewBox="0 0 140 68"
        width={140}
        height={68}
        fill="none"
        strokeLinecap="round"
        strokeLinejoin="round"
        className="shrink-0"
        aria-hidden="true"
      >
        {pictures[props.picture]}
      </svg>
      <div className="min-w-0">
        <h1 className="text-[17px] font-semibold break-words">{props.title}</h1>
        {props.children}
      </div>
    </div>
  );
}

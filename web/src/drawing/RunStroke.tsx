import type { Schema } from "../api/client";

interface Props {
  d: string;
  service: Schema["Service"];
  colour: string;
  /** Lines of a small drawing are thinner. */
  weight?: number;
  faint?: boolean;
}

/** A line by its service: cold plain, hot with an inner line, waste broad dashed, vent dotted, fill in long dashes. */
export function RunStroke({ d, service, colour, weight = 1, faint = false }: Props) {
  const base = {
    d,
    fill: "none",
    stroke: colour,
    strokeLinejoin: "round" as const,
    opacity: faint ? 0.45 : 1,
  };
  switch (service) {
    case "hot":
      return (
        <g>
          <path {...base} strokeWidth={5 * weight} strokeLinecap="round" />
          <path {...base} stroke="var(--panel)" strokeWidth={1.6 * weight} strokeLinecap="round" />
        </g>
      );
    case "waste":
      return <path {...base} strokeWidth={6 * weight} strokeDasharray={`${9 * weight} ${4 * weight}`} />;
    case "vent":
      return <path {...base} strokeWidth={2.6 * weight} strokeDasharray={`0.1 ${5 * weight}`} strokeLinecap="round" />;
    case "fill":
      return <path {...base} strokeWidth={3 * weight} strokeDasharray={`${16 * weight} ${3 * weight} ${2 * weight} ${3 * weight}`} />;
    default:
      return <path {...base} strokeWidth={3.6 * weight} strokeLinecap="round" />;
  }
}

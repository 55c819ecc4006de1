import type { Schema } from "../api/client";
import { strokes } from "./services";

interface Props {
  d: string;
  /** Told where a pointer rests on it. */
  name?: string;
  service: Schema["Service"];
  colour: string;
  /** Lines of a small drawing are thinner. */
  weight?: number;
}

/** A line by its service. */
export function RunStroke({ d, name, service, colour, weight = 1 }: Props) {
  return strokes[service].map(({ width, dash, cap, hollow }, i) => (
    <path
      key={i}
      d={d}
      data-name={name}
      fill="none"
      stroke={hollow ? "var(--panel)" : colour}
      strokeWidth={width * weight}
      strokeDasharray={dash?.map((x) => x * weight).join(" ")}
      strokeLinecap={cap}
      strokeLinejoin="round"
    />
  ));
}

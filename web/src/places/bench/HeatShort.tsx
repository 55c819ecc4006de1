import { say, usePrint } from "../../app/units";
import { useAnswers } from "./benchStores";

/** Beside the heat's switch: heat that is on and has no heater, or one that is too weak for the night. `brief`: in a few words. */
export function HeatShort({ brief = false }: { brief?: boolean }) {
  const findings = useAnswers((s) => s.answers?.advice?.findings);
  const night = useAnswers((s) => s.answers?.night?.heatShort);
  const on = useAnswers((s) => s.conditions?.heatOn);
  const print = usePrint();
  if (!on) return null;
  const found = (findings ?? []).filter((f) => f.kind === "heatShort");
  const words = found.length
    ? found.map((f) =>
        brief ? `${f.title}: ${f.verb}${f.number ? ` ${print(f.number.value, f.number.quantity)}` : ""}` : say(f.reason, print),
      )
    : (night ?? []).map((sentence) => say(sentence, print));
  if (words.length === 0) return null;
  return (
    <p role="status" data-heat-short className={`font-semibold ${brief ? "border-b border-rule px-3 py-0.5" : ""}`}>
      {words.map((text) => (
        <span key={text} className="block">
          {text}
        </span>
      ))}
    </p>
  );
}

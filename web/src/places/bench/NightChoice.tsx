import { Choice } from "../../ui/controls";
import { isTonight, type Place, places, tonight } from "../night/places";
import { useAnswers, useStores } from "./benchStores";

type Named = "brief" | "tonight" | "yours";

/** Which night all screens are about: the brief's, tonight's simulated weather at one of the places, or one that was set by hand. Bare: where the place
 * is chosen beside it. */
export function NightChoice({ bare = false }: { bare?: boolean }) {
  const { answers } = useStores();
  const weather = useAnswers((s) => s.conditions?.weather ?? null);
  const own = useAnswers((s) => s.own);
  const here = tonight();
  const value: Named = !own ? "brief" : isTonight(weather) ? "tonight" : "yours";
  const take = (place: Place) => here && answers.setConditions({ weather: { place, ...here } });
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Choice<Named>
        label="Which night"
        value={value}
        options={[
          { value: "brief", text: "Brief's night", title: "The lowest temperature of the brief, steady" },
          ...(here ? [{ value: "tonight" as const, text: "Tonight", title: "Simulated weather of today's date" }] : []),
          ...(value === "yours" ? [{ value: "yours" as const, text: "Your night" }] : []),
        ]}
        onChange={(to) => {
          if (to === "brief") answers.takeBriefNight();
          if (to === "tonight") take((weather?.place ?? "kettleFell") as Place);
        }}
      />
      {value === "tonight" && !bare && (
        <label className="flex items-center gap-2">
          <span className="text-muted">at</span>
          <select
            aria-label="Place, invented"
            value={weather?.place ?? ""}
            onChange={(e) => take(e.target.value as Place)}
            className="h-10 rounded-md border border-rule bg-panel px-2"
          >
            {Object.entries(places).map(([id, words]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
          </select>
          <span className="text-muted">Simulated weather.</span>
        </label>
      )}
    </div>
  );
}

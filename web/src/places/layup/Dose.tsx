import { useState } from "react";
import { useCatalogue } from "../../app/catalogue";
import { fieldClass } from "../../ui/QuantityField";
import { useLayUp } from "./layUpStore";

/** With what the tank is sanitised: the label of the product comes first. */
export function Dose() {
  const lay = useLayUp();
  return (
    <fieldset className="mt-2 grid grid-cols-3 gap-2" aria-label="Dose">
      <Figure
        label="Chlorine in the product, %"
        limit="dose.strength"
        per={100}
        value={lay.strength}
        onChange={(strength) => lay.set({ strength })}
      />
      <Figure label="In the water, mg/L" limit="dose.mgPerL" value={lay.mgPerL} onChange={(mgPerL) => lay.set({ mgPerL })} />
      <Figure label="It stands, hours" limit="dose.contactH" value={lay.contactH} onChange={(contactH) => lay.set({ contactH })} />
      <p className="col-span-3 text-muted">The label of the product comes first. Chlorine bleach without scent or thickener only.</p>
    </fieldset>
  );
}

function Figure(props: { label: string; limit: string; per?: number; value: number; onChange(value: number): void }) {
  const { label, limit, per = 1, value, onChange } = props;
  const known = useCatalogue().limits[limit];
  const shown = String(Math.round(value * per * 100) / 100);
  const [text, setText] = useState(shown);
  const [error, setError] = useState<string | null>(null);
  const keep = () => {
    const typed = Number(text.replace(",", ".")) / per;
    if (!known || (typed >= known.least && typed <= known.most)) {
      setError(null);
      onChange(typed);
    } else setError(`from ${known.least * per} to ${known.most * per}`);
  };
  return (
    <label className="flex min-w-0 flex-col justify-end">
      <span className="text-muted">{label}</span>
      <input
        className={`${fieldClass} border-rule`}
        inputMode="decimal"
        value={text}
        aria-invalid={error !== null}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === "Enter" && keep()}
      />
      {error && <span role="alert">{error}</span>}
    </label>
  );
}

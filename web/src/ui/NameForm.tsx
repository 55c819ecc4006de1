import { useState } from "react";
import { Button } from "./controls";
import { fieldClass } from "./QuantityField";

/** A name that is asked for by a press, and typed in its place; Escape takes it back. */
export function NameForm(props: {
  ask: string;
  label: string;
  submit: string;
  first?: string;
  className?: string;
  onName(name: string): void;
}) {
  const { ask, label, submit, first = "", className = "", onName } = props;
  const [name, setName] = useState<string | null>(null);
  if (name === null)
    return (
      <Button quiet className={className} onClick={() => setName(first)}>
        {ask}
      </Button>
    );
  const named = name.trim();
  return (
    <form
      className={`flex w-full items-end gap-2 ${className}`}
      onSubmit={(e) => {
        e.preventDefault();
        if (named === "") return;
        onName(named);
        setName(null);
      }}
      onKeyDown={(e) => e.key === "Escape" && setName(null)}
    >
      <label className="min-w-0 grow">
        <span className="text-muted">{label}</span>
        <input
          // biome-ignore lint/a11y/noAutofocus: it was asked for by a press
          autoFocus
          value={name}
          maxLength={80}
          onChange={(e) => setName(e.target.value)}
          className={`${fieldClass} w-full border-rule`}
        />
      </label>
      <Button type="submit" disabled={named === ""}>
        {submit}
      </Button>
    </form>
  );
}

import { type ReactNode, useEffect, useState } from "react";
import { api, data, type Problem, type Schema } from "../api/client";
import { Button, Panel } from "../ui/controls";
import { fieldClass } from "../ui/QuantityField";
import { setGuest } from "./guest";

/** On another machine the code comes first; here the door is open. */
export function Door({ children }: { children: ReactNode }) {
  const [state, setState] = useState<Schema["ShareState"] | null>(null);
  // On this machine nothing is waited for.
  const here = ["localhost", "127.0.0.1", "[::1]"].includes(location.hostname);
  useEffect(() => {
    if (here) return;
    void look().then(setState, () => setState({ address: null, isGuest: true, entered: false, guests: 0 }));
  }, [here]);
  if (here) return children;
  if (!state) return null;
  if (!state.entered) return <EnterCode onEntered={setState} />;
  return children;
}

async function look() {
  const state = data(await api.GET("/api/share"));
  setGuest(state.isGuest);
  return state;
}

function EnterCode({ onEntered }: { onEntered(state: Schema["ShareState"]): void }) {
  const [code, setCode] = useState("");
  const [error, setError] = useState<string | null>(null);
  async function enter() {
    setError(null);
    try {
      await api.POST("/api/share/enter", { body: { code: code.trim() } });
      onEntered(await look());
    } catch (problem) {
      setError((problem as Problem).fields.code?.[0] ?? (problem as Problem).message);
    }
  }
  return (
    <main className="mx-auto mt-10 w-full max-w-sm p-4">
      <Panel className="p-5" aria-label="Enter the code">
        <h1 className="text-[21px] font-semibold">Warm Conduit</h1>
        <p className="mt-1">The first machine shows a code of six digits, under Rigs.</p>
        <form
          className="mt-3 flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void enter();
          }}
        >
          <input
            aria-label="Code"
            inputMode="numeric"
            autoComplete="one-time-code"
            maxLength={6}
            className={`${fieldClass} h-16 border-rule text-center text-[34px] tracking-[0.2em] tabular-nums`}
            value={code}
            onChange={(e) => setCode(e.target.value.replace(/\D/g, ""))}
          />
          <Button primary type="submit" className="h-16 text-[17px]" disabled={code.length !== 6}>
            Enter
          </Button>
          {error && <p role="alert">{error}</p>}
        </form>
        <p className="mt-3 text-muted">The local network is not encrypted: use one you trust.</p>
      </Panel>
    </main>
  );
}

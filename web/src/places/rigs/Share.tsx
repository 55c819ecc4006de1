import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Smartphone } from "lucide-react";
import { useState } from "react";
import { api, data, type Schema } from "../../api/client";
import { isGuest } from "../../app/guest";
import { plural } from "../../app/units";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";

/** The code that lets a phone in, where the program was started to be shared; how to start it so where it was not. */
export function Share() {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const state = useQuery({
    queryKey: ["share"],
    queryFn: async () => data(await api.GET("/api/share")),
    refetchInterval: open ? 2000 : false,
  }).data;
  const code = useMutation({ mutationFn: async () => data(await api.POST("/api/share/code", { body: {} })) });
  const end = useMutation({
    mutationFn: () => api.POST("/api/share/end", { body: {} }),
    onSuccess: () => {
      code.reset();
      void client.invalidateQueries({ queryKey: ["share"] });
    },
  });
  if (!state || isGuest()) return null;
  return (
    <>
      <Button
        onClick={() => {
          setOpen(true);
          if (state.address) code.mutate();
        }}
      >
        <Smartphone size={17} />
        Share with a phone
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title="Share with a phone"
        text={
          state.address ? (
            <Shared code={code.data ?? null} guests={state.guests} />
          ) : (
            <>
              <p>
                The program answers on this machine alone. To use it beside the vehicle, start it with one address of this machine on the
                local network:
              </p>
              <p className="mt-2 font-mono text-ink">./warm-conduit demo --share 192.168.1.20</p>
              <p className="mt-2">The local network is not encrypted: use one you trust.</p>
            </>
          )
        }
      >
        {state.guests > 0 && (
          <Button disabled={end.isPending} onClick={() => end.mutate()}>
            Send {plural(state.guests, "phone")} away
          </Button>
        )}
        {state.address && <Button onClick={() => code.mutate()}>Show a new code</Button>}
        <Button onClick={() => setOpen(false)}>Close</Button>
      </Dialog>
    </>
  );
}

function Shared({ code, guests }: { code: Schema["ShareCode"] | null; guests: number }) {
  if (!code) return <p>Making a code…</p>;
  const until = new Date(code.until).toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" });
  return (
    <div className="flex flex-wrap items-center gap-5">
      <Squares rows={code.squares} />
      <div className="min-w-0 grow">
        <p>Open on the phone:</p>
        <p className="font-semibold break-all text-ink">{code.address}</p>
        <p className="mt-2">and enter the code:</p>
        <p className="text-[34px] leading-tight font-semibold tracking-[0.12em] text-ink tabular-nums" data-code={code.code}>
          {code.code}
        </p>
        <p>
          Valid once, until {until}. {guests > 0 && `${plural(guests, "phone")} connected.`}
        </p>
      </div>
      <p>
        A phone may look and run procedures, and changes nothing else. The local network is not encrypted: use one you trust. Sharing ends
        with the program.
      </p>
    </div>
  );
}

/** The address to be read by a camera: dark on light in either theme. */
function Squares({ rows }: { rows: string[] }) {
  const side = rows.length;
  const dark = rows.flatMap((row, y) => [...row].map((c, x) => (c === "1" ? `M${x} ${y}h1v1h-1z` : ""))).join("");
  return (
    <svg
      width={170}
      height={170}
      viewBox={`0 0 ${side} ${side}`}
      role="img"
      aria-label="The address as a QR code"
      shapeRendering="crispEdges"
    >
      <rect width={side} height={side} fill="#fff" />
      <path d={dark} fill="#000" />
    </svg>
  );
}

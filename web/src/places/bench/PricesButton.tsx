import { lazy, Suspense, useState } from "react";
import { Button } from "../../ui/controls";

const Prices = lazy(async () => ({ default: (await import("./Prices")).Prices }));

/** Where something is told in money: what things cost is typed from there. */
export function PricesButton() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Your prices</Button>
      <Suspense>{open && <Prices onClose={() => setOpen(false)} />}</Suspense>
    </>
  );
}

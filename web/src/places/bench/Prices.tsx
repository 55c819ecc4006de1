import { X } from "lucide-react";
import type { Schema } from "../../api/client";
import { useCatalogue } from "../../app/catalogue";
import { newId } from "../../app/ids";
import { changed, removed } from "../../document/edits";
import type { Rig } from "../../document/geometry";
import { Button } from "../../ui/controls";
import { Dialog } from "../../ui/Dialog";
import { QuantityField } from "../../ui/QuantityField";
import { useDocument, useStores } from "./benchStores";

type Unit = NonNullable<Schema["PriceUnit"]>;

const units: Record<Unit, string> = { squareMetre: "a square metre, 20 mm thick", metre: "a metre", each: "a piece", litre: "a litre" };
const headings: Record<Unit, string> = {
  squareMetre: "Boards, by the square metre of 20 mm",
  metre: "Pipes, sleeves and tape, by the metre",
  each: "Parts, by the piece",
  litre: "Fluids, by the litre",
};

/** What is bought and stands in no catalogue. What lay-up takes of antifreeze is told under Lay-up, school by school. */
const others: { of: string; unit: Unit; name: string }[] = [
  { of: "heating-pad", unit: "each", name: "heating pad" },
  { of: "frost-heater", unit: "each", name: "electric frost heater" },
  { of: "louvre", unit: "each", name: "louvre" },
  { of: "aluminium-tape", unit: "metre", name: "aluminium tape" },
  { of: "propylene-glycol", unit: "litre", name: "antifreeze for drinking-water systems" },
];

/** What can be priced of a rig: its parts by the piece, pipes and sleeves by the metre, boards by area. What advice puts in first is among them. */
function pricedOf(rig: Rig, usual: (what: Schema["UsualFor"]) => string): { of: string; unit: Unit }[] {
  const layers = (s: Schema["Sleeve"] | null | undefined): string[] => (s ? [s.material, ...layers(s.over)] : []);
  const sets: [Unit, string[]][] = [
    ["each", rig.parts.map((p) => p.stock).filter((id) => id !== "open-end")],
    ["metre", rig.runs.flatMap((r) => [r.pipe, ...layers(r.insulation), ...r.bends.flatMap((b) => layers(b.insulation))])],
    ["metre", [usual("sleeve")]],
    ["squareMetre", [usual("board"), ...rig.parts.flatMap((p) => layers(p.jacket))]],
    ["squareMetre", rig.shell.zones.flatMap((z) => z.faces.flatMap((f) => f.layers.map((l) => l.material)))],
  ];
  const all = [...sets.flatMap(([unit, ids]) => ids.map((of) => ({ of, unit }))), ...others];
  return [...new Map(all.map((p) => [`${p.unit} ${p.of}`, p])).values()];
}

/** What things cost, as the builder pays for them: fixes, insulation and what breaks are told in this money. */
export function Prices({ onClose }: { onClose(): void }) {
  const { document } = useStores();
  const rig = useDocument((s) => s.rig) as Rig;
  const { catalogue, usual } = useCatalogue();
  const nameOf = (id: string) =>
    [...(catalogue?.parts ?? []), ...(catalogue?.pipes ?? []), ...(catalogue?.solids ?? [])].find((x) => x.id === id)?.name ??
    others.find((o) => o.of === id)?.name ??
    id;
  const skins = new Set(catalogue?.solids.filter((s) => s.isSkin).map((s) => s.id));
  const rows = pricedOf(rig, usual)
    .filter((p) => !(p.unit === "squareMetre" && skins.has(p.of)))
    .map((p) => ({
      ...p,
      name: nameOf(p.of),
      known: rig.prices.find((k) => k.of === p.of && (k.unit === "squareMetre") === (p.unit === "squareMetre")),
    }))
    .sort((a, b) => a.name.localeCompare(b.name));
  const set = (row: (typeof rows)[number], amount: number) => {
    const edit = row.known
      ? changed(`prices/${row.known.id}`, { amount })
      : ({
          kind: "add",
          list: "prices",
          value: {
            id: newId("price"),
            of: row.of,
            amount,
            ...((row.unit === "squareMetre" || row.unit === "litre") && { unit: row.unit }),
          },
        } as unknown as Schema["Edit"]);
    document.commit(`Price of ${row.name}`, [edit]);
  };
  return (
    <Dialog
      open
      title="Your prices"
      onClose={onClose}
      text={
        <div className="max-h-[60vh] overflow-y-auto pr-1">
          <p>In your own currency. They stay with this rig and are used for fixes, insulation and damage.</p>
          <table className="mt-2 w-full">
            {(Object.keys(units) as Unit[]).map((unit) => (
              <tbody key={unit}>
                <tr>
                  <th colSpan={3} className="pt-3 pb-1 text-left font-semibold text-ink">
                    {headings[unit]}
                  </th>
                </tr>
                {rows
                  .filter((row) => row.unit === unit)
                  .map((row) => (
                    <tr key={`${row.unit} ${row.of}`} className="border-t border-rule">
                      <th className="py-1 text-left font-normal text-ink">{row.name}</th>
                      <td className="w-32 py-1 [&_label]:sr-only">
                        <QuantityField
                          label={`${row.name}, ${units[row.unit]}`}
                          value={row.known?.amount}
                          quantity="number"
                          limit="price.amount"
                          onCommit={(amount) => set(row, amount)}
                        />
                      </td>
                      <td className="w-11 py-1">
                        {row.known && (
                          <Button
                            quiet
                            aria-label={`No price for ${row.name}, ${units[row.unit]}`}
                            onClick={() => document.commit(`Price of ${row.name}`, [removed(`prices/${row.known?.id}`)])}
                          >
                            <X size={16} />
                          </Button>
                        )}
                      </td>
                    </tr>
                  ))}
              </tbody>
            ))}
          </table>
        </div>
      }
    >
      <Button onClick={onClose}>Done</Button>
    </Dialog>
  );
}

import type { PurchaseBody } from "@kobbin/contract";
import { mayChange, type PlannedOrder, type RunPurchase } from "@kobbin/core";
import { savePurchase } from "../../resources/record.ts";
import { useRun } from "../../run/runState.ts";
import { DateField } from "../../ui/DateField.tsx";
import { Kept, useKept } from "../../ui/Kept.tsx";
import { amount, count, fromMicros, money, signed, typedAmount, written } from "../../ui/text/format.ts";
import { useSay, useSayError } from "../../ui/toast/Toast.tsx";
import { HouseSheet } from "./HouseSheet.tsx";
import { HowItStands } from "./HowItStands.tsx";
import { PurchasePaper } from "./PurchasePaper.tsx";

/** One order: to whom, what for how much, and, once it is released, when it was placed and what the invoice says. */
export function OrderSlip({ order: o }: { order: PlannedOrder }) {
  const { id, answer, doc, record, life, role, isReleased, did } = useRun();
  const sayError = useSayError();
  const say = useSay();
  const p = record.purchases.find((x) => x.order === o.key);
  const planned = o.items.reduce((n, i) => n + i.total, 0);
  const isOpen = mayChange("purchase", life, role);
  // boards that are made here are sent for nowhere
  const isBench = doc.houses?.find((h) => h.id === o.party)?.bench !== undefined;
  const save = (body: Omit<PurchaseBody, "order" | "currency">, words: string) => {
    const done = savePurchase(id, {
      order: o.key,
      currency: o.currency,
      ...(p ? { version: answer.versions[p.id] } : {}),
      ...body,
    });
    done.catch(sayError);
    did(`${o.name}: ${words}`, done);
  };
  /** An amount as it was typed, null where the field was emptied. */
  const typed = (text: string, keep: (amount: string | null) => void) => {
    const plain = text === "" ? null : typedAmount(text);
    if (plain !== undefined) keep(plain);
    else say(`“${text}” is no amount`, { hint: "Write it like 12.50.", isProblem: true });
  };
  return (
    <article className="mb-5" aria-label={o.name}>
      <header className="flex flex-wrap items-end gap-x-4 gap-y-2 pb-1">
        <div className="mr-auto">
          <h2>{o.name}</h2>
          <p className="text-[13.5px] text-ink-2">
            {isBench ? "boards made here" : kindOf(o)}, {money(fromMicros(planned), o.currency)}
            {o.beside > 0 && ` and ${money(fromMicros(o.beside), doc.workshop.currency)} of freight and fees`}
            , {daysOf(o)}
          </p>
        </div>
        {isReleased && (
          <>
            <DateField
              label={isBench ? "Begun on" : "Ordered on"}
              value={p?.orderedOn ?? ""}
              disabled={!isOpen}
              onSave={(d) =>
                save(
                  { orderedOn: d || null },
                  d ? (isBench ? "begun" : "ordered") : `not ${isBench ? "begun" : "ordered"} after all`,
                )
              }
            />
            <DateField
              label={isBench ? "Meant for" : "Promised for"}
              value={p?.promisedOn ?? ""}
              disabled={!isOpen}
              onSave={(d) => save({ promisedOn: d || null }, isBench ? "meant for a day" : "promised")}
            />
            <Kept
              label={`Freight and fees, ${o.currency}`}
              className="w-36"
              isMono
              inputMode="decimal"
              disabled={!isOpen}
              placeholder="as invoiced"
              value={p?.freight === undefined ? "" : written(String(p.freight))}
              onSave={(t) => typed(t, (freight) => save({ freight }, "freight and fees"))}
            />
          </>
        )}
      </header>
      {isReleased && !isBench && <HowItStands order={o} isOpen={mayChange("order_step", life, role)} />}
      {o.kind !== "parts" && !isBench && <HouseSheet order={o} />}
      <div className="overflow-x-auto">
        <table className="rows tight w-full min-w-[480px] table-fixed">
          <thead>
            <tr>
              <th>For</th>
              <th>Ordered as</th>
              <th className="text-right">Pieces</th>
              <th className="text-right">Planned, {o.currency}</th>
              {isReleased && <th className="text-right">Invoiced, {o.currency}</th>}
              {isReleased && <th className="text-right">Difference</th>}
            </tr>
          </thead>
          <tbody>
            {o.items.map((i) => (
              <tr key={i.key}>
                <td>{i.label}</td>
                <td className="num text-[13px]">{i.mpn || (isBench ? "by hand" : "as in the package")}</td>
                <td className="num text-right">{i.qty}</td>
                <td className="num text-right">{amount(fromMicros(i.total), o.currency)}</td>
                {isReleased && (
                  <>
                    <td className="text-right">
                      <Paid
                        purchase={p}
                        item={i.key}
                        label={i.label}
                        isOpen={isOpen}
                        onSave={(t) =>
                          typed(t, (sum) =>
                            save({ paid: { [i.key]: sum }, pieces: { [i.key]: i.qty } }, "the invoice"),
                          )
                        }
                      />
                    </td>
                    <td className="num text-right">{differenceOf(p, i.key, fromMicros(i.total))}</td>
                  </>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {isReleased && o.kind === "parts" && <PurchasePaper order={o} />}
    </article>
  );
}

function Paid({
  purchase: p,
  item,
  label,
  isOpen,
  onSave,
}: {
  purchase: RunPurchase | undefined;
  item: string;
  label: string;
  isOpen: boolean;
  onSave: (text: string) => void;
}) {
  const paid = p?.paid[item];
  const kept = useKept(paid === undefined ? "" : written(String(paid)), onSave);
  if (!isOpen) return <span className="num">{kept.value || "not known"}</span>;
  return (
    <input
      {...kept}
      aria-label={`Invoiced for ${label}`}
      inputMode="decimal"
      className="num !min-h-7 w-24 text-right"
    />
  );
}

const KINDS = { parts: "parts", boards: "bare boards", assembly: "assembly" } as const;
const kindOf = (o: PlannedOrder): string =>
  o.kind === "parts" ? count(o.items.length, "line of parts", "lines of parts") : KINDS[o.kind];

const daysOf = ({ days: [least, most] }: PlannedOrder): string =>
  least === most ? count(most, "day") : `${least} to ${most} days`;

function differenceOf(p: RunPurchase | undefined, item: string, planned: number): string {
  const paid = p?.paid[item];
  return paid === undefined ? "" : signed(Number(paid) - planned);
}

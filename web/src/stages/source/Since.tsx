import type { AskRow } from "@kobbin/contract";
import { ofBoard } from "@kobbin/core";
import { useState } from "react";
import { useRun } from "../../run/runState.ts";
import { count, day, unitPrice } from "../../ui/text/format.ts";

const SHOWN = 12;

/** What the suppliers say otherwise than when they were asked before; nothing where they were asked once only. */
export function Since({ asks }: { asks: readonly AskRow[] }) {
  const { doc, result: r } = useRun();
  // what was opened stays open while answers come one by one, and for a moment none is another
  const [isOpen, setOpen] = useState(false);
  const bought = new Set(r.basket.lines.flatMap((l) => l.buys.map((b) => `${b.supplier} ${l.line}`)));
  const nameOf = (id: string) => {
    const l = doc.lines.find((x) => x.id === id);
    return l ? `${l.refs.slice(0, 2).join(" ")}${ofBoard(doc, l)} ${l.valueText}`.trim() : undefined;
  };
  const changes = asks.flatMap((a) =>
    a.changes.flatMap((c) => {
      const name = nameOf(c.line);
      const currency = doc.suppliers.find((s) => s.id === a.supplierId)?.currency ?? "";
      return name
        ? [{ ...c, name, supplier: a.supplier, currency, isBought: bought.has(`${a.supplierId} ${c.line}`) }]
        : [];
    }),
  );
  if (changes.length === 0) return null;
  const n = (kind: string, is: (c: (typeof changes)[number]) => boolean = () => true) =>
    changes.filter((c) => c.kind === kind && is(c)).length;
  const dearer = n("price", (c) => c.now! > c.was!);
  const said = [
    dearer > 0 ? `${count(dearer, "price")} rose` : "",
    n("price") > dearer ? `${count(n("price") - dearer, "price")} fell` : "",
    n("stock", (c) => c.now! < c.was!) > 0
      ? `${count(
          n("stock", (c) => c.now! < c.was!),
          "stock",
        )} went down`
      : "",
    n("no longer listed") > 0 ? `${n("no longer listed")} no longer listed` : "",
    n("listed") > 0 ? `${n("listed")} listed now` : "",
  ].filter((t) => t !== "");
  const since = asks
    .map((a) => a.before ?? "")
    .filter((t) => t !== "")
    .sort()[0];
  const weight = (c: (typeof changes)[number]) =>
    (c.isBought ? 10 : 0) +
    (c.kind === "price" ? Math.abs(c.now! / c.was! - 1) : c.kind === "stock" ? 0.1 : 0.5);
  return (
    <details className="mb-3 text-[14px]" open={isOpen} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>
        Since {since ? day(since) : "they were asked before"}: {said.join(", ") || "stock moved"}
      </summary>
      <ul className="mt-1">
        {[...changes]
          .sort((a, b) => weight(b) - weight(a))
          .slice(0, SHOWN)
          .map((c) => (
            <li
              key={`${c.supplier} ${c.line} ${c.kind}`}
              className="flex flex-wrap gap-x-3 border-t border-rule py-[3px]"
            >
              <span className="num min-w-32">{c.name}</span>
              <span className="text-ink-2">{c.supplier}</span>
              <span>
                {c.kind === "price" ? (
                  <>
                    {unitPrice(c.was! * 1e6)} → <b>{unitPrice(c.now! * 1e6)}</b> {c.currency} at a hundred
                  </>
                ) : c.kind === "stock" ? (
                  <>
                    stock {c.was} → <b>{c.now}</b>
                  </>
                ) : (
                  c.kind
                )}
              </span>
              {c.isBought && <span className="text-look">bought there</span>}
            </li>
          ))}
      </ul>
      {changes.length > SHOWN && (
        <p className="text-ink-2">{count(changes.length - SHOWN, "further change")}.</p>
      )}
    </details>
  );
}

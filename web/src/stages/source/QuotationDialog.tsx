import {
  addTo,
  type Cells,
  type MarkReading,
  numberKey,
  type QuotedOffer,
  readQuotation,
  recogniseQuotation,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { addQuotation } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { DateField } from "../../ui/DateField.tsx";
import { Dialog } from "../../ui/Dialog.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { TableInput } from "../../ui/TableInput.tsx";
import { count } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { PriceDoubt } from "./PriceDoubt.tsx";

/** A supplier's quotation file: its offers set against the lines of the bill before they are kept. */
export function QuotationDialog({ onClose }: { onClose: () => void }) {
  const { id, doc, result: r, did } = useRun();
  const sayError = useSayError();
  const [supplier, setSupplier] = useState(doc.suppliers[0]?.id ?? "");
  const [cells, setCells] = useState<Cells>();
  const [name, setName] = useState("");
  const [reading, setReading] = useState<MarkReading>();
  const [validUntil, setValidUntil] = useState("");
  const [stock, setStock] = useState("100000");
  const currency = doc.suppliers.find((s) => s.id === supplier)?.currency ?? doc.workshop.currency;
  const layout = useMemo(() => (cells ? recogniseQuotation(cells) : undefined), [cells]);
  const read = useMemo(
    () => (cells && layout ? readQuotation(cells, layout, currency, reading) : undefined),
    [cells, layout, currency, reading],
  );
  // the question stays where it is once answered, so that the answer can be changed
  const doubt = useMemo(
    () => (cells && layout ? readQuotation(cells, layout, currency).doubt : undefined),
    [cells, layout, currency],
  );
  const matched = useMemo(() => {
    const lines = new Map<string, string[]>();
    for (const l of doc.lines) if (l.mpn !== "" && !l.dnp) addTo(lines, numberKey(l.mpn), l.id);
    const parts = new Map((doc.library ?? []).map((p) => [numberKey(p.mpn), p.id]));
    return (read?.offers ?? []).map((o) => {
      const own = lines.get(numberKey(o.mpn));
      const part = parts.get(numberKey(o.mpn));
      // a part that may stand in for a line's own: the offers the feeds gave for it say for which
      const others = part ? [...new Set(doc.offers.filter((x) => x.part === part).map((x) => x.line))] : [];
      return { offer: o, lines: own ?? others, ...(own || !part ? {} : { part }) };
    });
  }, [read, doc.lines, doc.library, doc.offers]);
  const taken = matched.filter((m) => m.lines.length > 0);
  const given = doc.suppliers.find((s) => s.id === supplier);
  const take = async (bytes: Uint8Array, from: string) => {
    const { readTable } = await import("@kobbin/formats");
    setName(from);
    setReading(undefined);
    setCells((await readTable(bytes).catch(() => undefined)) ?? []);
  };
  const keep = () => {
    const offerOf = (o: QuotedOffer) => ({
      stock: o.stock ?? Number(stock),
      moq: o.moq ?? o.breaks[0]!.qty,
      multiple: o.multiple ?? 1,
      breaks: o.breaks.map((b) => ({ ...b })),
      ...(o.leadDays === undefined ? {} : { leadDays: o.leadDays }),
    });
    const done = addQuotation(id, {
      supplierId: supplier,
      currency: given!.currency,
      validUntil: validUntil || undefined,
      offers: taken.flatMap((m) =>
        m.lines.map((lineId) => ({
          lineId,
          ...offerOf(m.offer),
          ...("part" in m && m.part ? { partId: m.part } : {}),
        })),
      ),
    });
    done.then(() => {
      did(`${count(taken.length, "offer")} of ${given!.name} kept`, done);
      onClose();
    }, sayError);
  };
  const refsOf = (lines: readonly string[]) =>
    lines.flatMap((l) => doc.lines.find((x) => x.id === l)?.refs.slice(0, 3) ?? []).join(" ");
  const needOf = (lines: readonly string[]) =>
    r.needs.find((n) => n.lines.includes(lines[0] ?? ""))?.need ?? 0;
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="Read a quotation"
      about="A supplier's file or rows copied from it: part numbers with a price a row, or a column for each quantity. It takes the place of what the supplier quoted for these lines before."
    >
      <div className="mb-3 flex flex-wrap items-end gap-3">
        <Pick
          label="Supplier"
          value={supplier}
          options={doc.suppliers.map((s) => [s.id, `${s.name}, ${s.currency}`])}
          onChange={setSupplier}
        />
        <DateField label="Valid until" value={validUntil} onSave={setValidUntil} empty="not said" />
        <Field
          label="Stock, where it says none"
          className="w-40"
          isNumber
          inputMode="numeric"
          value={stock}
          onChange={(e) => setStock(e.target.value.replace(/\D/g, "") || "0")}
        />
        <TableInput fileLabel="Quotation" rowsLabel="Rows of a quotation" onTable={take} />
      </div>
      {cells && !layout && (
        <p role="alert" className="text-stop">
          No row of {name} names a part number and a price. Its headings should say which column is which.
        </p>
      )}
      {doubt && (
        <PriceDoubt doubt={doubt} unit={given?.currency ?? ""} reading={reading} onRead={setReading} />
      )}
      {read && !read.doubt && (
        <>
          <div className="max-h-[40vh] overflow-auto">
            <table className="rows tight w-full text-[14px]">
              <thead>
                <tr>
                  <th>Number</th>
                  <th>For</th>
                  <th className="text-right">Needed</th>
                  <th>Prices</th>
                  <th className="text-right">Stock</th>
                  <th className="text-right">From, in steps of</th>
                </tr>
              </thead>
              <tbody>
                {matched.map((m) => (
                  <tr key={m.offer.mpn} className={m.lines.length === 0 ? "text-ink-3" : ""}>
                    <td className="num">{m.offer.mpn}</td>
                    <td>{m.lines.length === 0 ? "not in this bill" : refsOf(m.lines) || "a loose part"}</td>
                    <td className="num text-right">{m.lines.length === 0 ? "" : needOf(m.lines)}</td>
                    <td className="num">
                      {m.offer.breaks
                        .slice(0, 5)
                        .map((b) => `${b.qty}: ${b.price}`)
                        .join("  ")}
                    </td>
                    <td className={`num text-right ${m.offer.stock === undefined ? "text-ink-3" : ""}`}>
                      {m.offer.stock ?? `none said: ${stock}`}
                    </td>
                    <td className="num text-right">
                      {m.offer.moq ?? m.offer.breaks[0]!.qty}, {m.offer.multiple ?? 1}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {read.problems.length > 0 && (
            <ul className="mt-1 text-[13.5px] text-look">
              {read.problems.slice(0, 8).map((p) => (
                <li key={`${p.row} ${p.text}`}>
                  Row {p.row}: {p.text}.
                </li>
              ))}
              {read.problems.length > 8 && (
                <li>{count(read.problems.length - 8, "further row")} like these.</li>
              )}
            </ul>
          )}
          {read.unread.length > 0 && (
            <p className="mt-1 text-[13.5px] text-ink-2">Not read: {read.unread.slice(0, 8).join(", ")}.</p>
          )}
          <div className="mt-3">
            <Button look="main" disabled={taken.length === 0 || !given} onClick={keep}>
              Keep {count(taken.length, "offer")}
            </Button>
          </div>
        </>
      )}
    </Dialog>
  );
}

import { type PlannedOrder, planPackage } from "@kobbin/core";
import { useMemo, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { said } from "../../ui/text/format.ts";

/** The order sheet of a house to read and to copy into its own form, line by line as it is printed in the package. */
export function HouseSheet({ order: o }: { order: PlannedOrder }) {
  const { doc, result } = useRun();
  const [isShown, setShown] = useState(false);
  const kind = o.kind === "boards" ? "sheets/fabrication-" : "sheets/assembly-";
  const sheets = useMemo(
    () => (isShown ? planPackage(doc, result).sheets.filter((s) => s.path.startsWith(kind)) : []),
    [isShown, doc, result, kind],
  );
  return (
    <div className="mb-2 text-[14px]">
      <button type="button" className="quiet-link" aria-expanded={isShown} onClick={() => setShown(!isShown)}>
        {isShown ? "hide the order sheet" : "its order sheet, to read or to copy into the house’s form"}
      </button>
      {sheets.map((s) => (
        <section key={s.path} aria-label={s.title} className="mt-2 border-l-[3px] border-rule-2 pl-3">
          <h3 className="font-semibold">{s.title}</h3>
          {s.pairs.map((p) => (
            <dl
              key={p.heading}
              aria-label={p.heading}
              className="my-1 grid grid-cols-[minmax(9em,14em)_minmax(0,1fr)] gap-x-4"
            >
              {p.rows.map(([label, value]) => (
                <div key={`${label} ${value}`} className="contents">
                  <dt className="border-t border-rule py-[3px] text-ink-2">{label}</dt>
                  <dd className="border-t border-rule py-[3px] break-words">{said(value)}</dd>
                </div>
              ))}
            </dl>
          ))}
          {s.notes.map((n) => (
            <p key={n} className="text-ink-2">
              {said(n)}
            </p>
          ))}
        </section>
      ))}
    </div>
  );
}

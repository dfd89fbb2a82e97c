import { basketTables } from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { saveFile } from "../../ui/saveFile.ts";
import { count } from "../../ui/text/format.ts";
import { useSay } from "../../ui/toast/Toast.tsx";

/** The baskets as lists to take to the suppliers: copied, or kept as a plain CSV. */
export function Out() {
  const { doc, result: r } = useRun();
  const say = useSay();
  if (r.basket.suppliers.length === 0) return null;
  const tables = basketTables(doc, r);
  return (
    <p className="mt-2 flex flex-wrap items-baseline gap-x-4 text-[14px]">
      <span className="text-ink-2">Lists to order by:</span>
      {tables.map((t, i) => {
        const name = doc.suppliers.find((s) => s.id === r.basket.suppliers[i])?.name ?? "";
        const rows = t.rows.slice(1);
        return (
          <span key={t.path}>
            {name} ({count(rows.length, "row")}){" "}
            <button
              type="button"
              className="quiet-link"
              aria-label={`Copy the basket of ${name}`}
              onClick={() =>
                navigator.clipboard
                  .writeText(rows.map((x) => x.slice(0, 3).join("\t")).join("\n"))
                  .then(() =>
                    say(`${count(rows.length, "row")} for ${name} copied: number, quantity, what for`),
                  )
              }
            >
              copy
            </button>
            ,{" "}
            <button
              type="button"
              className="quiet-link"
              aria-label={`Keep the basket of ${name} as CSV`}
              onClick={async () => {
                const { writeCsv } = await import("@kobbin/formats");
                saveFile(new Blob([writeCsv(t.rows)]), t.path.replace("baskets/", ""));
              }}
            >
              keep as CSV
            </button>
          </span>
        );
      })}
    </p>
  );
}

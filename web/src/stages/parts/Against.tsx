import { billDifference, numberKey, type RunLine, uselessStock } from "@kobbin/core";
import { useMemo } from "react";
import { useRevision } from "../../resources/bench.ts";
import { useLots } from "../../resources/library.ts";
import { useSession } from "../../resources/session.ts";
import { useRun } from "../../run/runState.ts";
import { Skeleton } from "../../ui/States.tsx";
import { count, money } from "../../ui/text/format.ts";

const KIND = {
  added: "added",
  removed: "left out",
  changed: "another part",
  counted: "another count",
} as const;

/** This bill against another revision's: what was added, left out, changed, and what of the stock becomes useless. */
export function Against({ revisionId, onClose }: { revisionId: string; onClose: () => void }) {
  const { doc } = useRun();
  const { data: other } = useRevision(revisionId);
  const { data: lots } = useLots();
  const { data: session } = useSession();
  const rates = session?.shop?.rates;
  const found = useMemo(() => {
    if (!other) return undefined;
    // boards of two revisions have other ids; they are the same by their order, and called as they are here
    const several = other.boards.length > 1 || doc.boards.length > 1;
    const named = (boards: readonly { readonly id?: string }[]) => (l: RunLine) => {
      const { board, ...rest } = l;
      const i = boards.findIndex((b) => b.id === board);
      const name =
        several && board !== undefined ? (doc.boards[i]?.name ?? other.boards[i]?.name) : undefined;
      return name === undefined ? rest : { ...rest, board: name };
    };
    const d = billDifference(other.lines.map(named(other.boards)), doc.lines.map(named(doc.boards)));
    // lines of the old bill itself are no use elsewhere
    const inOld = new Map<string, number>();
    for (const l of other.lines)
      if (l.mpn !== "") inOld.set(numberKey(l.mpn), (inOld.get(numberKey(l.mpn)) ?? 0) + 1);
    const uses = new Map((lots ?? []).map((l) => [numberKey(l.mpn), l.uses]));
    const priced = (lots ?? []).map((l) => ({
      mpn: l.mpn,
      qty: l.qty,
      unitCost:
        Number(l.unitCost) * (l.currency === doc.workshop.currency ? 1 : Number(rates?.[l.currency] ?? 0)),
    }));
    const useless = uselessStock(
      d,
      priced,
      (mpn) => (uses.get(numberKey(mpn)) ?? 0) > (inOld.get(numberKey(mpn)) ?? 0),
    );
    return { ...d, useless };
  }, [other, doc.lines, doc.boards, doc.workshop.currency, lots, rates]);
  if (!other || !found) return <Skeleton rows={3} />;
  return (
    <section
      aria-label={`Against revision ${other.label}`}
      className="mb-4 border-l-[3px] border-metal bg-sheet px-4 py-2 text-[14px]"
    >
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="text-[15px]">
          Revision {doc.revision} against {other.label}
        </h2>
        <button type="button" className="quiet-link" onClick={onClose}>
          close
        </button>
      </div>
      {found.differences.length === 0 ? (
        <p className="text-ink-2">The two bills are the same: {count(found.unchanged, "part")}.</p>
      ) : (
        <table className="rows tight w-full">
          <thead>
            <tr>
              <th>What</th>
              <th>Where</th>
              <th>In {other.label}</th>
              <th>In {doc.revision}</th>
            </tr>
          </thead>
          <tbody>
            {found.differences.map((d) => (
              <tr key={`${d.kind} ${d.refs.join()} ${d.was} ${d.now}`}>
                <td>{KIND[d.kind]}</td>
                <td className="num">{d.refs.join(" ") || "loose"}</td>
                <td className="num">
                  {d.was ?? "–"}
                  {d.qtyWas !== undefined && ` × ${d.qtyWas}`}
                </td>
                <td className="num">
                  {d.now ?? "–"}
                  {d.qtyNow !== undefined && ` × ${d.qtyNow}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {found.useless.length > 0 ? (
        <ul className="mt-1">
          {found.useless.map((u) => (
            <li key={u.mpn} className="text-look">
              {u.qty} of <span className="num">{u.mpn}</span> on the shelf become useless:{" "}
              <b className="num">{money(u.value, doc.workshop.currency)}</b>.
            </li>
          ))}
        </ul>
      ) : (
        found.differences.length > 0 && (
          <p className="mt-1 text-ink-2">Nothing on the shelf becomes useless by it.</p>
        )
      )}
    </section>
  );
}

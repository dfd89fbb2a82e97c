import type { RunNeed, RunResult } from "@kobbin/core";
import { ChevronDown, ChevronRight } from "lucide-react";
import { useRun } from "../../run/runState.ts";
import { Coverage } from "../../ui/Coverage.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { amount, fromMicros, unitPrice } from "../../ui/text/format.ts";
import { LineWhy } from "./LineWhy.tsx";
import { Needed } from "./Needed.tsx";
import { NoOffer } from "./NoOffer.tsx";
import { Offers } from "./Offers.tsx";
import { OnShelf } from "./OnShelf.tsx";

/** What one purchase needs, who covers it and at what price; opened: why, the shelf and the offers. */
export function SourceLine({
  line: l,
  need,
  unlisted,
  isOpen,
  onOpen,
  onType,
}: {
  line: RunResult["basket"]["lines"][number];
  need: RunNeed;
  /** Suppliers that were asked and do not list it. */
  unlisted: readonly string[];
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
  onType: () => void;
}) {
  const { doc, result: r } = useRun();
  const { currency } = doc.workshop;
  const pins = doc.choices.pins ?? {};
  const nameOf = (s: string) => doc.suppliers.find((x) => x.id === s)?.name ?? s;
  // which part is bought where the line names none
  const taken = [
    ...new Set(
      l.buys.flatMap((b) => {
        const id = doc.offers.find((x) => x.id === b.offer)?.part;
        return doc.library?.find((p) => p.id === id)?.mpn ?? [];
      }),
    ),
  ].join(", ");

  const parts = need.lines.map((x) => r.parts.find((p) => p.line.id === x)!);
  const part = parts[0]!;
  const refs = parts.flatMap((p) => p.line.refs);
  const cost = l.buys.reduce((s, b) => s + b.cost, 0);
  const title =
    refs.length > 0 ? refs.slice(0, 3).join(" ") + (refs.length > 3 ? " …" : "") : part.line.valueText;
  return (
    <>
      <tr data-lines={need.lines.join(" ")} className={isOpen ? "bg-sheet" : "hover:bg-sheet"}>
        <td className="max-w-[220px]">
          <button
            type="button"
            aria-expanded={isOpen}
            onClick={() => onOpen(!isOpen)}
            className="flex items-baseline gap-1 text-left"
          >
            {isOpen ? (
              <ChevronDown className="size-3.5 shrink-0 self-center" aria-hidden />
            ) : (
              <ChevronRight className="size-3.5 shrink-0 self-center" aria-hidden />
            )}
            <span>
              <span className="num">{title}</span>{" "}
              <span className="text-ink-2">{part.line.refs.length > 0 ? part.line.valueText : ""}</span>
              {part.line.mpn === "" && taken && (
                <span className="num block text-[12.5px] text-ink-2">{taken}</span>
              )}
            </span>
          </button>
        </td>
        <td className="num text-right">
          <Needed need={need} title={title} />
        </td>
        <td>
          <Coverage
            need={need.whole}
            parts={[
              ...(need.shelf.length > 0
                ? [{ label: "own shelf", qty: need.whole - need.need, index: 5 }]
                : []),
              ...l.buys.map((b) => ({
                label: nameOf(b.supplier),
                qty: b.qty,
                index: Math.max(
                  0,
                  doc.suppliers.findIndex((x) => x.id === b.supplier),
                ),
              })),
            ]}
          />
          <div className="text-[12.5px] leading-tight text-ink-2">
            {[...(need.shelf.length > 0 ? ["own shelf"] : []), ...l.buys.map((b) => nameOf(b.supplier))].join(
              " + ",
            ) || (
              <span className="inline-flex items-center gap-1 text-stop">
                <Mark kind="blocked" /> <NoOffer need={need} unlisted={unlisted} />
              </span>
            )}
            {pins[l.line] && <span className="text-ink-3"> (kept)</span>}
            {l.missing > 0 && l.buys.length > 0 && <span className="text-stop"> {l.missing} missing</span>}
          </div>
        </td>
        <td className="num text-right">{l.buys.reduce((s, b) => s + b.qty, 0) || "–"}</td>
        <td className="num text-right">{l.buys.map((b) => unitPrice(b.unitPrice)).join(" / ") || "–"}</td>
        <td className="num text-right">{cost > 0 ? amount(fromMicros(cost), currency) : "–"}</td>
      </tr>
      {isOpen && (
        <tr className="border-t-0 bg-sheet">
          <td colSpan={6} className="pb-3">
            <LineWhy lineId={l.line} />
            <OnShelf need={need} />
            <Offers
              lineId={l.line}
              lines={need.lines}
              need={need.need}
              offers={need.listed}
              unlisted={unlisted}
              onType={onType}
            />
          </td>
        </tr>
      )}
    </>
  );
}

import { counted } from "../../counted.ts";
import { placesOf, roundMoney } from "../../money/money.ts";
import type { RunDocument } from "../document/document.ts";
import { arrivedOf, photosOf, type RunRecord } from "../document/record.ts";
import type { PlannedItem, PlannedOrder } from "../stage/planned-orders.ts";
import type { LotMeasured } from "./measured.ts";

/** Something of an order that is not as ordered, and that nobody claimed yet. */
export interface Disagrees {
  readonly order: string;
  readonly item: string;
  readonly label: string;
  readonly pieces: number;
  readonly because: string;
  readonly kind: "apart" | "measured" | "short";
}

/**
 * What of an order disagrees with what came: pieces set apart, boards that do not measure as ordered or do not go where they
 * must, lines of a parcel that is said to be all there and are short. What is claimed already is left out.
 *
 * @param lots of the run's boards as they were measured, usable and set apart
 */
export function disagreesOf(
  order: PlannedOrder,
  record: RunRecord,
  lots: readonly LotMeasured[],
): Disagrees[] {
  const claimed = (item: string) =>
    (record.claims ?? []).some((c) => c.order === order.key && c.item === item);
  const cameAny = order.items.some((i) => {
    const { usable, apart } = arrivedOf(record, order.key, i.key);
    return usable + apart > 0;
  });
  return order.items.flatMap((i): Disagrees[] => {
    if (claimed(i.key)) return [];
    const { usable, apart } = arrivedOf(record, order.key, i.key);
    const base = { order: order.key, item: i.key, label: i.label };
    const lot = lots.find((l) => l.item === i.key && l.notAsOrdered.length > 0);
    // of what is as ordered nothing is claimed, wherever it does not go
    if (order.kind === "boards" && lot)
      return [{ ...base, kind: "measured", pieces: lot.lot, because: lot.notAsOrdered.join("; ") }];
    if (apart > 0) {
      const why = [
        ...new Set(
          record.receipts
            .filter((r) => r.order === order.key && r.item === i.key && r.isApart && r.because !== "")
            .map((r) => r.because),
        ),
      ];
      return [{ ...base, kind: "apart", pieces: apart, because: why.join("; ") || "not usable" }];
    }
    const short = i.qty - usable;
    return cameAny && short > 0 && usable > 0
      ? [{ ...base, kind: "short", pieces: short, because: `${usable} came of ${i.qty}` }]
      : [];
  });
}

/**
 * A letter about what came otherwise, to be read, changed and sent by a person: what was ordered, what was found, with each
 * measured board, how many photos go with it, what is asked for, and what the pieces cost.
 *
 * @param today ISO day
 */
export function claimLetter(
  doc: RunDocument,
  order: PlannedOrder,
  item: PlannedItem | undefined,
  d: Pick<Disagrees, "pieces" | "because" | "kind">,
  { record, lot, today }: { readonly record: RunRecord; readonly lot?: LotMeasured; readonly today: string },
): string {
  const bought = record.purchases.find((p) => p.order === order.key);
  const what = order.kind === "boards" ? `${doc.product} revision ${doc.revision}` : (item?.mpn ?? "");
  const worth =
    item && item.qty > 0 && d.pieces > 0
      ? (roundMoney((item.total * Math.min(d.pieces, item.qty)) / item.qty, order.currency) / 1e6).toFixed(
          placesOf(order.currency),
        )
      : undefined;
  const credit = worth === undefined ? "" : `, or credit ${worth} ${order.currency} before tax`;
  const bad = (lot?.boards ?? []).filter((b) => b.points.some((p) => !p.isIn) || b.looks.length > 0);
  const photos = item ? photosOf(record, order.key, item.key).length : 0;
  const seen = new Set(lot?.boards.map((b) => b.board.label)).size;
  return [
    `To ${order.name}`,
    `${today}`,
    "",
    `Our order${bought?.orderedOn ? ` of ${bought.orderedOn}` : ""}: ${item ? `${item.qty} × ${item.label}${what && what !== item.label ? `, ${what}` : ""}` : what}.`,
    "",
    bad.length > 0
      ? `Of ${counted(d.pieces, "piece")} we measured ${seen}, and ${bad.length === 1 ? "one is" : `${bad.length} are`} not as ordered: ${d.because}. One is enough to refuse the lot until the rest is sorted.`
      : d.kind === "short"
        ? `${counted(d.pieces, "piece")} of it did not come: ${d.because}.`
        : `${counted(d.pieces, "piece")} of it ${d.pieces === 1 ? "is" : "are"} not as ordered: ${d.because}.`,
    ...(bad.length > 0
      ? [
          "",
          "What the calliper showed:",
          ...bad.map(
            (b) =>
              `- board ${b.board.label}: ${[
                ...b.points.map(
                  (p) =>
                    `${p.point.what} ${p.values.join(", ")} mm (ordered ${p.point.mm} ± ${p.point.tolMm})`,
                ),
                ...b.looks.map((l) => `not ${l}`),
              ].join("; ")}`,
          ),
        ]
      : []),
    ...(photos === 0 ? [] : ["", `${photos === 1 ? "A photo is" : `${photos} photos are`} attached.`]),
    "",
    d.kind === "short"
      ? `Please send ${d.pieces === 1 ? "it" : "them"}${credit}.`
      : `${d.kind === "apart" ? "We keep the pieces apart and unchanged." : "We leave the pieces as they are until this is settled."} Please replace them${credit}, and tell us what happens with the ones we have.`,
    "",
    doc.workshop.name,
  ].join("\n");
}

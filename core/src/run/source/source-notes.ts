import type { Basket } from "../../sourcing/need.ts";
import { ruleLines } from "../document/bill/rule-lines.ts";
import type { RunDocument, SourceClass } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import { type LinePart, nameOfLine } from "../document/parts.ts";
import type { RunNeed } from "../document/run-need.ts";

/** Prices and stock older than this are asked again, or confirmed by somebody. */
export const FRESH_DAYS = 14;

/** What a class of source is called, and the check that what comes from it needs. */
const INCOMING: Readonly<Record<SourceClass, readonly [string, string] | undefined>> = {
  authorised: undefined,
  broker: [
    "a broker, not the maker's own distributor",
    "Ask for the lot's papers; look at marks and leads, measure some pieces, keep the lot apart until it is tried.",
  ],
  private: [
    "a private seller",
    "Count and look at each piece, try some on the bench before the lot is used, keep it apart from good stock.",
  ],
  unknown: [
    "a source nobody vouched for",
    "Say in the settings what it is; until then treat what comes as if it might be used or copied.",
  ],
};

/** What is to be said of the purchases: what is missing, old, past its date, from whom, from one only. */
export function sourceNotes(
  doc: RunDocument,
  parts: readonly LinePart[],
  needs: readonly RunNeed[],
  basket: Basket,
  add: Add,
): void {
  sayUncovered(doc, parts, basket, add);
  sayRates(doc, add);
  sayShelfTwice(doc, parts, needs, add);
  sayOldPrices(doc, basket, add);
  saySources(doc, basket, add);
  sayExpired(doc, parts, basket, add);
  saySingle(parts, needs, add);
}

function sayUncovered(doc: RunDocument, parts: readonly LinePart[], basket: Basket, add: Add): void {
  const missing = basket.lines.filter((l) => l.missing > 0);
  if (missing.length > 0) {
    const open = ruleLines(doc).classes.some((c) => !c.isConfirmed);
    const names = missing.map((l) => nameOfLine(doc, parts, l.line));
    add(
      "source",
      "lines-uncovered",
      "error",
      `${missing.length} of ${basket.lines.length} lines cannot be bought in full: ${listed(names)}.`,
      {
        do: open
          ? "Say once for each class what may be taken where a line names no part, ask the suppliers again, or type an offer."
          : "Ask the suppliers again, or type an offer for the line.",
        lines: missing.map((l) => l.line),
      },
    );
  }
}

function sayRates(doc: RunDocument, add: Add): void {
  const foreign = [
    ...new Set(
      doc.offers
        .map((o) => o.currency)
        .filter((c) => c !== doc.workshop.currency && doc.workshop.rates[c] === undefined),
    ),
  ];
  if (foreign.length > 0)
    add(
      "source",
      `rate-missing ${foreign.join(",")}`,
      "warning",
      `Offers in ${foreign.join(", ")} are left out: there is no exchange rate.`,
      { do: "Set the rate in the shop's settings." },
    );
}

function sayShelfTwice(
  doc: RunDocument,
  parts: readonly LinePart[],
  needs: readonly RunNeed[],
  add: Add,
): void {
  const elsewhere = needs.flatMap((n) => n.shelf.filter((t) => (t.lot.alsoIn?.length ?? 0) > 0));
  for (const run of [...new Set(elsewhere.flatMap((t) => t.lot.alsoIn!.map((x) => x.run)))]) {
    const of = needs.filter((n) => n.shelf.some((t) => t.lot.alsoIn?.some((x) => x.run === run)));
    add(
      "source",
      `shelf-twice ${run}`,
      "warning",
      `The run “${run}” counts on the same pieces of the shelf: ${of.map((n) => nameOfLine(doc, parts, n.id)).join(", ")}. There they are once.`,
      { do: "Reserve them for one of the two on the shelf.", lines: of.flatMap((n) => n.lines) },
    );
  }
}

function sayOldPrices(doc: RunDocument, basket: Basket, add: Add): void {
  const bought = boughtOf(basket);
  const old = doc.offers.filter((o) => bought.has(o.id) && daysBetween(o.capturedOn, doc.today) > FRESH_DAYS);
  if (old.length > 0) {
    const since = old.reduce((d, o) => (o.capturedOn < d ? o.capturedOn : d), doc.today);
    add(
      "source",
      `prices-old ${since}`,
      "error",
      `${old.length} of the offers bought from are older than ${FRESH_DAYS} days, the oldest of ${since}.`,
      { do: "Ask the suppliers again, or accept with a reason that they were confirmed." },
    );
  }
}

function saySources(doc: RunDocument, basket: Basket, add: Add): void {
  for (const id of basket.suppliers) {
    const s = doc.suppliers.find((x) => x.id === id);
    const check = s?.sourceClass ? INCOMING[s.sourceClass] : undefined;
    if (s && check)
      add("source", `source-class ${id}`, "warning", `${s.name} is ${check[0]}.`, { do: check[1] });
  }
}

/** A price that no longer holds stops a run that is bought at it; where nothing is, it was compared with and is told. */
function sayExpired(doc: RunDocument, parts: readonly LinePart[], basket: Basket, add: Add): void {
  const bought = boughtOf(basket);
  const past = doc.offers.filter((o) => o.validUntil !== undefined && o.validUntil < doc.today);
  const [used, beside] = [past.filter((o) => bought.has(o.id)), past.filter((o) => !bought.has(o.id))];
  const lines = (list: typeof past) => [...new Set(list.map((o) => o.line))];
  const named = (list: typeof past) => listed(lines(list).map((l) => nameOfLine(doc, parts, l)));
  if (used.length > 0)
    add(
      "source",
      "prices-expired",
      "error",
      used.length === 1
        ? `The offer for ${named(used)} that is bought from is past its date, ${used[0]!.validUntil}.`
        : `${used.length} of the offers bought from are past their date: ${named(used)}.`,
      { do: "Ask again, or remove them.", lines: lines(used) },
    );
  if (beside.length > 0)
    add(
      "source",
      "prices-expired-beside",
      "remark",
      beside.length === 1
        ? `An offer for ${named(beside)} is past its date; nothing is bought from it.`
        : `${beside.length} offers are past their date; nothing is bought from them.`,
      { do: "Ask again if they are to be compared with, or remove them.", lines: lines(beside) },
    );
}

/** Names, so many of them. */
const listed = (names: readonly string[]): string =>
  `${names.slice(0, 6).join(", ")}${names.length > 6 ? " and more" : ""}`;
const boughtOf = (basket: Basket): ReadonlySet<string> =>
  new Set(basket.lines.flatMap((l) => l.buys.map((b) => b.offer)));

function saySingle(parts: readonly LinePart[], needs: readonly RunNeed[], add: Add): void {
  const suppliersOf = new Map(
    needs.flatMap((n) => n.lines.map((l) => [l, new Set(n.listed.map((o) => o.supplier))])),
  );
  const single = parts.filter((p) => suppliersOf.get(p.line.id)?.size === 1);
  if (single.length > 0)
    add(
      "source",
      "single-source",
      "remark",
      `${single.length} ${single.length === 1 ? "line has" : "lines have"} one supplier only: ${single
        .slice(0, 5)
        .map((p) => p.line.valueText || p.line.mpn)
        .join(", ")}${single.length > 5 ? " …" : ""}.`,
      { lines: single.map((p) => p.line.id) },
    );
}

/** Whole days between two ISO dates. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);

import { type HouseTerm, type HouseWork, housePrice, houseWork } from "../../assembly/house-price.ts";
import { counted } from "../../counted.ts";
import { roundMoney, toMicros } from "../../money/money.ts";
import type { Basket } from "../../sourcing/need.ts";
import { Places } from "../document/boards.ts";
import type { RunDocument, RunQuote } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import type { RunNeed } from "../document/run-need.ts";
import type { PasteSides } from "../document/sides.ts";
import { packingOf } from "../document/usable.ts";
import { isMixed } from "../document/ways.ts";
import { type AssemblyHouse, assemblyHouse } from "../document/who-places.ts";
import { type HouseParcels, houseParcels } from "./house-parcels.ts";
import type { BoardOrder } from "./order-boards.ts";

/** A quotation of the house that places, held against what is to be placed now. */
export interface AssemblyQuotation {
  readonly quote: RunQuote;
  /** How what is placed now differs from what was quoted, in words; empty where it holds. */
  readonly misfits: readonly string[];
}

/** What an assembly house does of a run, what it asks, and how long all waits for it. */
export interface AssemblyPlan {
  readonly house: AssemblyHouse;
  readonly quotation?: AssemblyQuotation;
  /** The quotation that counts. */
  readonly quoted?: RunQuote;
  /** Its price by its profile or its quotation, terms as on its invoice: each rounded, in `currency`. */
  readonly terms: readonly HouseTerm[];
  readonly currency: string;
  /** Ways there and back, in the house's own currency. */
  readonly parcels: HouseParcels;
  readonly days: number;
}

/** The plan of the house that places the parts; nothing where nobody else does. */
export function assemblyPlan(
  doc: RunDocument,
  parts: readonly LinePart[],
  orders: readonly BoardOrder[],
  needs: readonly RunNeed[],
  basket: Basket,
  started: number,
  sides: PasteSides,
): AssemblyPlan | undefined {
  const house = assemblyHouse(doc);
  if (!house) return undefined;
  const quote = doc.quotes.find((q) => q.kind === "assembly" && q.house === house.id);
  const misfits = quote ? misfitsOf(doc, parts, quote, started) : [];
  const quoted = misfits.length === 0 ? quote : undefined;
  const currency = quoted?.currency ?? house.currency;
  const raw: readonly HouseTerm[] = quoted
    ? [
        {
          label: "quotation",
          micros: toMicros(quoted.total),
          note: `${quoted.total} ${quoted.currency}`,
          perProduct: true,
        },
      ]
    : housePrice(house.assembly, workOf(doc, parts, needs, basket, started, sides));
  return {
    house,
    ...(quote ? { quotation: { quote, misfits } } : {}),
    ...(quoted ? { quoted } : {}),
    terms: raw.map((t) => ({ ...t, micros: roundMoney(t.micros, currency) })),
    currency,
    parcels: houseParcels(doc, orders, started),
    days: quoted?.days ?? house.assembly.days,
  };
}

/** What a house puts on where parts go several ways, in words; nothing where all goes one way. */
export function placedWords(doc: RunDocument, parts: readonly LinePart[]): string | undefined {
  if (!isMixed(doc)) return undefined;
  const places = new Places(doc);
  const count = { top: 0, bottom: 0 };
  for (const p of parts)
    if (p.method === "house" && p.kind !== "loose")
      for (const ref of p.line.refs) count[places.of(p.line, ref)?.side ?? "top"]++;
  return `${counted(count.top, "part")} on the top, ${count.bottom} on the bottom`;
}

const HAND = { here: "hand parts soldered here", house: "hand parts soldered there" } as const;

const ALL = "all that is placed";

function misfitsOf(doc: RunDocument, parts: readonly LinePart[], q: RunQuote, started: number): string[] {
  const { basis } = q;
  if (!basis) return [];
  const hand = doc.assembly.handParts ?? "here";
  const placed = placedWords(doc, parts);
  return [
    ...(basis.revision === doc.revision ? [] : [`revision ${basis.revision}, now it is ${doc.revision}`]),
    ...(basis.boards === started ? [] : [`${basis.boards} to place, now it is ${started}`]),
    ...(basis.handParts === undefined || basis.handParts === hand
      ? []
      : [`${HAND[basis.handParts]}, now ${HAND[hand]}`]),
    ...(basis.placed === placed ? [] : [`${basis.placed ?? ALL}, now ${placed ?? ALL}`]),
  ];
}

function workOf(
  doc: RunDocument,
  parts: readonly LinePart[],
  needs: readonly RunNeed[],
  basket: Basket,
  started: number,
  sides: PasteSides,
): HouseWork {
  const feeder = new Map(needs.flatMap((n) => n.lines.map((l) => [l, n.id] as const)));
  const extra = special(doc, basket);
  return houseWork(
    parts,
    sides.ofDesigns,
    started,
    (p) => feeder.get(p.line.id) ?? p.line.id,
    (f) => extra.has(f),
  );
}

/** Purchases whose pieces, as they are bought, need more than a usual feeder. Of one that is not bought nothing is said. */
function special(doc: RunDocument, basket: Basket): ReadonlySet<string> {
  const comesIn = new Map(doc.offers.map((o) => [o.id, packingOf(o.packaging ?? "")]));
  const isSpecial = (offer: string) => /tray|loose/.test(comesIn.get(offer) ?? "");
  return new Set(basket.lines.filter((l) => l.buys.some((b) => isSpecial(b.offer))).map((l) => l.line));
}

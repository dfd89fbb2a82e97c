import { AppError } from "../errors.ts";
import { microsToNumber, toMicros } from "../money/money.ts";
import type { BasketOptions } from "./basket.ts";
import type { Basket, Need } from "./need.ts";
import { type Offer, type Supplier, toBreaks } from "./offer.ts";

/** A sourcing problem as a document; see docs/cli.md. Money as decimal numbers or texts. */
export interface Instance {
  readonly id: string;
  readonly currency: string;
  readonly needs: readonly Need[];
  readonly suppliers: readonly Supplier[];
  readonly options: BasketOptions;
}

type Json = Readonly<Record<string, unknown>>;

/**
 * Reads the document of `kobbin source`.
 *
 * Besides the keys of its first form it takes: `maxParcels`; `latestDays` with a supplier's `days` (dearer and later
 * suppliers are left out); a supplier's `smallOrder {below, fee}`, `minimumOrder`, `handling`, `dutyRate` (with
 * `dutyOnFreight: true` on the way too); a line's
 * `approved` (supplier ids); an offer's `fee`, charged once when anything is bought of it, its `pool`, shared with all
 * offers of that name, which have one stock between them, and `forbidden: true` for an alternate that was turned down.
 *
 * @throws AppError DOCUMENT_INVALID naming the key; NOT_A_NUMBER for money that is none
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one document, checked key by key
export function toInstance(value: unknown): Instance {
  const doc = record(value, "the document");
  const suppliers = list(doc.suppliers, "suppliers").map((v, i): Supplier & { days?: number } => {
    const s = record(v, `suppliers[${i}]`);
    const id = text(s.id, `suppliers[${i}].id`);
    const small = s.smallOrder === undefined ? undefined : record(s.smallOrder, `suppliers[${i}].smallOrder`);
    return {
      id,
      name: typeof s.name === "string" ? s.name : id,
      shipping: money(s.shipping ?? 0, `suppliers[${i}].shipping`),
      ...(s.freeFrom === undefined || s.freeFrom === null
        ? {}
        : { freeFrom: money(s.freeFrom, `suppliers[${i}].freeFrom`) }),
      ...(small
        ? {
            smallOrder: {
              below: money(small.below, `suppliers[${i}].smallOrder.below`),
              fee: money(small.fee, `suppliers[${i}].smallOrder.fee`),
            },
          }
        : {}),
      ...(s.minimumOrder === undefined
        ? {}
        : { minimumOrder: money(s.minimumOrder, `suppliers[${i}].minimumOrder`) }),
      ...(s.handling === undefined ? {} : { handling: money(s.handling, `suppliers[${i}].handling`) }),
      ...(s.dutyOnFreight === true ? { dutyOnFreight: true } : {}),
      ...(s.dutyRate === undefined ? {} : { dutyRate: number(s.dutyRate, `suppliers[${i}].dutyRate`, 0) }),
      ...(s.days === undefined ? {} : { days: number(s.days, `suppliers[${i}].days`, 0) }),
    };
  });
  const known = new Set<string>();
  for (const s of suppliers) {
    if (known.has(s.id)) fail(`names the supplier “${s.id}” twice`);
    known.add(s.id);
  }
  const latest = doc.latestDays === undefined ? undefined : number(doc.latestDays, "latestDays", 0);
  const inTime = new Set(
    suppliers
      .filter((s) => latest === undefined || s.days === undefined || s.days <= latest)
      .map((s) => s.id),
  );
  const seen = new Set<string>();
  const needs = list(doc.lines, "lines").map((v, i): Need => {
    const l = record(v, `lines[${i}]`);
    const id = text(l.id, `lines[${i}].id`);
    if (seen.has(id)) fail(`names the line “${id}” twice`);
    seen.add(id);
    const approved =
      l.approved === undefined ? undefined : new Set(list(l.approved, `lines[${i}].approved`).map(String));
    const offers = list(l.offers ?? [], `lines[${i}].offers`).flatMap((w, k): Offer[] => {
      const at = `lines[${i}].offers[${k}]`;
      const o = record(w, at);
      const supplier = text(o.supplier, `${at}.supplier`);
      if (!known.has(supplier))
        fail(`has an offer of the supplier “${supplier}”, who is not in “suppliers” (${at})`);
      const breaks = list(o.breaks, `${at}.breaks`).map((b, n) => {
        const r = record(b, `${at}.breaks[${n}]`);
        return {
          qty: number(r.qty, `${at}.breaks[${n}].qty`, 0),
          price: microsToNumber(money(r.price, `${at}.breaks[${n}].price`)),
        };
      });
      if (o.forbidden === true || !inTime.has(supplier) || (approved && !approved.has(supplier))) return [];
      return [
        {
          id: text(o.id, `${at}.id`),
          supplier,
          stock: whole(o.stock, `${at}.stock`, 0),
          moq: whole(o.moq ?? 1, `${at}.moq`, 0),
          multiple: whole(o.multiple ?? 1, `${at}.multiple`, 1),
          breaks: toBreaks(breaks),
          ...(o.fee === undefined ? {} : { fee: money(o.fee, `${at}.fee`) }),
          ...(o.pool === undefined ? {} : { pool: text(o.pool, `${at}.pool`) }),
        },
      ];
    });
    return { id, need: whole(l.need, `lines[${i}].need`, 0), offers };
  });
  const maxParcels = doc.maxParcels === undefined ? undefined : whole(doc.maxParcels, "maxParcels", 1);
  return {
    id: typeof doc.id === "string" ? doc.id : "",
    currency: typeof doc.currency === "string" ? doc.currency : "EUR",
    needs,
    suppliers,
    options: maxParcels === undefined ? {} : { maxParcels },
  };
}

/** The document `source/1` of a basket. */
export function sourceDocument(instance: Instance, basket: Basket, ms: number) {
  const { needs } = instance;
  const missing = basket.lines.filter((l) => l.missing > 0);
  return {
    kobbin: "source/1",
    ...(instance.id === "" ? {} : { id: instance.id }),
    currency: instance.currency,
    feasible: missing.length === 0,
    proven: basket.proof?.isProven ?? false,
    gap: basket.proof?.gap ?? 1,
    total: microsToNumber(basket.total),
    parts: microsToNumber(basket.parts),
    shipping: microsToNumber(basket.shipping),
    ...(basket.duty > 0 ? { duty: microsToNumber(basket.duty) } : {}),
    suppliersUsed: basket.suppliers,
    buy: basket.lines.flatMap((l) =>
      l.buys.map((b) => ({
        line: l.line,
        offer: b.offer,
        qty: b.qty,
        unitPrice: microsToNumber(b.unitPrice),
        ...(b.fee ? { fee: microsToNumber(b.fee) } : {}),
      })),
    ),
    missing: missing.map((l) => ({
      line: l.line,
      need: needs.find((n) => n.id === l.line)!.need,
      missing: l.missing,
    })),
    ms: Math.round(ms),
  };
}

const fail = (what: string): never => {
  throw new AppError(
    "DOCUMENT_INVALID",
    `The instance ${what}.`,
    "See “kobbin source” in docs/cli.md for its form.",
  );
};
const record = (v: unknown, at: string): Json =>
  typeof v === "object" && v !== null && !Array.isArray(v) ? (v as Json) : fail(`has no object at ${at}`);
const list = (v: unknown, at: string): readonly unknown[] =>
  Array.isArray(v) ? v : fail(`needs the list ${at}`);
const text = (v: unknown, at: string): string =>
  typeof v === "string" || typeof v === "number" ? String(v) : fail(`needs a text at ${at}`);
const number = (v: unknown, at: string, least: number): number =>
  typeof v === "number" && Number.isFinite(v) && v >= least
    ? v
    : fail(`needs a number from ${least} at ${at}`);
const whole = (v: unknown, at: string, least: number): number =>
  Number.isInteger(number(v, at, least)) ? (v as number) : fail(`needs a whole number at ${at}`);
const money = (v: unknown, at: string) => {
  if (typeof v !== "number" && typeof v !== "string") return fail(`needs an amount of money at ${at}`);
  const m = toMicros(v);
  return m >= 0 ? m : fail(`has money below nothing at ${at}`);
};

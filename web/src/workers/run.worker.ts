import {
  type Basket,
  type BasketCache,
  basketKey,
  type CurvePoint,
  curvePoint,
  type Need,
  type PointCaches,
  type RunDocument,
  type RunRecord,
  type RunResult,
  rollUp,
  type StageKey,
  toWire,
  type WhatIf,
  type WireError,
  whatIf,
} from "@kobbin/core";
import * as Comlink from "comlink";

/** A result, or why there is none. */
export type Rolled = { readonly kind: "ok"; readonly result: RunResult } | WireError;

/** Of the stock there is, and as if it went on: a curve asks for both. */
let caches: PointCaches = { known: new Map(), endless: new Map() };
let offersKey = "";
/** More baskets than a curve of each way to solder asks for; a page that is open for a day keeps no more. */
const MOST_KEPT = 600;

const keys = new WeakMap<RunDocument, string>();
/** Documents that were told once and are counted at many quantities, the newest last. */
const held = new Map<number, RunDocument>();
const MOST_HELD = 12;

/** Baskets found stay good as long as offers, suppliers and rates are the same. */
function cachesFor(doc: RunDocument): PointCaches {
  const key =
    keys.get(doc) ?? JSON.stringify([doc.offers, doc.suppliers, doc.workshop.rates, doc.workshop.currency]);
  keys.set(doc, key);
  if (key !== offersKey) {
    offersKey = key;
    caches = { known: new Map(), endless: new Map() };
  }
  for (const c of Object.values(caches) as BasketCache[])
    for (const old of c.keys()) {
      if (c.size <= MOST_KEPT) break;
      c.delete(old);
    }
  return caches;
}
const cacheFor = (doc: RunDocument): BasketCache => cachesFor(doc).known;

const api = {
  roll(doc: RunDocument, record?: RunRecord): Rolled {
    try {
      return { kind: "ok", result: rollUp(doc, { cache: cacheFor(doc), ...(record ? { record } : {}) }) };
    } catch (error) {
      return (
        toWire(error) ?? {
          kind: "error",
          code: "DOCUMENT_INVALID",
          message: error instanceof Error ? error.message : "The run cannot be computed.",
          hint: "Reload the page; if it stays, report it.",
        }
      );
    }
  },
  /** Takes baskets that were proven elsewhere; the next roll-up of the run stands on them. */
  learn(doc: RunDocument, needs: readonly Need[], baskets: readonly Basket[]): void {
    cacheFor(doc).set(basketKey(needs), [...baskets]);
  },
  effects(doc: RunDocument, stages: readonly StageKey[]): Partial<WhatIf> {
    const known = cacheFor(doc);
    return whatIf(doc, rollUp(doc, { cache: known, notes: "none" }), known, stages);
  },
  /** Keeps a document for {@link pointOf}: to send it with each of forty quantities takes a tenth of their time. */
  hold(id: number, doc: RunDocument): void {
    held.set(id, doc);
    for (const old of [...held.keys()].slice(0, -MOST_HELD)) held.delete(old);
  },
  /** @returns "gone" where it is not kept any more */
  pointOf(id: number, quantity: number): CurvePoint | "gone" | undefined {
    const doc = held.get(id);
    return doc ? pointAt(doc, quantity) : "gone";
  },
  point: pointAt,
};

function pointAt(doc: RunDocument, quantity: number): CurvePoint | undefined {
  try {
    return curvePoint(doc, quantity, cachesFor(doc));
  } catch {
    return undefined;
  }
}

export type RunApi = typeof api;
Comlink.expose(api);

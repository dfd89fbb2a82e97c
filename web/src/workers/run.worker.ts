import {
  type Basket,
  type BasketCache,
  basketKey,
  type CurvePoint,
  curvePoint,
  type Need,
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

let cache: BasketCache = new Map();
let offersKey = "";

/** Baskets found stay good as long as offers, suppliers and rates are the same. */
function cacheFor(doc: RunDocument): BasketCache {
  const key = JSON.stringify([doc.offers, doc.suppliers, doc.workshop.rates, doc.workshop.currency]);
  if (key !== offersKey) {
    offersKey = key;
    cache = new Map();
  }
  return cache;
}

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
    return whatIf(doc, rollUp(doc, { cache: known }), known, stages);
  },
  point: (doc: RunDocument, quantity: number): CurvePoint | undefined => {
    try {
      return curvePoint(doc, quantity);
    } catch {
      return undefined;
    }
  },
};

export type RunApi = typeof api;
Comlink.expose(api);

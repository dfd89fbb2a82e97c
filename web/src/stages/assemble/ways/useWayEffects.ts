import {
  isForPaste,
  layChange,
  type Method,
  type RunDocument,
  type RunResult,
  setSide,
  setWay,
  type WayChange,
} from "@kobbin/core";
import { useEffect, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { runWorker } from "../../../workers/run.ts";
import { effectOf, type WayEffect } from "./wayEffect.ts";
import { isWholeSide, type WayRow, wayOfRow } from "./wayRows.ts";

export const METHODS = ["house", "stencil", "iron"] as const satisfies readonly Method[];

/** The house that is meant is said with the first part that goes to one. */
export function withHouse(doc: RunDocument, method: Method): WayChange {
  const first = (doc.houses ?? []).find((h) => h.assembly);
  return method === "house" && doc.assembly.house === undefined && first ? { house: first.id } : {};
}

/** The change by which all of a row goes one way. */
export function wayChange(doc: RunDocument, result: RunResult, row: WayRow, method: Method): WayChange {
  const forPaste = result.parts.filter(isForPaste).map((p) => p.line.id);
  const ways = isWholeSide(row) ? setSide(doc, row.side, method, forPaste) : setWay(doc, row.parts, method);
  return { ...withHouse(doc, method), ...ways };
}

/** What each row would change the other ways, worked out one after the other while one looks. */
export function useWayEffects(rows: readonly WayRow[]): ReadonlyMap<string, WayEffect> {
  const { doc, result } = useRun();
  const [found, setFound] = useState<{
    readonly of?: RunDocument;
    readonly map: ReadonlyMap<string, WayEffect>;
  }>({
    map: new Map(),
  });
  const keys = rows.map((r) => r.key).join("\n");
  // biome-ignore lint/correctness/useExhaustiveDependencies: rows hang on the document, and are the same while their keys are
  useEffect(() => {
    let isCurrent = true;
    const map = new Map<string, WayEffect>(found.of === doc ? found.map : []);
    (async () => {
      for (const row of rows)
        for (const method of METHODS) {
          const key = `${row.key} ${method}`;
          if (wayOfRow(row) === method || (row.isByHand && method === "stencil") || map.has(key)) continue;
          const changed = layChange(doc, { assembly: wayChange(doc, result, row, method) });
          const rolled = await runWorker().roll(changed);
          if (!isCurrent) return;
          map.set(key, effectOf(result, rolled.kind === "ok" ? rolled.result : rolled.message));
          setFound({ of: doc, map: new Map(map) });
        }
    })();
    return () => {
      isCurrent = false;
    };
  }, [doc, result, keys]);
  return found.of === doc ? found.map : NONE;
}
const NONE: ReadonlyMap<string, WayEffect> = new Map();

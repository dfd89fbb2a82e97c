import { type BoardDiff, type Comparison, compareMeasured, type Measure } from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { http } from "../../../resources/http.ts";
import { useRun } from "../../../run/runState.ts";

/** A stored board with what was measured of it. */
export interface Measured {
  readonly id: string;
  readonly measure: Measure;
}

/** Differences worked out last, so that coming back to a page asks for none twice. Files never change, corrections do. */
const KEPT = 6;
const kept = new Map<string, BoardDiff>();

/** What two stored boards differ in, and what follows from it at the chosen house. */
export function useComparison(
  now: Measured,
  was: Measured | undefined,
): { readonly found?: Comparison; readonly error?: unknown } {
  const { doc } = useRun();
  // what a board is read under changes its measure
  const of = useMemo(
    () =>
      [now, was]
        .map((b) => `${b?.id} ${JSON.stringify(b?.measure.layers.map((l) => [l.file, l.role, l.side]))}`)
        .join(" "),
    [now, was],
  );
  const [state, setState] = useState<{
    readonly of: string;
    readonly diff?: BoardDiff;
    readonly error?: unknown;
  }>();
  useEffect(() => {
    if (!was) return;
    let isCurrent = true;
    const known = kept.get(of);
    if (known) {
      setState({ of, diff: known });
      return;
    }
    // worked out once for everybody, where the files are
    http
      .get<BoardDiff>(`/api/boards/${now.id}/difference?against=${was.id}`)
      .then((diff) => {
        kept.set(of, diff);
        for (const old of [...kept.keys()].slice(0, -KEPT)) kept.delete(old);
        if (isCurrent) setState({ of, diff });
      })
      .catch((error) => isCurrent && setState({ of, error }));
    return () => {
      isCurrent = false;
    };
  }, [now.id, was, of]);
  const current = state?.of === of ? state : undefined;
  const diff = current?.diff;
  const { house, options } = doc;
  const found = useMemo(
    () => (diff && was ? compareMeasured(diff, now.measure, was.measure, house, options) : undefined),
    [diff, now.measure, was, house, options],
  );
  return { ...(found ? { found } : {}), ...(current?.error ? { error: current.error } : {}) };
}

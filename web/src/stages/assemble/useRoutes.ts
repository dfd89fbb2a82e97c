import {
  type Crossing,
  type CurvePoint,
  crossingsOf,
  curveQuantities,
  type Route,
  type RunDocument,
  type RunResult,
  routesOf,
} from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { pointsOf, runWorker } from "../../workers/run.ts";

/** What is worked out for each way so far: whole at the run's own quantity, and per good board over quantity. */
export interface RouteFigures {
  readonly result: ReadonlyMap<string, RunResult>;
  readonly curve: ReadonlyMap<string, readonly CurvePoint[]>;
  /** Where a way becomes cheaper than the chosen one, or the chosen one than another, as far as the quantities looked at show. */
  readonly crossings: readonly Crossing[];
  readonly isDone: boolean;
  /** Why a way has no figures, by its key. */
  readonly failed: ReadonlyMap<string, string>;
}
const NONE: RouteFigures = {
  result: new Map(),
  curve: new Map(),
  crossings: [],
  isDone: false,
  failed: new Map(),
};
const QUANTITIES = 40;

/** Every way of getting the boards soldered, worked out one after the other while one looks; first the run's own quantity. */
export function useRoutes(): { readonly routes: readonly Route[]; readonly figures: RouteFigures } {
  const { doc, result: r } = useRun();
  const routes = useMemo(() => routesOf(doc, r), [doc, r]);
  const keys = routes.map((x) => x.key).join(" ");
  const [figures, setFigures] = useState(NONE);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the ways hang on the document, and are the same while their keys are
  useEffect(() => {
    let isCurrent = true;
    setFigures(NONE);
    work(
      doc,
      routes,
      (f) => isCurrent && setFigures(f),
      () => isCurrent,
    ).catch((e) => {
      const why = e instanceof Error ? e.message : String(e);
      if (isCurrent)
        setFigures((f) => ({ ...f, isDone: true, failed: new Map(routes.map((x) => [x.key, why])) }));
    });
    return () => {
      isCurrent = false;
    };
  }, [doc, keys]);
  return { routes, figures };
}

async function work(
  doc: RunDocument,
  routes: readonly Route[],
  show: (f: RouteFigures) => void,
  isWanted: () => boolean,
): Promise<void> {
  const can = routes.filter((x) => !x.cannot);
  const as = (route: Route): RunDocument => ({ ...doc, assembly: route.assembly });
  const result = new Map<string, RunResult>();
  const failed = new Map<string, string>();
  for (const route of can) {
    const rolled = await runWorker().roll(as(route));
    if (!isWanted()) return;
    if (rolled.kind === "ok") result.set(route.key, rolled.result);
    else failed.set(route.key, rolled.message);
    show({ ...NONE, result: new Map(result), failed: new Map(failed) });
  }
  const good = can.filter((x) => result.has(x.key));
  const curve = new Map(good.map((x) => [x.key, new Map<number, CurvePoint>()]));
  const points = new Map(good.map((x) => [x.key, pointsOf(as(x))]));
  const at = async (route: Route, q: number): Promise<number | undefined> => {
    const known = curve.get(route.key)!.get(q) ?? (await points.get(route.key)!(q));
    if (known) curve.get(route.key)!.set(q, known);
    return known?.perGood;
  };
  const shown = (crossings: readonly Crossing[], isDone: boolean) =>
    show({
      result,
      failed,
      crossings,
      isDone,
      curve: new Map(
        [...curve].map(([k, m]) => [k, [...m.values()].sort((a, b) => a.quantity - b.quantity)]),
      ),
    });
  for (const q of curveQuantities(doc.goodBoards, QUANTITIES)) {
    for (const route of good) await at(route, q);
    if (!isWanted()) return;
    shown([], false);
  }
  const crossings: Crossing[] = [];
  // of those that are not chosen among one another nobody asks
  const own = good.find((x) => x.isOwn)?.key;
  const perGood = (m: ReadonlyMap<number, CurvePoint>) => new Map([...m].map(([q, p]) => [q, p.perGood]));
  const all = crossingsOf([...curve].map(([key, m]) => ({ key, perGood: perGood(m) })));
  for (const c of all.filter((x) => x.route === own || x.against === own)) {
    const [a, b] = [c.route, c.against].map((k) => good.find((x) => x.key === k)!) as [Route, Route];
    let [low, high] = [c.after, c.from];
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      const [x, y] = [await at(a, middle), await at(b, middle)];
      if (!isWanted()) return;
      if (x === undefined || y === undefined) break;
      if (x > y) low = middle;
      else high = middle;
    }
    crossings.push({ ...c, after: low, from: high });
  }
  shown(crossings, true);
}

import {
  type Crossing,
  crossingsOf,
  curveQuantities,
  type Route,
  type RunDocument,
  type RunResult,
  routesOf,
} from "@kobbin/core";
import { useEffect, useMemo, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { runWorker } from "../../workers/run.ts";

/** What is worked out for each way so far: whole at the run's own quantity, and per good board over quantity. */
export interface RouteFigures {
  readonly result: ReadonlyMap<string, RunResult>;
  readonly curve: ReadonlyMap<string, ReadonlyMap<number, number>>;
  /** Exact to one board: where a way becomes cheaper than the chosen one, or the chosen one than another. */
  readonly crossings: readonly Crossing[];
  readonly isDone: boolean;
}
const NONE: RouteFigures = { result: new Map(), curve: new Map(), crossings: [], isDone: false };
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
    ).catch(() => undefined);
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
  for (const route of can) {
    const rolled = await runWorker().roll(as(route));
    if (!isWanted()) return;
    if (rolled.kind === "ok") result.set(route.key, rolled.result);
    show({ ...NONE, result: new Map(result) });
  }
  const curve = new Map(can.map((x) => [x.key, new Map<number, number>()]));
  const at = async (route: Route, q: number) => {
    const known = curve.get(route.key)!.get(q);
    if (known !== undefined) return known;
    const p = await runWorker().point(as(route), q);
    if (p) curve.get(route.key)!.set(q, p.perGood);
    return p?.perGood;
  };
  for (const q of curveQuantities(doc.goodBoards, QUANTITIES)) {
    for (const route of can) await at(route, q);
    if (!isWanted()) return;
    show({ result, curve: copied(curve), crossings: [], isDone: false });
  }
  const crossings: Crossing[] = [];
  // of those that are not chosen among one another nobody asks
  const own = can.find((x) => x.isOwn)?.key;
  const all = crossingsOf([...curve].map(([key, perGood]) => ({ key, perGood })));
  for (const c of all.filter((x) => x.route === own || x.against === own)) {
    const [a, b] = [c.route, c.against].map((k) => can.find((x) => x.key === k)!) as [Route, Route];
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
  show({ result, curve: copied(curve), crossings, isDone: true });
}

const copied = (curve: ReadonlyMap<string, ReadonlyMap<number, number>>) =>
  new Map([...curve].map(([k, m]) => [k, new Map([...m].sort(([a], [b]) => a - b))]));

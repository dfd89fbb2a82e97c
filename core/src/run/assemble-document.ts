import { microsToText, roundMoney } from "../money/money.ts";
import { isGate } from "../steps/gates.ts";
import type { Step } from "../steps/step.ts";
import type { Route } from "./assemble/route.ts";
import { hardestParts, routesOf } from "./assemble/routes.ts";
import { orderOfRun } from "./assemble/work.ts";
import { type BreakEven, breakEvens } from "./break-even.ts";
import { asMade } from "./document/bill/as-made.ts";
import type { RunDocument } from "./document/document.ts";
import { isComplete } from "./orders/complete.ts";
import { rollUp } from "./roll-up.ts";
import type { BasketCache, RunResult } from "./stage/result.ts";

/** The document `assemble/1`: money as decimal text, minutes and shares as numbers. */
export interface AssembleDocument {
  readonly kobbin: "assemble/1";
  readonly currency: string;
  readonly good: number;
  readonly confidence: number;
  readonly yield: {
    readonly firstPass: number;
    readonly defects: number;
    readonly reworkMinutes: number;
    readonly final: number;
    readonly from: "priors" | "records";
    readonly boardsSeen: number;
  };
  readonly start: number;
  readonly routes: readonly RouteRow[];
  readonly breakEven: readonly BreakEven[];
  /** How many quantities from 1 to 1,000 were worked out: all of them where there are few offers; else it is exact as far as those show. */
  readonly breakEvenLooked: number;
  readonly hardest: readonly {
    readonly refs: readonly string[];
    readonly share: number;
    readonly because: string;
  }[];
  readonly steps: readonly StepRow[];
  readonly conflicts: readonly {
    readonly refs: readonly string[];
    readonly text: string;
    readonly do: string;
  }[];
}

interface RouteRow {
  readonly key: string;
  readonly own: boolean;
  readonly start?: number;
  readonly final?: number;
  readonly perGood?: string;
  readonly cash?: string;
  readonly hours?: number;
  readonly days?: number;
  readonly firstPass?: number;
  readonly defects?: number;
  /** Something is not priced: money is of the rest. */
  readonly complete?: false;
  readonly cannot: readonly string[];
}

interface StepRow {
  readonly n: number;
  readonly kind: Step["kind"];
  readonly board?: string;
  readonly side?: Step["side"];
  readonly refs: readonly string[];
  readonly minutes: number;
  readonly after: readonly number[];
  readonly covers: readonly string[];
  readonly protects?: string;
}

const short = (v: number): number => Number(v.toFixed(6));

/**
 * What Assemble says of a run: ways to solder, where one becomes cheaper, the hardest parts, the order of work.
 *
 * @param cache baskets that are known already
 */
export function assembleDocument(given: RunDocument, cache: BasketCache = new Map()): AssembleDocument {
  const doc = asMade(given);
  const r = rollUp(given, { cache });
  const { currency } = doc.workshop;
  const money = (micros: number) => microsToText(roundMoney(micros, currency));
  const routes = routesOf(doc, r).map((route) => ({ route, key: keyOf(route) }));
  const even = breakEvens(
    given,
    routes.filter((x) => !x.route.cannot),
  );
  const { yield: y } = r;
  const { steps, conflicts } = orderOfRun(doc, r);
  return {
    kobbin: "assemble/1",
    currency,
    good: doc.goodBoards,
    confidence: doc.confidence,
    yield: {
      firstPass: y.firstPass,
      defects: y.lambda,
      reworkMinutes: y.reworkMin,
      final: y.final,
      from: y.record ? "records" : "priors",
      boardsSeen: y.record?.boards ?? 0,
    },
    start: r.start,
    routes: routes.map(({ route, key }) => routeRow(given, route, key, r, money)),
    breakEven: even.list,
    breakEvenLooked: even.looked,
    hardest: hardestParts(r.parts, 10, r.yield.faults?.factors).map((h) => ({
      refs: h.refs,
      share: h.share,
      because: `${h.joints * h.refs.length} joints${h.isPolarised ? ", with a direction" : ""}`,
    })),
    steps: steps.map((s) => ({
      n: s.n,
      kind: s.kind,
      ...(s.board !== undefined && doc.boards.length > 1 ? { board: doc.boards[s.board]!.name } : {}),
      ...(s.side ? { side: s.side } : {}),
      refs: s.refs,
      minutes: short(s.minutes),
      after: s.after,
      covers: s.covers,
      ...(isGate(s.kind) ? { protects: money(s.protects?.all ?? 0) } : {}),
    })),
    conflicts: conflicts.map((c) => ({
      refs: c.refs,
      text: c.text,
      do: c.remedies.map((x) => x.words).join(" Or: ") || "Change the design, or accept it with a reason.",
    })),
  };
}

/** Keys of assemble/1: presets begin with iron, stencil or house; what is like none of them is the chosen one. */
const keyOf = ({ key }: Route): string =>
  key === "stencil" ? "stencil-plate" : key === "stencil-other" ? "chosen" : key.replaceAll(":", "-");

function routeRow(
  doc: RunDocument,
  route: Route,
  key: string,
  own: RunResult,
  money: (micros: number) => string,
): RouteRow {
  if (route.cannot) return { key, own: route.isOwn, cannot: [route.cannot] };
  const r = route.isOwn ? own : rollUp({ ...doc, assembly: route.assembly });
  return {
    key,
    own: route.isOwn,
    start: r.start,
    final: r.yield.final,
    perGood: money(r.perGood),
    cash: money(r.cashNeeded),
    hours: short(r.ownMinutes / 60),
    days: short(r.stages.assemble.days),
    firstPass: r.yield.firstPass,
    defects: r.yield.lambda,
    ...(isComplete(r.unpriced) ? {} : { complete: false as const }),
    cannot: [],
  };
}

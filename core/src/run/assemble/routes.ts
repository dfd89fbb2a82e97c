import type { ByKind } from "../../assembly/fault-kinds.ts";
import { faultsOf } from "../../assembly/fault-prior.ts";
import type { Method } from "../../assembly/method.ts";
import type { CountedPart } from "../../assembly/yield.ts";
import type { RunAssembly, RunDocument } from "../document/document.ts";
import { layChange } from "../document/lay-change.ts";
import type { LinePart } from "../document/parts.ts";
import { isMixed } from "../document/ways.ts";
import type { RunResult } from "../stage/result.ts";
import type { Route, WayChange } from "./route.ts";
import { splitRoutes } from "./split-routes.ts";

type Base = Pick<RunResult, "parts" | "assembly" | "sides">;
type Plain = Omit<Route, "assembly">;

/**
 * The ways there are for this run: by iron, by foil and plate or oven, at each house that assembles, with hand parts here or
 * there; one side at a house, or only what is fine or hidden; and as it is chosen part by part, where that is like none.
 */
export function routesOf(doc: RunDocument, base: Base): Route[] {
  const { assembly } = doc;
  const hasHandParts = base.parts.some(
    (p) => p.kind !== "loose" && (p.kind === "through" || p.line.mount === "hand"),
  );
  const isWhole = !isMixed(doc);
  const makers = (doc.houses ?? []).filter((h) => h.assembly);
  const whole: Plain[] = [
    {
      key: "iron",
      label: "own iron, part by part",
      change: { method: "iron" },
      isOwn: isWhole && assembly.method === "iron",
    },
    ...pasteRoutes(doc, base),
    ...makers.flatMap((h) =>
      (hasHandParts ? (["here", "house"] as const) : (["here"] as const)).map(
        (handParts): Plain => ({
          key: handParts === "here" ? `house:${h.id}` : `house:${h.id}:all`,
          label: !hasHandParts
            ? `${h.name} places`
            : handParts === "here"
              ? `${h.name} places, hand parts stay here`
              : `${h.name} solders all`,
          change: { method: "house", house: h.id, handParts },
          isOwn:
            isWhole &&
            assembly.method === "house" &&
            base.assembly?.house.id === h.id &&
            (!hasHandParts || (assembly.handParts ?? "here") === handParts),
          ...noPlaces(doc),
        }),
      ),
    ),
  ];
  const routes = [
    ...whole.map((r) => ({ ...r, change: { ...r.change, ...NO_PARTS } })),
    ...splitRoutes(doc, base),
  ];
  const all = routes.map((r): Route => ({ ...r, assembly: assemblyWith(doc, r.change) }));
  return isWhole || all.some((r) => r.isOwn)
    ? all
    : [...all, { key: "chosen", label: "as chosen, part by part", change: {}, assembly, isOwn: true }];
}

const NO_PARTS = { sides: null, ways: null } satisfies WayChange;
const noPlaces = (doc: RunDocument) =>
  doc.placements.length === 0 ? { cannot: "there is no placement file" } : {};

/** A run's way with a change laid over it, by the one law of changes. */
const assemblyWith = (doc: RunDocument, change: WayChange): RunAssembly =>
  layChange(doc, { assembly: change }).assembly;

/** Words for what melts the paste, where neither plate nor oven is said. */
const OTHER = {
  air: "own stencil and hot air",
  plate: "own stencil and hot plate",
  oven: "own stencil and oven",
} as const;

/** Own paste by what melts it. A plate heats boards that lie flat, so that it is no way where both sides get paste. */
function pasteRoutes(doc: RunDocument, base: Base): Plain[] {
  const { assembly } = doc;
  const { both } = base.sides.all;
  const isPaste = assembly.method === "stencil" && !isMixed(doc);
  const onPlate = assembly.heater === "plate" || (assembly.heater === undefined && both.length === 0);
  const isOther = isPaste && !onPlate && assembly.heater !== "oven";
  const no = hasPaste(doc) ? {} : { cannot: "there is no paste layer" };
  const lying =
    both.length > 0 && hasPaste(doc)
      ? { cannot: "parts sit on both sides, and a plate heats boards that lie flat" }
      : no;
  return [
    {
      key: "stencil",
      label: OTHER.plate,
      // where nothing is said of what melts it, and it is this, nothing is said further on
      change: isPaste && onPlate ? {} : { method: "stencil", heater: "plate" },
      isOwn: isPaste && onPlate,
      ...lying,
    },
    {
      key: "stencil-oven",
      label: OTHER.oven,
      change: { method: "stencil", heater: "oven" },
      isOwn: isPaste && assembly.heater === "oven",
      ...no,
    },
    ...(isOther
      ? [
          {
            key: "stencil-other",
            label: assembly.heater ? OTHER[assembly.heater] : "own stencil, what melts it not said",
            change: {},
            isOwn: true,
            ...no,
          },
        ]
      : []),
  ];
}

const hasPaste = (doc: RunDocument): boolean =>
  doc.boards.every((b) => Object.values(b.measure.paste).some((p) => p.count > 0));

/** Lines that make the most of the expected defects. */
export interface HardPart {
  readonly line: string;
  readonly refs: readonly string[];
  /** Of all expected defects of a board. */
  readonly share: number;
  /** Expected defects a board, as it is soldered now. */
  readonly defects: number;
  readonly joints: number;
  readonly kind: LinePart["kind"];
  readonly isPolarised: boolean;
  /** What its defects would be by each way to solder. */
  readonly by: Readonly<Record<Method, number>>;
}

/**
 * Lines by their share of the expected defects, the hardest first.
 *
 * @param factors what the shop's own faults make of the model's rates; of how it is soldered now alone
 */
export function hardestParts(
  parts: readonly LinePart[],
  most = 10,
  factors: ByKind<number> = {},
): HardPart[] {
  const expected = (p: CountedPart) => faultsOf(p, factors);
  const all = parts.reduce((sum, p) => sum + expected(p), 0);
  if (all === 0) return [];
  const as = (p: LinePart, method: Method) => {
    const { placing: _, ...plain } = p;
    return p.method === method ? expected(p) : faultsOf({ ...plain, method });
  };
  return parts
    .map((p) => ({ p, defects: expected(p) }))
    .filter(({ defects }) => defects > 0)
    .sort((a, b) => b.defects - a.defects)
    .slice(0, most)
    .map(({ p, defects }) => ({
      line: p.line.id,
      refs: p.line.refs,
      share: defects / all,
      defects,
      joints: p.joints,
      kind: p.kind,
      isPolarised: p.isPolarised,
      by: { iron: as(p, "iron"), stencil: as(p, "stencil"), house: as(p, "house") },
    }));
}

/** What one costs over quantity. */
export interface RouteCurve {
  readonly key: string;
  /** Quantity → cost per good board; quantities in which it was not worked out are left out. */
  readonly perGood: ReadonlyMap<number, number>;
}
/** From somewhere between two quantities on the first costs no more than the second. */
export interface Crossing {
  readonly route: string;
  readonly against: string;
  /** The last quantity at which it still costs more, and the first at which it does not. */
  readonly after: number;
  readonly from: number;
}

/**
 * Where one way becomes the cheaper of two and stays so, as far as the quantities go. A way that is the cheaper of the two
 * from the first quantity on has no crossing, nor has one that never stays so.
 */
export function crossingsOf(curves: readonly RouteCurve[]): Crossing[] {
  return curves.flatMap((a) =>
    curves.flatMap((b): Crossing[] => {
      if (a.key === b.key) return [];
      const both = [...a.perGood.keys()].filter((q) => b.perGood.has(q)).sort((x, y) => x - y);
      const isDearer = (q: number) => a.perGood.get(q)! > b.perGood.get(q)!;
      const last = both.findLastIndex(isDearer);
      if (last < 0 || last === both.length - 1) return [];
      return [{ route: a.key, against: b.key, after: both[last]!, from: both[last + 1]! }];
    }),
  );
}

import { type DataShape, fields, list, maybe, number, oneOf, text, tuple, whole } from "./shape.ts";

const mm = number(0, 10_000);
const tol = number(0, 100);
const coordinate = number(-10_000, 10_000);
const spot = tuple(coordinate, coordinate);

const KINDS: Readonly<Record<string, DataShape>> = {
  slot: fields({
    kind: oneOf("slot"),
    at: spot,
    tabMm: maybe(mm),
    tabReadingsMm: maybe(list(mm, 100, 1)),
    tabTolMm: tol,
    tabWidthMm: maybe(mm),
  }),
  edge: fields({ kind: oneOf("edge"), allowsMm: tuple(mm, mm) }),
  outline: fields({
    kind: oneOf("outline"),
    across: oneOf("width", "height"),
    openingMm: mm,
    openingTolMm: tol,
  }),
  pattern: fields({
    kind: oneOf("pattern"),
    holes: list(spot, 200, 1),
    posts: list(fields({ x: number(-10_000, 10_000), y: number(-10_000, 10_000), diameterMm: mm }), 200, 1),
    postTolMm: tol,
  }),
  pin: fields({
    kind: oneOf("pin"),
    at: spot,
    pinMm: mm,
    pinTolMm: tol,
    shape: oneOf("round", "square"),
  }),
  contacts: fields({
    kind: oneOf("contacts"),
    side: oneOf("top", "bottom"),
    openingMm: mm,
    openingTolMm: tol,
    contactMm: mm,
  }),
  intended: fields({
    kind: oneOf("intended"),
    at: spot,
    diameterMm: number(0.05, 200),
    side: oneOf("top", "bottom"),
    what: oneOf("solder", "contact", "copper", "window", "drawing", "cutout"),
  }),
  lid: fields({
    kind: oneOf("lid"),
    side: oneOf("top", "bottom"),
    roomMm: mm,
    roomTolMm: tol,
    area: maybe(tuple(coordinate, coordinate, coordinate, coordinate)),
  }),
  facing: fields({
    kind: oneOf("facing"),
    other: text(200, 1),
    side: oneOf("top", "bottom"),
    faces: oneOf("top", "bottom"),
    gapMm: mm,
    gapTolMm: tol,
    at: spot,
    turnDeg: oneOf(0, 90, 180, 270),
    joinedBy: maybe(list(text(80, 1), 50)),
  }),
  stack: fields({
    kind: oneOf("stack"),
    boards: whole(1, 50),
    spacers: list(fields({ mm, tolMm: tol }), 50),
    gapMm: mm,
    gapTolMm: tol,
  }),
};

/** What a board must go with, whichever kind it is; what contradicts itself is said. */
export const fitSpecShape: DataShape = (v, path) => {
  const { kind } = (typeof v === "object" && v !== null ? v : {}) as { kind?: unknown };
  if (typeof kind !== "string" || !Object.hasOwn(KINDS, kind))
    return `${path}.kind is one of ${Object.keys(KINDS).join(", ")}`;
  return KINDS[kind]!(v, path) ?? contradiction(v as Data, path);
};

type Data = Readonly<Record<string, unknown>> & { readonly kind: string };

function contradiction(s: Data, path: string): string | undefined {
  if (s.kind === "slot" && (s.tabMm === undefined) === (s.tabReadingsMm === undefined))
    return `${path} says its tab ${s.tabMm === undefined ? "not at all" : "twice"}`;
  if (s.kind === "edge") {
    const [least, most] = s.allowsMm as [number, number];
    if (least > most) return `${path} takes from ${least} to ${most} mm, which is nothing`;
  }
  if (s.kind === "lid" && s.area !== undefined) {
    const [x0, y0, x1, y1] = s.area as [number, number, number, number];
    if (x0 >= x1 || y0 >= y1) return `${path} is about a field of no size`;
  }
  if (s.kind === "pattern" && (s.holes as unknown[]).length !== (s.posts as unknown[]).length)
    return `${path} has ${(s.posts as unknown[]).length} posts for ${(s.holes as unknown[]).length} holes`;
  return undefined;
}

/** A row of a product's fit sheet. */
export const fitRowShape: DataShape = fields({
  id: text(80, 1),
  label: text(120, 1),
  board: maybe(text(200)),
  spec: fitSpecShape,
  playMm: maybe(tol),
});

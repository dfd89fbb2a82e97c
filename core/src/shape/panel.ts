import { fields, flag, list, mapOf, maybe, nullable, number, oneOf, text } from "./shape.ts";

const mm = number(-2000, 2000);
const length = number(0, 2000);
const parting = oneOf("score", "tabs");

/** A sheet as a run keeps it: where its boards lie, and how they are parted. */
export const panelShape = nullable(
  fields({
    widthMm: length,
    heightMm: length,
    rails: fields({ left: length, right: length, top: length, bottom: length }),
    across: parting,
    along: parting,
    gapMm: number(0.5, 20),
    tabMm: number(1, 20),
    fiducials: flag,
    toolingHoles: flag,
    badMarks: flag,
    copperBalance: flag,
    waste: maybe(list(oneOf("gauge", "practice", "paste-test"), 3)),
    free: maybe(mapOf(list(oneOf("left", "right", "top", "bottom"), 4), 60)),
    tabs: maybe(list(fields({ copy: number(1, 400), xMm: mm, yMm: mm }), 4000)),
    places: list(fields({ board: text(60), xMm: mm, yMm: mm, turnDeg: number(0, 360) }), 400),
    holes: number(0, 100_000),
  }),
);

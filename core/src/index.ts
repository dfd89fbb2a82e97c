/** The one door of core. In groups: errors and money, board, parts, sourcing, fab, assembly, run. */

export type { Place } from "./board/copper.ts";
export type { Finding, Level } from "./board/findings.ts";
export { type FileKind, kindOf } from "./board/kind.ts";
export { type Hole, type LayerRow, type Measure, measureBoard, nameOf } from "./board/measure.ts";
export { chainOutline, type Loop, type Outline } from "./board/outline.ts";
export { type BoardFile, type BoardSet, type Corrections, type Entry, readBoard } from "./board/read.ts";
export type { Because, Role, Side } from "./board/role.ts";
export { BOM_WORDS, type Bom, type BomColumn, type BomLine, readBom } from "./bom/bom.ts";
export { compareRefs, expandRefs, lettersOf } from "./bom/refs.ts";
export { readValue, type Value } from "./bom/value.ts";
export { type DrillData, readDrill } from "./drill/read.ts";
export * from "./errors.ts";
export { KIND, type LayerImage } from "./gerber/image.ts";
export { readLayer } from "./gerber/read.ts";
export { ringsOf, type Shape, shapesOf, shapesOfObject } from "./gerber/shapes.ts";
export * from "./money/money.ts";
export { type Placement, type Placements, readPlacement } from "./placement/placement.ts";
export type { Cells } from "./table/columns.ts";

/** The one door of core. In groups: errors and money, board, parts, sourcing, fab, assembly, run. */

export { ATTRITION, type Loss, type LossKind, needOf, type OwnLosses } from "./assembly/attrition.ts";
export { type PackageClass, shapeOf } from "./assembly/package-class.ts";
export { boardTime, setupMinutes } from "./assembly/time.ts";
export {
  betaBinomialAtLeast,
  binomialAtLeast,
  boardsToStart,
  type CountedPart,
  estimateYield,
  lnGamma,
  type Method,
} from "./assembly/yield.ts";
export type { BoardFile, BoardSet, Corrections, Entry } from "./board/board-file.ts";
export { type Memory, patternOf, withMemory } from "./board/corrections.ts";
export { diffBoards } from "./board/diff.ts";
export { measureToKeep } from "./board/keep.ts";
export { type FileKind, kindOf } from "./board/kind.ts";
export { measureBoard } from "./board/measure.ts";
export type { BoardDiff, DiffPlace, Hole, LayerRow, Measure } from "./board/measure-document.ts";
export { layerName } from "./board/measure-keys.ts";
export { composeMoves } from "./board/move.ts";
export { chainOutline, type Loop, type Outline } from "./board/outline.ts";
export { FOILS, LEAST_AREA_RATIO } from "./board/paste.ts";
export { readBoard } from "./board/read.ts";
export type { Place } from "./board/worst.ts";
export { type Bom, type BomLine, readBom, readBomAt } from "./bom/bom.ts";
export { type BillDifference, billDifference, type Difference, uselessStock } from "./bom/difference.ts";
export { type BillSpread, type NearValue, nearValues, spreadOf } from "./bom/fewer.ts";
export { type Layout, looksLikeBom, type RecognisedColumns, recogniseColumns } from "./bom/layout.ts";
export { numberKey } from "./bom/number.ts";
export { compareRefs, expandRefs, lettersOf } from "./bom/refs.ts";
export { packageKey, type SameParts, sameParts } from "./bom/same.ts";
export { nearestPreferred } from "./bom/series.ts";
export { readValue, type Value } from "./bom/value.ts";
export { BOM_WORDS, type BomColumn } from "./bom/words.ts";
export { type CostNode, type CostTree, type Term, toCostTree } from "./costing/tree.ts";
export { type DrillData, readDrill } from "./drill/read.ts";
export * from "./errors.ts";
export { checkHouse, type LimitCheck, tightest } from "./fab/check.ts";
export {
  type AssemblyPrice,
  type FabOptionKey,
  type FabOptions,
  type FabPrice,
  fitOptions,
  type House,
  type HouseLimits,
  type OptionValue,
  optionOf,
} from "./fab/house.ts";
export {
  LIMITS,
  MEASURE_GROUPS,
  MEASURES,
  type MeasureSpec,
  measureSpec,
} from "./fab/measures.ts";
export { type BoardFacts, boardMassG, type FabQuote, fabQuote, orderPieces } from "./fab/price.ts";
export type { Finding, Level, Move } from "./findings.ts";
export { KIND, type LayerImage } from "./gerber/image.ts";
export { readLayer } from "./gerber/read.ts";
export { ringsOf, type Shape, shapesOf, shapesOfObject } from "./gerber/shapes.ts";
export { type Attribute, attributesOf } from "./library/attributes.ts";
export { type Candidate, candidatesFor, partOfLine } from "./library/candidates.ts";
export { type Comparison, compareParts, readAmount, type Standing, type Verdict } from "./library/compare.ts";
export {
  factsOfLine,
  factsOfPart,
  kindOfLine,
  lineKey,
  type PartFacts,
  ruleWords,
  valueWords,
} from "./library/facts.ts";
export { type MetNumber, type MetNumbers, meetNumbers } from "./library/meet-numbers.ts";
export {
  type Alternate,
  type LibraryPart,
  PART_KINDS,
  PART_STATES,
  type PartKind,
  type PartState,
} from "./library/part.ts";
export {
  ASSUMED,
  type ClassRules,
  type PartRule,
  RULE_KINDS,
  type RuleKind,
  ruleOf,
  usualRules,
} from "./library/rules.ts";
export { apart, type LotSample, type SampleResult, sampleOf } from "./library/sample.ts";
export * from "./money/money.ts";
export { decimalMark, isOpenPrice, type MarkReading, plainPrice } from "./money/price-text.ts";
export { looksLikePlacement, type Placement, type Placements, readPlacement } from "./placement/placement.ts";
export { settlePlacements } from "./placement/settle.ts";
export { drawSide, type SideDrawing } from "./release/drawing.ts";
export { boardSvg, type PictureColours } from "./release/picture.ts";
export {
  basketTables,
  type PackagePlan,
  type PlannedSheet,
  type PlannedTable,
  planPackage,
  slug,
} from "./release/plan.ts";
export type { Because, Role, Side } from "./role/role.ts";
export { type AssemblyPlan, assemblyPlan } from "./run/assembly-house.ts";
export { boardOf, ofBoard, Places, type RunBoard, unitOf } from "./run/boards.ts";
export { countUnpriced, isComplete, saysUnpriced, type Unpriced } from "./run/complete.ts";
export { type CostDocument, costDocument } from "./run/cost-document.ts";
export { type CurvePoint, curvePoint, curveQuantities } from "./run/curve.ts";
export { type Directed, directedParts } from "./run/directions.ts";
export {
  DEFAULT_ASSEMBLY,
  type LineOverride,
  type Mount,
  ORIGINS,
  type Origin,
  type QuoteBasis,
  type RunAssembly,
  type RunChoices,
  type RunDocument,
  type RunLine,
  type RunLot,
  type RunOffer,
  type RunPlacement,
  type RunQuote,
  type RunSupplier,
  SOURCE_CLASSES,
  type SourceClass,
  toRunDocument,
  type Variant,
} from "./run/document.ts";
export type { Effect, HouseEffect, WhatIf } from "./run/effect.ts";
export { firstChoices } from "./run/first-choices.ts";
export { toRunLines } from "./run/lines.ts";
export type { Note, StageKey } from "./run/note.ts";
export { type BoardOrder, boardFacts } from "./run/order-boards.ts";
export { type LinePart, lineParts, rateOf, suppliersOf } from "./run/parts.ts";
export {
  HAPPENS,
  isRunTable,
  type MemberRole,
  mayChange,
  type RunState,
  type RunTable,
} from "./run/policy.ts";
export { proveRun } from "./run/prove.ts";
export { OPTION_WORD, quotationMisfits } from "./run/quotation-holds.ts";
export { type ReadyBy, readyBy } from "./run/ready.ts";
export type { BasketCache, RunResult } from "./run/result.ts";
export { basketKey, rollUp } from "./run/roll-up.ts";
export { isUnnamed, type RuleClass, type RuleLines, ruleLines } from "./run/rule-lines.ts";
export type { NeedTerm, RunNeed, ShelfTake } from "./run/run-need.ts";
export { type Scarcity, scarcityOf } from "./run/scarcity.ts";
export { daysBetween, FRESH_DAYS } from "./run/source-notes.ts";
export { withHouse } from "./run/stages/fab-effects.ts";
export { asTree, timesInProduct, withVariant } from "./run/structure.ts";
export { figureWords, tolerancedOf } from "./run/sum-notes.ts";
export { type Packing, packingOf, refusedPackings } from "./run/usable.ts";
export { whatIf } from "./run/what-if.ts";
export { assemblyHouse } from "./run/who-places.ts";
export * as shapes from "./shape/index.ts";
export type { DataShape } from "./shape/shape.ts";
export { type BasketOptions, bestBasket, proveBasket } from "./sourcing/basket.ts";
export { type OfferChange, offerChanges, type SeenOffer } from "./sourcing/changes.ts";
export { cheapestPerLine, findBaskets } from "./sourcing/compare-baskets.ts";
export {
  type BasketReasons,
  type BuyReason,
  explainBasket,
  explainLine,
  type LineReason,
  type Otherwise,
  type QtyReason,
} from "./sourcing/explain.ts";
export { type Instance, sourceDocument, toInstance } from "./sourcing/instance.ts";
export type { Basket, LineBuys, Need, Proof } from "./sourcing/need.ts";
export { type Buy, cheapestBuy, type Offer, priceAt, type Supplier, toBreaks } from "./sourcing/offer.ts";
export { QUICK_EFFORT } from "./sourcing/optimum.ts";
export {
  type QuotationColumn,
  type QuotationLayout,
  type QuotedOffer,
  readQuotation,
  recogniseQuotation,
} from "./sourcing/quotation.ts";
export type { LinearModel, Solve, SolverAnswer } from "./sourcing/residual.ts";
export { savedTogether } from "./sourcing/together.ts";
export {
  type AttachedSum,
  readToleranced,
  type StandingSum,
  type SumResult,
  standingSum,
  type Toleranced,
} from "./sums/evaluate.ts";
export { SUM_KINDS, type SumInput, type SumKind, sumKind } from "./sums/kinds.ts";
export type { Cells } from "./table/columns.ts";
export { chooseSheet, type NamedSheet } from "./table/sheets.ts";

/** The one door of core: only what others use, floor by floor. */

export { ATTRITION, type Loss, type LossKind, needOf, type OwnLosses } from "./assembly/attrition.ts";
export { betaInterval } from "./assembly/beta.ts";
export type { ByKind, FaultKind, LearnedFaults, SeenFaults } from "./assembly/fault-kinds.ts";
export { ownFaultWords } from "./assembly/fault-prior.ts";
export type { Method } from "./assembly/method.ts";
export { type PackageClass, shapeOf } from "./assembly/package-class.ts";
export { type OwnRecord, type PastRun, recordWords } from "./assembly/prior.ts";
// who solders: losses, time, defects
export { shortfall } from "./assembly/short.ts";
export { readTurns, turnsText } from "./assembly/turns.ts";
export { LOST, REPAIRABLE } from "./assembly/yield.ts";
// boards read, measured, compared
export type { BoardSet, Corrections, Entry } from "./board/board-file.ts";
export { FOILS, LEAST_AREA_RATIO } from "./board/copper/paste.ts";
export { type Memory, patternOf, withMemory } from "./board/corrections.ts";
export { diffBoards } from "./board/diff/diff.ts";
export type { BoardDiff, DiffPlace, StencilVerdict } from "./board/diff-document.ts";
export { measureToKeep } from "./board/keep.ts";
export { type PlaceReading, placeReader, readPlace } from "./board/measure/place.ts";
export { measureBoard } from "./board/measure.ts";
export type { LayerRow, Measure, PanelPiece } from "./board/measure-document.ts";
export { composeMoves } from "./board/move.ts";
export { chainOutline } from "./board/outline/outline.ts";
export { knownOnPanel } from "./board/panels/panel-alike.ts";
export { isHolesLeast, partlyRead } from "./board/partly-read.ts";
export { type KnownPin, pinsOn } from "./board/pins.ts";
export { kindOf } from "./board/read/kind.ts";
export { readBoard } from "./board/read/read.ts";
export type { Place } from "./board/worst.ts";
// what stands on a board
export { type Body, bodiesOf } from "./bodies/body.ts";
export { MOST_CLASHES } from "./bodies/clashes.ts";
export { type Isometric, isometricOf } from "./bodies/isometric.ts";
export { type Zone, zonesOf } from "./bodies/zones.ts";
// lists of parts: references, values, sizes, columns
export { type Bom, type BomLine, type ListHead, readBom, readBomAt } from "./bom/bom.ts";
export { billDifference, type Difference, uselessStock } from "./bom/difference.ts";
export { type NearValue, nearValues, spreadOf } from "./bom/fewer.ts";
export { inCells, type Layout, looksLikeBom, recogniseColumns } from "./bom/layout.ts";
export { numberKey } from "./bom/number.ts";
export { compareRefs, expandRefs } from "./bom/refs.ts";
export { packageKey, type SameParts, sameParts } from "./bom/same.ts";
export { nearestPreferred } from "./bom/series.ts";
export type { Value } from "./bom/value.ts";
export { BOM_WORDS, type BomColumn } from "./bom/words.ts";
// one board against another
export { type PartChange, partsAt } from "./compare/parts.ts";
export { type Comparison, compareMeasured, type FigureChange } from "./compare/verdicts.ts";
// cost trees
export type { CostNode } from "./costing/tree.ts";
// what a test plan exercises
export { counted } from "./counted.ts";
export { coverDocument } from "./cover/cover.ts";
// machines and tools of the shop
export { AIDS, bestSight, tipFor, tipWords } from "./equipment/by-hand.ts";
export { type InHand, isConsumable, lifeOf } from "./equipment/consumable.ts";
export {
  boardsOn,
  EQUIPMENT,
  type Equipment,
  type EquipmentFacts,
  type EquipmentKind,
  type Tip,
  type ToolVerdict,
} from "./equipment/equipment.ts";
export {
  type Typed,
  typedDay,
  typedHeat,
  typedLength,
  typedSight,
  typedSpace,
  typedTips,
} from "./equipment/typed.ts";
// errors
export * from "./errors.ts";
// houses: what they can make, charge, and are measured by
export { checkHouse, checksByRoom, type LimitCheck, roomOf, shortOf, tightest } from "./fab/check.ts";
export { fitOptions, plainOf, valueAt, valuesOf, withValue } from "./fab/fit-options.ts";
export {
  type FirstPrice,
  type FirstQuotation,
  houseFromQuotation,
  USUAL_OPTIONS,
} from "./fab/from-quotation.ts";
export type { AssemblyPrice, FabPrice, House, HouseLimits, OptionValue } from "./fab/house.ts";
export { makesBoards } from "./fab/house.ts";
export {
  ASSEMBLY_FIELDS,
  BENCH_FIELDS,
  FOIL_FIELDS,
  type HouseField,
  PRICE_FIELDS,
} from "./fab/house-fields.ts";
export { LIMITS, MEASURE_GROUPS, MEASURES, measureSpec } from "./fab/measures.ts";
export {
  type ExtraOptionKey,
  type FabOptionKey,
  type FabOptions,
  OPTION_WORDS,
  type OptionKey,
  ORDER_OPTIONS,
  ORDINARY_WAY,
  PLAIN,
} from "./fab/options.ts";
export { fabQuote } from "./fab/price.ts";
export { type PriceTable, readPriceTable } from "./fab/price-table.ts";
export {
  type ProfileColumn,
  type ProfileList,
  profileCells,
  profileColumns,
  profileEntry,
  profileLists,
} from "./fab/profile-rows.ts";
export { type KnownValue, meaningWords, ownValue, valueMeant } from "./fab/profile-values.ts";
export { leadText, readLead, readTiers, tiersText } from "./fab/steps-text.ts";
export { TOLERANCES, type Tolerances } from "./fab/tolerances.ts";
export { FINDING_TAGS, type FindingTag } from "./finding-tags.ts";
// what is said of input
export { type Finding, few, type Level } from "./findings.ts";
export { type CardEdge, cardEdgesOf, railsOnContacts, SHARE_IN_PARALLEL } from "./fit/card-edge.ts";
// what goes into what
export {
  cornerOf,
  type HoleFeature,
  holesOf,
  pinHolesOf,
  type SlotFeature,
  slotsOf,
} from "./fit/features.ts";
export { type FitResult, judgeFit } from "./fit/fit.ts";
export { INTENDED } from "./fit/intended.ts";
export { matchPosts, oddReading, type PostsMatch, readPosts } from "./fit/points.ts";
export { CUTTERS_MM, NECK_MM, type Routing, routingOf } from "./fit/routing.ts";
export type { FitJudged, FitRow, FitSpec, Intended } from "./fit/row.ts";
export { missChance } from "./fit/together.ts";
export type { FlowAsk, FlowCopper, FlowPin } from "./flow/ask.ts";
export { RISE_K } from "./flow/copper-facts.ts";
export { type Flow, flowOf } from "./flow/flow.ts";
export type { FlowHole, FlowPicture, FlowStretch } from "./flow/worst-places.ts";
export type { Plan } from "./geometry/plan.ts";
// layer images
export { KIND, type LayerImage } from "./gerber/image.ts";
export { readLayer } from "./gerber/read.ts";
export { ringsOf, shapesOf, shapesOfObject } from "./gerber/shapes.ts";
export { addTo } from "./grouped.ts";
export { type HeatPresses, type HeatStand, heatStand } from "./heat/by-eye.ts";
export { type HeatJudged, type HeatRefused, judgeHeat, type ProbeHeat } from "./heat/judge.ts";
export { type HeatLog, readHeatLog } from "./heat/log.ts";
export { ALLOY_WORDS, ALLOYS, type Alloy, type HeatWindow, WINDOWS, windowShape } from "./heat/window.ts";
export { contradictionOf } from "./learn/contradict.ts";
export {
  type ErratumSpot,
  erratumPlaces,
  type PlaceChange,
  type RunErratum,
} from "./learn/erratum.ts";
export {
  isOnBoard,
  type Judgement,
  judgeOnBoard,
  type LearnBoard,
  type LessonVerdict,
} from "./learn/judge-board.ts";
export {
  type LessonCheck,
  type LessonKind,
  type LessonPlace,
  lessonWords,
  type RunLesson,
  SUSPECT_KINDS,
} from "./learn/lesson.ts";
export { lessonPlaces } from "./learn/lesson-places.ts";
export { type LessonEvent, type LessonProposal, proposeLessons, triedInFiles } from "./learn/propose.ts";
export { reworkedRevision } from "./learn/reworked.ts";
// parts, what must match, rules of lines without a number
export { type Attribute, attributesOf } from "./library/attributes.ts";
export { type CameInstead, cameInstead, isDoubtful } from "./library/came-instead.ts";
export { type Candidate, candidatesFor, partOfLine } from "./library/candidates.ts";
export { readAmount, type Standing } from "./library/compare.ts";
export { factsOfLine, kindOfLine, lineKey, type PartFacts, ruleWords } from "./library/facts.ts";
export { meetNumbers } from "./library/meet-numbers.ts";
export {
  type Alternate,
  FIT_AFTER,
  type FitAfter,
  type LibraryPart,
  PART_KINDS,
  PART_STATES,
  type PartKind,
  type PartState,
} from "./library/part.ts";
export { ASSUMED, type ClassRules, type RuleKind, ruleOf, SETTLED, usualRules } from "./library/rules.ts";
export { apart, type LotSample, type SampleResult, sampleOf } from "./library/sample.ts";
export { type Decoupled, NEAR_MM } from "./meet/decoupling.ts";
export { type FirstPower, feedWalk, type PowerStage, type RailCard } from "./meet/first-power.ts";
export { type Floating, floatsOf } from "./meet/floats.ts";
export {
  judgeLink,
  type LinkPosition,
  type LinkRow,
  type LinkStanding,
  maySet,
  proposedPositions,
} from "./meet/links.ts";
export type { RailLoad } from "./meet/load-kinds.ts";
export {
  judgePair,
  type Laid,
  laidOver,
  type Meeting,
  type MeetMode,
  type MetMode,
  type MetPair,
  meet,
  type Numbering,
  type PairVerdict,
  type Pin,
  type PinKind,
  PUT_IN,
  type Put,
  putOf,
  putTogether,
} from "./meet/meet.ts";
export { type HarmlessOrder, harmlessOrder, MOST_ORDERED } from "./meet/order.ts";
export { type PinText, readPinText, readRange, readVolts } from "./meet/pin-text.ts";
export { powerMap } from "./meet/power.ts";
export { type MeetRow, type MeetStanding, proposedPin } from "./meet/row.ts";
export type { PowerFinding, PowerLink, PowerMap, PowerRail } from "./meet/supplies.ts";
export { isConnector, type WiredPart, wiringOf } from "./meet/wiring.ts";
// exact money
export * from "./money/money.ts";
export { otherCurrency, unitPrice } from "./money/price-cell.ts";
export { decimalMark, isOpenPrice, type MarkReading, plainPrice } from "./money/price-text.ts";
export { railOf } from "./netlist/rails.ts";
export { type OrderRule, orderRules } from "./order-sheet/rules.ts";
export { choose } from "./order-sheet/settle.ts";
export { copperPrint, PATCH_MM, printWay, RESISTS, type Resist, testPatch } from "./own-bench/print.ts";
export { BENCH_CAUTIONS, bathMl, type Recipe, recipeOf } from "./own-bench/recipe.ts";
export { type PanelChoice, specOf } from "./panel/choice.ts";
export { type DesignParts, panelDesign } from "./panel/design.ts";
export { tabRing } from "./panel/hold/tab-body.ts";
export { type HeldTab, ownTabsOf, type TabAt, TabHand } from "./panel/hold/tab-hand.ts";
export { clashAt } from "./panel/lay/clash.ts";
export { layoutAt } from "./panel/lay/layout.ts";
export { sagMm } from "./panel/lay/sag.ts";
export { solvePanel } from "./panel/lay/solve.ts";
export {
  ALL_TURNS,
  DEFAULT_SPEC,
  isRefusal,
  type PanelDesign,
  type PanelLayout,
  type PanelRefusal,
  type PanelSpec,
  type Separation,
  type SheetSide,
  SIDES,
  type Tab,
  WASTE,
  type WriteMode,
} from "./panel/spec.ts";
// sheets of several boards
export { cornersPlan, nestPlan, sisterPlan, trayPlan } from "./panel/write/aids.ts";
export { panelPlan } from "./panel/write/drawing.ts";
export { drillPlan, drillWorkOf } from "./panel/write/drill-aid.ts";
export { type PanelProof, type ProvenSource, provePanel } from "./panel/write/proof.ts";
export { writePanel } from "./panel/write/write.ts";
// places of parts
export { looksLikePlacement, type Placement, readPlacement } from "./placement/placement.ts";
export { settlePlacements } from "./placement/settle.ts";
// what it must sell for
export { type Channel, type ChannelPrice, type Pricing, priceDocument } from "./price/price.ts";
// what to try on a bare board
export {
  type Probe,
  type ProbeDocument,
  type ProbePoint,
  probeBoard,
} from "./probe/probe.ts";
export { isWithin } from "./program/version.ts";
// what goes out
export { drawSide } from "./release/drawing.ts";
export {
  boardFolder,
  isSentWith,
  PACKAGE_FILES,
  type PackageFileKind,
  packageFileKind,
  sheetFolder,
} from "./release/package-files.ts";
export { boardSvg, type PictureColours } from "./release/picture.ts";
export { basketTables, planPackage } from "./release/plan.ts";
export { panelStem, slug } from "./release/planned.ts";
export {
  judgeRight,
  RIGHT_WORDS,
  type Right,
  type RightKind,
  SALE_WORDS,
  type SaleQuestion,
} from "./rights/right.ts";
// what a file is
export type { Role, Side } from "./role/role.ts";
// the order of work
export { pocketPlan, rackPlan } from "./run/assemble/bench-plans.ts";
export { consumablesOf } from "./run/assemble/consumables.ts";
export { type FirstArticlePlan, firstArticlePlan, pluggedRef } from "./run/assemble/first-article.ts";
export { FLUXES, type Flux } from "./run/assemble/material.ts";
export { ownWork, type WorkRow } from "./run/assemble/own-work.ts";
export { type Pocket, type PocketPlate, pocketPlate } from "./run/assemble/pocket-plate.ts";
export {
  lookedAt,
  type RotationClass,
  rotationClasses,
  turnedBy,
  type ZeroPad,
} from "./run/assemble/rotations.ts";
export type { Route, WayChange } from "./run/assemble/route.ts";
export {
  type Crossing,
  crossingsOf,
  type HardPart,
  hardestParts,
  type RouteCurve,
  routesOf,
} from "./run/assemble/routes.ts";
export { type PartsOfLine, setSide, setWay } from "./run/assemble/set-way.ts";
export { type PlanOfRun, planOfRun, type StepsDocument } from "./run/assemble/steps-document.ts";
export { type Carried, carriedOn } from "./run/assemble/tests/carried.ts";
export {
  type FirstPowerCard,
  firstPowerItems,
  firstPowerOf,
  limitWords,
  type PowerHazard,
} from "./run/assemble/tests/first-power.ts";
export { type FlowPlan, flowPlan } from "./run/assemble/tests/flow-asks.ts";
export { type OutputPath, outputPath, pathRatings } from "./run/assemble/tests/output-path.ts";
export {
  type SoonestPlan,
  type StartingItem,
  soonestPlan,
  startingItems,
} from "./run/assemble/tests/starting-items.ts";
export {
  type Coverage,
  comesOf,
  coverageOf,
  limitsOff,
  type PaintedPin,
  type PinStand,
  type ProposedTest,
  proposedTests,
} from "./run/assemble/tests/test-plan.ts";
export type { LineTools } from "./run/assemble/tools.ts";
export { type AssembleDocument, assembleDocument } from "./run/assemble-document.ts";
export { changeSince, placeOfErratum } from "./run/board/erratum-notes.ts";
export { type OpenLesson, openLessons } from "./run/board/lesson-notes.ts";
export { type BesideTest, besideTests } from "./run/build/besides.ts";
export {
  BRIDGE_LADDER,
  type BridgePair,
  bridgeCame,
  bridgeCheck,
  MOST_HEATS,
} from "./run/build/bridge.ts";
export { type ByEye, bothWords, byEye, eyePieces } from "./run/build/by-eye.ts";
export { type LotLeft, leftOnShelf } from "./run/build/closing.ts";
export {
  FACTORS,
  type Factor,
  type FactorKind,
  type FactorRow,
  factorsAtClosing,
  factorsOf,
  weighed,
} from "./run/build/factors.ts";
export { faultsByClass, suspectsOfUnit } from "./run/build/faults.ts";
export { linesOfUnit, type UnitLine } from "./run/build/lines.ts";
export { type NextTime, nextTime } from "./run/build/next-time.ts";
export { LEAST_PACED, type Pace, paceOf } from "./run/build/pace.ts";
export {
  type Readiness,
  type ReadyFrom,
  type ReadyItem,
  readinessOf,
  type ToCome,
} from "./run/build/readiness.ts";
export {
  IDLE_MIN,
  isNoPiece,
  isOnce,
  isWalked,
  type KitLine,
  kitLines,
  kitPieces,
  lostOf,
  minutesOf,
  nextPiece,
  notCounted,
  type Piece,
  pieceBefore,
  piecesOf,
  type StepStand,
  spareByHand,
  stepOfUnit,
  stepStand,
  unitOfStep,
  workedMinutes,
} from "./run/build/sitting.ts";
export {
  type AgainstPlan,
  againstPlan,
  type StepYield,
  seenFaults,
  stepYields,
} from "./run/build/stands-out.ts";
export {
  firstPassOf,
  type ItemStand,
  type ItemSum,
  judgeTry,
  limitsOf,
  type PlannedTest,
  standsOfUnit,
  sumsOfItems,
  type TrySaid,
  verdictOfUnit,
} from "./run/build/tries.ts";
export { heatsOf, TOOLS, type ToolAtHand, toolAtHand, toolsAt } from "./run/build/used.ts";
export { type CostDocument, costDocument } from "./run/cost-document.ts";
export {
  type CurvePoint,
  curvePoint,
  curveQuantities,
  type PointCaches,
  quotedOf,
  togetherOf,
} from "./run/curve.ts";
export { toRunLines } from "./run/document/bill/lines.ts";
export { isUnnamed, type RuleClass, ruleLines } from "./run/document/bill/rule-lines.ts";
export { asTree, timesInProduct, withVariant } from "./run/document/bill/structure.ts";
export { boardFacts } from "./run/document/board-facts.ts";
export {
  boardFor,
  boardKey,
  boardOf,
  ofBoard,
  Places,
  type RunBoard,
  unitOf,
} from "./run/document/boards.ts";
export { directedParts } from "./run/document/directions.ts";
export {
  DEFAULT_ASSEMBLY,
  type FirstArticle,
  type ImageFit,
  type LineOverride,
  type Mount,
  type OrderOfSteps,
  type Origin,
  type ProgramImage,
  type QuoteBasis,
  type RunAssembly,
  type RunChoices,
  type RunDocument,
  type RunGuest,
  type RunLine,
  type RunLot,
  type RunOffer,
  type RunQuote,
  type RunSupplier,
  SOURCE_CLASSES,
  type SourceClass,
  type TestItem,
  type TypedAgain,
  toRunDocument,
  type Variant,
} from "./run/document/document.ts";
export { layChange, layChoices, type RunChange } from "./run/document/lay-change.ts";
export type { Note, StageKey } from "./run/document/note.ts";
export {
  findOrder,
  isOrderOf,
  ORDER_KEY,
  ORDER_KINDS,
  type OrderKey,
  type OrderKind,
  type OrderPlace,
  orderKey,
  orderOf,
} from "./run/document/order-key.ts";
export {
  isTold,
  ORDER_STATES,
  ORDER_STOPS,
  type OrderState,
  orderFacts,
  SAID_BY_HOUSE,
  STEP_WORDS,
  stepWords,
  stopsOf,
} from "./run/document/order-states.ts";
export { inShopCurrency, type LinePart, rateOf, suppliersOf } from "./run/document/parts.ts";
export {
  isDecided,
  isOfRun,
  isTime,
  type MemberRole,
  mayChange,
  mayTakeBack,
  type RunState,
} from "./run/document/policy.ts";
export {
  arrivedOf,
  type BareFault,
  type BareKept,
  type BareTest,
  type BoardMeasured,
  CLAIM_STATES,
  type Claim,
  type ClaimState,
  type Defect,
  type ImageLoad,
  type LotTaken,
  NO_RECORD,
  type OrderStep,
  photosOf,
  photosOfUnit,
  type RunPhoto,
  type RunPurchase,
  type RunReceipt,
  type RunRecord,
  type RunWork,
  refuseMiscount,
  refuseOverKept,
  spotPhotosOf,
  type TestTry,
  tallyOf,
  usableProducts,
} from "./run/document/record.ts";
export type { RunNeed } from "./run/document/run-need.ts";
export {
  BENCH_TOOLS,
  type BenchTool,
  PIECE_MARKS,
  type PieceMark,
  type RunSitting,
} from "./run/document/sitting.ts";
export { type BodiesOnBoard, clashWords, standingOn } from "./run/document/standing.ts";
export { PURPOSES, SURPLUS, type SurplusPurpose, surplusPlan } from "./run/document/surplus.ts";
export { serialOfUnit } from "./run/document/units.ts";
export { type Packing, packingOf, refusedPackings } from "./run/document/usable.ts";
export { BOARD_SIDES, type BoardSide, isForPaste, isMixed } from "./run/document/ways.ts";
export { assemblyHouse } from "./run/document/who-places.ts";
export { type Advice, adviceOn, type Reason } from "./run/fab/advice.ts";
export { cheapestWithin, type FabPick, fabPicks, quickestBelow } from "./run/fab/fab-picks.ts";
export { type FabRequest, fabRequest, type RequestedBoard } from "./run/fab/fab-request.ts";
export { type QuantityRow, quantityRows } from "./run/fab/quantity.ts";
export { carriedWork, firstChoices } from "./run/first-choices.ts";
export type { ActualRun, ActualTerm } from "./run/ledger/actual.ts";
export { leftOffPaste, type OffPaste } from "./run/needs/off-paste.ts";
export { lotsOf } from "./run/needs/usage.ts";
export { placedWords } from "./run/orders/assembly-house.ts";
export { isComplete, saysUnpriced } from "./run/orders/complete.ts";
export type { BoardOrder } from "./run/orders/order-boards.ts";
export { sheetWords } from "./run/orders/order-boards.ts";
export {
  inTime,
  type OrderStand,
  orderStand,
  refuseStep,
} from "./run/orders/order-steps.ts";
export { type Covering, coveringOf, type LaidOut } from "./run/panel/layouts.ts";
export {
  type PanelOffers,
  type PanelProposal,
  panelOffers,
  proposalOf,
  REACHES,
  type Reach,
} from "./run/panel/panel-proposals.ts";
export { figureWords, tolerancedOf } from "./run/parts/sum-notes.ts";
export { trayParts } from "./run/parts/tray.ts";
export { answersRight, type Fits, imageFits } from "./run/program/fits.ts";
export { imagesAt, loadedAt } from "./run/program/places.ts";
export { proveRun } from "./run/prove.ts";
export { type QuoteDocument, quoteDocument, type Wishes } from "./run/quote-document.ts";
export {
  asksMade,
  asksMoisture,
  boughtNumber,
  type DaysDoubted,
  daysDoubted,
  doubtsOfLot,
  type LotDoubt,
} from "./run/receive/asks-made.ts";
export { claimLetter, type Disagrees, disagreesOf } from "./run/receive/claim.ts";
export {
  type BoardJudged,
  judgeLot,
  type LotMeasured,
  looksOf,
  READ_MM,
} from "./run/receive/measured.ts";
export { type BareLeft, bareLeft } from "./run/receive/put-by.ts";
export { type ReferenceSpot, referenceSpots } from "./run/receive/reference.ts";
export { escapeOf, sampleSize } from "./run/receive/sample.ts";
export { countByLength } from "./run/receive/strip.ts";
export {
  type HouseTrend,
  houseTrends,
  isOfBoard,
  LEAST_LOTS,
  LEAST_SHARE,
  type LotBefore,
  type LotSize,
  lotSizes,
  type MadeOf,
  SIZE_KINDS,
  type SizeKind,
} from "./run/receive/trend.ts";
export { countByWeight, type Weighed } from "./run/receive/weigh.ts";
export { openQuestions } from "./run/release/rights-notes.ts";
export { type AtStake, stakesOf, worthMostIn } from "./run/release/stakes.ts";
export {
  type AgainJudged,
  type AskedAgain,
  againWrong,
  askedAgain,
  judgeAgain,
  typedAgain,
} from "./run/release/typed-again.ts";
export { basketKey, rollUp } from "./run/roll-up.ts";
// everything about one run
export { type SheetBoard, sheetBoards, wantedOf } from "./run/sheet/guests.ts";
export { layoutOfChoice, panelOf, panelThickness, runDesigns, sheetsFor } from "./run/sheet/panel.ts";
export { partsOfRun, withoutParts } from "./run/sheet/sheet-parts.ts";
export { scarcityOf } from "./run/source/scarcity.ts";
export { daysBetween, FRESH_DAYS } from "./run/source/source-notes.ts";
export { isBeingRead } from "./run/stage/being-read.ts";
export { type MeasurePoint, measurePoints } from "./run/stage/calliper-points.ts";
export { type Reading, readReading } from "./run/stage/calliper-reading.ts";
export type { Effect, HouseEffect, WhatIf } from "./run/stage/effect.ts";
export { type FitStanding, judgeFits } from "./run/stage/fits.ts";
export { judgeLessons, type LearnFrom, type LessonStanding, learnBoard } from "./run/stage/lessons.ts";
export { type BoardVolts, voltsOn, withoutBoard } from "./run/stage/meetings.ts";
export { type PlannedItem, type PlannedOrder, plannedOrders } from "./run/stage/planned-orders.ts";
export { type PurchaseOrder, purchaseOrder, purchaseRows } from "./run/stage/purchase-order.ts";
export { readyBy } from "./run/stage/ready.ts";
export type { BasketCache, RunResult } from "./run/stage/result.ts";
export {
  briefOf,
  byUrgency,
  type OrderBrief,
  type OrderSoFar,
  type Waiting,
  waitingFor,
} from "./run/stage/waiting.ts";
export { type CutPaste, cutPaste, foilWishes, withCutPaste } from "./run/stencil/foil-cut.ts";
export { changeWords, chosenFoil, type FoilStanding, standingOf } from "./run/stencil/foils.ts";
export { type PasteWay, type StencilNeed, stencilNeed } from "./run/stencil/stencil-need.ts";
export { whatIf } from "./run/what-if.ts";
// what is built is numbered
export {
  boardOfSerial,
  checkSymbol,
  type ReadSerial,
  readSerial,
  ruleWrong,
  serialOf,
  USUAL_RULE,
} from "./serial/serial.ts";
export { CHOICE_FIELDS, type ChoiceField } from "./shape/choice-fields.ts";
// shapes of documents that come from elsewhere
export { contradictions, houseFile, readHouseFile } from "./shape/house-file.ts";
export * as shapes from "./shape/index.ts";
export { LINE_FIELDS, type LineFieldKey, MOUNTS, ORIGINS } from "./shape/line-fields.ts";
export { PART_FIELDS, type PartField, type PartFieldKey } from "./shape/part-fields.ts";
export type { DataShape } from "./shape/shape.ts";
export { SHOP_FIELDS, type ShopField, type ShopFieldKey, type ShopSettings } from "./shape/shop-fields.ts";
export { bagCode, readBag } from "./shelf/bag.ts";
export { type MadeIn, madeWords, monthsOld, OLD_YEARS, readDateCode } from "./shelf/date-code.ts";
export {
  AIR_STEPS,
  type AirEvent,
  type AirState,
  type AirStep,
  airOf,
  FLOOR_HOURS,
  type LotAir,
  MOST_AIR,
  moistureLevel,
  needsBaking,
  nextAir,
} from "./shelf/dry-bag.ts";
export { type Kept, type Low, lowOf } from "./shelf/low.ts";
export { betweenWords, type MadeBetween, readBetween, type WasMade, wasMade } from "./shelf/made-between.ts";
export { type LotChange, type LotMove, movesOf } from "./shelf/moves.ts";
// baskets, offers, quotations
export { bestBasket, proveBasket } from "./sourcing/basket.ts";
export { type OfferChange, offerChanges } from "./sourcing/changes.ts";
export { cheapestPerLine, findBaskets } from "./sourcing/compare-baskets.ts";
export {
  type BasketReasons,
  explainBasket,
  explainLine,
  type LineReason,
  type Otherwise,
  type QtyReason,
} from "./sourcing/explain.ts";
export { sourceDocument, toInstance } from "./sourcing/instance.ts";
export type { Basket, Need, Proof } from "./sourcing/need.ts";
export { cheapestBuy, type Offer, priceAt, type Supplier } from "./sourcing/offer.ts";
export { QUICK_EFFORT } from "./sourcing/optimum.ts";
export { type QuotedOffer, readQuotation, recogniseQuotation } from "./sourcing/quotation.ts";
export type { LinearModel, Solve, SolverAnswer } from "./sourcing/residual.ts";
export { savedTogether } from "./sourcing/together.ts";
export type { CorrectionWishes } from "./stencil/correct.ts";
export { coverPlan } from "./stencil/cover-plan.ts";
export { type FoilPlace, type FoilWork, foilWork } from "./stencil/foil.ts";
export { BEAD_G, POWDERS, pasteNeed, WIPED } from "./stencil/paste.ts";
export { FOIL_SIDES, type Foil, type FoilSide, openingsToKeep } from "./stencil/reuse.ts";
export { STEP_CAUTIONS } from "./steps/cautions.ts";
export { whyNotBefore } from "./steps/conflicts.ts";
export { figuresOf, gateCost, isGate, type OrderFigures } from "./steps/gates.ts";
export { HOLDS, type Hold, holdOf, wantsPlate } from "./steps/hold.ts";
export { ODD_WAYS, type OddWay } from "./steps/odd.ts";
export { conflictsIn, workOrder } from "./steps/order.ts";
export { SCHOOL_WORDS } from "./steps/school.ts";
export {
  type Conflict,
  type Remedy,
  SCHOOLS,
  type School,
  type Step,
  type StepKind,
  WORK_WORDS,
  type Work,
  type WorkOrder,
  type WorkPart,
} from "./steps/step.ts";
// sums attached to lines
export { type AttachedSum, standingSum } from "./sums/evaluate.ts";
export { SUM_KINDS, sumKind } from "./sums/kinds.ts";
export { type Account, type ColumnAccount, saysAccount } from "./table/account.ts";
// cells with headings
export type { Cells } from "./table/columns.ts";
export { chooseSheet } from "./table/sheets.ts";
export { type Besides, besidesWords } from "./testing/besides.ts";
export { boardsNamed, type Compared, compareSettings } from "./testing/experiment.ts";
export {
  isTooFar,
  type LineFit,
  type LinePoint,
  linesOf,
  lineValue,
  lineWords,
  lineWrong,
  offWords,
  type PlannedLine,
  pointWords,
} from "./testing/line-fit.ts";
export {
  type LoadSaid,
  loadOf,
  loadWords,
  type OutputLoad,
  type OutputRating,
  USUAL_SHARE,
  unratedOf,
} from "./testing/load.ts";
export {
  isolationText,
  loadText,
  ratingsText,
  readIsolation,
  readLoad,
  readRatings,
} from "./testing/load-text.ts";
export { readInUnit, readPoints, type TypedPoints } from "./testing/point-text.ts";
// readings and what they come to
export { readTyped, type TypedReading } from "./testing/reading.ts";
export type { Suspect } from "./testing/suspects.ts";
export {
  ALIKE,
  isSymptom,
  minutesToFind,
  PRIOR_FAULTS,
  type RankedCause,
  rankedCauses,
  SYMPTOMS,
  type Symptom,
} from "./testing/symptoms.ts";
export {
  type Capability,
  judgeReading,
  type Limits,
  limitsWrong,
  limitText,
  TRY_VERDICTS,
  type TryVerdict,
  testLimits,
} from "./testing/verdict.ts";
export { sentence } from "./words.ts";
// what was found wrong
export { type Bar, classOf, type DefectRates, defectRates, pareto, wilson } from "./yield/defects.ts";

import { type BoardTime, secondsOf, TRIM_SECONDS } from "../../assembly/time.ts";
import { defectsOf, REPAIRABLE, type YieldEstimate } from "../../assembly/yield.ts";
import { numberKey } from "../../bom/number.ts";
import { partsByNumber } from "../../library/candidates.ts";
import { toMicros } from "../../money/money.ts";
import { moistureLevel } from "../../shelf/dry-bag.ts";
import { workOrder } from "../../steps/order.ts";
import type { GivenPart, Work, WorkBoard, WorkOrder, WorkPart } from "../../steps/step.ts";
import { heatNeeds, isWashed, reachesByIron } from "../document/bill/as-made.ts";
import { boardOf, ofBoard, Places } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import { standingOn } from "../document/standing.ts";
import { mayHeat } from "../document/ways.ts";
import { mendMinutes } from "../stage/mending.ts";
import type { Minutes } from "../stage/minutes.ts";
import type { RunResult } from "../stage/result.ts";
import type { Worked } from "../stage/stage.ts";

/** What the order of work is made from, beside the document: of a roll-up, or while one is under way. */
export interface WorkGiven extends Pick<Worked, "parts" | "start" | "needs" | "basket" | "sides" | "goes"> {
  readonly quality: YieldEstimate;
  readonly time: BoardTime;
  readonly minutes: Minutes;
  /** Heights of bodies, by the names of parts: what the library does not say is taken from packages. */
  readonly heights?: ReadonlyMap<string, number>;
}

/** The order of work of a run as it is rolled up. @param doc as it is made, its variant laid over */
export const orderOfRun = (doc: RunDocument, r: RunResult): WorkOrder =>
  workOrder(workOf(doc, givenOf(r, doc)));

/** @param doc whose bodies tell the heights the library does not */
export const givenOf = (r: RunResult, doc: RunDocument): WorkGiven => ({
  ...r,
  quality: r.yield,
  heights: new Map(
    doc.boards.flatMap((board) =>
      standingOn(doc, board).bodies.flatMap(({ ref, heightMm }) =>
        heightMm === undefined
          ? []
          : [[doc.boards.length > 1 ? `${ref} of ${board.name}` : ref, heightMm] as const],
      ),
    ),
  ),
});

/** Moisture levels that are opened last: 3 and worse, and what nobody can read (domain.md 7.10). */
const isMoist = (level: string): boolean => !["", "1", "2", "2a"].includes(moistureLevel(level) ?? "?");

/** What a house puts on is not done here; what is not soldered at all is, whoever solders. */
const isOurs = (p: LinePart): boolean => p.kind === "loose" || p.method !== "house";

/**
 * Everything the order of work is made from. Minutes of its steps add up to the run's own minutes.
 * @param doc as it is made
 */
export function workOf(doc: RunDocument, given: WorkGiven): Work {
  const { parts, minutes, start, quality, time } = given;
  const k = quality.record?.timeFactor ?? 1;
  const here = parts.filter(isOurs);
  const seen: Seen = {
    doc,
    given,
    k,
    known: partsByNumber(doc.library ?? []),
    places: new Places(doc),
  };
  const work = here.flatMap((p) => partsOf(seen, p));
  const { assembly } = doc;
  const { boards, left } = boardsOf(doc, given, work, k);
  const mend = k * start * mendMinutes(doc, parts, quality);
  const inspect = (k * start * time.inspect) / 60 + mend;
  const loose = here.filter((p) => p.line.refs.length === 0).map((p) => p.line.id);
  return {
    boards,
    parts: work,
    given: parts
      .filter((p) => !isOurs(p))
      .flatMap((p) =>
        p.line.refs.map((ref) => ({
          name: `${ref}${ofBoard(doc, p.line)}`,
          ref,
          board: boardIndex(doc, p),
          covers: coversOf(seen, p, ref),
          ...givenOn(seen, p, ref),
        })),
      ),
    programAt: assembly.programAt ?? [],
    testAt: assembly.testAt ?? [],
    programLoose: assembly.programLoose ?? [],
    minutes: {
      kit: minutes.kitting + left,
      ...(minutes.parting > 0 ? { depanel: minutes.parting } : {}),
      ...(isWashed(doc, parts) ? { clean: minutes.cleaning } : {}),
      ...(inspect > 0 ? { inspect, mend } : {}),
      ...(assembly.testMinutes > 0 ? { test: k * start * assembly.testMinutes } : {}),
      ...(assembly.packMinutes > 0 || loose.length > 0 ? { seal: k * start * assembly.packMinutes } : {}),
    },
    loose,
    school: doc.choices.steps?.school ?? "low",
    ...(doc.choices.steps?.own ? { own: doc.choices.steps.own } : {}),
    ...(assembly.heater ? { heater: assembly.heater } : {}),
    start,
    minuteMicros: toMicros(doc.workshop.hourlyRate) / 60,
    repairable: REPAIRABLE,
    bagMinutes: minutes.kitting / Math.max(1, parts.length),
  };
}

function boardIndex(doc: RunDocument, p: LinePart): number {
  const board = boardOf(doc, p.line);
  return board ? Math.max(0, doc.boards.indexOf(board)) : 0;
}

/** What every part is looked at with. */
interface Seen {
  readonly doc: RunDocument;
  readonly given: WorkGiven;
  readonly k: number;
  readonly known: ReturnType<typeof partsByNumber>;
  readonly places: Places;
}

/** Where a house puts a part, and what is known of its weight. */
function givenOn(
  { known, places }: Seen,
  p: LinePart,
  ref: string,
): Pick<GivenPart, "side" | "isThrough" | "massMg" | "wettedMm2"> {
  const part = p.line.mpn === "" ? undefined : known.get(numberKey(p.line.mpn));
  return {
    side: places.of(p.line, ref)?.side ?? "top",
    isThrough: p.kind === "through",
    ...(part?.massMg === undefined ? {} : { massMg: part.massMg }),
    ...(part?.wettedMm2 === undefined ? {} : { wettedMm2: part.wettedMm2 }),
  };
}

/** What a part hides: by the library, and as it was said for the run. */
function coversOf({ doc, known }: Seen, p: LinePart, ref: string): string[] {
  const part = p.line.mpn === "" ? undefined : known.get(numberKey(p.line.mpn));
  return [...new Set([...(part?.covers ?? []), ...(doc.assembly.covers?.[p.line.id] ?? [])])].filter(
    // of several pieces of a line one does not hide itself
    (x) => x !== ref || p.line.refs.length === 1,
  );
}

/** A line's parts, each with its share of the line's minutes and defects. */
function partsOf(seen: Seen, p: LinePart): WorkPart[] {
  const { doc, given, k, known, places } = seen;
  const { refs } = p.line;
  if (refs.length === 0) return [];
  const part = p.line.mpn === "" ? undefined : known.get(numberKey(p.line.mpn));
  const share = 1 / refs.length;
  const seconds = secondsOf(p);
  const defects = defectsOf(p);
  const how = p.kind === "loose" ? "mechanical" : p.method === "stencil" ? "paste" : "iron";
  const isThrough = p.kind === "through" && how === "iron";
  const run = (s: number) => (k * given.start * s * share) / 60;
  const needsC = heatNeeds(doc);
  return refs.map((ref): WorkPart => {
    const place = places.of(p.line, ref);
    const name = `${ref}${ofBoard(doc, p.line)}`;
    const heightMm = part?.heightMm ?? given.heights?.get(name);
    return {
      name,
      ref,
      board: boardIndex(doc, p),
      line: p.line.id,
      side: place?.side ?? "top",
      ...(place || how !== "paste" ? {} : { isSideGuessed: true }),
      how,
      canIron: reachesByIron(p.line),
      isThrough,
      isPolarised: p.isPolarised,
      joints: p.joints,
      ...(heightMm === undefined ? {} : { heightMm }),
      ...(part?.massMg === undefined ? {} : { massMg: part.massMg }),
      ...(part?.wettedMm2 === undefined ? {} : { wettedMm2: part.wettedMm2 }),
      isMoist: isMoist(part?.moisture ?? ""),
      ...(part?.peakC === undefined ? {} : { peakC: part.peakC }),
      ...(part?.peakC !== undefined && mayHeat(doc) && part.peakC < needsC
        ? { tooHot: { standsC: part.peakC, needsC } }
        : {}),
      ...fitAfterOf(doc, p, how, part?.fitAfter),
      opensOnce: part?.opensOnce ?? false,
      ...(how !== "mechanical" && doc.assembly.odd?.[p.line.id] ? { odd: doc.assembly.odd[p.line.id]! } : {}),
      covers: coversOf(seen, p, ref),
      micros: unitMicros(given, p.line.id) * p.count * share,
      minutes: run(seconds.place + seconds.solder),
      trimMinutes: isThrough ? run(p.count * p.joints * TRIM_SECONDS) : 0,
      defects: (defects.joints + defects.placing) * share,
      ...(place ? { xMm: place.xMm, yMm: place.yMm } : {}),
    };
  });
}

/** After what a part goes on: by the library, or as a person chose for what is not on paste. */
function fitAfterOf(
  doc: RunDocument,
  p: LinePart,
  how: WorkPart["how"],
  known: WorkPart["fitAfter"],
): Pick<WorkPart, "fitAfter"> {
  if (how !== "paste" && doc.choices.steps?.afterTest?.includes(p.line.id)) return { fitAfter: "test" };
  return known ? { fitAfter: known } : {};
}

/** What one of a line costs: the mean of what is bought of it and taken from the shelf; 0 where nothing is known. */
function unitMicros({ needs, basket }: Pick<WorkGiven, "needs" | "basket">, line: string): number {
  const i = needs.findIndex((n) => n.lines.includes(line));
  const buys = basket.lines[i]?.buys ?? [];
  const shelf = needs[i]?.shelf ?? [];
  const pieces = [...buys, ...shelf].reduce((n, b) => n + b.qty, 0);
  const cost = [...buys, ...shelf].reduce((n, b) => n + b.cost, 0);
  return pieces === 0 ? 0 : cost / pieces;
}

/** Minutes of set-up, prints and heats by board; what no step takes is left for the first. */
function boardsOf(
  doc: RunDocument,
  given: WorkGiven,
  parts: readonly WorkPart[],
  k: number,
): { boards: WorkBoard[]; left: number } {
  const { minutes, start, time } = given;
  const list = doc.boards.length > 0 ? doc.boards : [{ name: doc.product, perProduct: 1 }];
  const of = list.map((b, i) => {
    const pasted = parts.filter((p) => p.board === i && p.how === "paste");
    return {
      name: b.name,
      sides: new Set(pasted.map((p) => p.side)).size,
      perProduct: b.perProduct,
      hasIron: parts.some((p) => p.board === i && p.how === "iron"),
    };
  });
  const sides = of.reduce((n, b) => n + b.sides, 0);
  const weights = of.reduce((n, b) => n + b.sides * b.perProduct, 0);
  const ironed = of.filter((b) => b.hasIron).length;
  const run = (seconds: number) => (k * start * seconds) / 60;
  const { goes } = given;
  const isPrinted = goes.has("stencil") && sides > 0;
  const isIroned = goes.has("iron") && goes.size === 1 && ironed > 0;
  return {
    boards: of.map((b) => ({
      name: b.name,
      printMinutes:
        (isPrinted ? minutes.setup / sides : 0) +
        (weights > 0 ? (run(time.print) * b.perProduct) / weights : 0),
      heatMinutes: weights > 0 ? (run(time.reflow) * b.perProduct) / weights : 0,
      ironMinutes: isIroned && b.hasIron ? minutes.setup / ironed : 0,
    })),
    left: isPrinted || isIroned ? 0 : minutes.setup,
  };
}

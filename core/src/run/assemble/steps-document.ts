import { bothSizes } from "../../bom/chip-size.ts";
import { counted } from "../../counted.ts";
import type { ToolVerdict } from "../../equipment/equipment.ts";
import { ALLOY_WORDS, WINDOWS } from "../../heat/window.ts";
import { judgeLink } from "../../meet/links.ts";
import { microsToText, roundMoney } from "../../money/money.ts";
import { STEP_CAUTIONS, trapsOf } from "../../steps/cautions.ts";
import { isGate } from "../../steps/gates.ts";
import { HOLDS, wantsPlate } from "../../steps/hold.ts";
import { ODD_WAYS, type OddWay } from "../../steps/odd.ts";
import { workOrder } from "../../steps/order.ts";
import {
  type School,
  type Side,
  type Step,
  type StepKind,
  WORK_WORDS,
  type Work,
  type WorkOrder,
} from "../../steps/step.ts";
import { besidesWords } from "../../testing/besides.ts";
import { Reaches } from "../../testing/reach.ts";
import { asMade } from "../document/bill/as-made.ts";
import { directedParts } from "../document/directions.ts";
import type { RunDocument, TestItem } from "../document/document.ts";
import { wiredOf } from "../document/wired.ts";
import { loadWords } from "../program/places.ts";
import type { RunResult } from "../stage/result.ts";
import { FLUXES, washWords } from "./material.ts";
import { comesOf, coverageOf } from "./tests/test-plan.ts";
import { boardInHeat, heightsOf, type LineTools, lineTools, stepTools, tipHeatWords } from "./tools.ts";
import { givenOf, workOf } from "./work.ts";

/** A line of a step, as who solders needs it. */
export interface StepsLine {
  readonly line: string;
  /** Empty for what has no reference. */
  readonly refs: readonly string[];
  readonly value: string;
  readonly package: string;
  readonly mpn: string;
  /** Pieces in one product. */
  readonly pieces: number;
  /** How its direction is marked; empty where it has one and nobody wrote down how. */
  readonly mark?: string;
  /** Where it lies on the own shelf. */
  readonly lies?: readonly string[];
  /** What it is soldered, seen and held with. */
  readonly tools: LineTools;
}

export interface StepsRow {
  readonly n: number;
  readonly kind: StepKind;
  readonly words: string;
  readonly board?: string;
  readonly side?: Side;
  /** Its parts are soldered unlike the others. */
  readonly odd?: OddWay;
  readonly refs: readonly string[];
  readonly lines: readonly StepsLine[];
  /** Machines of the shop it is done with, each with what it can and cannot. */
  readonly tools: readonly ToolVerdict[];
  readonly minutes: number;
  readonly after: readonly number[];
  readonly covers: readonly string[];
  readonly protects?: string;
  readonly because: readonly string[];
  readonly traps: readonly string[];
  /** How it is done well, and what the material wants. */
  readonly how: readonly string[];
  readonly caution: string;
}

/** The order of work as a document of its own, `steps/1`: printed, exported, and frozen with the release. */
export interface StepsDocument {
  readonly kobbin: "steps/1";
  readonly product: string;
  readonly revision: string;
  readonly run: string;
  readonly start: number;
  readonly school: School;
  readonly alloy: "lead" | "silver" | "bismuth";
  readonly currency: string;
  readonly minutes: number;
  readonly steps: readonly StepsRow[];
  readonly conflicts: readonly { readonly refs: readonly string[]; readonly text: string }[];
}

/** The order of work of a run: what it was made from, the steps, and the same for paper, export and release. */
export interface PlanOfRun {
  readonly work: Work;
  readonly order: WorkOrder;
  readonly sheet: StepsDocument;
}

export function planOfRun(given: RunDocument, r: RunResult): PlanOfRun {
  const doc = asMade(given);
  const work = workOf(doc, givenOf(r, doc));
  const order = workOrder(work);
  return { work, order, sheet: sheetOf(doc, r, work, order) };
}

/** The steps with what each needs to be done from paper alone. */
function sheetOf(doc: RunDocument, r: RunResult, work: Work, { steps, conflicts }: WorkOrder): StepsDocument {
  const marks = new Map(directedParts(doc, r.parts).map((d) => [d.line, d.mark ?? ""]));
  // of a line whose parts go several ways those that the step is about
  const partOf = (id: string, refs: readonly string[]) =>
    r.parts.find(
      (p) => p.line.id === id && (refs.length === 0 || p.line.refs.includes(refs[0]!.split(" of ")[0]!)),
    )!;
  const heights = heightsOf(work);
  const lineOf = (kind: StepKind, id: string, refs: readonly string[]): StepsLine => {
    const part = partOf(id, refs);
    const { line, count } = part;
    const mark = marks.get(id);
    const lies = (r.needs.find((n) => n.lines.includes(id))?.shelf ?? []).flatMap((t) => t.lot.place || []);
    return {
      line: id,
      refs,
      value: line.valueText || line.description,
      package: bothSizes(line.package),
      mpn: line.mpn,
      pieces: refs.length === 0 || refs.length === line.refs.length ? count : refs.length,
      ...(mark === undefined ? {} : { mark }),
      ...(lies.length > 0 ? { lies: [...new Set(lies)] } : {}),
      tools: lineTools(doc, { kind }, part, heights.get(refs[0] ?? "")),
    };
  };
  return {
    kobbin: "steps/1",
    product: doc.product,
    revision: doc.revision,
    run: doc.name,
    start: r.start,
    school: work.school,
    alloy: doc.assembly.alloy ?? "silver",
    currency: doc.workshop.currency,
    minutes: r.ownMinutes,
    steps: steps.map(({ board, protects, lines, ...s }) => {
      const of = lines.map((l) => lineOf(s.kind, l.line, l.refs));
      return {
        ...s,
        words: s.odd ? `${WORK_WORDS[s.kind]}: ${ODD_WAYS[s.odd].words}` : WORK_WORDS[s.kind],
        ...(board !== undefined && doc.boards.length > 1 ? { board: doc.boards[board]!.name } : {}),
        lines: of,
        tools: stepTools({ doc, orders: r.orders, start: r.start }, work, {
          ...s,
          ...(board === undefined ? {} : { board }),
        }),
        ...(isGate(s.kind)
          ? { protects: microsToText(roundMoney(protects?.all ?? 0, doc.workshop.currency)) }
          : {}),
        traps: trapsOf(lines.map((l) => ({ refs: l.refs, package: partOf(l.line, l.refs).line.package }))),
        how: howOf(doc, { ...s, ...(board === undefined ? {} : { board }) }, of, r, work),
        caution: STEP_CAUTIONS[s.kind],
      };
    }),
    conflicts: conflicts.map(({ refs, text }) => ({ refs, text })),
  };
}

/** How a step is done well (domain.md 7.6, 7.8, 7.9); what a sheet of the material says comes first. */
function howOf(
  doc: RunDocument,
  step: Pick<Step, "kind" | "board" | "side" | "odd" | "refs">,
  lines: readonly StepsLine[],
  r: RunResult,
  work: Work,
): string[] {
  const odd = oddWords(doc, step, lines);
  switch (step.kind) {
    case "print":
      return [
        `${doc.assembly.foilMm ? `Foil of ${doc.assembly.foilMm} mm. ` : ""}Paste warmed closed for 4 h at least; what is printed is melted within 4 h.`,
      ];
    case "place":
      return [
        ...odd,
        lines.some((l) => l.mark !== undefined)
          ? "All of a line at once; those with a direction are checked off one by one."
          : "All of a line at once.",
      ];
    case "heat":
      return [...heatWords(doc, r.start), ...boardInHeat(doc, work, step)];
    case "iron":
      return [...odd, tipHeatWords(doc), ...fluxWords(doc), ...holdWords(lines, work)];
    case "clean":
      return washWords(doc);
    case "program":
    case "program-before":
      return loadWords(doc, step.refs);
    case "test":
      return [...linkWords(doc), ...testWords(doc)];
    case "inspect":
      return [
        "Bridges, joints without solder, parts that stand up or lie turned; directions against the list once more.",
      ];
    default:
      return [];
  }
}

/** How what is unlike the others is done: of the whole step, or by name where it is one pass with others. */
function oddWords(doc: RunDocument, step: Pick<Step, "odd">, lines: readonly StepsLine[]): string[] {
  if (step.odd) return [ODD_WAYS[step.odd].how];
  return lines.flatMap((l) => {
    const way = doc.assembly.odd?.[l.line];
    return way ? [`${l.refs.join(", ")}, ${ODD_WAYS[way].words}: ${ODD_WAYS[way].how}`] : [];
  });
}

const fluxWords = ({ assembly: { flux } }: RunDocument): string[] =>
  flux ? [`Flux is ${FLUXES[flux].label}: ${FLUXES[flux].words}.`] : [];

/** How the parts of a step are held, a sentence a way; several heights at once want a plate. */
function holdWords(lines: readonly StepsLine[], work: Work): string[] {
  const ways = [...new Set(lines.flatMap((l) => l.tools.hold ?? []))];
  const names = (of: (l: StepsLine) => boolean) =>
    ways.length > 1
      ? `${lines
          .filter(of)
          .flatMap((l) => l.refs)
          .join(", ")}: `
      : "";
  const refs = new Set(lines.filter((l) => l.tools.hold).flatMap((l) => l.refs));
  const isPlate = wantsPlate(work.parts.filter((p) => refs.has(p.name)));
  return [
    ...ways.map((w) => `${names((l) => l.tools.hold === w)}${HOLDS[w].how}`),
    ...(isPlate && !ways.includes("plate")
      ? [
          "They stand at several heights: a plate with pockets (printed one to one below) holds all of them flat at once.",
        ]
      : []),
  ];
}

/** What is tried, in its order, what should come, and what a pass says of the joints. */
function testWords(doc: RunDocument): string[] {
  const { tests = [] } = doc.assembly;
  const coverage = tests.length === 0 ? undefined : coverageOf(doc);
  const reaches = coverage && new Reaches(wiredOf(doc).parts);
  const idle = new Set(coverage?.idle.map((i) => i.id));
  const says = (t: TestItem) =>
    !reaches || t.besides?.boards !== undefined
      ? ""
      : idle.has(t.id)
        ? "; it exercises nothing"
        : `; a pass says something of ${counted(reaches.tests(t).length, "pin")}`;
  const { tested = 0, implied = 0, never = 0 } = coverage?.cover.pins ?? {};
  return [
    ...tests.map(
      (t, i) =>
        `${i + 1}. ${t.name}${t.state === "bare" ? ", without power" : ""}${t.besides ? `, ${besidesWords(t.besides)}` : ""}${(t.absent ?? []).length > 0 ? `, not on: ${t.absent!.join(" ")}` : ""}: ${comesOf(t)}${says(t)}.`,
    ),
    ...(coverage
      ? [
          `Of ${counted(tested + implied + never, "pin")} ${tested} ${tested === 1 ? "is" : "are"} tested, ${implied} implied, ${never} never: of those a pass says nothing.`,
        ]
      : []),
  ];
}

function heatWords(doc: RunDocument, start: number): string[] {
  const { alloy = "silver", perLoad } = doc.assembly;
  const w = WINDOWS[alloy];
  return [
    `${ALLOY_WORDS[alloy]}${doc.assembly.alloy ? "" : ", taken for granted until it is said"}: soak ${w.soakC.join(" to ")} °C for ${w.soakS.join(" to ")} s, ${w.aboveS.join(" to ")} s above ${w.liquidusC} °C, peak ${w.peakC.join(" to ")} °C on the joint. The paste’s own sheet comes first.`,
    `${counted(Math.ceil(start / Math.max(1, perLoad)), "load")} of up to ${perLoad}. Nothing is moved before it is below ${w.liquidusC} °C and the solder is dull.`,
    ...(doc.assembly.heater
      ? []
      : ["Whether plate or oven melts it is not set for this run: a plate heats only boards that lie flat."]),
  ];
}

/** How the links of a product are to be set before power, and which nobody decided yet. */
function linkWords(doc: RunDocument): string[] {
  const links = (doc.links ?? []).map((row) => ({
    ref: row.board === undefined ? row.ref : `${row.ref} of ${row.board}`,
    at: judgeLink(row, [], doc.choices.variant ?? undefined).position,
  }));
  const set = links.flatMap(({ ref, at }) =>
    at ? [`${ref} ${at.name}${at.does ? ` (${at.does})` : ""}`] : [],
  );
  const open = links.filter((l) => !l.at).map((l) => l.ref);
  return [
    ...(set.length > 0 ? [`Links are set before power: ${set.join(", ")}.`] : []),
    ...(open.length > 0 ? [`Not set yet, and nobody said how: ${open.join(", ")}.`] : []),
  ];
}

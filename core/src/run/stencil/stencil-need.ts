import { boardTime, setupMinutes } from "../../assembly/time.ts";
import { microsToNumber, toMicros } from "../../money/money.ts";
import { boardsPerProduct } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { RunResult } from "../stage/result.ts";
import { stencils } from "./foil-cost.ts";

/** Placeholders of a practised hand: minutes to set a syringe up, seconds for a dot on one pad. */
export const SYRINGE = { setupMin: 10, secondsADot: 4 } as const;
/** Dots by hand bridge below this pitch, mm. */
export const DOTS_PITCH_MM = 0.65;

/** A way to bring solder to the pads. */
export interface PasteWay {
  readonly key: "foil" | "syringe" | "iron";
  readonly label: string;
  /** Own minutes of the run: set-up once, and each board. */
  readonly setupMin: number;
  readonly perBoardMin: number;
  readonly minutes: number;
  /** Own hours and the foil, in the shop's currency. */
  readonly cost: number;
  /** Why it cannot be. */
  readonly cannot?: string;
  /** What goes wrong with it here. */
  readonly risks: readonly string[];
}

/** Whether a foil is worth it, and from how many boards on. */
export interface StencilNeed {
  readonly ways: readonly PasteWay[];
  readonly openings: number;
  /** Boards from which on a foil costs no more than the cheapest of the others that can be; nothing where it never does. */
  readonly breakEven?: number;
  /** The foil that is used again, or the price of a new one. */
  readonly foilCost: number;
}

/** What the ways are judged by. */
interface Scene {
  readonly doc: RunDocument;
  readonly r: RunResult;
  /** Shop's currency for a minute. */
  readonly rate: number;
  readonly openings: number;
  readonly pitchMm: number;
  readonly own: RunResult["parts"];
}

const sceneOf = (doc: RunDocument, r: RunResult): Scene => ({
  doc,
  r,
  rate: toMicros(doc.workshop.hourlyRate) / 1e6 / 60,
  openings: doc.boards.reduce(
    (n, b) => n + b.perProduct * Object.values(b.measure.paste).reduce((k, p) => k + p.count, 0),
    0,
  ),
  pitchMm: Math.min(...doc.boards.map((b) => b.measure.minPitchMm ?? Number.POSITIVE_INFINITY)),
  own: r.parts.filter((p) => p.kind !== "loose"),
});

const refsOf = (list: Scene["own"]) =>
  list
    .flatMap((p) => p.line.refs)
    .slice(0, 4)
    .join(", ");

/** What goes wrong by syringe and by iron, and what cannot be at all. */
function troubleOf({
  own,
  pitchMm,
  openings,
}: Scene): Record<PasteWay["key"], Pick<PasteWay, "cannot" | "risks">> {
  const leadless = own.filter((p) => p.kind === "leadless");
  const balls = own.filter((p) => p.kind === "ball");
  const hidden = [...leadless, ...balls];
  const fine = pitchMm < DOTS_PITCH_MM - 1e-9 ? [`pads ${Number(pitchMm.toFixed(3))} mm apart`] : [];
  const noPaste = openings === 0 ? { cannot: "there is no paste layer" } : {};
  return {
    foil: { ...noPaste, risks: [] },
    syringe: {
      ...noPaste,
      risks: [
        ...fine.map((f) => `${f}: dots by hand run together`),
        ...(hidden.length > 0 ? [`${refsOf(hidden)}: too much under a hidden pad lifts the part`] : []),
      ],
    },
    iron: {
      ...(balls.length > 0 ? { cannot: `${refsOf(balls)} has its joints underneath` } : {}),
      risks: [
        ...(leadless.length > 0 ? [`${refsOf(leadless)}: an iron does not reach the hidden pad`] : []),
        ...fine.map((f) => `${f}: bridges to be drawn off with braid`),
      ],
    },
  };
}

/**
 * Foil, syringe or iron for this run: own time by the model of domain.md 7.3, a dot of paste by hand as {@link SYRINGE}.
 *
 * @param foilCost what foils cost this run, in the shop's currency; where left out, as the run has it
 */
export function stencilNeed(
  doc: RunDocument,
  r: RunResult,
  foilCost = microsToNumber(stencils(doc, r.sides.all)),
): StencilNeed {
  const scene = sceneOf(doc, r);
  const timed = (method: (p: Scene["own"][number]) => "iron" | "stencil") =>
    boardTime(
      scene.own.map((p) => ({ ...p, method: method(p) })),
      doc.assembly.perLoad,
      boardsPerProduct(doc),
      r.sides.all.perProduct,
    );
  const paste = timed((p) => (p.kind === "through" || p.line.mount === "hand" ? "iron" : "stencil"));
  const dots = paste.total - paste.print + scene.openings * SYRINGE.secondsADot;
  const trouble = troubleOf(scene);
  const way = (
    key: PasteWay["key"],
    label: string,
    setupMin: number,
    seconds: number,
    money = 0,
  ): PasteWay => {
    const minutes = setupMin + (r.start * seconds) / 60;
    const cost = minutes * scene.rate + money;
    return { key, label, setupMin, perBoardMin: seconds / 60, minutes, cost, ...trouble[key] };
  };
  const designs = Math.max(1, doc.boards.length);
  const foil = way(
    "foil",
    "through a foil",
    setupMinutes("stencil", designs, r.sides.all.ofDesigns),
    paste.total,
    foilCost,
  );
  const others = [
    way("syringe", "dots by syringe", SYRINGE.setupMin * r.sides.all.ofDesigns, dots),
    way("iron", "iron, part by part", setupMinutes("iron", designs, 1), timed(() => "iron").total),
  ];
  const from = others.filter((w) => !w.cannot).map((w) => breakEven(foil, foilCost, w, scene.rate));
  const isNever = foil.cannot !== undefined || from.length === 0 || from.includes(undefined);
  return {
    ways: [foil, ...others],
    openings: scene.openings,
    foilCost,
    ...(isNever ? {} : { breakEven: Math.max(...(from as number[])) }),
  };
}

/** Boards from which on the foil costs no more: its set-up and price over what a board takes longer by the other way. */
function breakEven(foil: PasteWay, foilCost: number, other: PasteWay, rate: number): number | undefined {
  const once = (foil.setupMin - other.setupMin) * rate + foilCost;
  const each = (other.perBoardMin - foil.perBoardMin) * rate;
  if (once <= 0 && each >= 0) return 1;
  return each > 0 ? Math.max(1, Math.ceil(once / each - 1e-9)) : undefined;
}

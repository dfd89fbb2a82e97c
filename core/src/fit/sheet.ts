import type { PlaceReading } from "../board/measure/place.ts";
import type { Measure } from "../board/measure-document.ts";
import type { Bodies } from "../bodies/body.ts";
import { counted } from "../counted.ts";
import { type Tolerances, tolerancesOf } from "../fab/tolerances.ts";
import { judgeContacts } from "./contacts.ts";
import { cornerOf, featureAt, holesOf, pinHolesOf, slotsOf } from "./features.ts";
import { type FitResult, judgeFit } from "./fit.ts";
import { judgeIntended } from "./intended.ts";
import { judgeFacing, judgeLid, type OtherBoard } from "./over.ts";
import { type FitJudged, type FitRow, type FitSpec, mmWords as mm } from "./row.ts";
import { judgeTabWidth } from "./tab-width.ts";

/** A board as it would be made. */
export interface Made {
  readonly measure: Measure;
  /** As chosen; not known where left out. */
  readonly thicknessMm?: number;
  readonly tolerances?: Tolerances;
  /** Thicknesses the house sells, mm. */
  readonly thicknesses?: readonly number[];
  /** What stands on it; asked for where a row is about heights. */
  readonly bodies?: () => Bodies;
  /** What the files have at a place that is meant to be something, by its row. */
  readonly places?: Readonly<Record<string, PlaceReading>>;
  /** Another board of the product, by its name. */
  readonly other?: (name: string) => OtherBoard | undefined;
}

const NO_BODIES: Bodies = { bodies: [], unknown: [] };

/** Sizes are drawn in steps of this, mm. */
const STEP_MM = 0.05;
const up = (v: number) => Math.ceil(v / STEP_MM - 1e-6) * STEP_MM;
const down = (v: number) => Math.floor(v / STEP_MM + 1e-6) * STEP_MM;

/**
 * Judges a row of a fit sheet on a board as it would be made: what was picked is looked up and measured, the house's
 * tolerances are stacked up (domain.md 5.6, 5.8), and the smallest change that always fits is named.
 *
 * @returns unknown with the reason where the board has not what was picked, or its thickness is not chosen
 * @throws AppError OUT_OF_RANGE where a number of the row is out of range
 */
export function judgeRow(row: FitRow, made: Made): FitJudged {
  const { settled, ...judged } = judge(row, made);
  if (!judged.result) return { row, verdict: settled ?? "unknown", ...judged };
  const { verdict, worstMm } = judged.result;
  const isLoose = verdict === "fits" && row.playMm !== undefined && worstMm[1] > row.playMm + 1e-9;
  const { mend, ...rest } = judged;
  return {
    row,
    ...rest,
    verdict: isLoose ? "loose" : verdict,
    ...(verdict !== "fits" && mend ? { mend } : {}),
  };
}

type Half = Omit<FitJudged, "row" | "verdict"> & { readonly settled?: "fits" | "does-not-fit" };

const NO_OUTLINE: Half = {
  board: "no closed outline",
  because: "The board's outline is not closed: its size is not known, and neither is its corner.",
};

function judge({ id, spec }: FitRow, made: Made): Half {
  const { values: t } = tolerancesOf(made.tolerances);
  const m = made.measure;
  // a place is remembered from the outline's corner: without it another feature could be taken for the one that is meant
  if (("at" in spec || "holes" in spec || "area" in spec) && m.outline?.widthMm === undefined)
    return NO_OUTLINE;
  switch (spec.kind) {
    case "slot":
      return judgeSlotRow(id, spec, m, t);
    case "edge":
      return onThickness(made, (boardMm, boardTolMm) =>
        judgeFit({ id, kind: "range", allowsMm: spec.allowsMm, boardMm, boardTolMm }),
      );
    case "stack":
      return onThickness(made, (boardMm, boardTolMm) =>
        judgeFit({
          id,
          kind: "chain",
          terms: [
            { mm: spec.gapMm, tolMm: spec.gapTolMm, sign: 1 },
            ...Array.from({ length: spec.boards }, () => ({ mm: boardMm, tolMm: boardTolMm, sign: -1 })),
            ...spec.spacers.map((s) => ({ ...s, sign: -1 })),
          ],
        }),
      );
    case "outline":
      return judgeSide(id, spec, m, t);
    case "pattern":
      return judgePattern(id, spec, m, t);
    case "pin":
      return judgePin(id, spec, m, t);
    case "contacts":
      return judgeContacts(id, spec, m, t);
    case "intended": {
      const [x0, y0] = cornerOf(m);
      return {
        ...judgeIntended(spec, made.places?.[id]),
        at: { x: x0 + spec.at[0], y: y0 + spec.at[1] },
      };
    }
    case "lid":
      return judgeLid(id, spec, m, made.bodies?.() ?? NO_BODIES);
    case "facing":
      return judgeFacing(id, spec, m, made.bodies?.() ?? NO_BODIES, made.other?.(spec.other));
  }
}

function judgeSide(
  id: string,
  spec: Extract<FitSpec, { kind: "outline" }>,
  m: Measure,
  t: Required<Tolerances>,
): Half {
  const sideMm = spec.across === "width" ? m.outline?.widthMm : m.outline?.heightMm;
  if (sideMm === undefined) return NO_OUTLINE;
  const result = judgeFit({
    id,
    kind: "chain",
    terms: [
      { mm: spec.openingMm, tolMm: spec.openingTolMm, sign: 1 },
      { mm: sideMm, tolMm: t.outlineMm, sign: -1 },
    ],
  });
  return {
    result,
    board: `board ${mm(sideMm)} mm ${spec.across === "width" ? "wide" : "high"} ± ${mm(t.outlineMm)}`,
    mend: `a board of ${mm(down(sideMm - result.missingMm))} mm instead of ${mm(sideMm)}`,
  };
}

function judgeSlotRow(
  id: string,
  spec: Extract<FitSpec, { kind: "slot" }>,
  m: Measure,
  t: Required<Tolerances>,
): Half {
  const slot = featureAt(m, slotsOf(m), spec.at);
  if (!slot) return { board: "no slot there", because: "The board has no slot where one was picked." };
  const result = judgeFit({
    id,
    kind: "slot",
    slotMm: slot.widthMm,
    slotTolMm: t.slotMm,
    ...(spec.tabReadingsMm
      ? { tabReadingsMm: spec.tabReadingsMm, readTolMm: spec.tabTolMm }
      : { tabMm: spec.tabMm, tabTolMm: spec.tabTolMm }),
  });
  const half = {
    board: `slot ${mm(slot.widthMm)} × ${mm(slot.lengthMm)} mm ± ${mm(t.slotMm)}`,
    at: { x: slot.x, y: slot.y },
  };
  const alongOf = (slotMm: number, slotLengthMm: number) =>
    spec.tabWidthMm === undefined
      ? undefined
      : judgeTabWidth(id, {
          slotLengthMm,
          slotMm,
          slotTolMm: t.slotMm,
          // of readings their mean counts, as for the thickness
          tabMm: slot.widthMm - result.nominalMm,
          tabWidthMm: spec.tabWidthMm,
          tabTolMm: spec.tabTolMm,
        });
  const along = alongOf(slot.widthMm, slot.lengthMm);
  // a wider slot has rounder ends: what is proposed goes in both ways, and is judged so before it is named
  const width = result.worstMm[0] < 0 ? up(result.safeNominalMm!) : slot.widthMm;
  const missing = alongOf(width, slot.lengthMm)?.missingMm ?? 0;
  const length = missing > 0 ? up(slot.lengthMm + missing) : slot.lengthMm;
  const fits = (alongOf(width, length)?.worstMm[0] ?? 0) >= -1e-6;
  const mend =
    width !== slot.widthMm && length !== slot.lengthMm
      ? `a slot of ${mm(width)} × ${mm(length)} mm instead of ${mm(slot.widthMm)} × ${mm(slot.lengthMm)}`
      : length !== slot.lengthMm
        ? `a slot ${mm(length)} mm long instead of ${mm(slot.lengthMm)}`
        : `a slot of ${mm(up(result.safeNominalMm!))} mm instead of ${mm(slot.widthMm)}`;
  const named = fits ? { mend } : {};
  // the tighter of both ways is what counts
  if (along && along.worstMm[0] < result.worstMm[0])
    return {
      ...half,
      result: result.doubt ? { ...along, doubt: result.doubt } : along,
      board: `${half.board}, its round ends tightest`,
      ...named,
    };
  return { ...half, result, ...named };
}

function judgePattern(
  id: string,
  spec: Extract<FitSpec, { kind: "pattern" }>,
  m: Measure,
  t: Required<Tolerances>,
): Half {
  const list = holesOf(m);
  const holes = spec.holes.map((at) => featureAt(m, list, at));
  const found = holes.filter((h) => h !== undefined);
  if (found.length < holes.length || new Set(found).size < holes.length)
    return {
      board: `${new Set(found).size} of ${holes.length} holes`,
      because: "The board has not all the holes that were picked.",
    };
  const [x0, y0] = cornerOf(m);
  const sizeTolMm = found.some((h) => h.plated) ? t.platedHoleMm : t.holeMm;
  const judged = judgeFit({
    id,
    kind: "pattern",
    posts: spec.posts,
    holes: found.map((h) => ({ x: h.x - x0, y: h.y - y0, diameterMm: h.diameterMm })),
    postTolMm: spec.postTolMm,
    holeTolMm: t.placeMm,
    sizeTolMm,
  });
  // how far holes may lie elsewhere helps no post through a hole that is smaller than it is
  const isNever = found.some(
    (h, i) => h.diameterMm + sizeTolMm < spec.posts[i]!.diameterMm - spec.postTolMm - 1e-9,
  );
  const result: FitResult = isNever ? { ...judged, verdict: "does-not-fit" } : judged;
  const sizes = [...new Set(found.map((h) => h.diameterMm))];
  return {
    result,
    board: `${counted(found.length, "hole")} of ${sizes.map(mm).join(" and ")} mm ± ${mm(sizeTolMm)}`,
    ...(result.safeNominalMm === undefined
      ? {}
      : { mend: `holes of ${mm(up(result.safeNominalMm))} mm instead of ${sizes.map(mm).join(" and ")}` }),
    at: { x: found[0]!.x, y: found[0]!.y },
  };
}

/** Room a pin has in its finished hole as drawn, mm: below the first it sits snug, above the second loose (typical). */
const PIN_ROOM_MM = [0.15, 0.35] as const;

function judgePin(
  id: string,
  spec: Extract<FitSpec, { kind: "pin" }>,
  m: Measure,
  t: Required<Tolerances>,
): Half {
  const hole = featureAt(m, pinHolesOf(m), spec.at);
  if (!hole)
    return { board: "no hole there", because: "The board has no hole for a pin where one was picked." };
  // a square pin goes in by its diagonal
  const factor = spec.shape === "square" ? Math.SQRT2 : 1;
  const across = Math.round(spec.pinMm * factor * 1e4) / 1e4;
  const holeTolMm = hole.plated ? t.platedHoleMm : t.holeMm;
  const result = judgeFit({
    id,
    kind: "slot",
    slotMm: hole.diameterMm,
    slotTolMm: holeTolMm,
    tabMm: across,
    tabTolMm: Math.round(spec.pinTolMm * factor * 1e4) / 1e4,
  });
  const room = result.nominalMm;
  const sits =
    room < 0 ? "too thick" : room < PIN_ROOM_MM[0] ? "snug" : room > PIN_ROOM_MM[1] ? "loose" : "normal";
  return {
    result,
    board: `${hole.count} ${hole.count === 1 ? "hole" : "holes"} of ${mm(hole.diameterMm)} mm ± ${mm(holeTolMm)}, ${sits} for ${mm(across)} across`,
    mend: `a hole of ${mm(up(result.safeNominalMm!))} mm instead of ${mm(hole.diameterMm)}`,
    at: { x: hole.x, y: hole.y },
  };
}

/** What hangs on the chosen thickness; of those the house sells the nearest that fits is named. */
function onThickness(
  { thicknessMm, tolerances, thicknesses = [] }: Made,
  of: (boardMm: number, tolMm: number) => FitResult,
): Half {
  if (thicknessMm === undefined)
    return {
      board: "thickness not chosen",
      because: "No house is chosen, so the board's thickness is not known.",
    };
  const { thicknessShare } = tolerancesOf(tolerances).values;
  const tol = (v: number) => Math.round(v * thicknessShare * 1e4) / 1e4;
  const better = [...thicknesses]
    .filter((v) => v !== thicknessMm && of(v, tol(v)).verdict === "fits")
    .sort((a, b) => Math.abs(a - thicknessMm) - Math.abs(b - thicknessMm))[0];
  return {
    result: of(thicknessMm, tol(thicknessMm)),
    board: `board ${mm(thicknessMm)} mm thick ± ${mm(tol(thicknessMm))}`,
    ...(better === undefined ? {} : { mend: `thickness ${mm(better)} mm instead of ${mm(thicknessMm)}` }),
  };
}

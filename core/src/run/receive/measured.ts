import type { Measure } from "../../board/measure-document.ts";
import type { FitJudged } from "../../fit/row.ts";
import { judgeRow, type Made } from "../../fit/sheet.ts";
import { boardFor, boardKey, type RunBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { BoardMeasured, RunRecord } from "../document/record.ts";
import { type MeasurePoint, measurePoints, spotOf } from "../stage/calliper-points.ts";
import { madeAtHouse } from "../stage/fits.ts";
import type { RunResult } from "../stage/result.ts";
import { sampleSize } from "./sample.ts";

/** What a calliper reads is right to this, ± mm. */
export const READ_MM = 0.02;

/** A size of one board as it was read. */
export interface PointRead {
  readonly point: MeasurePoint;
  readonly values: readonly number[];
  /** Every reading is within what the order allows, its bounds included. */
  readonly isIn: boolean;
  /** The reading farthest from what was ordered. */
  readonly worstMm: number;
}

/** One board as it was measured: against the order, and against what it must go into. */
export interface BoardJudged {
  readonly board: BoardMeasured;
  readonly points: readonly PointRead[];
  /** Rows of the fit sheet all of whose sizes were read, judged by the readings. */
  readonly fits: readonly FitJudged[];
  /** What does not look as ordered. */
  readonly looks: readonly string[];
  readonly isGood: boolean;
}

/** A lot of bare boards as far as it was measured. */
export interface LotMeasured {
  readonly item: string;
  readonly points: readonly MeasurePoint[];
  readonly looks: readonly Look[];
  /** Boards that came. */
  readonly lot: number;
  /** So many are to be measured: a lot with one in ten bad is then found out nine times in ten. */
  readonly sample: number;
  readonly boards: readonly BoardJudged[];
  /** Nothing of it was measured; all is well so far and some are left; the sample holds; a board does not. */
  readonly verdict: "none" | "more" | "holds" | "fails";
  /** What is not as ordered, each once with the boards it was seen on: what is claimed. */
  readonly notAsOrdered: readonly string[];
  /** What does not go where it must although it is read right: of what is as ordered the design is the cause. */
  readonly doesNotFit: readonly string[];
  /** Rows of the fit sheet that the readings do not settle: the board is tried in. */
  readonly tryIn: readonly string[];
}

/** Something that is looked at. */
export interface Look {
  readonly key: string;
  readonly words: string;
}

/** What the sheet of a lot asks to be looked at, as it was ordered. */
export function looksOf(doc: RunDocument, options: RunResult["options"]): Look[] {
  return [
    { key: "revision", words: `marked as revision ${doc.revision}` },
    ...(options
      ? [
          { key: "mask", words: `mask ${options.mask}` },
          { key: "legend", words: `silkscreen ${options.legend}, readable` },
          { key: "finish", words: `finish ${options.finish}, even and clean` },
        ]
      : []),
    { key: "whole", words: "no scratch to copper, no chip, lies flat" },
  ];
}

/**
 * A lot of bare boards judged by what was measured of it: each reading against the order's tolerance, each row of the fit
 * sheet by the readings, ± {@link READ_MM}, in the place of what was drawn. One bad board refuses the lot (domain.md 9.3).
 *
 * @param index of the board among the run's
 * @param of what may be used of it, or what is set apart: what was measured of a delivery goes where that is
 */
export function judgeLot(
  doc: RunDocument,
  r: Pick<RunResult, "options">,
  record: RunRecord,
  index: number,
  of: "usable" | "apart" = "usable",
): LotMeasured {
  const board = doc.boards[index]!;
  const item = boardKey(doc, index);
  const points = measurePoints(doc, board, r.options?.thickness ?? doc.options.thickness);
  const looks = looksOf(doc, r.options);
  const isOf = (isApart: boolean) => isApart === (of === "apart");
  const lot = record.receipts.reduce((n, x) => (x.item === item && isOf(x.isApart) ? n + x.qty : n), 0);
  const sample = sampleSize(lot);
  const apart = new Set(record.receipts.flatMap((x) => (x.isApart ? [x.id] : [])));
  const boards = (record.measured ?? [])
    .filter((b) => b.item === item && isOf(b.receipt !== undefined && apart.has(b.receipt)))
    .map((b) => judgeBoard(doc, board, points, looks, b));
  const { notAsOrdered, doesNotFit } = whyNot(boards);
  const seen = new Set(boards.map((b) => b.board.label)).size;
  return {
    item,
    points,
    looks,
    lot,
    sample,
    boards,
    notAsOrdered,
    doesNotFit,
    tryIn: [
      ...new Set(
        boards.flatMap((b) => b.fits.flatMap((f) => (f.verdict === "may-not-fit" ? [f.row.label] : []))),
      ),
    ],
    verdict:
      boards.length === 0
        ? "none"
        : notAsOrdered.length + doesNotFit.length > 0
          ? "fails"
          : seen < sample
            ? "more"
            : "holds",
  };
}

function judgeBoard(
  doc: RunDocument,
  board: RunBoard,
  points: readonly MeasurePoint[],
  looks: readonly Look[],
  b: BoardMeasured,
): BoardJudged {
  const read = points.flatMap((point): PointRead[] => {
    const values = b.readings[point.key] ?? [];
    if (values.length === 0) return [];
    const worstMm = values.reduce((w, v) => (Math.abs(v - point.mm) > Math.abs(w - point.mm) ? v : w));
    return [{ point, values, worstMm, isIn: Math.abs(worstMm - point.mm) <= point.tolMm + 1e-9 }];
  });
  const has = new Set(read.map((p) => p.point.key));
  const rows = (doc.fits ?? []).filter((row) => {
    const asks = points.filter((p) => p.fits.includes(row.id));
    return boardFor(doc, row) === board && asks.length > 0 && asks.every((p) => has.has(p.key));
  });
  const made = asRead(madeAtHouse(doc, board), read);
  const fits = rows.map((row) => judgeRow(row, made));
  const wrong = looks.filter((l) => b.looks[l.key] === false).map((l) => l.words);
  return {
    board: b,
    points: read,
    fits,
    looks: wrong,
    isGood:
      read.every((p) => p.isIn) && fits.every((f) => f.verdict !== "does-not-fit") && wrong.length === 0,
  };
}

/** A board as it was read: sizes as the calliper showed them, and what it may be off, in the place of what was drawn. */
function asRead(base: Made, read: readonly PointRead[]): Made {
  const of = (key: string) => read.find((p) => p.point.key === key);
  const most = (key: string) => {
    const p = of(key);
    return p && Math.max(...p.values);
  };
  const thicknessMm = most("thickness") ?? base.thicknessMm;
  const { outline } = base.measure;
  const [width, height] = [most("width"), most("height")];
  const measure: Measure = {
    ...base.measure,
    ...(outline
      ? {
          outline: {
            ...outline,
            ...(width === undefined ? {} : { widthMm: width }),
            ...(height === undefined ? {} : { heightMm: height }),
          },
        }
      : {}),
    slots: base.measure.slots.map((s) => {
      const p = of(
        `slot ${spotOf(base.measure, { x: (s.from[0] + s.to[0]) / 2, y: (s.from[1] + s.to[1]) / 2 })}`,
      );
      // what a tab must pass is the narrowest place
      return p ? { ...s, widthMm: Math.min(...p.values) } : s;
    }),
    ...(base.measure.drillTable ? { drillTable: drilled(base.measure, of) } : {}),
  };
  return {
    ...base,
    measure,
    ...(thicknessMm === undefined ? {} : { thicknessMm }),
    tolerances: {
      ...base.tolerances,
      outlineMm: READ_MM,
      platedHoleMm: READ_MM,
      holeMm: READ_MM,
      slotMm: READ_MM,
      ...(of("thickness") && thicknessMm ? { thicknessShare: READ_MM / thicknessMm } : {}),
    },
  };
}

type Drill = NonNullable<Measure["drillTable"]>;

/** Holes as they were read: each that was stands in a row of its own. */
const drilled = (m: Measure, of: (key: string) => PointRead | undefined): Drill =>
  m.drillTable!.flatMap((row) => {
    if (row.slots > 0) return [row];
    const read = row.at.flatMap((place) => {
      const p = of(`hole ${spotOf(m, place)}`);
      return p ? [{ place, mm: Math.min(...p.values) }] : [];
    });
    if (read.length === 0) return [row];
    const rest = row.at.filter((place) => !read.some((x) => x.place === place));
    return [
      ...read.map(({ place, mm }) => ({ ...row, diameterMm: mm, holes: 1, at: [place] })),
      ...(rest.length > 0 ? [{ ...row, holes: row.holes - read.length, at: rest }] : []),
    ];
  });

/** What refuses a lot, each reason once with the boards it was seen on. */
function whyNot(boards: readonly BoardJudged[]): Pick<LotMeasured, "notAsOrdered" | "doesNotFit"> {
  const told = (of: (b: BoardJudged) => readonly string[]): string[] => {
    const seen = new Map<string, Set<string>>();
    for (const b of boards)
      for (const what of of(b)) seen.set(what, (seen.get(what) ?? new Set()).add(b.board.label));
    return [...seen].map(([what, labels]) => `${what}: board ${[...labels].join(", ")}`);
  };
  return {
    notAsOrdered: told((b) => [
      ...b.points.flatMap((p) =>
        p.isIn
          ? []
          : [`${p.point.what} ${mmOf(p.worstMm)} mm, ordered ${mmOf(p.point.mm)} ± ${mmOf(p.point.tolMm)}`],
      ),
      ...b.looks.map((l) => `not: ${l}`),
    ]),
    doesNotFit: told((b) =>
      b.fits.flatMap((f) =>
        f.verdict === "does-not-fit" ? [`${f.row.label} does not fit (${f.board})`] : [],
      ),
    ),
  };
}
const mmOf = (v: number): string => String(Math.round(v * 1000) / 1000);

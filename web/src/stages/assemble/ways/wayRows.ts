import {
  BOARD_SIDES,
  type BoardSide,
  isForPaste,
  type LinePart,
  type Method,
  type PartsOfLine,
} from "@kobbin/core";
import { KIND_WORDS } from "../../../run/kindWords.ts";

/** A row of who does what: a side, a kind of part on it, or a line of the bill; beside them what is by hand anyway. */
export interface WayRow {
  readonly key: string;
  readonly label: string;
  readonly level: "side" | "kind" | "line";
  /** The side as a whole, where the row is one. */
  readonly side?: BoardSide;
  /** Key of the row it is part of. */
  readonly under?: string;
  readonly parts: readonly PartsOfLine[];
  readonly refs: readonly string[];
  /** Pieces of a product by the way they go. */
  readonly by: Readonly<Record<Method, number>>;
  /** It goes through the board or is put on by hand: paste is no way for it. */
  readonly isByHand: boolean;
}

/** A part with its place: what rows are made of. */
interface Piece {
  readonly part: LinePart;
  readonly ref: string;
  readonly side: BoardSide;
}

export const SIDE_WORDS = { top: "the top", bottom: "the bottom" } as const;

type PlaceOf = (line: LinePart["line"], ref: string) => { readonly side: BoardSide } | undefined;

/** Rows for a run's parts: by side, under it by kind, under that by line; those by hand at the end. */
export function wayRows(parts: readonly LinePart[], placeOf: PlaceOf): WayRow[] {
  const pieces = parts
    .filter((p) => p.kind !== "loose")
    .flatMap((part) =>
      part.line.refs.map((ref): Piece => ({ part, ref, side: placeOf(part.line, ref)?.side ?? "top" })),
    );
  const forPaste = pieces.filter((p) => isForPaste(p.part));
  const byHand = pieces.filter((p) => !isForPaste(p.part));
  return [
    ...BOARD_SIDES.flatMap((side) => {
      const of = forPaste.filter((p) => p.side === side);
      if (of.length === 0) return [];
      const top = rowOf(`side ${side}`, SIDE_WORDS[side], "side", of, false);
      return [{ ...top, side }, ...kindsOf(of, top.key)];
    }),
    ...kindsOf(byHand, undefined, true),
  ];
}

function kindsOf(pieces: readonly Piece[], under: string | undefined, isByHand = false): WayRow[] {
  const nameOf = (p: Piece) =>
    isByHand && p.part.kind !== "through" ? "by hand, as the bill says" : KIND_WORDS[p.part.kind];
  const names = [...new Set(pieces.map(nameOf))];
  return names.flatMap((name) => {
    const of = pieces.filter((p) => nameOf(p) === name);
    const key = `${under ?? "hand"} ${name}`;
    const row = rowOf(key, name, "kind", of, isByHand);
    const lines = [...new Set(of.map((p) => p.part.line.id))];
    return [
      { ...row, ...(under ? { under } : {}) },
      ...lines.map((id) => {
        const its = of.filter((p) => p.part.line.id === id);
        const { valueText, mpn } = its[0]!.part.line;
        return { ...rowOf(`${key} ${id}`, valueText || mpn, "line", its, isByHand), under: key };
      }),
    ];
  });
}

function rowOf(
  key: string,
  label: string,
  level: WayRow["level"],
  pieces: readonly Piece[],
  isByHand: boolean,
): WayRow {
  const by = { house: 0, stencil: 0, iron: 0 };
  for (const { part } of pieces) by[part.method] += part.count / part.line.refs.length;
  const parts = new Map(
    pieces.map(({ part, side }) => [`${part.line.id} ${side}`, { line: part.line.id, side }] as const),
  );
  return { key, label, level, parts: [...parts.values()], refs: pieces.map((p) => p.ref), by, isByHand };
}

/** The one way all of a row's parts go; undefined where they go several. */
export const wayOfRow = ({ by }: Pick<WayRow, "by">): Method | undefined => {
  const ways = (Object.keys(by) as Method[]).filter((m) => by[m] > 0);
  return ways.length === 1 ? ways[0] : undefined;
};

/** What a frame on the picture holds, as rows are: lines of the references in it, each on its side. */
export function framed(
  rows: readonly WayRow[],
  refs: ReadonlySet<string>,
  side: BoardSide,
): { readonly parts: readonly PartsOfLine[]; readonly refs: readonly string[]; readonly isByHand: boolean } {
  const lines = rows.filter(
    (r) => r.level === "line" && r.parts.some((p) => p.side === side) && r.refs.some((x) => refs.has(x)),
  );
  return {
    parts: lines.flatMap((r) => r.parts.filter((p) => p.side === side)),
    refs: lines.flatMap((r) => r.refs),
    isByHand: lines.length > 0 && lines.every((r) => r.isByHand),
  };
}

/** What the page keeps when a row is set: a side as one, else its lines. */
export const isWholeSide = (row: WayRow): row is WayRow & { readonly side: BoardSide } =>
  row.side !== undefined;

import type { Method } from "../../assembly/method.ts";
import { Places } from "../document/boards.ts";
import type { RunAssembly, RunDocument, RunLine } from "../document/document.ts";
import { lineParts } from "../document/parts.ts";
import { BOARD_SIDES, type BoardSide, isForPaste, wayOf } from "../document/ways.ts";

/** Parts of a line on one side, or on both. */
export interface PartsOfLine {
  readonly line: string;
  readonly side: BoardSide;
}

interface Decided {
  readonly sides: NonNullable<RunAssembly["sides"]> | null;
  readonly ways: NonNullable<RunAssembly["ways"]> | null;
}

/** Sides on which a line's parts sit; where no place is known, the top. */
export function sidesOfLine(places: Places, line: Pick<RunLine, "board" | "refs">): ReadonlySet<BoardSide> {
  const sides = new Set(line.refs.map((ref) => places.of(line, ref)?.side ?? "top"));
  return sides.size > 0 ? sides : new Set(["top"]);
}

/** A whole side goes one way: what was said of lines that go on paste there is taken back. */
export function setSide(
  doc: RunDocument,
  side: BoardSide,
  method: Method,
  forPaste: readonly string[],
): Decided {
  const taken = new Set(forPaste);
  const ways = each(doc).filter(([, w]) => !(w.side === side && taken.has(w.line)));
  return said(doc, { ...doc.assembly.sides, [side]: method }, ways);
}

/** Lines, each on one side, go one way. What is the way of their side anyway is not written down. */
export function setWay(doc: RunDocument, parts: readonly PartsOfLine[], method: Method): Decided {
  const mine = new Set(parts.map((p) => `${p.line} ${p.side}`));
  const ways = each(doc).filter(([, w]) => !mine.has(`${w.line} ${w.side}`));
  return said(doc, doc.assembly.sides, [...ways, ...parts.map((p) => [method, p] as const)]);
}

type Way = readonly [Method, PartsOfLine];

/** What is said of single lines, side by side. */
function each(doc: RunDocument): Way[] {
  const { ways = {} } = doc.assembly;
  const places = new Places(doc);
  return doc.lines.flatMap((l) =>
    [...sidesOfLine(places, l)].flatMap((side): Way[] => {
      const way = ways[`${l.id} ${side}`] ?? ways[l.id];
      return way === undefined ? [] : [[way, { line: l.id, side }]];
    }),
  );
}

/** As short as it can be written: a line that goes one way on all of its sides stands once. */
function said(doc: RunDocument, sides: RunAssembly["sides"], list: readonly Way[]): Decided {
  const places = new Places(doc);
  const own = Object.fromEntries(
    BOARD_SIDES.flatMap((side) => {
      const way = sides?.[side];
      return way === undefined || way === doc.assembly.method ? [] : [[side, way]];
    }),
  ) as NonNullable<RunAssembly["sides"]>;
  const byHand = new Set(lineParts(doc).flatMap((p) => (isForPaste(p) ? [] : [p.line.id])));
  const { ways: _, ...rest } = doc.assembly;
  const plain = { ...rest, sides: own };
  const ways: Record<string, Method> = {};
  for (const l of doc.lines) {
    const on = [...sidesOfLine(places, l)];
    const of = on.map((side) => list.findLast(([, p]) => p.line === l.id && p.side === side)?.[0]);
    const usual = on.map((side) => wayOf(plain, { line: l, isByHand: byHand.has(l.id), side }));
    const kept = of.map((way, i) => (way === usual[i] ? undefined : way));
    if (kept.every((way) => way === kept[0])) {
      if (kept[0] !== undefined) ways[l.id] = kept[0];
      continue;
    }
    for (const [i, side] of on.entries()) if (kept[i] !== undefined) ways[`${l.id} ${side}`] = kept[i];
  }
  const some = <T extends object>(x: T): T | null => (Object.keys(x).length > 0 ? x : null);
  return { sides: some(own), ways: some(ways) };
}

import { numberKey } from "../../../bom/number.ts";
import { partsByNumber } from "../../../library/candidates.ts";
import type { LibraryPart } from "../../../library/part.ts";
import { Wires } from "../../../meet/load-kinds.ts";
import { wiringOf } from "../../../meet/wiring.ts";
import type { RunBoard } from "../../document/boards.ts";
import type { RunDocument, RunLine } from "../../document/document.ts";
import { reachOf } from "../../document/wired.ts";
import { type BoardVolts, voltsOn } from "../../stage/meetings.ts";

/** A board as its first power-up and its tests look at it: what is fitted, on which nets, with what is known of each part. */
export interface BoardWires {
  readonly volts: BoardVolts;
  readonly wires: Wires;
  readonly lineOf: ReadonlyMap<string, RunLine>;
  readonly partOf: (ref: string) => LibraryPart | undefined;
  /** What a part, a net or a pin is called in a plan: of several boards with its board. */
  readonly called: (name: string) => string;
  /** A pin of some nets as it is called in a plan, the one that is got at best. @param but no pin of this part */
  readonly pinOf: (nets: Iterable<number>, but?: string) => string | undefined;
}

/** Nothing where the board's files name no pins. */
export function boardWires(doc: RunDocument, board: RunBoard): BoardWires | undefined {
  const volts = voltsOn(doc, board);
  if (!volts.isNamed) return undefined;
  const lines = doc.lines.filter((l) => l.board === undefined || l.board === board.id);
  const lineOf = new Map(lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  const library = partsByNumber(doc.library ?? []);
  const partOf = (ref: string) => library.get(numberKey(lineOf.get(ref)?.mpn ?? ""));
  const of = doc.boards.length > 1 ? ` of ${board.name}` : "";
  const wires = new Wires(
    wiringOf(board.measure).filter((p) => !lineOf.get(p.ref)?.dnp),
    volts.power,
    {
      drawsOf: (ref) => partOf(ref) ?? {},
      valueOf: (ref) => lineOf.get(ref)?.valueText ?? "",
      wordsOf: (ref) => [lineOf.get(ref)?.valueText, lineOf.get(ref)?.description].filter(Boolean).join(", "),
    },
  );
  return {
    volts,
    wires,
    lineOf,
    partOf,
    called: (name) => `${name}${of}`,
    pinOf: (nets, but) => {
      const [best] = [...nets]
        .flatMap((net) =>
          wires
            .on(net)
            .filter((p) => p.ref !== but)
            .flatMap((p) => p.pins.filter((q) => q.net === net).map((q) => ({ ref: p.ref, pin: q.pin }))),
        )
        .sort((a, b) => reachOf(a.ref) - reachOf(b.ref));
      return best && `${best.ref}${of}.${best.pin}`;
    },
  };
}

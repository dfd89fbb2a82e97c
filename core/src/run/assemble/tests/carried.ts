import type { LibraryPart } from "../../../library/part.ts";
import { isConnector } from "../../../meet/wiring.ts";
import { aboutBoard, boardMark, type RunBoard } from "../../document/boards.ts";
import type { RunDocument } from "../../document/document.ts";
import type { Add } from "../../document/note.ts";
import { type BoardVolts, voltsOn } from "../../stage/meetings.ts";
import { boardWires } from "./board-wires.ts";
import { flowPlan } from "./flow-asks.ts";

/** Something a supply's current goes through, held against what it is made for. */
export interface Carried {
  /** Its reference; of a source, where it is put onto the board. */
  readonly ref: string;
  /** What gives it outside, contacts of a connector, or a part it goes through. */
  readonly what: "source" | "contacts" | "part";
  /** What it is called: the other side, or what the bill says of the part. */
  readonly name: string;
  readonly net: string;
  /** With all that is known drawing at the most. */
  readonly ma: number;
  /** Parts that draw are without a figure: at least so much. */
  readonly isLeast: boolean;
  /** Side by side; equal shares are taken. */
  readonly contacts: number;
  /** What all of them together are made for. */
  readonly limitMa?: number;
  readonly at?: { readonly layer: string; readonly x: number; readonly y: number };
}

interface Kept {
  readonly library: RunDocument["library"];
  readonly list: readonly Carried[];
}
// a run is rolled up for every option there is; none of them changes what flows
const kept = new WeakMap<BoardVolts, Kept>();

/** What a board's supplies go through on their way in and on the board, each once a net. */
export function carriedOn(doc: RunDocument, board: RunBoard): readonly Carried[] {
  const volts = voltsOn(doc, board);
  const old = kept.get(volts);
  if (old && old.library === doc.library) return old.list;
  const list = found(doc, board, volts);
  kept.set(volts, { library: doc.library, list });
  return list;
}

function found(doc: RunDocument, board: RunBoard, volts: BoardVolts): Carried[] {
  const b = boardWires(doc, board);
  const plan = flowPlan(doc, board);
  if (!b || !plan) return [];
  const { isLeast } = plan;
  const out: Carried[] = [];
  const given = new Map<string, { ma: number; nets: string[]; at: Carried["at"] }>();
  for (const ask of plan.asks) {
    const ma = ask.taps.reduce((s, t) => s + t.ma, 0);
    for (const ref of new Set(ask.entry.map((p) => p.ref))) {
      const pins = ask.entry.filter((p) => p.ref === ref);
      const part = b.wires.parts.find((p) => p.ref === ref)!;
      const isPlug = isConnector(part);
      if (ask.isReturn && !isPlug) continue;
      const share = (ma * pins.length) / ask.entry.length;
      const [{ layer, x, y }] = pins as [(typeof pins)[number]];
      const at = { layer, x, y };
      const each: LibraryPart["carriesMa"] = b.partOf(ref)?.carriesMa;
      const line = b.lineOf.get(ref);
      out.push({
        ref,
        what: isPlug ? "contacts" : "part",
        name: line?.valueText ?? "",
        net: ask.name,
        ma: share,
        isLeast: isLeast || (ask.isReturn && plan.left.length > 0),
        contacts: isPlug ? pins.length : 1,
        ...(each === undefined ? {} : { limitMa: each * (isPlug ? pins.length : 1) }),
        at,
      });
      if (ask.isReturn) continue;
      const was = given.get(ref) ?? { ma: 0, nets: [], at };
      given.set(ref, { ...was, ma: was.ma + share, nets: [...was.nets, ask.name] });
    }
  }
  const sources = volts.meetings.flatMap(({ row }): Carried[] => {
    const of = given.get(row.ref);
    if (row.givesMa === undefined || !of) return [];
    const { ma, nets, at } = of;
    return [
      {
        ref: row.ref,
        what: "source",
        name: row.other,
        net: nets.join(", "),
        ma,
        isLeast,
        contacts: 1,
        limitMa: row.givesMa,
        ...(at ? { at } : {}),
      },
    ];
  });
  return [...sources, ...out];
}

const amps = (ma: number) =>
  ma >= 1000 ? `${Number((ma / 1000).toPrecision(3))} A` : `${Number(ma.toPrecision(3))} mA`;

/** What carries more than it is made for, when all draws at the most. */
export function carriedNotes(doc: RunDocument, add: Add): void {
  for (const board of doc.boards)
    for (const c of carriedOn(doc, board)) {
      if (c.limitMa === undefined || c.ma <= c.limitMa) continue;
      const most = `${c.isLeast ? "at least " : ""}${amps(c.ma)}`;
      const text =
        c.what === "source"
          ? `${c.name} gives ${amps(c.limitMa)}; with all drawing at the most the board takes ${most} of it at ${c.ref}.`
          : c.what === "contacts"
            ? `${c.ref} carries ${most} of ${c.net} over ${c.contacts === 1 ? "one contact, which takes" : `${c.contacts} contacts, which together take`} ${amps(c.limitMa)}.`
            : `${c.ref} carries ${most} into ${c.net} and is made for ${amps(c.limitMa)}.`;
      add("board", `carries${boardMark(doc, board.id)} ${c.what} ${c.ref} ${c.net}`, "warning", text, {
        do:
          c.what === "source"
            ? "Take a supply that gives more, or see that not all of it draws at once."
            : "Give it more contacts or a stronger part, or see that not all of it draws at once.",
        ...(c.at ? { at: c.at } : {}),
        ...aboutBoard(doc, board.id),
      });
    }
}

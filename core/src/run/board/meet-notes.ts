import type { Level } from "../../findings.ts";
import { NEAR_MM } from "../../meet/decoupling.ts";
import { PUT_IN } from "../../meet/meet.ts";
import { orderDiffers, type PlacedConnector } from "../../meet/pin-order.ts";
import type { MeetStanding } from "../../meet/row.ts";
import { aboutBoard, boardMark } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add, Note } from "../document/note.ts";
import { type BoardVolts, voltsOn, withoutBoard } from "../stage/meetings.ts";

/** One thing a row says of itself; its kind keeps what was accepted of one from standing for another. */
interface MeetWords {
  readonly kind: "no-pins" | "damage" | "idle" | "unknown" | "put-in-wrongly" | "pins-gone";
  readonly level: "error" | "warning";
  readonly text: string;
}

/** What a row says of itself: what happens as meant, and put in wrongly where nothing stops that. */
function meetWords(s: MeetStanding): MeetWords[] {
  const name = `${s.row.ref} with ${s.row.other}`;
  const out: MeetWords[] = [];
  const say = (kind: MeetWords["kind"], text: string, level: MeetWords["level"] = "warning") =>
    out.push({ kind, level, text: `${name}${text}` });
  if (!s.part) {
    say("no-pins", ` cannot be judged: the files name no pins of ${s.row.ref}.`);
    return out;
  }
  const [meant] = s.modes;
  if (meant?.verdict === "damage") say("damage", `: ${meant.because}.`, "error");
  if (meant?.verdict === "idle") say("idle", ` does not work as it is meant: ${meant.because}.`);
  if (meant?.verdict === "unknown")
    say("unknown", `: not known whether they bear each other. ${meant.because}.`);
  const wrong = s.modes.filter(
    (m) => m.verdict === "damage" && m.mode !== "meant" && !s.row.stopped.includes(m.mode),
  );
  const ways = [...new Set(wrong.map((m) => PUT_IN[m.mode]))].join(" or ");
  if (wrong[0])
    say(
      "put-in-wrongly",
      `: put in ${ways} it is damaged (${wrong[0].because}), and nothing is said to stop that.`,
    );
  if (s.gone.length > 0) say("pins-gone", `: ${s.row.ref} has no pin ${s.gone.join(", ")} any more.`);
  return out;
}

const STOP =
  "Say what stops it (a key, a shroud, a blocked place), or order the pins so that it does no harm.";

/** What of the connectors, supplies and control inputs is dangerous, missing or not known. */
export function meetNotes(doc: RunDocument, add: Add): void {
  const lost = withoutBoard(doc);
  const noBoard = (key: string, board: string | undefined, what: string) =>
    add("board", key, "warning", `The product has no board called ${board}: ${what} cannot be judged.`);
  for (const m of lost.meetings) noBoard(`meet ${m.id} board`, m.board, `${m.ref} with ${m.other}`);
  for (const l of lost.links) noBoard(`link ${l.id} board`, l.board, `the link ${l.ref}`);
  orderNotes(doc, add);
  for (const board of doc.boards) {
    const v = voltsOn(doc, board);
    const about = aboutBoard(doc, board.id);
    const mark = boardMark(doc, board.id);
    for (const s of v.meetings) {
      const at = s.part?.pins[0];
      for (const w of meetWords(s))
        add("board", `meet ${s.row.id} ${w.kind}`, w.level, w.text, {
          ...(w.kind === "put-in-wrongly" ? { do: STOP } : {}),
          ...(at ? { at: { layer: at.layer, x: at.x, y: at.y } } : {}),
          ...about,
        });
    }
    linkNotes(doc, v, (key, level, text, more) => add("board", key, level, text, { ...more, ...about }));
    for (const f of v.power.findings)
      add(
        "board",
        `power${mark} ${f.kind} ${f.text.slice(0, 60)}`,
        f.kind === "cell-fed" || f.kind === "two-sources" ? "error" : "warning",
        f.text,
        {
          do: f.do,
          ...(f.at ? { at: f.at } : {}),
          ...about,
        },
      );
    const bare = v.decoupling.filter((d) => d.by.length === 0);
    const [bareOne] = bare;
    if (bareOne)
      add(
        "board",
        `decoupling${mark}`,
        "remark",
        `No capacitor to ground stands within ${NEAR_MM} mm of the supply of ${bare.map((d) => `${d.ref} (${d.net})`).join(", ")}.`,
        {
          do: "Look into the data sheet what it wants beside it.",
          at: bareOne.at,
          ...about,
        },
      );
    for (const f of v.floats)
      add(
        "board",
        `floats${mark} ${f.ref}.${f.pin}`,
        f.kind === "gate" || f.kind === "enable" ? "warning" : "remark",
        f.text,
        {
          do: f.do,
          at: f.at,
          ...about,
        },
      );
  }
}

/** Connectors of the product that carry the same signals in another order; told on the board of the second. */
function orderNotes(doc: RunDocument, add: Add): void {
  const list = doc.boards.flatMap((b) =>
    voltsOn(doc, b).connectors.map((part) => ({ board: b.name, part, id: b.id })),
  );
  const several = doc.boards.length > 1;
  const called = (c: PlacedConnector) => `${c.part.ref}${several ? ` of ${c.board}` : ""}`;
  for (const { a, b, crossed } of orderDiffers(list)) {
    const board = list.find((c) => c.part === b.part)!;
    const [pin] = b.part.pins;
    add(
      "board",
      `pin-order ${a.board} ${a.part.ref} ${b.board} ${b.part.ref}`,
      "remark",
      `${called(a)} and ${called(b)} carry the same signals in another order: over a straight cable ${crossed.map(([x, y]) => `${x} meets ${y}`).join(", ")}.`,
      {
        do: "Put them in one order, or mark both plugs so that nobody takes one for the other.",
        at: { layer: pin!.layer, x: pin!.x, y: pin!.y },
        ...aboutBoard(doc, board.id),
      },
    );
  }
}

const CAP = /\b(jumper|shunt|link|bridging)\s*(cap|plug)?s?\b/i;

/** What of the links hurts, is not set, or wants a piece nobody buys. */
function linkNotes(
  doc: RunDocument,
  v: BoardVolts,
  add: (key: string, level: Level, text: string, more?: Partial<Note>) => void,
): void {
  for (const { row, part, position, hurts } of v.links) {
    const pin = part?.pins[0];
    const at = pin ? { at: { layer: pin.layer, x: pin.x, y: pin.y } } : {};
    if (!part)
      add(
        `link ${row.id} gone`,
        "warning",
        `The files name no pins of ${row.ref}, a link that is to be set.`,
      );
    else if (!position)
      add(
        `link ${row.id} unset`,
        "warning",
        `${row.ref} is not set: ${row.positions.map((p) => p.does || p.name).join(", or ")}.`,
        {
          do: "Say in which position it goes out; the setting card shows it.",
          ...at,
        },
      );
    else if (hurts[position.name])
      add(
        `link ${row.id} hurts ${position.name}`,
        "error",
        `${row.ref} in ${position.name} hurts: ${hurts[position.name]}.`,
        at,
      );
  }
  const caps = v.links.filter((l) => l.row.isCap && l.position?.joins);
  const isListed = doc.lines.some((l) => !l.dnp && CAP.test(`${l.valueText} ${l.description}`));
  if (caps.length > 0 && !isListed)
    add(
      "link caps",
      "warning",
      `${caps.map((l) => l.row.ref).join(", ")}: ${caps.length === 1 ? "a cap closes it" : "caps close them"}, and no line of the bill has any.`,
      {
        do: `Add a line of ${caps.length} a board, or set what needs none.`,
      },
    );
}

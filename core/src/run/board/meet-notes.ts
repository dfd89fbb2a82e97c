import type { Level } from "../../findings.ts";
import { NEAR_MM } from "../../meet/decoupling.ts";
import type { MeetStanding } from "../../meet/row.ts";
import { aboutBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add, Note } from "../document/note.ts";
import { type BoardVolts, boardMet, voltsOn } from "../stage/meetings.ts";

/** How it may be put in, in words. */
export const PUT_IN = {
  meant: "as meant",
  turned: "turned by half a turn",
  mirrored: "with its rows exchanged",
  shifted: "one place aside",
} as const;

const named = ({ row }: MeetStanding) => `${row.ref} with ${row.other}`;

/** What a row says of itself: what happens as meant, and put in wrongly where nothing stops that. */
export function meetWords(s: MeetStanding): { readonly level: "error" | "warning"; readonly text: string }[] {
  if (!s.part)
    return [
      { level: "warning", text: `${named(s)} cannot be judged: the files name no pins of ${s.row.ref}.` },
    ];
  const out: { level: "error" | "warning"; text: string }[] = [];
  const [meant] = s.modes;
  if (meant?.verdict === "damage") out.push({ level: "error", text: `${named(s)}: ${meant.because}.` });
  if (meant?.verdict === "idle")
    out.push({ level: "warning", text: `${named(s)} does not work as it is meant: ${meant.because}.` });
  if (meant?.verdict === "unknown")
    out.push({
      level: "warning",
      text: `${named(s)}: not known whether they bear each other. ${meant.because}.`,
    });
  const wrong = s.modes.filter(
    (m) => m.verdict === "damage" && m.mode !== "meant" && !s.row.stopped.includes(m.mode),
  );
  const [first] = wrong;
  if (first) {
    const ways = [...new Set(wrong.map((m) => PUT_IN[m.mode]))];
    out.push({
      level: "warning",
      text: `${named(s)}: put in ${ways.join(" or ")} it is damaged (${first.because}), and nothing is said to stop that.`,
    });
  }
  if (s.gone.length > 0)
    out.push({
      level: "warning",
      text: `${named(s)}: ${s.row.ref} has no pin ${s.gone.join(", ")} any more.`,
    });
  return out;
}

const STOP =
  "Say what stops it (a key, a shroud, a blocked place), or order the pins so that it does no harm.";

/** What of the connectors, supplies and control inputs is dangerous, missing or not known. */
export function meetNotes(doc: RunDocument, add: Add): void {
  for (const row of doc.meetings ?? [])
    if (!boardMet(doc, row))
      add(
        "board",
        `meet ${row.id} board`,
        "warning",
        `The product has no board called ${row.board}: ${row.ref} with ${row.other} cannot be judged.`,
      );
  for (const board of doc.boards) {
    const v = voltsOn(doc, board);
    const about = aboutBoard(doc, board.id);
    for (const s of v.meetings) {
      const at = s.part?.pins[0];
      for (const [i, w] of meetWords(s).entries())
        add("board", `meet ${s.row.id} ${i === 0 ? "" : i}`.trim(), w.level, w.text, {
          ...(w.text.includes("nothing is said") ? { do: STOP } : {}),
          ...(at ? { at: { layer: at.layer, x: at.x, y: at.y } } : {}),
          ...about,
        });
    }
    linkNotes(doc, v, (key, level, text, more) => add("board", key, level, text, { ...more, ...about }));
    for (const f of v.power.findings)
      add(
        "board",
        `power ${board.id} ${f.kind} ${f.text.slice(0, 60)}`,
        f.kind === "cell-fed" || f.kind === "two-sources" ? "error" : "warning",
        f.text,
        {
          do: f.do,
          ...(f.at ? { at: { layer: "top", ...f.at } } : {}),
          ...about,
        },
      );
    const bare = v.decoupling.filter((d) => d.by.length === 0);
    const [bareOne] = bare;
    if (bareOne)
      add(
        "board",
        `decoupling ${board.id}`,
        "remark",
        `No capacitor to ground stands within ${NEAR_MM} mm of the supply of ${bare.map((d) => `${d.ref} (${d.net})`).join(", ")}.`,
        {
          do: "Look into the data sheet what it wants beside it.",
          at: { layer: "top", ...bareOne.at },
          ...about,
        },
      );
    for (const f of v.floats)
      add(
        "board",
        `floats ${board.id} ${f.ref}.${f.pin}`,
        f.kind === "gate" || f.kind === "enable" ? "warning" : "remark",
        f.text,
        {
          do: f.do,
          at: { layer: "top", ...f.at },
          ...about,
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
      add(`link ${row.id}`, "warning", `The files name no pins of ${row.ref}, a link that is to be set.`);
    else if (!position)
      add(
        `link ${row.id}`,
        "warning",
        `${row.ref} is not set: ${row.positions.map((p) => p.does || p.name).join(", or ")}.`,
        {
          do: "Say in which position it goes out; the setting card shows it.",
          ...at,
        },
      );
    else if (hurts[position.name])
      add(`link ${row.id}`, "error", `${row.ref} in ${position.name} hurts: ${hurts[position.name]}.`, at);
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

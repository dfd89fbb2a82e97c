import type { MeetStanding } from "../../meet/row.ts";
import { aboutBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import { boardMet, voltsOn } from "../stage/meetings.ts";

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
    for (const f of v.power.findings)
      add(
        "board",
        `power ${board.id} ${f.kind} ${f.text.slice(0, 60)}`,
        f.kind === "cell-fed" ? "error" : "warning",
        f.text,
        {
          do: f.do,
          ...(f.at ? { at: { layer: "top", ...f.at } } : {}),
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

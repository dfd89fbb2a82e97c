import type { Finding, Level } from "../board/findings.ts";
import { type FabOptions, givenUp, type House, optionOf } from "../fab/house.ts";
import type { Basket } from "../sourcing/need.ts";
import type { AssemblyPlan } from "./assembly-house.ts";
import { assemblyNotes } from "./assembly-notes.ts";
import { boardMark, ofBoard } from "./boards.ts";
import type { RunDocument } from "./document.ts";
import { libraryNotes } from "./library-notes.ts";
import type { Add, BoardCheck, Note, StageKey } from "./note.ts";
import type { BoardOrder } from "./order-boards.ts";
import { pricedSize } from "./order-boards.ts";
import { partNotes } from "./part-notes.ts";
import { type LinePart, rateOf } from "./parts.ts";
import { OPTION_WORD, quotationNotes } from "./quotation-holds.ts";
import type { RunNeed } from "./run-need.ts";
import type { PasteSides } from "./sides.ts";
import { sourceNotes } from "./source-notes.ts";
import { sumNotes } from "./sum-notes.ts";

const FIRM = new Set([
  "archive-invalid",
  "outline-missing",
  "outline-open",
  "no-copper-layer",
  "lines-uncovered",
  "house-rate-missing",
  "assembly-rate-missing",
]);
const PART_TAGS = /^(bom|placement)-/;

/** The board a note is about, where that must be said. */
const about = (doc: RunDocument, board: string | undefined) =>
  doc.boards.length > 1 && board !== undefined ? { board } : {};

/** All notes of a run, those accepted marked with their reason. */
export function collectNotes(
  doc: RunDocument,
  parts: readonly LinePart[],
  needs: readonly RunNeed[],
  basket: Basket,
  house: House | undefined,
  checks: readonly BoardCheck[],
  options: FabOptions | undefined,
  orders: readonly BoardOrder[],
  sides: PasteSides,
  plan: AssemblyPlan | undefined,
): Note[] {
  const notes: Note[] = [];
  const add = (stage: StageKey, key: string, level: Level, text: string, more: Partial<Note> = {}) =>
    notes.push({ key, stage, level, text, ...more });
  for (const b of doc.boards)
    for (const f of b.measure.findings)
      add(
        PART_TAGS.test(f.tag) && !f.at ? "parts" : "board",
        keyOf(f) + boardMark(doc, b.id),
        f.level,
        doc.boards.length > 1 ? `${b.name}: ${f.text}` : f.text,
        { ...pick(f), ...about(doc, b.id) },
      );
  partNotes(doc, add);
  libraryNotes(doc, needs, basket, add);
  sumNotes(doc, add);
  sourceNotes(doc, parts, needs, basket, add);
  fabNotes(doc, house, checks, options, orders, add);
  assemblyNotes(doc, parts, sides, plan, add);
  const accepted = doc.choices.accepted ?? {};
  return notes.map((n) => {
    const isFirm = FIRM.has(n.key.split(" ")[0]!);
    // what was accepted while the first board was the only one stays so when another comes
    const isFirst = n.board !== undefined && n.board === doc.boards[0]?.id;
    const before = isFirst ? n.key.slice(0, -boardMark(doc, n.board).length) : n.key;
    const key = accepted[n.key] === undefined ? before : n.key;
    const reason = isFirm ? undefined : accepted[key];
    return {
      ...n,
      ...(isFirm ? { isFirm } : {}),
      ...(reason ? { acceptedBecause: reason } : {}),
      ...(reason && key !== n.key ? { acceptedAs: key } : {}),
    };
  });
}

const keyOf = (f: Finding) => [f.tag, f.file ?? "", f.about?.[0] ?? f.line ?? f.row ?? ""].join(" ").trim();
const pick = (f: Finding): Partial<Note> => ({
  ...(f.do ? { do: f.do } : {}),
  ...(f.at ? { at: f.at } : {}),
  ...(f.file ? { file: f.file } : {}),
  ...(f.line ? { line: f.line } : {}),
  ...(f.about ? { about: f.about } : {}),
  ...(f.offer ? { offer: f.offer } : {}),
});

const format = (v: number, unit: string) => `${Number(v.toFixed(3))}${unit === "mm" ? " mm" : ""}`;

function fabNotes(
  doc: RunDocument,
  house: House | undefined,
  checks: readonly BoardCheck[],
  options: FabOptions | undefined,
  orders: readonly BoardOrder[],
  add: Add,
): void {
  if (!house || !options) {
    add("fab", "house-missing", "error", "No house is chosen for the bare boards.", {
      do: "Choose one; each shows what it would change.",
    });
    return;
  }
  for (const b of doc.boards) {
    if (b.measure.outline?.widthMm !== undefined) continue;
    const [w, h] = pricedSize(b.measure);
    add(
      "fab",
      `board-size-unknown${boardMark(doc, b.id)}`,
      "error",
      `The size of ${b.name} is not known, it has no closed outline: ${w * h > 0 ? `price and weight rest on the box of its copper, ${w.toFixed(1)} × ${h.toFixed(1)} mm; the board is larger as a rule` : "its area and weight count nothing here"}.`,
      { do: "Mend the outline, or have the house quote the board.", ...about(doc, b.id) },
    );
  }
  for (const g of givenUp(house, doc.options, doc.houses ?? [house]))
    add(
      "fab",
      `option-gave ${g.key}`,
      "warning",
      `${house.name} has no ${OPTION_WORD[g.key]} ${g.wished}: ${g.got} is taken in its place.`,
      { do: "Choose what is to be, or another house." },
    );
  contactNotes(doc, options, add);
  const billed = orders[0]?.quoted?.currency ?? house.currency;
  if (rateOf(doc, billed) === undefined)
    add(
      "fab",
      "house-rate-missing",
      "error",
      `${house.name} charges ${billed}; the shop has no exchange rate for it, so its boards count nothing here.`,
      {
        do: "Set the rate in the shop's settings.",
      },
    );
  for (const c of checks) {
    if (c.level === "fine") continue;
    const text = `The ${c.label}${ofBoard(doc, c.board === undefined ? {} : { board: c.board })} is ${format(c.value, c.unit)}; ${house.name} ${c.level === "tight" ? `makes ${format(c.limit, c.unit)}, so ${Math.round((100 * c.margin) / c.limit)} % headroom` : `holds ${format(c.limit, c.unit)}`}.`;
    add(
      "fab",
      `house-limit ${house.id} ${c.measure}${boardMark(doc, c.board)}`,
      c.level === "cannot" ? "error" : c.level === "look" ? "warning" : "remark",
      text,
      {
        ...(c.level === "cannot"
          ? { do: "Choose another house, or change the board." }
          : c.level === "look"
            ? { do: "Ask the house whether it will mend this, or change the board." }
            : {}),
        ...(c.at ? { at: c.at } : {}),
        ...about(doc, c.board),
      },
    );
  }
  if (/^(hasl|levelled)-leaded$/.test(options.finish))
    add(
      "fab",
      "leaded-finish",
      "warning",
      "A leaded finish: selling it is restricted in many places; check your market. Wash hands, no food at the bench.",
    );
  const maskLabel = optionOf(house, "mask", options.mask).value;
  if (maskLabel === options.legend)
    add(
      "fab",
      "legend-unreadable",
      "error",
      `Silkscreen and mask are both ${options.legend}; nothing would be readable.`,
      { do: "Choose another silkscreen colour." },
    );
  if (
    doc.boards.some((b) => (b.measure.castellatedHoles?.count ?? 0) > 0) &&
    options.finish.startsWith("levelled")
  )
    add("fab", "castellation-finish", "warning", "Half holes on the edge solder better with a flat finish.", {
      do: "Choose immersion gold.",
    });
  for (const b of doc.boards) {
    const stated = b.measure.thicknessMm;
    if (stated === undefined || Math.abs(stated - Number.parseFloat(options.thickness)) <= 0.05) continue;
    add(
      "fab",
      `thickness-differs${boardMark(doc, b.id)}`,
      "warning",
      `The job file${doc.boards.length > 1 ? ` of ${b.name}` : ""} states ${stated} mm, ${options.thickness} mm is chosen.`,
      { do: "Choose the stated thickness, or accept with a reason.", ...about(doc, b.id) },
    );
  }
  quotationNotes(doc, house, orders, add);
}

/**
 * Contacts on the edge want a flat, hard finish and a bevel (domain.md 5.2, F1 to F4): levelled solder on them is refused,
 * thin gold wears, and a bevel is no option of any house here, so it is asked for in words and not in the price.
 */
function contactNotes(doc: RunDocument, options: FabOptions, add: Add): void {
  for (const b of doc.boards) {
    if (Object.keys(b.measure.edgeContacts ?? {}).length === 0) continue;
    const mark = boardMark(doc, b.id);
    const of = doc.boards.length > 1 ? ` of ${b.name}` : "";
    if (!/gold/.test(options.finish))
      add(
        "fab",
        `contacts-finish${mark}`,
        "error",
        `The edge contacts${of} need a gold finish: other finishes are uneven or tarnish, and make no good contact.`,
        { do: "Choose gold, or accept with a reason.", ...about(doc, b.id) },
      );
    else if (!/hard/.test(options.finish))
      add(
        "fab",
        `contacts-wear${mark}`,
        "remark",
        `Thin gold on the edge contacts${of} wears through after some 20 to 50 insertions; hard gold lasts.`,
        about(doc, b.id),
      );
    add(
      "fab",
      `contacts-bevel${mark}`,
      "warning",
      `The edge contacts${of} want a bevelled edge to go into a socket. No house here has it among its options, so it is not in the price.`,
      {
        do: "Ask the house for it in its remarks, or accept where nothing is plugged in.",
        ...about(doc, b.id),
      },
    );
  }
}

import { counted } from "../../counted.ts";
import { fitOptions } from "../../fab/fit-options.ts";
import { SAG_SHARE, sagMm } from "../../panel/lay/sag.ts";
import { isRefusal } from "../../panel/spec.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import type { PasteSides } from "../document/sides.ts";
import { mayGo, mayHeat } from "../document/ways.ts";
import type { BoardOrder, GuestOrder } from "../orders/order-boards.ts";
import { wantedOf } from "../sheet/guests.ts";
import { layoutOfChoice, liesOn, PLATE_MM, panelOf, panelThickness } from "../sheet/panel.ts";
import { checksOf } from "../stage/checks.ts";

const mm = (v: number) => String(Math.round(v * 100) / 100);

/** What is to be said of the sheet a run's boards are ordered on. */
export function panelNotes(
  doc: RunDocument,
  orders: readonly BoardOrder[],
  guests: readonly GuestOrder[],
  start: number,
  sides: PasteSides,
  add: Add,
): void {
  const { panel: choice } = doc.choices;
  if (!choice) {
    if (doc.choices.guests?.length)
      add(
        "panel",
        "guests-without-sheet",
        "warning",
        "Boards of another product are to share a sheet, and the boards are ordered one by one: nothing is ordered of them.",
        { do: "Take a sheet, or take the other product off." },
      );
    return;
  }
  const say = (key: string, level: "error" | "warning" | "remark", text: string, todo?: string) =>
    add("panel", key, level, text, todo ? { do: todo } : {});
  if (doc.house?.bench) {
    say(
      "panel-at-bench",
      "warning",
      "Boards of the own bench are made one by one: the sheet does not count there.",
      "Choose another house, or order singly.",
    );
    return;
  }
  const panel = panelOf(doc);
  if (!panel) {
    say(
      "panel-of-others",
      "error",
      "The sheet holds none of the product's boards.",
      "Take a sheet anew, or order singly.",
    );
    return;
  }
  const layout = layoutOfChoice(doc, choice);
  if (isRefusal(layout)) {
    say(
      `panel-cannot ${layout.tag}`,
      "error",
      `The sheet cannot be made as it stands: ${layout.reason}`,
      layout.do ?? "Take a sheet anew.",
    );
    return;
  }
  for (const f of layout.findings)
    add("panel", `${f.tag}${f.at ? ` ${mm(f.at.x)}/${mm(f.at.y)}` : ""}`, f.level, f.text, {
      ...(f.do ? { do: f.do } : {}),
      ...(f.at ? { at: { layer: "sheet", x: f.at.x, y: f.at.y } } : {}),
    });
  sayWork(doc, choice, sides, say);
  sayGuests(doc, guests, say);
  const over = orders.reduce(
    (n, o, i) => n + (o.sheet ? o.quote.pieces - start * doc.boards[i]!.perProduct : 0),
    0,
  );
  if (over > 0)
    say("panel-over", "remark", `Whole sheets bring ${counted(over, "bare board")} more than are started.`);
}

type Say = (key: string, level: "error" | "warning" | "remark", text: string, todo?: string) => void;
type Choice = NonNullable<RunDocument["choices"]["panel"]>;

/** Boards of other products on the sheets: whether the house makes them, how many come, who pays. */
function sayGuests(doc: RunDocument, guests: readonly GuestOrder[], say: Say): void {
  for (const g of doc.choices.guests ?? []) {
    const known = doc.guests?.find((x) => x.id === g.board);
    if (!known)
      say(
        `guest-gone ${g.board}`,
        "error",
        "A board of another product that is to share the sheet is not there any more.",
        "Take it off, and take a sheet anew.",
      );
    else if (!guests.some((o) => o.guest.id === g.board))
      say(
        `guest-not-on ${g.board}`,
        "warning",
        `${known.name} is to share the sheet, and is not on it.`,
        "Take a sheet that holds it.",
      );
  }
  for (const o of guests) {
    const wanted = wantedOf(doc, o.guest.id);
    const more = o.quote.pieces - wanted;
    say(
      `guest ${o.guest.id}`,
      "remark",
      `${o.quote.pieces} of ${o.name} come on the same sheets${wanted > 0 ? `, ${wanted} are wanted${more > 0 ? `: ${more} over` : ""}` : ""}. Their share by area is ${o.guest.product}'s: it is paid with this order, and no cost of this run.`,
    );
  }
  const { house, options } = doc;
  if (!house || guests.length === 0) return;
  const asRun = { ...doc, boards: guests.map((o) => ({ ...o.guest, perProduct: 1 })), guests: [] };
  for (const c of checksOf(asRun, house, fitOptions(house, options)).filter((k) => k.level === "cannot"))
    say(
      `guest-cannot ${c.board} ${c.measure}`,
      "error",
      `${house.name} cannot make ${guests.find((o) => o.guest.id === c.board)?.name ?? "a board"} on the sheet: ${c.label} ${mm(c.value)} mm, it makes ${mm(c.limit)} mm.`,
      "Choose another house, or take that board off.",
    );
}

function sayWork(doc: RunDocument, choice: Choice, sides: PasteSides, say: Say): void {
  const size = `${mm(choice.widthMm)} × ${mm(choice.heightMm)} mm`;
  if (mayGo(doc, "stencil") && !liesOn(choice, PLATE_MM))
    say(
      "panel-larger-than-plate",
      "warning",
      `The sheet, ${size}, is larger than a hot plate of ${PLATE_MM.join(" × ")} mm: boards would be parted between printing and heat.`,
      "Take a smaller sheet, or heat in an oven that takes it.",
    );
  if (mayGo(doc, "stencil") && doc.assembly.foil)
    say(
      "panel-needs-foil",
      "error",
      "The foil that is used again was cut for single boards; the sheet wants one of its own.",
      "Choose a new foil, or order singly.",
    );
  const t = panelThickness(doc);
  const span = Math.min(choice.widthMm, choice.heightMm);
  const hot = sagMm(span, t, "hot");
  if (mayHeat(doc) && hot > SAG_SHARE * span)
    say(
      "panel-sags",
      "warning",
      `Held on two sides ${mm(span)} mm apart, the sheet sags by ${hot.toFixed(2)} mm when it is hot (${sagMm(span, t, "cold").toFixed(2)} mm cold).`,
      "Support its middle, or take a smaller sheet.",
    );
  if (sides.both.length > 0)
    say(
      "panel-two-sides",
      "remark",
      `${sides.both.join(", ")} carries parts on both sides: the sheet is printed, placed and heated twice.`,
    );
  say(
    "panel-dust",
    "remark",
    "Parting boards makes glass dust and throws splinters: cut under extraction or outdoors, with glasses on, and never blow the dust away. Local rules go first.",
  );
}

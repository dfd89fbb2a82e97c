import type { Measure } from "../../board/measure-document.ts";
import { notJudged } from "../../fab/check.ts";
import { finishKind } from "../../fab/finish.ts";
import { givenUp, nameOfValue, optionOf } from "../../fab/fit-options.ts";
import type { House } from "../../fab/house.ts";
import { type FabOptions, NO_EXTRA, OPTION_WORDS } from "../../fab/options.ts";
import { type FabQuote, fabQuote, hasPriceFor } from "../../fab/price.ts";
import { convertMicros, type Micros, microsToNumber } from "../../money/money.ts";
import { coatingOf, orderRules } from "../../order-sheet/rules.ts";
import { settle } from "../../order-sheet/settle.ts";
import { pricedSize } from "../document/board-facts.ts";
import { aboutBoard, boardMark, ofBoard } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add, BoardCheck } from "../document/note.ts";
import { rateOf } from "../document/parts.ts";
import { quotationOf } from "../document/quotation-holds.ts";
import type { BoardOrder } from "../orders/order-boards.ts";
import { benchNotes } from "./bench-notes.ts";
import { contactNotes } from "./contact-notes.ts";
import { quotationNotes } from "./quotation-notes.ts";

const format = (v: number, unit: string) => `${Number(v.toFixed(3))}${unit === "mm" ? " mm" : ""}`;

/** What is to be said of house, options, limits and quotation. */
export function fabNotes(
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
  sayUnknownSizes(doc, add);
  sayUnpricedLayers(doc, house, orders, add);
  sayGivenUp(doc, house, orders, add);
  for (const c of checks) if (c.level !== "fine") sayLimit(doc, house, c, add);
  sayUnstated(doc, house, options, add);
  sayGuessed(house, orders, add);
  sayOptions(doc, house, options, orders, add);
  benchNotes(doc, house, add);
  const quote = quotationOf(doc, house.id);
  if (quote) quotationNotes(doc, house, quote, orders[0]?.unfit?.misfits ?? [], add);
}

/** Boards whose size is not known: what their price rests on. */
function sayUnknownSizes(doc: RunDocument, add: Add): void {
  for (const b of doc.boards) {
    if (b.measure.outline?.widthMm !== undefined) continue;
    const [w, h] = pricedSize(b.measure);
    add(
      "fab",
      `board-size-unknown${boardMark(doc, b.id)}`,
      "error",
      `The size of ${b.name} is not known, it has no closed outline: ${w * h > 0 ? `price and weight rest on the box of its copper, ${w.toFixed(1)} × ${h.toFixed(1)} mm; the board is larger as a rule` : "its area and weight count nothing here"}.`,
      { do: "Mend the outline, or have the house quote the board.", ...aboutBoard(doc, b.id) },
    );
  }
}

/** Boards of so many layers as the house has no price for; one that was quoted for has one. */
function sayUnpricedLayers(doc: RunDocument, house: House, orders: readonly BoardOrder[], add: Add): void {
  doc.boards.forEach((b, i) => {
    const layers = orders[i]?.facts.layers;
    if (layers === undefined || orders[i]?.quoted || hasPriceFor(house, layers)) return;
    add(
      "fab",
      `layers-not-priced${boardMark(doc, b.id)}`,
      "error",
      `${house.name} has no price for ${layers} copper layers: ${b.name} is counted as if it had two, which is too little.`,
      { do: "Have the house quote it, or add the price to its profile.", ...aboutBoard(doc, b.id) },
    );
  });
}

/** What the house does not have of what was chosen, and whether its money is known. */
function sayGivenUp(doc: RunDocument, house: House, orders: readonly BoardOrder[], add: Add): void {
  for (const g of givenUp(house, doc.options, doc.houses ?? [house]))
    add(
      "fab",
      `option-gave ${g.key}`,
      "warning",
      `${house.name} has no ${OPTION_WORDS[g.key].word} ${g.wished}: ${g.got} is taken in its place.`,
      { do: "Choose what is to be, or another house." },
    );
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
}

/** A limit of the house that a board meets narrowly or not. */
function sayLimit(doc: RunDocument, house: House, c: BoardCheck, add: Add): void {
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
      ...aboutBoard(doc, c.board),
    },
  );
}

/** Limits the house does not state: nothing tells that it can make the board. */
function sayUnstated(doc: RunDocument, house: House, options: FabOptions, add: Add): void {
  for (const b of doc.boards) {
    const missing = notJudged(house, b.measure, options);
    if (missing.length === 0) continue;
    const of = ofBoard(doc, b.id === undefined ? {} : { board: b.id });
    add(
      "fab",
      `house-unstated ${house.id}${boardMark(doc, b.id)}`,
      "warning",
      `${house.name} does not say what it can make of: ${missing.map((s) => s.short).join(", ")}. Nothing tells that it can make this board${of}.`,
      { do: "Ask it, and write its limits into its profile.", ...aboutBoard(doc, b.id) },
    );
  }
}

/** Orders of pieces that the house was not asked for, where it is known by what it quoted alone. */
export const guessedOf = (house: House, orders: readonly BoardOrder[]): readonly BoardOrder[] =>
  house.quotedFor ? orders.filter((o) => !o.quoted && !house.quotedFor!.includes(o.quote.pieces)) : [];

/** A price of a house that is known for other pieces only. */
function sayGuessed(house: House, orders: readonly BoardOrder[], add: Add): void {
  const known = house.quotedFor ?? [];
  const guessed = guessedOf(house, orders);
  if (guessed.length === 0) return;
  const how =
    known.length > 1
      ? "it is a line through its two prices"
      : "half of its one price is taken as set-up, which is a guess";
  add(
    "fab",
    `house-guessed ${house.id}`,
    "warning",
    `${house.name} quoted ${known.join(" and ")} boards; what ${guessed.map((o) => o.quote.pieces).join(" and ")} cost was not asked: ${how}. Freight counts as quoted.`,
    { do: "Ask for a quotation, and type it." },
  );
}

/** Rules whose breach other notes say, with more of its place. */
const SAID_ELSEWHERE: ReadonlySet<string> = new Set(["contacts-finish", "contacts-bevel", "limits"]);

/** Decisions that cannot stand beside each other, and the least change that mends them. */
function sayAgainst(doc: RunDocument, house: House, options: FabOptions, add: Add): void {
  const rules = orderRules(
    house,
    doc.boards.map((b) => b.measure),
  );
  for (const rule of rules) {
    const text = rule.broken(options);
    if (text === undefined || SAID_ELSEWHERE.has(rule.id)) continue;
    const others = new Set(
      rules.filter((r) => r !== rule && r.broken(options) !== undefined).map((r) => r.id),
    );
    const mended = settle(house, rules, options, new Set(), { ignore: others });
    const changes = (mended?.changes ?? []).map((c) => `${OPTION_WORDS[c.key].word} ${c.to}`);
    add("fab", rule.id, "error", `${text[0]!.toUpperCase()}${text.slice(1)}.`, {
      do: changes.length > 0 ? `Choose ${changes.join(" and ")}.` : "Choose another house.",
    });
  }
}

/** What is done to edge contacts alone. */
const OF_CONTACTS = ["contacts", "bevel"] as const;

/** Options hold for every board of a product: what one without contacts pays for those of another. */
function sayPaidForNothing(
  doc: RunDocument,
  house: House,
  options: FabOptions,
  orders: readonly BoardOrder[],
  add: Add,
): void {
  const rate = rateOf(doc, house.currency) ?? "0";
  doc.boards.forEach((b, i) => {
    const order = orders[i];
    const has = (m: Measure) => Object.keys(m.edgeContacts ?? {}).length > 0;
    if (!order || order.sheet || order.quoted || has(b.measure) || !doc.boards.some((o) => has(o.measure)))
      return;
    for (const key of OF_CONTACTS) {
      if (options[key] === undefined || options[key] === NO_EXTRA) continue;
      const [withIt, without] = [options, { ...options, [key]: NO_EXTRA }].map((o) =>
        fabQuote(house, order.facts, o, order.quote.pieces),
      ) as [FabQuote, FabQuote];
      const more = convertMicros((withIt.total - without.total) as Micros, rate);
      if (more <= 0) continue;
      add(
        "fab",
        `paid-for-nothing ${key}${boardMark(doc, b.id)}`,
        "warning",
        `${OPTION_WORDS[key].word[0]!.toUpperCase()}${OPTION_WORDS[key].word.slice(1)} ${nameOfValue([house], key, options[key]!)} holds for every board of the product: ${b.name} has no edge contacts and pays ${microsToNumber(more).toFixed(2)} ${doc.workshop.currency} for it.`,
        {
          do: "Order that board in a run of its own, or have the house quote both without it there.",
          ...aboutBoard(doc, b.id),
        },
      );
    }
  });
}

/** What the options do to contacts, health, reading and fit. */
function sayOptions(
  doc: RunDocument,
  house: House,
  options: FabOptions,
  orders: readonly BoardOrder[],
  add: Add,
): void {
  const finish = finishKind(optionOf(house, "finish", options.finish));
  contactNotes(doc, house, options, coatingOf(house, options), add);
  if (finish.isLeaded)
    add(
      "fab",
      "leaded-finish",
      "warning",
      "A leaded finish: selling it is restricted in many places; check your market. Wash hands, no food at the bench.",
    );
  sayPaidForNothing(doc, house, options, orders, add);
  sayAgainst(doc, house, options, add);
  if (doc.boards.some((b) => (b.measure.castellatedHoles?.count ?? 0) > 0) && finish.isLevelled)
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
      { do: "Choose the stated thickness, or accept with a reason.", ...aboutBoard(doc, b.id) },
    );
  }
}

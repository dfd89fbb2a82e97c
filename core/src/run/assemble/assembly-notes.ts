import type { Method } from "../../assembly/method.ts";
import { turnedParts, turnedWords } from "../../assembly/turns.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import { type LinePart, rateOf } from "../document/parts.ts";
import type { RunSides } from "../document/sides.ts";
import { BOARD_SIDES, isForPaste, isMixed } from "../document/ways.ts";
import type { AssemblyHouse } from "../document/who-places.ts";
import { quotationNotes } from "../fab/quotation-notes.ts";
import type { AssemblyPlan } from "../orders/assembly-house.ts";
import { APART_MM, fitsBeside, foilOrder } from "../orders/foil-order.ts";
import type { Worked } from "../stage/stage.ts";
import { apartDeg, type RotationClass, rotationClasses } from "./rotations.ts";

/** What is to be said of who solders what. */
export function assemblyNotes({ doc, parts, sides: all, goes, plan }: Worked, add: Add): void {
  const sides = all.own;
  const onBoard = parts.filter((p) => p.kind !== "loose");
  const pastesHere = goes.has("stencil");
  if (goes.has("iron")) ironNotes(isMixed(doc) ? onBoard.filter((p) => p.method === "iron") : onBoard, add);
  if (
    pastesHere &&
    doc.boards.some((b) => (b.measure.paste.top?.count ?? 0) + (b.measure.paste.bottom?.count ?? 0) === 0) &&
    onBoard.some((p) => p.method === "stencil")
  )
    add("assemble", "paste-missing", "error", "There is no paste layer, so no stencil can be cut.", {
      do: "Export the paste layer, or solder by iron.",
    });
  if (pastesHere) heatNotes(doc, all, goes, add);
  const order = pastesHere && !doc.assembly.foil ? foilOrder(doc, sides, sides.ofDesigns) : undefined;
  for (const p of order?.tooLarge ?? [])
    add(
      "assemble",
      `foil-too-large ${p.name}`,
      "error",
      `${order!.house.name} cuts foils of ${order!.house.foils.largestMm.join(" × ")} mm at most: ${p.name}, ${p.widthMm} × ${p.heightMm} mm with ${APART_MM} mm around it, does not go on one.`,
      { do: "Take another house for the foil, a smaller sheet, or single boards." },
    );
  const press = doc.assembly.pressMm;
  for (const p of pastesHere && !doc.assembly.foil ? sides.patterns : [])
    if (press && p.widthMm !== undefined && !fitsBeside(p, 1, press))
      add(
        "assemble",
        `foil-press ${p.name}`,
        "warning",
        `Your press holds foils of ${press.join(" × ")} mm: ${p.name}, ${p.widthMm} × ${p.heightMm} mm with ${APART_MM} mm around it, does not go in.`,
        { do: "Print it by hand with the foil taped down, or make smaller sheets." },
      );
  if (goes.has("house") && doc.placements.length === 0)
    add("assemble", "house-placement", "error", "A house cannot place parts without a placement file.", {
      do: "Drop the placement file.",
    });
  if (plan) planNotes(doc, parts, plan, add);
  else if (goes.has("house"))
    add(
      "assemble",
      "assembly-house-missing",
      "error",
      "A house is to place the parts, and none here does such work.",
      {
        do: "Solder here, or add a house with prices for assembly.",
      },
    );
  wayNotes(doc, onBoard, add);
  for (const c of cautionsFor(onBoard, pastesHere)) add("assemble", c.key, "remark", c.text);
}

/** What own heat has below it: parts of the other side, put on here or at a house. */
function heatNotes(doc: RunDocument, sides: RunSides, goes: ReadonlySet<Method>, add: Add): void {
  const { both } = sides.own;
  if (both.length > 0)
    add(
      "assemble",
      "bottom-parts",
      doc.assembly.heater && doc.assembly.heater !== "plate" ? "remark" : "warning",
      `Parts sit on both sides${doc.boards.length > 1 ? ` of ${both.join(", ")}` : ""}: two stencils, two prints and two heats a board are counted.${doc.assembly.heater ? "" : " A hot plate heats only boards that lie flat."}`,
      doc.assembly.heater
        ? {}
        : { do: "Say what melts the paste: an oven or hot air for the second side; or give it to a house." },
    );
  // the house's parts lie below while the other side melts here
  if (goes.has("house") && sides.all.both.length > 0 && both.length === 0 && !doc.assembly.heater)
    add(
      "assemble",
      "house-parts-below",
      "warning",
      "Boards come from the house with parts on one side, and paste is melted on the other: a hot plate heats only boards that lie flat.",
      { do: "Say what melts the paste: an oven or hot air; or solder that side by iron." },
    );
}

/** What is said of single lines and cannot be, and what is not counted where parts go several ways. */
function wayNotes(doc: RunDocument, onBoard: readonly LinePart[], add: Add): void {
  if (!isMixed(doc)) return;
  const { ways = {} } = doc.assembly;
  for (const p of onBoard) {
    const said = [p.line.id, ...BOARD_SIDES.map((side) => `${p.line.id} ${side}`)].some(
      (key) => ways[key] === "stencil",
    );
    if (said && !isForPaste(p))
      add(
        "assemble",
        `way-not-paste ${p.line.id}`,
        "warning",
        `${p.line.refs.join(", ")} ${p.line.refs.length === 1 ? "is" : "are"} said to go on paste, which is no way for ${p.kind === "through" ? "what goes through the board" : "what is put on by hand"}: the iron is counted.`,
        { do: "Take it back under Assemble, part by part.", lines: [p.line.id] },
      );
  }
  if (doc.past?.some((p) => p.good + p.scrapped > 0))
    add(
      "assemble",
      "own-record-mixed",
      "remark",
      "Parts go several ways here: what closed runs of the product came to is not counted, the model alone is.",
    );
}

/** What an iron does not reach. */
function ironNotes(onBoard: readonly LinePart[], add: Add): void {
  const balls = onBoard.filter((p) => p.kind === "ball");
  if (balls.length > 0)
    add("assemble", "iron-balls", "error", "Parts with balls underneath cannot be soldered with an iron.", {
      do: "Use paste and a stencil, or a house.",
      lines: balls.map((p) => p.line.id),
    });
  const leadless = onBoard.filter((p) => p.kind === "leadless");
  if (leadless.length > 0)
    add(
      "assemble",
      "iron-leadless",
      "warning",
      "Leadless parts need hot air; their hidden pad cannot be reached with an iron.",
      { lines: leadless.map((p) => p.line.id) },
    );
}

/** Calm sentences at the step they concern; they defer to local rules (domain.md 10). */
function cautionsFor(parts: readonly LinePart[], pastesHere: boolean): { key: string; text: string }[] {
  const out: { key: string; text: string }[] = [];
  const own = parts.some((p) => p.method !== "house");
  if (!own) return out;
  out.push({
    key: "safety-fumes",
    text: "Flux fumes irritate and can cause asthma: use extraction that filters or leads outside, and do not lean over the work.",
  });
  out.push({
    key: "safety-heat",
    text: pastesHere
      ? "Iron, plate and boards burn skin and start fires: heat-proof surface, never unattended, an extinguisher within reach. A cooking appliance used for soldering never holds food again; a home-made heater needs earth, fuse, thermal cut-out and a competent check."
      : "Iron and boards burn skin and start fires: heat-proof surface, never unattended.",
  });
  out.push({
    key: "safety-static",
    text: "Wrist strap with its series resistor and a grounded mat; never ground yourself while working on live mains.",
  });
  if (parts.some((p) => p.kind === "through"))
    out.push({
      key: "safety-leads",
      text: "Cut leads fly: hold the end, point it away, wear eye protection.",
    });
  out.push({
    key: "safety-law",
    text: "These are reminders. Data sheets, local law and, where required, a licensed person come first.",
  });
  return out;
}

/** Directions of packages as this house will see them, as far as they are not looked at or do not agree. */
function rotationNotes(doc: RunDocument, parts: readonly LinePart[], house: AssemblyHouse, add: Add): void {
  const classes = rotationClasses(doc, parts, house);
  const names = (list: readonly RotationClass[]) =>
    [...new Set(list.map((c) => (c.side === "bottom" ? `${c.package} on the bottom` : c.package)))].join(
      ", ",
    );
  const open = classes.filter((c) => c.stands === "open");
  if (open.length > 0)
    add(
      "assemble",
      `rotation-open ${house.id}`,
      "warning",
      `Nobody looked yet at how ${names(open)} will lie at ${house.name}: a package it expects otherwise goes on turned on every board.`,
      { do: "Look at each once under Assemble, directions.", lines: open.flatMap((c) => c.lines) },
    );
  for (const c of classes.filter((x) => x.stands === "other"))
    add(
      "assemble",
      `rotation-other ${house.id} ${c.key}`,
      "error",
      `${c.package}${c.side === "bottom" ? " on the bottom" : ""} was looked at for ${house.name} with pin ${c.first!.pin} elsewhere: the layout of this board draws it turned by ${Math.round(apartDeg(house.assembly.zeros![c.key]!, c.first!.deg))}° against that.`,
      { do: "Turn it for this house, or look at it again, under Assemble, directions.", lines: [...c.lines] },
    );
  for (const c of classes.filter((x) => x.apart.length > 0))
    add(
      "assemble",
      `rotation-apart ${c.key}`,
      "warning",
      `By their pads, ${c.apart.map((a) => `${a.ref} by ${a.deg}°`).join(", ")} ${c.apart.length === 1 ? "lies" : "lie"} turned against the other ${c.package}: what the file says of ${c.apart.length === 1 ? "it" : "them"} is wrong, or ${c.apart.length === 1 ? "its pads are" : "their pads are"} drawn otherwise.`,
      { do: "Look at pin 1 of each on the picture before a house places them.", lines: [...c.lines] },
    );
  for (const c of classes.filter((x) => x.isFromBelow))
    add(
      "assemble",
      `rotation-below ${c.key}`,
      "error",
      `By their pads, the angles of ${c.package} on the bottom (${c.refs.join(", ")}) are counted as seen from below; what goes out says counter-clockwise from the top.`,
      {
        do: "Export the places with angles as seen from the top, or ask the house how it reads them.",
        lines: [...c.lines],
      },
    );
}

/** Of the house that places: that it is another than chosen, money nobody can convert, its quotation. */
/** Lines a house's machine places: as the bill has it, or those that go to it where parts go several ways. */
const placedLines = (doc: RunDocument, parts: readonly LinePart[]) =>
  isMixed(doc)
    ? parts.flatMap((p) => (p.method === "house" && isForPaste(p) ? [p.line] : []))
    : doc.lines.filter((l) => !l.dnp && l.mount === "machine");

function planNotes(doc: RunDocument, parts: readonly LinePart[], plan: AssemblyPlan, add: Add): void {
  const { house, quotation } = plan;
  const asked = doc.assembly.house;
  if (asked !== undefined && asked !== house.id)
    add(
      "assemble",
      "assembly-house-other",
      "warning",
      `The house chosen for the assembly ${doc.houses?.some((h) => h.id === asked) ? "states no prices for it" : "is not there any more"}: ${house.name} counts in its place.`,
      { do: "Choose who solders." },
    );
  if (asked === undefined)
    add(
      "assemble",
      "assembly-house-taken",
      "remark",
      `Nobody chose which house places the parts: ${house.name}, the first that does such work, is counted.`,
      { do: "Choose one under Assemble." },
    );
  for (const currency of new Set([plan.currency, house.currency]))
    if (rateOf(doc, currency) === undefined)
      add(
        "assemble",
        `assembly-rate-missing ${currency}`,
        "error",
        `${house.name} charges ${currency}; the shop has no exchange rate for it, so its work counts nothing here.`,
        { do: "Set the rate in the shop's settings." },
      );
  const turned = turnedParts(house.assembly.turns, placedLines(doc, parts));
  if (turned.length > 0)
    add(
      "assemble",
      "assembly-turned",
      "remark",
      `In the placement file for ${house.name} packages lie turned as its profile has it: ${turned.map(turnedWords).join("; ")}. Look at its own picture before it places them.`,
    );
  rotationNotes(doc, parts, house, add);
  if (quotation) quotationNotes(doc, house, quotation.quote, quotation.misfits, add);
}

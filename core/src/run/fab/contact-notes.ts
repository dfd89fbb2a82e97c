import type { Measure } from "../../board/measure-document.ts";
import { type FinishKind, finishKind } from "../../fab/finish.ts";
import type { House } from "../../fab/house.ts";
import { type FabOptions, NO_EXTRA } from "../../fab/options.ts";
import { marginOf } from "../../fit/card-edge.ts";
import { mmWords } from "../../fit/row.ts";
import { aboutBoard, boardMark } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";

/**
 * Contacts on the edge want a flat, hard finish and a bevel (domain.md 5.2, F1 to F4): levelled solder on them is refused, thin
 * gold wears, a bevel that reaches copper is refused, and where none is chosen the one that leaves the copper whole is named.
 */
export function contactNotes(
  doc: RunDocument,
  house: House,
  options: FabOptions,
  coating: Pick<FinishKind, "isGold" | "isHard">,
  add: Add,
): void {
  for (const b of doc.boards) {
    const ends = Object.values(b.measure.edgeContacts ?? {}).map((c) => c.setbackMm);
    if (ends.length === 0) continue;
    const mark = boardMark(doc, b.id);
    const of = doc.boards.length > 1 ? ` of ${b.name}` : "";
    const about = aboutBoard(doc, b.id);
    if (!coating.isGold)
      add(
        "fab",
        `contacts-finish${mark}`,
        "error",
        `The edge contacts${of} need a gold finish: other finishes are uneven or tarnish, and make no good contact.`,
        { do: goldWays(house), ...about },
      );
    else if (!coating.isHard)
      add(
        "fab",
        `contacts-wear${mark}`,
        "remark",
        `Thin gold on the edge contacts${of} wears through after some 20 to 50 insertions; hard gold lasts.`,
        about,
      );
    const said = bevelNote(doc, house, options, Math.min(...ends), of);
    if (said) add("fab", `contacts-bevel${mark}`, said.level, said.text, { do: said.do, ...about });
  }
  if (isBevelled(options) && doc.boards.every((b) => Object.keys(b.measure.edgeContacts ?? {}).length === 0))
    add("fab", "bevel-without-contacts", "remark", "A bevel is chosen, and no edge contacts are found.", {
      do: "Choose none, unless the edge has to go into something all the same.",
    });
}

/** How the contacts can be gold at this house. */
function goldWays(house: House): string {
  const own = (house.options.contacts ?? [])
    .filter((o) => finishKind(o).isGold)
    .map((o) => `${o.label} on the contacts`);
  const whole = house.options.finish.filter((o) => finishKind(o).isGold).map((o) => `finish ${o.label}`);
  const ways = [...own, ...whole];
  return ways.length > 0
    ? `Choose ${ways.join(" or ")}, or accept with a reason.`
    : "Choose a house that has gold, or accept with a reason.";
}

const isBevelled = (o: FabOptions): boolean => o.bevel !== undefined && o.bevel !== NO_EXTRA;

interface Said {
  readonly level: "error" | "warning";
  readonly text: string;
  readonly do: string;
}

/** What is to be said of the bevel of one board's contacts; nothing where the chosen one is right. */
function bevelNote(
  doc: RunDocument,
  house: House,
  options: FabOptions,
  setbackMm: number,
  of: string,
): Said | undefined {
  const thickness = Number.parseFloat(options.thickness);
  const wants = `The edge contacts${of} want a bevelled edge to go into a socket.`;
  const list = house.options.bevel;
  if (!list) {
    const others = (doc.houses ?? []).filter((h) => h.options.bevel).map((h) => h.name);
    return {
      level: "warning",
      text: `${wants} ${house.name} has none among its options, so it is not in the price.${tooNear([20, 30, 45], thickness, setbackMm)}`,
      do: `Ask the house for it in its remarks, with its angle${others.length > 0 ? `, choose ${others.join(" or ")}` : ""}, or accept where nothing is plugged in.`,
    };
  }
  const angles = list.map((o) => Number.parseFloat(o.value)).filter((a) => a > 0);
  // the flattest leads in best
  const right = angles
    .filter((a) => marginOf(thickness, a, setbackMm).marginMm >= 0)
    .sort((a, b) => a - b)[0];
  const advice =
    right === undefined
      ? "Set the contacts back, take a thinner board, or accept where nothing is plugged in."
      : `Choose ${right}°, which leaves ${mmWords(marginOf(thickness, right, setbackMm).marginMm)} mm, or accept where nothing is plugged in.`;
  if (!isBevelled(options))
    return { level: "warning", text: `${wants}${tooNear(angles, thickness, setbackMm)}`, do: advice };
  const chosen = marginOf(thickness, Number.parseFloat(options.bevel!), setbackMm);
  if (chosen.marginMm >= 0) return undefined;
  return {
    level: "error",
    text: `A bevel of ${options.bevel}° is ${mmWords(chosen.depthMm)} mm deep at ${options.thickness} mm, and the edge contacts${of} begin ${mmWords(setbackMm)} mm from the edge: ${mmWords(-chosen.marginMm)} mm are missing, and the grinder meets copper.`,
    do: advice,
  };
}

/** Which bevels are too deep for where the contacts end. */
function tooNear(angles: readonly number[], thicknessMm: number, setbackMm: number): string {
  const short = angles.map((a) => marginOf(thicknessMm, a, setbackMm)).filter((b) => b.marginMm < 0);
  if (short.length === 0) return "";
  const need = Math.max(...short.map((b) => b.needMm));
  return ` They end ${mmWords(setbackMm)} mm from the edge: too near for ${short.map((b) => `${b.angleDeg}°`).join(" and ")}, where ${mmWords(need)} mm are needed at ${thicknessMm} mm.`;
}

/** The bevel to begin with: the flattest that leaves every board's contacts whole. */
export function firstBevel(house: House, boards: readonly Measure[], thickness: string): string | undefined {
  const ends = boards.flatMap((m) => Object.values(m.edgeContacts ?? {}).map((c) => c.setbackMm));
  if (ends.length === 0) return undefined;
  const mm = Number.parseFloat(thickness);
  return (house.options.bevel ?? [])
    .filter(
      (o) =>
        o.value !== NO_EXTRA && marginOf(mm, Number.parseFloat(o.value), Math.min(...ends)).marginMm >= 0,
    )
    .sort((a, b) => Number.parseFloat(a.value) - Number.parseFloat(b.value))[0]?.value;
}

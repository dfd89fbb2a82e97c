import { counted } from "../../counted.ts";
import { aidFor, bestSight, ironVerdict, TIP_C, tipFor } from "../../equipment/by-hand.ts";
import {
  brokenWords,
  EQUIPMENT,
  type Equipment,
  mindWords,
  type ToolVerdict,
} from "../../equipment/equipment.ts";
import { heaterVerdict } from "../../equipment/heater.ts";
import { few } from "../../findings.ts";
import { ALLOY_WORDS } from "../../heat/window.ts";
import { type Hold, holdOf } from "../../steps/hold.ts";
import type { Step, Work } from "../../steps/step.ts";
import { boardOf } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import type { LinePart } from "../document/parts.ts";
import type { BoardOrder } from "../orders/order-boards.ts";

/** What a roll-up has that tools are judged by. */
export interface ToolsGiven {
  readonly doc: RunDocument;
  readonly orders: readonly BoardOrder[];
  /** Products that are started. */
  readonly start: number;
}

/** What a board is heated as: alone, or with the sheet it is part of; undefined where its size is not known. */
function pieceOf({ doc, orders, start }: ToolsGiven, board: number) {
  const b = doc.boards[board];
  const sheet = orders[board]?.sheet;
  // a load is no more than there is
  const perLoad = Math.min(doc.assembly.perLoad, Math.max(1, start * (b?.perProduct ?? 1)));
  if (sheet)
    return {
      sizeMm: [sheet.widthMm, sheet.heightMm] as const,
      word: "sheet" as const,
      perLoad: Math.max(1, Math.ceil(perLoad / Math.max(1, sheet.perSheet))),
    };
  const e = b?.measure.outline?.rings?.length ? b.measure.extentMm : undefined;
  return e && { sizeMm: [e[2] - e[0], e[3] - e[1]] as const, word: "board" as const, perLoad };
}

/** The tallest that is on a board in its heat; undefined where the height of any of it is not known. */
function tallest(work: Work, board: number): number | undefined {
  const on = work.parts.filter((p) => p.board === board && p.how === "paste");
  return on.length > 0 && on.every((p) => p.heightMm !== undefined)
    ? Math.max(...on.map((p) => p.heightMm!))
    : undefined;
}

/** The heaters a run's paste may be melted by: of the kind that was chosen, or all while none is. */
export const heatersOf = (doc: RunDocument): Equipment[] =>
  (doc.equipment ?? []).filter((e) =>
    doc.assembly.heater
      ? e.kind === doc.assembly.heater
      : e.kind === "plate" || e.kind === "oven" || e.kind === "air",
  );

/** What each heater of the shop makes of a board. */
export function heatTools(given: ToolsGiven, board: number, work: () => Work): ToolVerdict[] {
  const piece = pieceOf(given, board);
  // only room above asks how tall the parts are
  const isAsked = heatersOf(given.doc).some((e) => e.facts.heightMm !== undefined);
  const heightMm = isAsked ? tallest(work(), board) : undefined;
  return heatersOf(given.doc).map((e) =>
    piece
      ? heaterVerdict(e, {
          ...piece,
          ...(heightMm === undefined ? {} : { heightMm }),
          alloy: given.doc.assembly.alloy ?? "silver",
        })
      : { name: e.name, can: "unknown", words: ["the size of the board is not known"] },
  );
}

/** What the heat of *this* board wants minded: copper that draws heat away, what the air takes with it, what is plastic. */
export function boardInHeat(doc: RunDocument, work: Work, step: Pick<Step, "board" | "side">): string[] {
  const board = doc.boards[step.board ?? 0];
  if (!board) return [];
  const here = work.parts.filter((p) => p.board === step.board && p.side === step.side && p.how === "paste");
  const kinds = new Map(doc.lines.map((l) => [l.id, l.package]));
  const full = Object.entries(board.measure.copperShare ?? {}).filter(([, share]) => share > 0.6);
  const tiny = here.filter((p) => /(^|\D)(0402|0201|01005)(\D|$)/.test(kinds.get(p.line) ?? ""));
  const plastic = here.filter((p) => /HDR|HEADER|CONN|SOCKET|JACK|SW\b|KEY/i.test(kinds.get(p.line) ?? ""));
  const isAir = doc.assembly.heater === "air";
  return [
    ...full.map(
      ([layer, share]) =>
        `Copper covers ${Math.round(100 * share)} % of ${layer}: it warms slowly, and what is joined to it melts last.`,
    ),
    ...(isAir && tiny.length > 0
      ? [
          `The air takes small ones along: least flow, straight from above, over ${few(
            tiny.map((p) => p.name),
            6,
          )}.`,
        ]
      : []),
    ...(plastic.length > 0
      ? [
          `Bodies of plastic in this heat: ${few(
            plastic.map((p) => p.name),
            6,
          )}${isAir ? "; shielded from the stream" : ""}.`,
        ]
      : []),
  ];
}

/** What a line of a step is soldered, seen and held with. */
export interface LineTools {
  readonly tip?: string;
  /** The shop lists tips, and none of them suits. */
  readonly isTipMissing?: true;
  readonly sight?: string;
  /** The strongest the shop lists is weaker. */
  readonly isSightMissing?: true;
  readonly hold?: Hold;
}

export function lineTools(
  doc: RunDocument,
  step: Pick<Step, "kind">,
  part: LinePart,
  heightMm?: number,
): LineTools {
  const all = doc.equipment ?? [];
  const isIron = step.kind === "iron";
  const tip = isIron
    ? tipFor(
        part.kind,
        all.filter((e) => e.kind === "iron"),
      )
    : undefined;
  const aid = step.kind === "mechanical" ? undefined : aidFor(part.kind, part.line.package);
  const best = bestSight(all);
  const hold = isIron
    ? (doc.assembly.held?.[part.line.id] ??
      holdOf({
        kind: part.kind,
        package: part.line.package,
        joints: part.joints,
        ...(heightMm === undefined ? {} : { heightMm }),
      }))
    : undefined;
  return {
    ...(tip ? { tip: tip.words } : {}),
    ...(tip?.isMissing ? { isTipMissing: true as const } : {}),
    // a head magnifier is worn anyhow: told is what it does not do for
    ...(aid && aid.times > 2 ? { sight: aid.word } : {}),
    ...(aid && best && aid.times > best.facts.magnifies!
      ? { sight: aid.word, isSightMissing: true as const }
      : {}),
    ...(hold ? { hold } : {}),
  };
}

/** Which kind of the shop's equipment a step is done with, beside heaters and what is chosen a line at a time. */
const KIND_OF: Partial<Record<Step["kind"], readonly Equipment["kind"][]>> = {
  "program-before": ["programmer"],
  program: ["programmer"],
  clean: ["washer"],
  inspect: ["eyes"],
  test: ["supply", "meter"],
};

/** The machines of a step, each with what it can and cannot there. */
export function stepTools(given: ToolsGiven, work: Work, step: Pick<Step, "kind" | "board">): ToolVerdict[] {
  const { doc } = given;
  const all = doc.equipment ?? [];
  if (step.kind === "heat") return heatTools(given, step.board ?? 0, () => work);
  if (step.kind === "iron")
    return all.filter((e) => e.kind === "iron").map((e) => ironVerdict(e, wireOf(doc)));
  return all
    .filter((e) => KIND_OF[step.kind]?.includes(e.kind))
    .map((e): ToolVerdict => {
      const no = [
        ...brokenWords(e),
        ...(step.kind === "clean" && !mayFill(e, doc)
          ? [`is not for ${doc.assembly.cleaner ?? "water"}`]
          : []),
      ];
      return {
        name: e.name,
        can: no.length > 0 ? "no" : "yes",
        words: [...no, ...(e.can === "" ? [] : [e.can]), ...mindWords(e)],
      };
    });
}

const mayFill = ({ facts }: Equipment, { assembly }: RunDocument): boolean =>
  facts.cleans === undefined || facts.cleans === "both" || facts.cleans === (assembly.cleaner ?? "water");

/** Alloy of the wire: as said, else as the paste. */
export const wireOf = ({ assembly }: RunDocument) => assembly.wire ?? assembly.alloy ?? "silver";

/** How hot the tip is set. */
export const tipHeatWords = (doc: RunDocument): string =>
  `Tip at ${TIP_C[wireOf(doc)].join(" to ")} °C for ${ALLOY_WORDS[wireOf(doc)]} wire${doc.assembly.wire || doc.assembly.alloy ? "" : ", taken for granted until it is said"}; the wire’s own sheet comes first.`;

/** Heights of bodies by the name they have in the steps, for how parts are held. */
export const heightsOf = (work: Work): ReadonlyMap<string, number> =>
  new Map(work.parts.flatMap((p) => (p.heightMm === undefined ? [] : [[p.name, p.heightMm] as const])));

/** What of the shop's equipment is in the way of the chosen route, in words for the margin. */
export function equipmentTroubles(
  given: ToolsGiven & { readonly parts: readonly LinePart[] },
  work: () => Work,
): { key: string; text: string; do: string }[] {
  const { doc } = given;
  if (!doc.equipment?.length) return [];
  const out: { key: string; text: string; do: string }[] = [];
  const heated = [
    ...new Set(
      given.parts
        .filter((p) => p.kind !== "loose" && p.method === "stencil" && p.line.refs.length > 0)
        .map((p) => Math.max(0, doc.boards.indexOf(boardOf(doc, p.line)!))),
    ),
  ];
  const heaters = heatersOf(doc);
  const { heater } = doc.assembly;
  if (heated.length > 0 && heater && heaters.length === 0)
    out.push({
      key: `equipment-none ${heater}`,
      text: `The paste is melted by ${EQUIPMENT[heater].label}, and the shop's equipment lists none.`,
      do: "Choose what melts it under Assemble, order of work; or list it under Settings, Equipment.",
    });
  for (const board of heated) {
    const tools = heatTools(given, board, work);
    if (tools.length > 0 && tools.every((t) => t.can === "no"))
      out.push({
        key: `equipment-heat ${board}`,
        text: `No heater of the shop melts ${doc.boards[board]?.name ?? doc.product}: ${tools.map((t) => `${t.name} ${t.words[0]}`).join("; ")}.`,
        do: "Fewer boards a load, another heater or alloy, or another way for this side.",
      });
  }
  return out;
}

/** Parts whose joints want a stronger glass, or a tip, than any the shop lists. */
export function handTroubles(
  doc: RunDocument,
  parts: readonly LinePart[],
): { key: string; text: string; do: string }[] {
  const all = doc.equipment ?? [];
  const best = bestSight(all);
  const irons = all.filter((e) => e.kind === "iron");
  const ours = parts.filter((p) => p.method !== "house" && p.kind !== "loose" && p.line.refs.length > 0);
  const blind = best ? ours.filter((p) => aidFor(p.kind, p.line.package).times > best.facts.magnifies!) : [];
  const bare = ours.filter((p) => p.method === "iron" && tipFor(p.kind, irons)?.isMissing);
  const names = (list: readonly LinePart[]) => {
    const refs = list.flatMap((p) => p.line.refs);
    return refs.length > 4
      ? `${refs.slice(0, 3).join(", ")} and ${counted(refs.length - 3, "more part")}`
      : refs.join(", ");
  };
  const strongest = blind.map((p) => aidFor(p.kind, p.line.package)).sort((a, b) => b.times - a.times)[0];
  return [
    ...(strongest
      ? [
          {
            key: "equipment-sight",
            text: `${names(blind)}: joints like these want ${strongest.word}; the strongest the shop lists, ${best!.name}, magnifies × ${best!.facts.magnifies}.`,
            do: "Borrow or buy one, let a house place these, or take a larger package.",
          },
        ]
      : []),
    ...(bare.length > 0
      ? [
          {
            key: "equipment-tip",
            text: `No tip of the shop suits ${names(bare)}: ${tipFor(bare[0]!.kind, irons)!.words}.`,
            do: "Buy the tip before the day, or list it under Settings, Equipment.",
          },
        ]
      : []),
  ];
}

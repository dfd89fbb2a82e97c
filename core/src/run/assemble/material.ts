import { finishKind } from "../../fab/finish.ts";
import { ALLOY_WORDS } from "../../heat/window.ts";
import { isWashed } from "../document/bill/as-made.ts";
import type { RunDocument } from "../document/document.ts";
import type { Add } from "../document/note.ts";
import type { LinePart } from "../document/parts.ts";

/** What flux leaves, and whether it may stay (trade rules, recalled; the flux's own sheet comes first). */
export const FLUXES = {
  noclean: { label: "no-clean", words: "what it leaves may stay; half washed it is worse than not at all" },
  rosin: {
    label: "rosin",
    words: "what it leaves may stay inside a housing; a solvent takes it off, water does not",
  },
  water: { label: "water-soluble", words: "it eats copper: it is washed off within the working day" },
} as const;
export type Flux = keyof typeof FLUXES;

/** How washing is done, with what is used. */
export function washWords({ assembly }: RunDocument): string[] {
  const cleaner = assembly.cleaner ?? "water";
  return [
    cleaner === "water"
      ? "Warm water without salts, a soft brush, rinsed until it stays clear; then dried warm, 60 °C at most, for an hour or overnight in moving air before power."
      : "The solvent of the flux’s sheet, a soft brush, a second clean bath; dried in moving air, nothing hot or sparking near it.",
    ...(assembly.flux === "water"
      ? ["Within the working day after the last solder: this flux eats copper."]
      : []),
    "Used cleaner holds metal and flux: it is collected, not poured away, as the local rules ask.",
  ];
}

/** Letters of what usually lets liquid in: switches, relays, buzzers, microphones, sensors with an opening, trimmers. */
const OPEN_BODIES = /^(SW|S|K|RL|BZ|LS|MIC|MK|RV|VR|POT)\d/i;

/** Solder, flux and washing of one board against each other, and what the product has lead from (N109, N145). */
export function materialNotes(
  doc: RunDocument,
  parts: readonly LinePart[],
  finish: string | undefined,
  add: Add,
): void {
  const ours = parts.filter((p) => p.method !== "house" && p.kind !== "loose" && p.line.refs.length > 0);
  if (ours.length === 0) return;
  alloyNotes(doc, ours, finish, add);
  const { flux, cleaner } = doc.assembly;
  if (flux && flux !== "water" && cleaner === "water")
    add(
      "assemble",
      "wash-white",
      "warning",
      `Water alone does not take off what ${FLUXES[flux].label} flux leaves: a white film stays, and what is below it draws damp.`,
      { do: "Wash with the solvent of the flux’s sheet, or leave it as it is." },
    );
  if (isWashed(doc, parts)) {
    const known = new Set((doc.library ?? []).filter((p) => p.fitAfter !== undefined).map((p) => p.mpn));
    const open = ours.filter((p) => OPEN_BODIES.test(p.line.refs[0]!) && !known.has(p.line.mpn));
    if (open.length > 0)
      add(
        "assemble",
        `wash-open ${open.map((p) => p.line.refs[0]).join(" ")}`.slice(0, 200),
        "warning",
        `The boards are washed with ${open.flatMap((p) => p.line.refs).join(", ")} on them: parts of their kind often let liquid in, and nobody said that these do not.`,
        {
          do: "Let them go on after washing (a field of the part in the library), or accept it with what their sheet says.",
          lines: open.map((p) => p.line.id),
        },
      );
  }
}

function alloyNotes(doc: RunDocument, ours: readonly LinePart[], finish: string | undefined, add: Add): void {
  const { alloy, wire } = doc.assembly;
  const hasPaste = ours.some((p) => p.method === "stencil");
  const hasIron = ours.some((p) => p.method === "iron");
  const leadedFinish = finish !== undefined && finishKind({ value: finish }).isLeaded;
  const used = [...(hasPaste && alloy ? [alloy] : []), ...(hasIron && wire ? [wire] : [])];
  const has = (a: string) => used.includes(a as never);
  const lead = [
    ...(hasPaste && alloy === "lead" ? ["paste"] : []),
    ...(hasIron && wire === "lead" ? ["wire"] : []),
    ...(leadedFinish ? ["finish of the boards"] : []),
  ];
  if (has("bismuth") && lead.length > 0)
    add(
      "assemble",
      "alloy-bismuth-lead",
      "error",
      `${ALLOY_WORDS.bismuth} and lead (${lead.join(", ")}) on one board: where they mix, joints melt again below 100 °C.`,
      {
        do: "Take one of the two away: alloys are chosen under Assemble, order of work, the finish under Fab.",
      },
    );
  else if (hasPaste && hasIron && alloy && wire && alloy !== wire)
    add(
      "assemble",
      `alloy-mixed ${alloy} ${wire}`,
      "warning",
      `Paste of ${ALLOY_WORDS[alloy]} and wire of ${ALLOY_WORDS[wire]} on one board: a joint that gets both is neither, and melts and ages as no sheet says.`,
      { do: "Mend pasted joints with wire of the same alloy, and keep a tip for each." },
    );
  if (lead.length > 0)
    add(
      "assemble",
      "alloy-lead",
      "warning",
      `There is lead in it: ${lead.join(", ")}. Where it is sold decides whether it may be: local rules come first.`,
      {
        do: "Nothing to eat at the bench, hands washed, waste kept apart; accept this with what the market it is sold in asks.",
      },
    );
}

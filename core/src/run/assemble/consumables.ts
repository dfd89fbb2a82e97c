import { type Consumable, type InHand, inHand } from "../../equipment/consumable.ts";
import { EQUIPMENT, type Equipment } from "../../equipment/equipment.ts";
import type { Step } from "../../steps/step.ts";
import type { RunDocument } from "../document/document.ts";
import type { RunResult } from "../stage/result.ts";
import { wireOf } from "./tools.ts";

/** What is used up at a step. */
const USED_AT: Partial<Record<Step["kind"], readonly Consumable[]>> = {
  print: ["paste"],
  iron: ["wire", "flux"],
  clean: ["cleaner"],
};

/**
 * How it is with what a run uses up, of each kind the shop lists any of: paste where something is printed, wire and flux where
 * something is soldered by hand, fluid where boards are washed.
 *
 * @param list the shop's equipment as it is now: what was released is not asked whether its paste is still good
 * @param today ISO day
 * @param kind of a step: only what is used there
 */
export function consumablesOf(
  doc: Pick<RunDocument, "assembly">,
  r: Pick<RunResult, "goes" | "parts">,
  list: readonly Equipment[],
  today: string,
  kind?: Step["kind"],
): InHand[] {
  const { alloy = "silver", cleaner } = doc.assembly;
  const isPrinted = r.goes.has("stencil");
  const isIroned = r.parts.some((p) => p.method === "iron");
  const wants: readonly (readonly [Consumable, boolean, { alloy?: string; cleans?: string }])[] = [
    ["paste", isPrinted, { alloy }],
    ["wire", isIroned, { alloy: wireOf(doc as RunDocument) }],
    ["flux", isIroned, {}],
    ["cleaner", cleaner !== undefined, { ...(cleaner ? { cleans: cleaner } : {}) }],
  ];
  return wants.flatMap(([what, isUsed, wish]) => {
    if (!isUsed || (kind && !USED_AT[kind]?.includes(what))) return [];
    const found = inHand(list, what, today, wish);
    return found ? [found] : [];
  });
}

/** What of it is in the way of a run that begins today, in words for the margin. */
export function consumableTroubles(
  doc: RunDocument,
  r: Pick<RunResult, "goes" | "parts">,
): { key: string; text: string; do: string }[] {
  return consumablesOf(doc, r, doc.equipment ?? [], doc.today).flatMap((c) =>
    c.is === "spent" || c.is === "other"
      ? [
          {
            key: `consumable ${c.kind}`,
            text: `${EQUIPMENT[c.kind].label[0]!.toUpperCase()}${EQUIPMENT[c.kind].label.slice(1)}: ${c.name ? `${c.name} ${c.words}` : c.words}.`,
            do: "Order it with the parts, so that it is here with them; write the new one down under Settings, Equipment.",
          },
        ]
      : [],
  );
}

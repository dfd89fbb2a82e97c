import type { Measure } from "../board/measure-document.ts";
import { checkHouse, notJudged } from "../fab/check.ts";
import { finishKind } from "../fab/finish.ts";
import { fitOptions } from "../fab/fit-options.ts";
import { type House, makesBoards } from "../fab/house.ts";
import type { FabOptions } from "../fab/options.ts";
import { fabQuote } from "../fab/price.ts";
import { orderRules } from "../order-sheet/rules.ts";
import { settle } from "../order-sheet/settle.ts";
import { boardFacts } from "./document/board-facts.ts";
import type { RunAssembly, RunChoices } from "./document/document.ts";
import { firstBevel } from "./fab/contact-notes.ts";

/** A stated thickness and an offered one are the same within this, mm. */
const SAME_THICKNESS_MM = 0.05;

/**
 * What a new run begins with, for a person to change: the first house that can make all of its boards, in the thickness
 * their job files state, with what edge contacts and half holes ask for, as far as the house has it. One that says
 * what it can make goes before one that does not. The first house of all where none can make it; its checks say why then.
 */
export function firstChoices(
  boards: readonly Measure[],
  houses: readonly House[],
): { readonly house?: House; readonly options: Partial<FabOptions> } {
  const able = houses.filter((h) => makesBoards(h) && canMake(h, boards));
  const saysSo = able.find((h) => boards.every((m) => notJudged(h, m, optionsOf(h, boards)).length === 0));
  const house = saysSo ?? able[0] ?? houses.find(makesBoards);
  return house ? { house, options: firstOptions(house, boards) } : { options: {} };
}

const optionsOf = (house: House, boards: readonly Measure[]) =>
  fitOptions(house, firstOptions(house, boards));
const canMake = (house: House, boards: readonly Measure[]): boolean =>
  boards.every((m) => checkHouse(house, m, optionsOf(house, boards)).every((c) => c.level !== "cannot"));

function firstOptions(house: House, boards: readonly Measure[]): Partial<FabOptions> {
  const stated = boards.flatMap((m) => (m.thicknessMm === undefined ? [] : [m.thicknessMm]));
  const thickness = house.options.thickness.find((o) =>
    stated.some((mm) => Math.abs(mm - Number.parseFloat(o.value)) <= SAME_THICKNESS_MM),
  );
  const hasContacts = boards.some((m) => Object.keys(m.edgeContacts ?? {}).length > 0);
  // hard gold wears better under a socket; over a whole board it makes joints brittle
  const hard = house.options.finish.find((o) => finishKind(o).isHard && /contact/i.test(o.label));
  const bevel = firstBevel(house, boards, thickness?.value ?? house.options.thickness[0]!.value);
  const wish: Partial<FabOptions> = {
    ...(thickness ? { thickness: thickness.value } : {}),
    ...(bevel ? { bevel } : {}),
    ...(hasContacts && hard ? { finish: hard.value } : {}),
  };
  // what the boards ask for beyond that, with the least change: gold under contacts, half holes
  const options = fitOptions(house, wish);
  const price = (o: FabOptions) => boards.reduce((n, m) => n + fabQuote(house, boardFacts(m), o, 1).total, 0);
  const settled = settle(house, orderRules(house, boards), options, new Set(["thickness"]), { price });
  return {
    ...wish,
    // said, so that another house knows that it was asked for
    ...(hasContacts && settled ? { finish: settled.options.finish } : {}),
    ...Object.fromEntries((settled?.changes ?? []).map((c) => [c.key, settled!.options[c.key]])),
  };
}

/** What a run says of how its product is built, whoever solders. */
const CARRIED = [
  "alloy",
  "wire",
  "flux",
  "cleaner",
  "heater",
  "programAt",
  "testAt",
  "programLoose",
  "programs",
  "images",
  "tests",
] as const;
/** What names lines of the bill holds for the same revision alone. */
const OF_LINES = ["covers", "odd", "held"] as const;

/**
 * How a product was built last, for its next run: what melts, which paste, where it is programmed and tested, in which order.
 * What names lines of the bill (what covers what, an order of one's own) holds for the same revision alone.
 */
export function carriedWork(
  last: { readonly assembly: Partial<RunAssembly>; readonly choices: RunChoices },
  isSameRevision: boolean,
): { assembly: Partial<RunAssembly>; choices: RunChoices } {
  const { assembly, choices } = last;
  const keys = [...CARRIED, ...(isSameRevision ? OF_LINES : [])];
  const steps = choices.steps && (isSameRevision ? choices.steps : { school: choices.steps.school });
  return {
    assembly: Object.fromEntries(keys.flatMap((k) => (assembly[k] === undefined ? [] : [[k, assembly[k]]]))),
    choices: steps ? { steps } : {},
  };
}

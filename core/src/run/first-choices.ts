import type { Measure } from "../board/measure-document.ts";
import { checkHouse, notJudged } from "../fab/check.ts";
import { finishKind } from "../fab/finish.ts";
import { type FabOptions, fitOptions, type House } from "../fab/house.ts";
import { firstBevel } from "./contact-notes.ts";

/** A stated thickness and an offered one are the same within this, mm. */
const SAME_THICKNESS_MM = 0.05;

/**
 * What a new run begins with, for a person to change: the first house that can make all of its boards, in the thickness
 * their job files state and, where a board has edge contacts, in a gold finish, as far as the house has them. One that says
 * what it can make goes before one that does not. The first house of all where none can make it; its checks say why then.
 */
export function firstChoices(
  boards: readonly Measure[],
  houses: readonly House[],
): { readonly house?: House; readonly options: Partial<FabOptions> } {
  const able = houses.filter((h) => canMake(h, boards));
  const saysSo = able.find((h) => boards.every((m) => notJudged(h, m, optionsOf(h, boards)).length === 0));
  const house = saysSo ?? able[0] ?? houses[0];
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
  // hard gold wears better under a socket than the thin one; either is flat
  const gold = house.options.finish.filter((o) => finishKind(o).isGold);
  const finish = hasContacts ? (gold.find((o) => finishKind(o).isHard) ?? gold[0]) : undefined;
  const bevel = firstBevel(house, boards, thickness?.value ?? house.options.thickness[0]!.value);
  return {
    ...(thickness ? { thickness: thickness.value } : {}),
    ...(finish ? { finish: finish.value } : {}),
    ...(bevel ? { bevel } : {}),
  };
}

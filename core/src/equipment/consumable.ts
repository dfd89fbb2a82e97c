import { later } from "../day.ts";
import type { Equipment, EquipmentKind } from "./equipment.ts";

/** What is used up and goes off: kinds of the shop's equipment that have a life. */
export const CONSUMABLES = ["paste", "wire", "flux", "cleaner"] as const satisfies readonly EquipmentKind[];
export type Consumable = (typeof CONSUMABLES)[number];
export const isConsumable = (kind: EquipmentKind): kind is Consumable =>
  (CONSUMABLES as readonly string[]).includes(kind);

/** Days before its end at which one is told that it ends: another may be ordered still. */
export const SOON_DAYS = 21;

/** How it is with one of them on a day. */
export interface Life {
  readonly is: "good" | "soon" | "spent" | "unknown";
  /** ISO day by which it is good, as far as that is known. */
  readonly until?: string;
  readonly words: string;
}

/**
 * Until when something that goes off is good: by the day on its tub, or so many days after it was opened, whichever comes
 * first (N045, X16). Its maker's sheet says both; nothing is taken for either. Opened without so many days said, or not said to
 * be opened, it is good as long as its tub says.
 *
 * @param today ISO day
 */
export function lifeOf(e: Pick<Equipment, "facts" | "state">, today: string): Life {
  if (e.state === "broken") return { is: "spent", words: "not to be used" };
  const { keepsUntil, openedOn, openDays } = e.facts;
  const opened = openedOn !== undefined && openDays !== undefined ? later(openedOn, openDays) : undefined;
  const ends = [keepsUntil, opened].filter((d) => d !== undefined).sort();
  const until = ends[0];
  const isAhead = openedOn !== undefined && openedOn > today;
  if (until === undefined)
    return {
      is: "unknown",
      words:
        openedOn === undefined
          ? "until when it is good is not said"
          : `opened on ${openedOn}, good for how long is not said`,
    };
  const why =
    until === opened && until !== keepsUntil
      ? `opened on ${openedOn}, good for ${openDays} days`
      : "by its label";
  if (isAhead)
    return { is: "unknown", until, words: `said to be opened on ${openedOn}, which is still to come` };
  if (today > until) return { is: "spent", until, words: `was good until ${until}, ${why}` };
  return {
    is: later(today, SOON_DAYS) >= until ? "soon" : "good",
    until,
    words: `good until ${until}, ${why}`,
  };
}

/** What is told of one kind of them that a run needs. */
export interface InHand {
  readonly kind: Consumable;
  readonly is: Life["is"] | "other";
  /** The best of the kind, where there is one. */
  readonly name?: string;
  readonly words: string;
}

const BEST: readonly Life["is"][] = ["good", "soon", "unknown", "spent"];

/**
 * The best of a kind that a run may use: of its alloy where it has one, the longest good. Nothing where the shop lists none of
 * the kind at all: then nobody keeps a count of it.
 *
 * @param wants what the run asks of it: an alloy, what boards are washed with
 */
export function inHand(
  list: readonly Equipment[],
  kind: Consumable,
  today: string,
  wants: { readonly alloy?: string; readonly cleans?: string } = {},
): InHand | undefined {
  const all = list.filter((e) => e.kind === kind);
  if (all.length === 0) return undefined;
  const fits = all.filter(
    (e) =>
      (wants.alloy === undefined || e.facts.alloy === undefined || e.facts.alloy === wants.alloy) &&
      (wants.cleans === undefined ||
        e.facts.cleans === undefined ||
        e.facts.cleans === "both" ||
        e.facts.cleans === wants.cleans),
  );
  if (fits.length === 0)
    return {
      kind,
      is: "other",
      words: `none of it is what this run takes: ${all.map((e) => e.name).join(", ")}`,
    };
  const [best] = fits
    .map((e) => ({ e, life: lifeOf(e, today) }))
    .sort(
      (a, b) =>
        BEST.indexOf(a.life.is) - BEST.indexOf(b.life.is) ||
        (b.life.until ?? "").localeCompare(a.life.until ?? ""),
    );
  return { kind, is: best!.life.is, name: best!.e.name, words: best!.life.words };
}

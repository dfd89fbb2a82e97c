import type { Measure } from "../board/measure-document.ts";
import { counted } from "../counted.ts";
import { checkHouse, type LimitCheck } from "../fab/check.ts";
import { finishKind } from "../fab/finish.ts";
import { extraOf, fitOptions, nameOfValue, optionOf } from "../fab/fit-options.ts";
import type { Condition, House } from "../fab/house.ts";
import { limitsOf } from "../fab/limits.ts";
import {
  EXTRA_OPTIONS,
  FAB_OPTIONS,
  type FabOptions,
  NO_EXTRA,
  OPTION_WORDS,
  type OptionKey,
  PLAIN,
} from "../fab/options.ts";
import { LEAST_BEVELLED_MM, marginOf } from "../fit/card-edge.ts";
import { mmWords } from "../fit/row.ts";

/** Decisions that cannot stand beside each other, on these boards at this house. */
export interface OrderRule {
  readonly id: string;
  /** Which decisions it is about, the one that gives way first at the front. */
  readonly keys: readonly OptionKey[];
  /** Why these options cannot be, as a sentence without its full stop; nothing where they can. */
  readonly broken: (o: FabOptions) => string | undefined;
}

const mmOf = (o: FabOptions) => Number.parseFloat(o.thickness);
const isChosen = (value: string | undefined) => value !== undefined && value !== NO_EXTRA;

/** What the contacts on the edge are coated with: their own coating where one is chosen, else the board's finish. */
export function coatingOf(
  house: House,
  o: FabOptions,
): { readonly isGold: boolean; readonly isHard: boolean } {
  const own = extraOf(house, "contacts", o.contacts);
  return finishKind(own && own.value !== NO_EXTRA ? own : optionOf(house, "finish", o.finish));
}

/**
 * Every rule between the decisions of an order sheet, for these boards at this house (domain.md 5.2): those of any house, what
 * its boards ask for, what the house's own list makes depend on other values, and limits that a value narrows. The one
 * place that says what cannot be chosen together: rows, notes, command line and the search for what can all ask it.
 */
export function orderRules(house: House, boards: readonly Measure[]): OrderRule[] {
  return [
    ...LEGEND,
    ...contactRules(house, boards),
    ...edgeRules(house, boards),
    ...materialRules(boards),
    ...conditionRules(house),
    ...limitRules(house, boards),
  ];
}

const LEGEND: readonly OrderRule[] = [
  {
    id: "legend-unreadable",
    keys: ["legend", "mask"],
    broken: (o) =>
      o.legend === o.mask && o.mask !== NO_EXTRA
        ? `silkscreen and mask are both ${o.mask}; nothing would be readable`
        : undefined,
  },
];

/** Contacts want gold, and a bevel that leaves their copper whole (F1, F4). */
function contactRules(house: House, boards: readonly Measure[]): OrderRule[] {
  const ends = boards.flatMap((m) => Object.values(m.edgeContacts ?? {}).map((c) => c.setbackMm));
  const rules: OrderRule[] = [
    {
      id: "bevel-thin",
      keys: ["bevel", "thickness"],
      broken: (o) =>
        isChosen(o.bevel) && mmOf(o) < LEAST_BEVELLED_MM
          ? `boards under ${LEAST_BEVELLED_MM} mm are not bevelled`
          : undefined,
    },
  ];
  if (ends.length === 0) return rules;
  const setback = Math.min(...ends);
  return [
    ...rules,
    {
      id: "contacts-finish",
      keys: ["contacts", "finish"],
      broken: (o) =>
        coatingOf(house, o).isGold
          ? undefined
          : "the edge contacts need gold: other finishes are uneven or tarnish",
    },
    {
      id: "contacts-bevel",
      keys: ["bevel", "thickness"],
      broken: (o) => {
        if (!isChosen(o.bevel)) return undefined;
        const { marginMm } = marginOf(mmOf(o), Number.parseFloat(o.bevel!), setback);
        return marginMm < 0
          ? `a bevel of ${o.bevel}° at ${o.thickness} mm grinds contacts: ${mmWords(-marginMm)} mm are missing to their copper`
          : undefined;
      },
    },
  ];
}

/** Half holes on the edge are an option where the house sells it as one (F5). */
function edgeRules(house: House, boards: readonly Measure[]): OrderRule[] {
  const holes = boards.reduce((n, m) => n + (m.castellatedHoles?.count ?? 0), 0);
  if (holes === 0 || !house.options.castellation) return [];
  return [
    {
      id: "castellation-chosen",
      keys: ["castellation"],
      broken: (o) =>
        isChosen(o.castellation)
          ? undefined
          : `${counted(holes, "hole is", "holes are")} cut by the edge, which is made as an option of its own`,
    },
  ];
}

/** A metal core carries copper on one side, and no plated hole goes through it (F21). */
function materialRules(boards: readonly Measure[]): OrderRule[] {
  const layers = Math.max(0, ...boards.map((m) => m.copperLayers));
  const plated = boards.reduce((n, m) => n + m.holes.reduce((k, h) => k + (h.plated ? h.count : 0), 0), 0);
  if (layers <= 1 && plated === 0) return [];
  return [
    {
      id: "metal-core",
      keys: ["material"],
      broken: (o) =>
        /alumin|metal/i.test(o.material ?? "")
          ? `a metal core has one layer of copper and no plated holes; this board has ${layers} and ${plated}`
          : undefined,
    },
  ];
}

/** Values that a house makes beside certain others only. */
function conditionRules(house: House): OrderRule[] {
  const name = (key: OptionKey, value: string) => nameOfValue([house], key, value);
  const valueAt = (o: FabOptions, key: OptionKey) =>
    String(o[key] ?? (PLAIN as Readonly<Record<string, string>>)[key] ?? "");
  const rule = (key: OptionKey, value: string, c: Condition): OrderRule => ({
    id: `when ${key} ${value} ${c.key}`,
    keys: [key, c.key],
    broken: (o) =>
      valueAt(o, key) === value && !c.in.includes(valueAt(o, c.key))
        ? `${OPTION_WORDS[key].word} ${name(key, value)} is made there only with ${OPTION_WORDS[c.key].word} ${c.in.map((v) => name(c.key, v)).join(" or ")}`
        : undefined,
  });
  return [
    ...[...FAB_OPTIONS, ...EXTRA_OPTIONS].flatMap((key) =>
      (house.options[key] ?? []).flatMap((v) => (v.when ?? []).map((c) => rule(key, v.value, c))),
    ),
    ...house.price.lead.flatMap((l) => (l.when ?? []).map((c) => rule("leadDays", String(l.days), c))),
  ];
}

/** Hard limits that a board keeps, and would not beside some value: thick boards over fine holes, heavy copper over fine tracks. */
function limitRules(house: House, boards: readonly Measure[]): OrderRule[] {
  const narrowing = [...FAB_OPTIONS, ...EXTRA_OPTIONS].filter((key) =>
    (house.options[key] ?? []).some((v) => v.limits),
  );
  const keys: OptionKey[] = [...new Set<OptionKey>([...narrowing, "thickness"])];
  const thinnest = [...house.options.thickness].sort(
    (a, b) => Number.parseFloat(a.value) - Number.parseFloat(b.value),
  )[0]!;
  const plain = unnarrowed(house);
  // what breaks in the thinnest board without any narrowing value is the board's, not the options'
  const own = new Map<Measure, ReadonlySet<string>>();
  const ownBreaches = (m: Measure): ReadonlySet<string> => {
    const has = own.get(m) ?? breachesOf(plain, m, { ...fitOptions(plain, {}), thickness: thinnest.value });
    own.set(m, has);
    return has;
  };
  const known = new Map<string, string | undefined>();
  const words = (o: FabOptions): string | undefined => {
    for (const m of boards) {
      const c = checkHouse(house, m, o).find((x) => x.level === "cannot" && !ownBreaches(m).has(x.measure));
      if (c) return limitWords(house, plain, m, o, c);
    }
    return undefined;
  };
  return [
    {
      id: "limits",
      keys,
      broken: (o) => {
        const at = keys.map((k) => o[k] ?? "").join("|");
        if (!known.has(at)) known.set(at, words(o));
        return known.get(at);
      },
    },
  ];
}

/** The house without what its values narrow. */
const unnarrowed = (house: House): House => ({
  ...house,
  options: Object.fromEntries(
    Object.entries(house.options).map(([key, list]) => [key, list.map(({ limits: _, ...v }) => v)]),
  ) as unknown as House["options"],
});

const breachesOf = (house: House, m: Measure, o: FabOptions): Set<string> =>
  new Set(checkHouse(house, m, o).flatMap((c) => (c.level === "cannot" ? [c.measure] : [])));

/** Which limit, and which of the values chosen makes it what it is. */
function limitWords(house: House, unnarrow: House, m: Measure, o: FabOptions, c: LimitCheck): string {
  const plain = limitsOf(unnarrow, m.copperLayers, o);
  const by = [...FAB_OPTIONS, ...EXTRA_OPTIONS].find((key) => {
    const v = house.options[key]?.find((x) => x.value === o[key]);
    return Object.entries(v?.limits ?? {}).some(
      ([k, limit]) => limit === c.limit && plain[k as keyof typeof plain] !== limit,
    );
  });
  const whose = by ? ` with ${OPTION_WORDS[by].word} ${nameOfValue([house], by, o[by]!)}` : "";
  const unit = c.unit === "mm" ? " mm" : "";
  return `${c.label} is ${Number(c.value.toFixed(3))}${unit}, ${house.name} holds ${c.limit}${unit}${whose}`;
}

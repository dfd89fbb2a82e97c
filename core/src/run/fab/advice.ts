import type { Measure } from "../../board/measure-document.ts";
import { finishKind } from "../../fab/finish.ts";
import { extraOf, optionOf } from "../../fab/fit-options.ts";
import type { House, OptionValue } from "../../fab/house.ts";
import { measureSpec } from "../../fab/measures.ts";
import { type FabOptions, isExtraOption, isFabOption, NO_EXTRA, type OptionKey } from "../../fab/options.ts";
import { boardMassG } from "../../fab/price.ts";
import { microsToNumber } from "../../money/money.ts";
import { contrastOf, READABLE } from "../../order-sheet/colours.ts";
import { boardFacts } from "../document/board-facts.ts";
import type { RunDocument } from "../document/document.ts";
import { judgeFits } from "../stage/fits.ts";
import type { RunResult } from "../stage/result.ts";

/** What speaks for a value or against it, from what was measured. */
export interface Reason {
  readonly speaks: "for" | "against";
  readonly text: string;
}

/** What is to be said of a decision: the facts it rests on, by value what speaks for and against, and the schools. */
export interface Advice {
  readonly facts: string;
  readonly by: Readonly<Record<string, readonly Reason[]>>;
  /** Where practitioners differ, both sides. */
  readonly schools?: string;
}

interface About {
  readonly doc: RunDocument;
  readonly house: House;
  readonly options: FabOptions;
  readonly result: RunResult;
  readonly measures: readonly Measure[];
}
type Advisor = (a: About, v: OptionValue) => Reason[];

const pro = (text: string): Reason => ({ speaks: "for", text });
const con = (text: string): Reason => ({ speaks: "against", text });
const when = (is: boolean, reason: () => Reason): Reason[] => (is ? [reason()] : []);
const mm = (v: number) => `${Number(v.toFixed(3))} mm`;

const least = (a: About, of: (m: Measure) => number | undefined): number | undefined => {
  const all = a.measures.flatMap((m) => of(m) ?? []);
  return all.length > 0 ? Math.min(...all) : undefined;
};
const contactsOf = (a: About) =>
  a.measures.flatMap((m) => Object.values(m.edgeContacts ?? {})).reduce((n, c) => n + c.count, 0);
const halfHoles = (a: About) => a.measures.reduce((n, m) => n + (m.castellatedHoles?.count ?? 0), 0);

/** Pads so near that solder levelled by air bridges them (domain.md 5.2, F7), mm. */
const FINE_PITCH_MM = 0.5;

const finish: Advisor = (a, v) => {
  const kind = finishKind(v);
  const pitch = least(a, (m) => m.minPitchMm);
  const [contacts, half] = [contactsOf(a), halfHoles(a)];
  const own = extraOf(a.house, "contacts", a.options.contacts);
  const isCoated = own !== undefined && own.value !== NO_EXTRA;
  const isFine = pitch !== undefined && pitch <= FINE_PITCH_MM + 1e-9;
  const isFlat = kind.isGold || kind.isFlat;
  const heats = a.result.sides.all.ofDesigns;
  return [
    ...when(isFlat && isFine, () => pro(`flat under pads ${mm(pitch!)} apart`)),
    ...when(kind.isLevelled && isFine, () =>
      con(`uneven under pads ${mm(pitch!)} apart: they bridge more easily`),
    ),
    ...when(kind.isLevelled && !isFine && pitch !== undefined, () =>
      pro(`pads ${mm(pitch!)} apart do not need a flat one`),
    ),
    ...when(kind.isLevelled, () => pro("wets easily, also by hand and after a year on the shelf")),
    ...when(kind.isLeaded, () =>
      con("holds lead: selling it is restricted in many places, check your market; wash hands"),
    ),
    ...when(kind.isGold && contacts > 0 && !isCoated, () =>
      pro(`right for the ${contacts} contacts on the edge, as gold against gold`),
    ),
    ...when(kind.isGold && !kind.isHard && contacts > 0 && !isCoated, () =>
      con("thin gold on contacts wears through after some 20 to 50 insertions"),
    ),
    ...when(!kind.isGold && contacts > 0 && !isCoated, () =>
      con(`the ${contacts} contacts on the edge would be of it too`),
    ),
    ...when(isFlat && half > 0, () => pro(`half holes on the edge solder better flat: ${half} here`)),
    ...when(kind.isGold, () => pro("keeps a year sealed, four heats and more")),
    ...when(/organic|osp/i.test(`${v.value} ${v.label}`), () =>
      con("keeps half a year, two heats; hard to probe through"),
    ),
    ...when(/organic|osp/i.test(`${v.value} ${v.label}`) && heats > 1, () =>
      con(`${heats} pasted sides use up its heats before anything is mended`),
    ),
    ...when(/silver/i.test(v.label), () => con("tarnishes where the air holds sulphur; keep it sealed")),
    ...when(/tin\b/i.test(v.label), () => pro("right for pins pressed in")),
  ];
};

const mask: Advisor = (a, v) => {
  const contrast = contrastOf(v.value, a.options.legend);
  const web = least(a, (m) => m.minMaskWebMm);
  const holds = v.limits?.minMaskWebMm ?? a.house.limits.minMaskWebMm;
  return [
    ...when(contrast !== undefined && contrast >= READABLE, () =>
      pro(`${a.options.legend} ink stands out ${contrast!.toFixed(1)} : 1`),
    ),
    ...when(contrast !== undefined && contrast > 1 && contrast < READABLE, () =>
      con(`${a.options.legend} ink stands out only ${contrast!.toFixed(1)} : 1`),
    ),
    ...when(web !== undefined && holds !== undefined && web < holds - 1e-9, () =>
      con(`webs of ${mm(web!)} are narrower than the ${mm(holds!)} it holds: they may come off`),
    ),
    ...when(v.value === "black", () => con("hides tracks and faults from the eye")),
    ...when(v.value === "white", () => con("yellows in the oven and shows flux")),
    ...when(v.value === "green", () => pro("tracks and faults are seen best")),
  ];
};

const legend: Advisor = (a, v) => {
  const contrast = contrastOf(a.options.mask, v.value);
  if (contrast === undefined || contrast <= 1.0001) return [];
  const text = `stands out ${contrast.toFixed(1)} : 1 on ${a.options.mask}`;
  return [contrast >= READABLE ? pro(text) : con(`${text}: hard to read`)];
};

const thickness: Advisor = (a, v) => {
  const t = Number.parseFloat(v.value);
  const was = Number.parseFloat(a.options.thickness);
  const bends = (was / t) ** 3;
  const cu = Number.parseFloat(a.options.copper);
  const grams = (mmThick: number) =>
    a.doc.boards.reduce((n, b) => {
      const f = boardFacts(b.measure);
      return n + b.perProduct * boardMassG(f.widthMm, f.heightMm, mmThick, cu, f.copperShare);
    }, 0);
  const stated = a.measures.flatMap((m) => m.thicknessMm ?? []);
  const rows = (a.doc.fits ?? []).filter((f) => !NEEDS_BODIES.has(f.spec.kind));
  const fits = judgeFits({ ...a.doc, fits: rows, options: { ...a.options, thickness: v.value } });
  const bad = fits.filter((f) => f.verdict === "does-not-fit" || f.verdict === "may-not-fit");
  return [
    ...when(
      stated.some((s) => Math.abs(s - t) <= 0.05),
      () => pro("what the job file states"),
    ),
    ...bad.map((f) =>
      con(`${f.row.label} ${f.verdict === "does-not-fit" ? "does not fit" : "does not always fit"}`),
    ),
    ...when(fits.length > 0 && bad.length === 0, () =>
      pro(`all ${fits.length} rows of the fit sheet that hang on it fit`),
    ),
    ...when(t !== was, () =>
      bends > 1
        ? con(`bends ${bends.toFixed(1)} times as far under the same load as ${was} mm`)
        : pro(`bends ${(1 / bends).toFixed(1)} times less far than ${was} mm`),
    ),
    ...when(Math.abs(grams(t) - grams(was)) >= 0.05, () => {
      const text = `the board weighs ${grams(t).toFixed(1)} g instead of ${grams(was).toFixed(1)} g`;
      return t < was ? pro(text) : con(text);
    }),
  ];
};
/** Rows of a fit sheet that ask for bodies or for the files: the board's thickness is the least of them. */
const NEEDS_BODIES: ReadonlySet<string> = new Set(["lid", "facing", "intended"]);

const copper: Advisor = (a, v) => {
  const heavier = pro("carries more at the same width, and spreads heat");
  if (!v.limits) {
    const thinnest = Math.min(...a.house.options.copper.map((o) => Number.parseFloat(o.value)));
    if (!(Number.parseFloat(v.value) > thinnest))
      return [pro("tracks and gaps may be as fine as the house makes them")];
    return [
      heavier,
      con("the house states no limits for it: thicker copper is etched coarser, ask how fine"),
    ];
  }
  const track = least(a, (m) => m.minTrackMm);
  return [
    heavier,
    ...(["minTrackMm", "minNetSpaceMm"] as const).flatMap((key) => {
      const limit = v.limits![key];
      const has = least(a, (m) => m[key]);
      return limit === undefined || has === undefined
        ? []
        : [(has >= limit - 1e-9 ? pro : con)(`${measureSpec(key).short} ${mm(has)}, it wants ${mm(limit)}`)];
    }),
    ...when(track === undefined, () =>
      con("no track was measured, so nothing tells whether it holds its limits"),
    ),
  ];
};

const electrical: Advisor = (a, v) => {
  const layers = Math.max(0, ...a.measures.map((m) => m.copperLayers));
  const parts = a.result.stages.source.micros;
  const worth = `${microsToNumber(Math.round(parts / 10_000) * 10_000)} ${a.doc.workshop.currency}`;
  if (v.value !== NO_EXTRA)
    return [
      pro("the house answers for opens and shorts"),
      ...when(parts > 0, () => pro(`a fault found after soldering takes parts worth ${worth} with it`)),
      ...when(layers >= 4, () => pro(`inner layers can be neither seen nor mended: ${layers} layers here`)),
    ];
  return [
    con("nobody answers for opens and shorts: try every board with a meter before parts go on"),
    ...when(layers >= 4, () => con(`${layers} layers without a test are a blind purchase`)),
  ];
};

const contacts: Advisor = (a, v) => {
  const n = contactsOf(a);
  if (n === 0)
    return v.value === NO_EXTRA
      ? [pro("no contacts are found on the edge")]
      : [con("no contacts are found on the edge")];
  const isGold = finishKind(optionOf(a.house, "finish", a.options.finish)).isGold;
  if (v.value === NO_EXTRA)
    return isGold
      ? [
          pro("the board's own gold does for a card that stays in its socket"),
          con("it wears through after some 20 to 50 insertions"),
        ]
      : [];
  return [
    pro(`the ${n} contacts last where thin gold wears through`),
    pro("the rest of the board keeps the finish that solders best"),
  ];
};

const laminate: Advisor = (a, v) => {
  const heats = a.result.sides.all.ofDesigns;
  const t = Number.parseFloat(a.options.thickness);
  const isHot = heats > 1 || t > 1.6;
  const why = heats > 1 ? `${heats} pasted sides are as many heats` : `${t} mm soak up heat`;
  const degrees = Number(/1[3-9]\d/.exec(v.label)?.[0] ?? Number.NaN);
  if (!(degrees > 0)) return [];
  if (degrees >= 150)
    return isHot ? [pro(`${why}: it stays firm`)] : [con("nothing here is soldered so hot or so often")];
  return isHot
    ? [con(`${why}: one that softens from 150 °C is the usual advice`)]
    : [pro("one heat and an ordinary thickness ask for no more")];
};

const ADVISORS: Readonly<Partial<Record<OptionKey, Advisor>>> = {
  finish,
  mask,
  legend,
  thickness,
  copper,
  test: electrical,
  contacts,
  material: laminate,
};

const SCHOOLS: Readonly<Partial<Record<OptionKey, string>>> = {
  finish:
    "One school takes gold whenever it can be paid: flat, right for contacts, good to look at. The other takes what the house levels anyway, and never missed the flatness; that gold wets badly is said by some and was not borne out by those who tried.",
  mask: "Colour is a matter of taste: to match a series or what it plugs into. The tone is never promised, so boards of two houses side by side differ.",
  thickness:
    "One school keeps the usual thickness, for a firm contact. The other takes a thinner board for cards that are pulled often, or measures the one it has to match.",
};

const FACTS: Readonly<Partial<Record<OptionKey, (a: About) => string>>> = {
  finish: (a) => {
    const pitch = least(a, (m) => m.minPitchMm);
    return [
      pitch === undefined ? "no pitch measured" : `nearest pads ${mm(pitch)} apart`,
      `${contactsOf(a) || "no"} contacts on the edge`,
      `${halfHoles(a) || "no"} half holes`,
    ].join(", ");
  },
  mask: (a) => {
    const web = least(a, (m) => m.minMaskWebMm);
    return web === undefined ? "no mask web measured" : `narrowest mask web ${mm(web)}`;
  },
};

/**
 * What is to be said for and against each value of a decision, from what was measured of the boards and is planned for
 * them. Nothing is said where nothing is known.
 */
export function adviceOn(doc: RunDocument, result: RunResult, key: OptionKey): Advice | undefined {
  const { house, options } = result;
  const advisor = ADVISORS[key];
  if (!house || !options || !advisor || !(isFabOption(key) || isExtraOption(key))) return undefined;
  const about: About = { doc, house, options, result, measures: doc.boards.map((b) => b.measure) };
  const list = house.options[key] ?? [];
  return {
    facts: FACTS[key]?.(about) ?? "",
    by: Object.fromEntries(list.map((v) => [v.value, advisor(about, v)])),
    ...(SCHOOLS[key] ? { schools: SCHOOLS[key] } : {}),
  };
}

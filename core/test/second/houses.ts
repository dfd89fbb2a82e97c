import type { RunDocument } from "../../src/run/document/document.ts";
import { F, type Fraction, sumOf } from "./fraction.ts";
import { type Counted, type Given, houseThatPlaces, placesOf } from "./given.ts";

export interface Fab {
  readonly total: Fraction;
  readonly currency: string;
  readonly pieces: readonly number[];
  readonly kgEach: readonly number[];
}

/** The house's boards: every quantity it sells up to four times the need, the cheapest of all; one parcel. */
export function boardsOf(doc: RunDocument, start: number): Fab {
  const house = doc.house;
  if (!house) return { total: F(0), currency: doc.workshop.currency, pieces: [], kgEach: [] };
  const p = house.price;
  const option = (key: "thickness" | "copper" | "finish" | "mask" | "legend") =>
    house.options[key].find((o) => o.value === doc.options[key]) ?? house.options[key][0]!;
  const chosen = (["thickness", "copper", "finish", "mask", "legend"] as const).map(option);
  // what only some houses list has the plain thing first: what is not chosen is that
  const listed = house.options as unknown as Readonly<Record<string, typeof chosen>>;
  const wished = doc.options as Readonly<Record<string, unknown>>;
  for (const key of Object.keys(listed))
    if (!["thickness", "copper", "finish", "mask", "legend"].includes(key))
      chosen.push(listed[key]!.find((o) => o.value === wished[key]) ?? listed[key]![0]!);
  const isTested = !(listed.test && wished.test === "none");
  const service = p.services?.find((x) => x.value === doc.options.freight);
  const lead = p.lead.find((l) => l.days === doc.options.leadDays) ?? p.lead[0]!;
  const each = doc.boards.map((b) => {
    const m = b.measure;
    const [w, h] = [m.outline!.widthMm!, m.outline!.heightMm!];
    const dm2 = (w * h) / 1e4;
    const holes = m.holes.reduce((n, x) => n + x.count, 0) + m.slots.length;
    const copper = Object.values(m.copperAreaMm2);
    const share = Math.min(1, copper.reduce((a, c) => a + c, 0) / copper.length / (w * h));
    const layers = String(m.copperLayers <= 2 ? 2 : m.copperLayers);
    // laminate, copper and mask in grams for a square centimetre
    const t = Number.parseFloat(option("thickness").value) / 10;
    const cu = (2 * Number.parseFloat(option("copper").value)) / 1e4;
    const kg = (((w * h) / 100) * ((t - cu - 0.004) * 1.85 + share * cu * 8.96 + 0.004 * 1.3)) / 1000;
    // of each class of fineness the lowest step that the smallest of its measures is under
    const fineness = (key: string): number =>
      key === "minSlotMm"
        ? Math.min(...[...m.slots, ...m.routedPaths].map((x) => x.widthMm))
        : Number((m as unknown as Record<string, unknown>)[key] ?? Number.POSITIVE_INFINITY);
    const classes = new Map<string, NonNullable<typeof house.bands>[number]>();
    for (const step of house.bands ?? []) {
      if (Math.min(...step.limits.map(fineness)) >= step.below - 1e-9) continue;
      const name = step.limits.join();
      const has = classes.get(name);
      if (!has || has.below > step.below) classes.set(name, step);
    }
    const extras = [...chosen, ...classes.values()];
    const price = (q: number): number => {
      const billed = Math.max(dm2 * q, p.minDm2);
      const tier = [...p.tiers].reverse().find((x) => billed >= x.fromDm2)!;
      const area =
        Number(p.perDm2[layers]) * (1 + extras.reduce((s, o) => s + (o.uplift ?? 0), 0)) +
        extras.reduce((s, o) => s + Number(o.perDm2 ?? 0), 0);
      const sum =
        Number(p.setup[layers]) +
        extras.reduce((s, o) => s + Number(o.setup ?? 0), 0) +
        (isTested ? Number(p.testSetup) + q * Number(p.testPerPiece) : 0) +
        billed * area * tier.factor +
        (Math.max(0, holes * q - p.freeHolesPerDm2 * dm2 * q) * Number(p.per1000Holes)) / 1000;
      return cents(sum * lead.factor);
    };
    const freight = (kgs: number) =>
      Number(service?.base ?? p.freightBase) +
      Math.ceil(kgs / 0.5) * Number(service?.perHalfKg ?? p.freightPerHalfKg);
    const parcel = (q: number) => price(q) + cents(freight(1.08 * q * kg + 0.15));
    const up = (n: number) => Math.max(p.minPieces, Math.ceil(n / p.step) * p.step);
    const first = up(Math.max(start, doc.options.pieces ?? 0) * b.perProduct);
    let best = first;
    for (let q = first; q <= 4 * first; q += p.step) if (parcel(q) < parcel(best) - 1e-9) best = q;
    return { pieces: best, kg, boards: price(best), freight };
  });
  const kg = each.reduce((n, b) => n + 1.08 * b.pieces * b.kg, 0.15);
  const quote = doc.quotes.find((q) => q.kind === "fab" && q.house === house.id);
  const estimate =
    each.reduce((n, b) => n + b.boards, 0) + cents(each[0]?.freight(kg) ?? 0) + Number(p.importHandling);
  return {
    total: quote ? F(quote.total) : F(estimate.toFixed(2)),
    currency: quote ? quote.currency : house.currency,
    pieces: each.map((b) => b.pieces),
    kgEach: each.map((b) => b.kg),
  };
}
const cents = (v: number) => Math.round(v * 100 + 1e-7) / 100;

/** The assembly house's invoice and the parcels there and back, in the shop's money. */
export function houseOf(
  doc: RunDocument,
  fitted: readonly Counted[],
  purchases: readonly Counted[][],
  given: Given,
  fab: Fab,
  start: number,
  rate: (c: string) => Fraction,
): Fraction {
  const house = houseThatPlaces(doc);
  if (!house?.assembly) return F(0);
  const a = house.assembly;
  const its = fitted.filter((p) => p.way === "house");
  const onPaste = its.filter((p) => p.kind !== "through");
  const feeders = purchases.filter((list) => list.some((p) => onPaste.includes(p)));
  const special = feeders.filter((list) =>
    given.buys.some((b) => {
      const o = doc.offers.find((x) => x.id === b.offer)!;
      return (
        list.some((p) => p.line.id === o.line) && /tray|tube|stick|bag|bulk|loose/i.test(o.packaging ?? "")
      );
    }),
  );
  const sides = onPaste.length > 0 ? given.sides.reduce((n, s) => n + s, 0) || 1 : 0;
  const joints = (list: readonly Counted[]) => list.reduce((n, p) => n + p.n * p.joints, 0);
  const lines = [
    F(a.setupPerSide).times(sides),
    F(a.stencilPerSide).times(sides),
    F(a.perUniquePart).times(feeders.length),
    F(a.perSpecialPart ?? 0).times(special.length),
    F(a.perJoint).times(joints(onPaste)).times(start),
    F(a.perHandJoint)
      .times(joints(its.filter((p) => p.kind === "through")))
      .times(start),
  ];
  const exact = sumOf(lines);
  const short = F(a.minCharge).minus(exact);
  const price = sumOf(
    [...lines, short.isLess(0) ? F(0) : short].map((l) => l.rounded(placesOf(house.currency))),
  );
  const p = house.price;
  const freight = (kg: number) =>
    F(p.freightBase)
      .plus(F(p.freightPerHalfKg).times(Math.ceil(kg / 0.5)))
      .rounded(placesOf(house.currency));
  const goods = doc.boards.reduce(
    (n, b, i) => n + 1.08 * Math.min(start * b.perProduct, fab.pieces[i] ?? 0) * (fab.kgEach[i] ?? 0),
    0,
  );
  const ways =
    doc.house?.id === house.id
      ? freight(0.15)
      : freight(goods + 0.15)
          .times(2)
          .plus(p.importHandling);
  return price.plus(ways).times(rate(house.currency));
}

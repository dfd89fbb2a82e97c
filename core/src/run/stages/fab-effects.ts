import { notJudged, tightest } from "../../fab/check.ts";
import {
  type ExtraOptionKey,
  type FabOptionKey,
  type FabOptions,
  fitOptions,
  givenUp,
  type House,
  NO_EXTRA,
} from "../../fab/house.ts";
import { LEAST_BEVELLED_MM, marginOf } from "../../fit/card-edge.ts";
import { mmWords } from "../../fit/row.ts";
import { type Micros, microsToNumber } from "../../money/money.ts";
import { checksOf } from "../checks.ts";
import type { RunDocument } from "../document.ts";
import { type Asking, type Effect, type HouseEffect, partly, round1, type WhatIf } from "../effect.ts";
import { guessedOf } from "../fab-notes.ts";

/** The document with another house, its options brought to what that house has. */
export const withHouse = (doc: RunDocument, house: House): RunDocument => ({
  ...doc,
  house,
  options: fitOptions(house, doc.options),
});

/** Effects of each house, and of each option of the chosen one. */
export function fabEffects(asking: Asking): Pick<WhatIf, "houses" | "options"> {
  const { doc, base, effect } = asking;
  const house = base.house;
  const options = base.options;
  const list = (key: FabOptionKey | ExtraOptionKey): Effect[] =>
    house && options
      ? (house.options[key] ?? []).map((o) =>
          effect(
            o.value,
            o.label,
            { ...doc, options: { ...options, [key]: o.value } },
            options[key] === o.value,
            refusalOf(doc, key, o.value, options),
          ),
        )
      : [];
  const leads =
    house && options
      ? house.price.lead.map((l) =>
          effect(
            String(l.days),
            `${l.days} days`,
            { ...doc, options: { ...options, leadDays: l.days } },
            options.leadDays === l.days,
          ),
        )
      : [];
  return {
    houses: (doc.houses ?? []).map((h) => houseEffect(asking, h)),
    options: {
      thickness: list("thickness"),
      copper: list("copper"),
      finish: list("finish"),
      mask: list("mask"),
      legend: list("legend"),
      bevel: list("bevel"),
      leadDays: leads,
    },
  };
}

/** Why a value cannot be chosen beside the others, on these boards. */
function refusalOf(
  doc: RunDocument,
  key: FabOptionKey | ExtraOptionKey,
  value: string,
  options: FabOptions,
): string | undefined {
  if (key === "legend" && value === options.mask) return "not readable on this mask";
  if (key !== "bevel" || value === NO_EXTRA) return undefined;
  const thickness = Number.parseFloat(options.thickness);
  if (thickness < LEAST_BEVELLED_MM) return `boards under ${LEAST_BEVELLED_MM} mm are not bevelled`;
  const missing = Math.max(
    ...doc.boards
      .flatMap((b) => Object.values(b.measure.edgeContacts ?? {}))
      .map((c) => -marginOf(thickness, Number.parseFloat(value), c.setbackMm).marginMm),
  );
  return missing > 0 ? `it grinds contacts: ${mmWords(missing)} mm are missing to their copper` : undefined;
}

function houseEffect({ doc, base, roll }: Asking, h: House): HouseEffect {
  const alternative = withHouse(doc, h);
  const r = roll(alternative);
  const checks = checksOf(doc, h, r.options!);
  const breaches = checks.filter((c) => c.level === "cannot");
  const first = breaches[0];
  const least = tightest(checks);
  const boards = r.orders.reduce((s, o) => s + o.micros, 0);
  return {
    value: h.id,
    label: h.name,
    house: h.id,
    isChosen: base.house?.id === h.id,
    perGood: microsToNumber(r.perGood - base.perGood),
    days: round1(r.ready.days - base.ready.days),
    cash: microsToNumber((r.cashNeeded - base.cashNeeded) as Micros),
    boardsPerGood: microsToNumber(boards / r.expectedGood),
    boardsTotal: microsToNumber(boards),
    pieces: r.orders.reduce((n, o) => n + o.quote.pieces, 0),
    ...(r.orders.some((o) => o.quote.insteadOf)
      ? { insteadOf: r.orders.reduce((n, o) => n + (o.quote.insteadOf?.pieces ?? o.quote.pieces), 0) }
      : {}),
    isQuoted: r.orders.some((o) => o.quoted !== undefined),
    gives: givenUp(h, doc.options, doc.houses ?? []),
    daysAtDoor: Math.max(0, ...r.orders.map((o) => o.days)),
    breaches,
    unstated: [
      ...new Set(doc.boards.flatMap((b) => notJudged(h, b.measure, r.options!).map((m) => m.short))),
    ],
    isGuessed: guessedOf(h, r.orders).length > 0,
    ...partly(r, base),
    ...(least ? { tightest: least } : {}),
    ...(first
      ? { cannot: `${first.label} is ${Number(first.value.toFixed(3))}, this house holds ${first.limit}` }
      : {}),
  };
}

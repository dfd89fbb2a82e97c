import { DEFAULT_ASSEMBLY, type RunDocument } from "../../src/run/document/document.ts";
import { FAR, madeLine, madeMeasure, madeOffer, madeRun } from "../../src/run/made-up.fixture.ts";
import { chance } from "../random.ts";

const HOUSE = { ...FAR, assembly: { ...FAR.assembly!, leaderMm: 150, perSpecialPart: "3.00" } };
const rates = { USD: "0.9215", GBP: "1.1734" };
const place = (ref: string, side: "top" | "bottom") => ({ ref, xMm: 1, yMm: 1, rotationDeg: 0, side });

/** Runs of all sorts: one or two boards, sides, packages, suppliers in two currencies with their fees, every way to solder. */
export function madeUpRuns(count: number, seed: number): RunDocument[] {
  const { next, pick, below } = chance(seed);
  const int = (a: number, b: number) => a + below(b - a + 1);
  return Array.from({ length: count }, () => {
    const lines = Array.from({ length: int(1, 7) }, (_, i) =>
      madeLine(
        `l${i}`,
        Array.from({ length: int(1, 9) }, (_, j) => `${pick(["R", "C"])}${100 * i + j}`),
        {
          package: pick(["0402", "0603", "0805", "SOT-23", "SOD-123", "QFN-32", "HDR-1x4"]),
          mpn: next() < 0.8 ? `OX-${pick([1, 2, 3, 4, 5, 6, 7, 8, 9])}` : "",
          mount: "machine",
          ...(next() < 0.2 ? { board: "two" } : { board: "one" }),
        },
      ),
    );
    const sides = lines.flatMap((l) =>
      l.refs.map((r) => ({ ...place(r, pick(["top", "top", "bottom"])), board: l.board! })),
    );
    const method = pick(["iron", "stencil", "house"] as const);
    const currency = pick(["EUR", "USD"]);
    const house = { ...HOUSE, currency };
    return madeRun({
      goodBoards: int(1, 60),
      confidence: pick([0.5, 0.9, 0.95]),
      workshop: {
        name: "w",
        currency: "EUR",
        hourlyRate: pick(["0", "24.00", "31.37"]),
        taxRate: pick([0, 0.2]),
        rates,
        hoursPerDay: 5,
      },
      boards: [
        { id: "one", name: "One", perProduct: 1, measure: madeMeasure() },
        ...(next() < 0.5 ? [{ id: "two", name: "Two", perProduct: int(1, 3), measure: madeMeasure() }] : []),
      ],
      lines,
      placements: sides,
      suppliers: [
        {
          id: "a",
          name: "A",
          currency: "EUR",
          shipping: "4.90",
          freeFrom: pick(["20", "60"]),
          daysMin: 1,
          daysMax: 2,
        },
        {
          id: "b",
          name: "B",
          currency: "USD",
          shipping: "3.20",
          daysMin: 1,
          daysMax: 2,
          dutyRate: pick([0, 0.037]),
          dutyOnFreight: pick([true, false]),
          smallOrder: { below: "15", fee: "3.00" },
        },
      ],
      offers: lines.flatMap((l, i) =>
        ["a", "b"].flatMap((supplier) =>
          next() < 0.8
            ? [
                madeOffer(`${supplier}${i}`, l.id, `0.${int(10, 99)}${int(0, 9)}`, {
                  supplier,
                  currency: supplier === "a" ? "EUR" : "USD",
                  stock: pick([30, 400, 100_000]),
                  multiple: pick([1, 1, 10]),
                  breaks: [
                    { qty: 1, price: `0.${int(10, 99)}${int(0, 9)}` },
                    { qty: 100, price: `0.0${int(10, 99)}${int(0, 9)}` },
                  ],
                }),
              ]
            : [],
        ),
      ),
      house,
      houses: [house],
      options: { finish: pick(["immersion-gold", "levelled-lead-free"]), leadDays: pick([12, 3]) },
      assembly: {
        ...DEFAULT_ASSEMBLY,
        method,
        house: "far",
        handParts: pick(["here", "house"]),
        reworkReserve: pick([0, 2.5]),
      },
    });
  });
}

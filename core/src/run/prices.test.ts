import { expect, test } from "@jest/globals";
import { madeRun as doc, madeLine as line, madeOffer as offer, STAND_IN } from "./made-up.fixture.ts";
import { rollUp } from "./roll-up.ts";

test("prices with tax count without what is got back; fees, handling and duty stand in the sum by themselves", () => {
  const at = (more: object, taxRate = 0.25) =>
    rollUp(
      doc({
        workshop: { ...doc({}).workshop, taxRate },
        lines: [line("1", ["R1"])],
        offers: [offer("x", "1", "1.25")],
        suppliers: [
          {
            id: "a",
            name: "A",
            currency: "EUR",
            shipping: "5",
            daysMin: 1,
            daysMax: 2,
            ...more,
          },
        ],
      }),
    );
  const { need } = at({}).needs[0]!;
  expect(at({}).basket.parts).toBe(need * 1_250_000);
  expect(at({ includesTax: true }).basket.parts).toBe(need * 1_000_000);
  const fees = at({ handling: "1.5", smallOrder: { below: "100", fee: "3" }, dutyRate: 0.1 });
  expect([fees.basket.shipping, fees.basket.duty]).toEqual([9_500_000, need * 125_000]);
  const node = fees.tree.children.find((c) => c.key === "parts")!;
  expect(need * 125_000).toBe(1_625_000);
  expect(node.children.find((c) => c.key === "parts-duty")!.micros).toBe(1_630_000);
  // all of it is paid: goods, parcel, duty; what is got back comes on top for a while
  const net = fees.cash
    .filter((c) => ["parts", "parcels", "duty"].includes(c.key))
    .reduce((n, c) => n + c.micros, 0);
  expect(net).toBe(fees.basket.total + 5_000);
});

test("old prices block only where the basket buys from them, and a private seller asks for a look at what comes", () => {
  const at = (capturedOn: string, sourceClass: "private" | "authorised" = "authorised") => {
    const d = doc({
      lines: [line("1", ["R1"])],
      offers: [offer("x", "1", "1", { capturedOn }), offer("dear", "1", "9", { capturedOn: "2025-01-01" })],
    });
    const suppliers = d.suppliers.map((s) => ({ ...s, sourceClass }));
    return rollUp({ ...d, suppliers }).notes;
  };
  expect(at("2026-11-10").some((n) => n.key.startsWith("prices-old"))).toBe(false);
  expect(at("2026-11-09").find((n) => n.key.startsWith("prices-old"))).toMatchObject({
    key: "prices-old 2026-11-09",
    level: "error",
  });
  expect(at("2026-11-20", "private").find((n) => n.key === "source-class a")?.text).toBe(
    "A is a private seller.",
  );
  expect(at("2026-11-20").some((n) => n.key.startsWith("source-class"))).toBe(false);
});

test("two purchases that may use one number have its stock once: what one takes the other buys elsewhere", () => {
  // 10k by its number, and any 10k 0603: both may take QL-10K, of which there is not enough for both
  const lines = [
    line("1", ["R1", "R2"], { mpn: "QL-10K", maker: "Quill" }),
    line("2", ["R3", "R4"], { mpn: "" }),
  ];
  const few = { stock: 30, supplier: "a" };
  const r = rollUp(
    doc({
      lines,
      library: [STAND_IN],
      offers: [
        offer("x", "1", "0.1", few),
        offer("y", "2", "0.1", { ...few, part: "alt" }),
        offer("typed", "2", "0.4", { supplier: "b", stock: 500 }),
      ],
    }),
  );
  expect(r.needs.map((n) => n.whole > 15)).toEqual([true, true]);
  const taken = r.basket.lines.flatMap((l) => l.buys).filter((b) => b.offer !== "typed");
  expect(taken.reduce((n, b) => n + b.qty, 0)).toBe(30);
  // the line with the number has nobody else: it gets what it needs, the other the rest and its own offer
  expect(r.basket.missing).toBe(0);
  expect(r.basket.lines[0]!.buys.map((b) => [b.offer, b.qty])).toEqual([["x", r.needs[0]!.need]]);
  expect(r.basket.proof?.isProven).toBe(true);
});

test("what an offer charges once is in the sum; the same pieces at a fee are not the cheaper way", () => {
  const base = { lines: [line("1", ["R1"])] };
  const wound = { packaging: "reel, wound", fee: "6" };
  const both = rollUp(
    doc({ ...base, offers: [offer("cut", "1", "0.1"), offer("wound", "1", "0.1", wound)] }),
  );
  expect(both.needs[0]!.offers.map((o) => o.id)).toEqual(["cut"]);
  const only = rollUp(doc({ ...base, offers: [offer("wound", "1", "0.1", wound)] }));
  expect(only.basket.parts).toBe(only.needs[0]!.need * 100_000 + 6_000_000);
});

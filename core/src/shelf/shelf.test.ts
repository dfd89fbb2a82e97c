import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { bagCode, readBag } from "./bag.ts";
import { lowOf } from "./low.ts";
import { type LotChange, movesOf } from "./moves.ts";

test("a bag's label is read again as people and scanners type it, and no other number is taken for one", () => {
  // B is 11, 0 is 0, 4 is 4, 2 is 2: from the right 2·2 + 4 + 0 + 0 + (22 as one symbol: 22) = 30, to 32 are 2
  expect(bagCode(42)).toBe("B0042-2");
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 999_999_999 }), (n) => {
      const code = bagCode(n);
      expect([code, code.toLowerCase(), code.replace("-", ""), ` ${code} `].map(readBag)).toEqual([
        n,
        n,
        n,
        n,
      ]);
      // O for 0 and I for 1
      expect(readBag(code.replaceAll("0", "o").replaceAll("1", "i"))).toBe(n);
    }),
  );
  expect(["B0042-3", "B042", "", "KB2C0700138", "B0042", "42"].map(readBag)).toEqual(
    Array(6).fill(undefined),
  );
  // with the right check symbol, and still none: noughts too many, nothing behind the B
  expect([readBag("B00042D"), readBag("B0000A")]).toEqual([undefined, undefined]);
});

type Act = ["put", number] | ["count", number] | ["move"] | ["away"] | ["back"];
const act = fc.oneof(
  fc.tuple(fc.constant("put" as const), fc.nat(500)),
  fc.tuple(fc.constant("count" as const), fc.nat(500)),
  fc.constant<Act>(["move"]),
  fc.constant<Act>(["away"]),
  fc.constant<Act>(["back"]),
);

test("whatever was done to a lot, its moves sum to what lies there, each with what lay there then", () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 30 }), (acts) => {
      // the record as the database writes it: nothing of a lot that is put down, all of one that is taken away
      const changes: LotChange[] = [];
      const stood: { by: number; left: number }[] = [];
      let [qty, gone]: [number | undefined, number] = [undefined, 0];
      const wrote = (change: Pick<LotChange, "op" | "was" | "became">, after: number | undefined) => {
        const by = (after ?? 0) - (qty ?? 0);
        changes.push({ at: "", person: "", sentence: "", ...change });
        if (by !== 0) stood.unshift({ by, left: after ?? 0 });
        qty = after;
      };
      for (const a of acts as Act[]) {
        if (a[0] === "put" && qty === undefined && changes.length === 0) wrote({ op: "insert" }, a[1]);
        else if (a[0] === "count" && qty !== undefined && a[1] !== qty)
          wrote({ op: "update", was: qty, became: a[1] }, a[1]);
        else if (a[0] === "move" && qty !== undefined) wrote({ op: "update" }, qty);
        else if (a[0] === "away" && qty !== undefined) {
          gone = qty;
          wrote({ op: "delete", was: qty }, undefined);
        } else if (a[0] === "back" && qty === undefined && changes.length > 0) wrote({ op: "insert" }, gone);
      }
      const moves = movesOf(changes, qty ?? 0);
      expect(moves.map(({ by, left }) => ({ by, left }))).toEqual(stood);
      expect(moves.reduce((n, m) => n + m.by, 0)).toBe(qty ?? 0);
    }),
  );
});

test("what is too little is told with how much is to be ordered, the scarcest first", () => {
  const kept = (mpn: string, least: number, here: number, reserved: number) => ({
    mpn,
    least,
    here,
    reserved,
  });
  expect(
    lowOf([
      kept("enough", 10, 10, 0),
      kept("half", 10, 9, 4),
      kept("promised twice", 10, 5, 8),
      kept("none", 20, 0, 0),
      kept("nearly", 10, 30, 21),
      kept("a half too", 10, 5, 0),
      // more pieces, and a smaller share of what is to be there
      kept("many", 100, 20, 0),
    ]).map((l) => [l.mpn, l.free, l.order]),
  ).toEqual([
    ["promised twice", -3, 13],
    ["none", 0, 20],
    ["many", 20, 80],
    ["a half too", 5, 5],
    ["half", 5, 5],
    ["nearly", 9, 1],
  ]);
});

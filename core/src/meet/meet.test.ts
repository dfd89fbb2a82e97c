import { expect, test } from "@jest/globals";
import fc from "fast-check";
import { judgePair, type Meeting, meet, type Pin } from "./meet.ts";

const supply = (pin: string, volts?: number, takesV?: [number, number]): Pin => ({
  pin,
  kind: "supply",
  ...(volts === undefined ? {} : { volts }),
  ...(takesV ? { takesV } : {}),
});
const ground = (pin: string): Pin => ({ pin, kind: "ground" });
const input = (pin: string, takesV?: [number, number]): Pin => ({
  pin,
  kind: "input",
  ...(takesV ? { takesV } : {}),
});
const output = (pin: string, volts?: number, takesV?: [number, number]): Pin => ({
  ...supply(pin, volts, takesV),
  kind: "output",
});
const open = (pin: string): Pin => ({ pin, kind: "open" });
const passive = (pin: string): Pin => ({ pin, kind: "passive" });

test.each<[string, Pin, Pin, string]>([
  ["a supply on ground", supply("1", 5), ground("1"), "short"],
  ["two outputs", output("1", 3.3, [0, 5]), output("1", 3.3, [0, 5]), "fight"],
  ["an output on ground", ground("1"), output("1"), "fight"],
  ["supplies a tenth apart are one", supply("1", 5), supply("1", 4.9), "meant"],
  ["a little more is not", supply("1", 5), supply("1", 4.89), "fight"],
  ["as they are written: 3.3 and 3.2", supply("1", 3.3), supply("1", 3.2), "meant"],
  ["more than it takes", supply("1", 5), input("1", [-0.3, 3.6]), "over"],
  ["the bound itself is taken", output("1", 3.6), input("1", [-0.3, 3.6]), "meant"],
  ["less than it takes", input("1", [0, 3.6]), output("1", -0.1), "over"],
  ["a supply that says what it bears is held to it", supply("1", 5, [0, 5]), supply("1", 5.05), "over"],
  ["what an input bears is not said", supply("1", 5), input("1"), "unknown"],
  ["what a driver gives is not said", output("1"), input("1", [0, 5]), "unknown"],
  ["a supply without volts on another", supply("1"), supply("1", 5), "unknown"],
  ["known to be over beats what is not known", output("1"), supply("1", 9, [0, 9]), "unknown"],
  ["over one way, not known the other", supply("1", 9, [0, 9]), output("1", undefined, [0, 5]), "over"],
  ["a passive one says what it bears too", passive("1"), supply("1", 5), "unknown"],
  ["nothing drives", input("1"), input("1"), "meant"],
  ["an open one bears anything", open("1"), supply("1", 48), "meant"],
  ["grounds", ground("1"), ground("1"), "meant"],
])("%s", (_, a, b, verdict) => {
  expect(judgePair(a, b, true)).toBe(verdict);
  expect(judgePair(b, a, true)).toBe(verdict);
  if (verdict === "meant") expect(judgePair(a, b, false)).toBe("idle");
});

const modes = (m: Meeting) =>
  Object.fromEntries(meet(m).map((x) => [`${x.mode}${x.by ?? ""}`, `${x.verdict}: ${x.because ?? ""}`]));

test("a display of three pins: as meant, turned, and one place aside", () => {
  const ours = [supply("1", 5), ground("2"), output("3", 5, [-0.3, 5.5])];
  const theirs = [supply("1", 5), ground("2"), input("3", [-0.3, 5.5])];
  expect(modes({ ours, theirs })).toEqual({
    meant: "fine: ",
    turned: "idle: our 1 on their 3: not meant for each other",
    mirrored: "idle: our 1 on their 3: not meant for each other",
    shifted1: "damage: our 2 on their 1: a supply on ground",
    "shifted-1": "damage: our 1 on their 2: a supply on ground",
  });
});

test("what is meant and meets nothing of its own is idle, also where all that meets is meant", () => {
  const theirs = [ground("1"), input("2")];
  const got = meet({
    ours: [ground("1"), input("2"), input("3")],
    theirs,
    meant: [
      ["1", "1"],
      ["3", "2"],
    ],
    modes: ["meant"],
  });
  expect(got[0]).toMatchObject({ verdict: "idle", because: "our 2 on their 2: not meant for each other" });
  const alone = meet({
    ours: [ground("1"), input("3")],
    theirs,
    meant: [
      ["1", "1"],
      ["3", "2"],
    ],
    modes: ["meant"],
  });
  expect(alone[0]).toMatchObject({
    verdict: "idle",
    because: "our 3 does not meet their 2",
    pairs: [{ ours: "1", theirs: "1" }],
  });
  // nothing that is to meet, and nothing that does
  expect(meet({ ours: [open("1")], theirs: [open("2")], modes: ["meant"] })[0]!.verdict).toBe("fine");
});

test("pins of one name are meant for each other, but not where both state another net", () => {
  const one = { pin: "1", kind: "input", net: "SDA" } as const;
  const verdict = (net?: string) =>
    meet({ ours: [one], theirs: [{ pin: "1", kind: "both", ...(net ? { net } : {}) }], modes: ["meant"] })[0]!
      .verdict;
  expect(["SDA", "SCL", undefined].map(verdict)).toEqual(["fine", "idle", "fine"]);
});

test.each<[string, object, RegExp]>([
  ["a pin twice", { ours: [ground("1"), ground("1")], theirs: [ground("1")] }, /ours has pin 1 twice/],
  [
    "a meant pin nobody has",
    { ours: [ground("1")], theirs: [ground("1")], meant: [["1", "2"]] },
    /meant names pin 2/,
  ],
  ["an unknown kind", { ours: [{ pin: "1", kind: "power" }], theirs: [ground("1")] }, /ours\[0\]\.kind/],
  ["an unknown mode", { ours: [ground("1")], theirs: [ground("1")], modes: ["upside"] }, /modes\[0\]/],
  ["a side left out", { ours: [ground("1")] }, /theirs should be a list/],
  ["a side without pins", { ours: [], theirs: [ground("1")] }, /ours holds fewer than 1/],
  ["volts as a text", { ours: [{ ...ground("1"), volts: "5" }], theirs: [ground("1")] }, /ours\[0\]\.volts/],
  [
    "bounds the wrong way round",
    { ours: [{ ...ground("1"), takesV: [5, 0] }], theirs: [ground("1")] },
    /which is nothing/,
  ],
  ["two rows counted along one", { ours: [ground("1")], theirs: [ground("1")], rows: 2 }, /zigzag or ring/],
])("%s is refused by name", (_, m, said) => {
  expect(() => meet(m as Meeting)).toThrow(said);
});

/* The slow obvious way: two boards drawn on paper, every place of theirs laid over every place of ours. */
const KINDS = ["supply", "ground", "output", "input", "both", "passive", "open"] as const;
const pinArb = fc.record({
  kind: fc.constantFrom(...KINDS),
  volts: fc.option(fc.constantFrom(0, 3.2, 3.3, 5, 12), { nil: undefined }),
  takesV: fc.option(fc.constantFrom<[number, number]>([0, 3.6], [-0.3, 5.5], [3.3, 3.3]), { nil: undefined }),
});
const sideArb = (numbered: boolean) =>
  fc.uniqueArray(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 8 }).chain((places) =>
    fc.tuple(...places.map(() => pinArb)).map((pins) =>
      pins.map(
        (p, i): Pin => ({
          pin: numbered ? String(places[i]) : `P${places[i]}`,
          ...(p as Omit<Pin, "pin">),
        }),
      ),
    ),
  );

function grid(n: number, rows: number, numbering: string): number[][] {
  if (rows === 1) return [Array.from({ length: n }, (_, i) => i + 1)];
  const all = Array.from({ length: n }, (_, i) => i + 1);
  if (numbering === "zigzag") return [all.filter((p) => p % 2 === 1), all.filter((p) => p % 2 === 0)];
  const first = all.slice(0, Math.ceil(n / 2));
  const back = all.slice(first.length).reverse();
  return [first, n % 2 === 1 ? [0, ...back] : back];
}
const width = (g: number[][]) => Math.max(...g.map((r) => r.length));
const padded = (g: number[][]) => g.map((r) => Array.from({ length: width(g) }, (_, i) => r[i] ?? 0));
const paper: Record<string, (g: number[][]) => number[][]> = {
  meant: (g) => g,
  turned: (g) => [...g].reverse().map((r) => [...r].reverse()),
  mirrored: (g) => (g.length === 1 ? g.map((r) => [...r].reverse()) : [...g].reverse()),
  shifted1: (g) => g.map((r) => [0, ...r.slice(0, -1)]),
  "shifted-1": (g) => g.map((r) => [...r.slice(1), 0]),
};

function slowly(m: Meeting, how: string): string {
  const place = (pins: readonly Pin[]) => {
    const isNumbered = pins.every((p) => /^\d+$/.test(p.pin));
    return new Map(pins.map((p, i) => [isNumbered ? Number(p.pin) : i + 1, p]));
  };
  const [ours, theirs] = [place(m.ours), place(m.theirs)];
  const n = Math.max(...ours.keys(), ...theirs.keys());
  const still = padded(grid(n, m.rows ?? 1, m.numbering ?? "line"));
  const moved = paper[how]!(still);
  const met = still.flatMap((row, r) =>
    row.flatMap((p, c) => {
      const [a, b] = [ours.get(p), theirs.get(moved[r]![c]!)];
      return a && b ? [{ p, a, b }] : [];
    }),
  );
  return met
    .sort((x, y) => x.p - y.p)
    .map(({ a, b }) => `${a.pin}-${b.pin}`)
    .join(" ");
}

test("where pins come to lie is what two drawings laid over each other say, for 500 connectors", () => {
  fc.assert(
    fc.property(
      fc.oneof(sideArb(true), sideArb(false)),
      fc.oneof(sideArb(true), sideArb(false)),
      fc.constantFrom<[1 | 2, "line" | "zigzag" | "ring"]>([1, "line"], [2, "zigzag"], [2, "ring"]),
      (ours, theirs, [rows, numbering]) => {
        const m: Meeting = { ours, theirs, rows, numbering, meant: [] };
        for (const mode of meet(m)) {
          const pairs = mode.pairs.map((p) => `${p.ours}-${p.theirs}`).join(" ");
          expect(pairs).toBe(slowly(m, `${mode.mode}${mode.by ?? ""}`));
        }
      },
    ),
    { numRuns: 500 },
  );
});

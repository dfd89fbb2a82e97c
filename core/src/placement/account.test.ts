import { expect, test } from "@jest/globals";
import { judgePlaces } from "../../test/dialects/judge-places.ts";
import { writtenPlaces } from "../../test/dialects/places.ts";
import { often } from "../../test/long.ts";
import { saysAccount } from "../table/account.ts";
import { looksLikePlacement, readPlacement } from "./placement.ts";

const read = (text: string, file = "p.csv") =>
  readPlacement(
    text.split("\n").map((l) => l.split(";")),
    file,
  );
const columns = (text: string) =>
  read(text).account!.columns.map((c) => `${c.heading}: ${c.as}, ${c.because}`);

test("every column has an account: read, passed over with its reason, or asked", () => {
  const text =
    "#;Ref;Value;X (mm);Y (mm);Pad X (mm);Pad Y (mm);Puoli;Rot;Nozzle\n1;R1;4k7;1;2;3;4;ylä;90;A\n2;R2;4k7;3;2;5;4;ala;0;A\n3;C1;1n;5;2;7;4;ylä;0;B";
  expect(columns(text)).toEqual([
    "#: passed, it counts the rows",
    "Ref: ref, its heading says so",
    "Value: passed, what a part is, the parts list says",
    "X (mm): x, its heading says so",
    "Y (mm): y, its heading says so",
    "Pad X (mm): passed, another pair of coordinates counts",
    "Pad Y (mm): passed, another pair of coordinates counts",
    "Puoli: asked, it could be a side or a rotation, and nothing says so",
    "Rot: rotation, its heading says so",
    "Nozzle: asked, it could be a side or a rotation, and nothing says so",
  ]);
  expect(saysAccount(read(text).account!)).toBe("10 columns: 4 read, 4 passed over, 2 asked about");
  expect(read(text).account!.rows).toEqual({ lines: 3, passed: 0, doubtful: 3 });
});

test("what could be a side or a turn is asked only where neither is read yet, and only of what could be one", () => {
  const with3 = (heading: string, cells: readonly string[], head = "Ref;X;Y;Side;Rot", more = ";top;90") =>
    columns(
      `${head};${heading}\n${cells.map((c, i) => `R${i + 1};${i};${2 * i}${more};${c}`).join("\n")}`,
    ).at(-1);
  const [asked, nothing, same] = [
    "asked, it could be a side or a rotation, and nothing says so",
    "passed, nothing in it says where or how a part stands",
    "passed, it is the same in every row",
  ];
  expect([
    with3("Feed", ["A", "B", "A"]),
    with3("Feed", ["A", "B", "A"], "Ref;X;Y;Rot", ";90"),
    with3("Feed", ["30", "45", "90"]),
    with3("Feed", ["15", "30", "75"], "Ref;X;Y;Side", ";top"),
    // no quarter, no third of one: nobody turns a part by it
    with3("Feed", ["5", "20", "35"], "Ref;X;Y;Side", ";top"),
    with3("Feed", ["A", "A", "A"]),
    with3("Feed", ["A", "", "A"]),
  ]).toEqual([nothing, asked, nothing, asked, nothing, same, nothing].map((words) => `Feed: ${words}`));
});

test("columns without a heading are told by what they hold, and what is told so is said", () => {
  const bare = "R1;25.4;12.7;90;top\nR2;3.25;4.5;0;bottom\nC1;7.5;8.25;270;top";
  expect(read(bare).parts.map((p) => [p.ref, p.xMm, p.yMm, p.rotationDeg, p.side])).toEqual([
    ["R1", 25.4, 12.7, 90, "top"],
    ["R2", 3.25, 4.5, 0, "bottom"],
    ["C1", 7.5, 8.25, 270, "top"],
  ]);
  expect(read(bare).findings.find((f) => f.tag === "placement-columns-guessed")!.text).toBe(
    "No row names the columns; by what they hold column 1 was read as reference, 2 and 3 as X and Y, 4 as rotation, 5 as side.",
  );
  // three columns of lengths: nobody could tell which two
  expect(looksLikePlacement(bare.split("\n").map((l) => `${l};1.5`.split(";")))).toBe(true);
  const three = bare.split("\n").map((l) => l.replace(";", ";1.25;").split(";"));
  expect(looksLikePlacement(three)).toBe(false);
});

// what a column of rotations is where nothing says so, said whenever it is not plainly degrees
test.each<[string, string, number[], string | undefined]>([
  ["degrees", "0 90 -90 360", [0, 90, 270, 0], undefined],
  ["tenths", "0 900 2700 450", [0, 90, 270, 45], "Rotations such as 2700 are no degrees"],
  ["hundredths", "0 9000 27000", [0, 90, 270], "Rotations such as 27000 are no degrees"],
  ["radians", "0 1.5708 3.1416 -1.5708", [0, 90, 180, 270], "Rotations such as 1.5708 are no degrees"],
  ["more than a turn", "0 450", [0, 90], "A rotation of 450 is more than a whole turn"],
  ["small angles", "0 1.5 3", [0, 1.5, 3], undefined],
])("rotations in %s", (_, turns, want, said) => {
  const p = read(
    `Ref;X mm;Y mm;Rot;Side\n${turns
      .split(" ")
      .map((t, i) => `R${i};${i};1;${t};top`)
      .join("\n")}`,
  );
  expect(p.parts.map((q) => Math.round(q.rotationDeg * 100) / 100)).toEqual(want);
  expect(p.findings.find((f) => f.tag === "placement-turn-unit")?.text.slice(0, said?.length)).toBe(said);
});

test("a part that stands there twice, or is marked as not fitted, is said", () => {
  const p = read("Ref;X mm;Y mm;Side;Fitted\nR1;1;2;top;yes\nR2;3;2;top;no\nr1;5;2;top;yes");
  expect(p.parts.map((q) => q.ref)).toEqual(["R1", "R2", "R1"]);
  expect(p.findings.map((f) => [f.tag, f.level, f.about])).toEqual([
    ["placement-turn-unknown", "warning", ["R1", "R2", "r1"]],
    ["placement-not-fitted", "warning", ["R2"]],
    ["placement-duplicate-ref", "error", ["R1"]],
  ]);
});

test("a letter that is the top in one shop and the bottom in another is told by what stands beside it, or not", () => {
  const sides = (a: string, b: string) => {
    const p = read(`Ref;X mm;Y mm;Rot;Side\nR1;1;2;0;${a}\nR2;3;2;0;${b}`);
    return p.findings.some((f) => f.level === "error") ? "asked" : p.parts.map((q) => q.side).join(" ");
  };
  expect(sides("BS", "LS")).toBe("top bottom");
  expect(sides("TS", "BS")).toBe("top bottom");
  expect(sides("BS", "BS")).toBe("asked");
  expect(sides("1", "6")).toBe("top bottom");
  expect(sides("0", "1")).toBe("asked");
  expect(sides("A", "B")).toBe("asked");
});

test("places in the ways people write them stand as meant, or it is said; none elsewhere without a word", () => {
  const counts = { right: 0, asked: 0, said: 0, silent: 0, refused: 0 };
  const many = often(340, 5000);
  for (let n = 0; n < many; n++) {
    const written = writtenPlaces(41, n);
    const { verdict, why } = judgePlaces(written);
    counts[verdict]++;
    if (verdict === "silent" || verdict === "refused") expect([n, written.kind, why]).toEqual([]);
  }
  expect(counts.right + counts.asked).toBeGreaterThan(0.98 * (counts.right + counts.asked + counts.said));
});

import { expect, test } from "@jest/globals";
import { measureBoard } from "../measure.ts";
import { readBoard } from "../read/read.ts";

const u = (v: number) => Math.round(v * 1e6);
const HEAD = "%FSLAX46Y46*%%MOMM*%G75*%ADD10C,0.15*%%ADD11R,0.8X0.9*%";
const REFS = ["R1", "R2", "R3", "R10"];
const pads = REFS.map((ref, i) =>
  ["1", "2"].map((pin, k) => `%TO.P,${ref},${pin}*%D11*X${u(5 + 5 * i + 1.6 * k)}Y${u(5)}D03*`).join(""),
).join("");
const ink = (ref: string, i: number, says: boolean) =>
  `${says ? `%TO.C,${ref}*%` : ""}D10*X${u(5 + 5 * i)}Y${u(7)}D02*G01X${u(6 + 5 * i)}D01*${says ? "%TD*%" : ""}`;
const EDGE = `${HEAD}D10*X0Y0D02*G01X${u(30)}D01*Y${u(12)}D01*X0D01*Y0D01*M02*`;

function missing(named: readonly string[], says = true, side: "top" | "bottom" = "top") {
  const legend = named.map((ref) => ink(ref, REFS.indexOf(ref), says)).join("");
  const files = {
    "x.gtl": `${HEAD}${pads}%TD*%M02*`,
    "x.gko": EDGE,
    [side === "top" ? "x.gto" : "x.gbo"]: `${HEAD}${legend}D10*X${u(1)}Y${u(1)}D02*G01X${u(2)}D01*M02*`,
  };
  const set = readBoard(
    Object.entries(files).map(([path, text]) => ({ path, bytes: new TextEncoder().encode(text) })),
  );
  return measureBoard(set)
    .findings.filter((f) => f.tag === "reference-missing")
    .flatMap((f) => f.about ?? []);
}

test.each<readonly [string, readonly string[], boolean, "top" | "bottom", readonly string[]]>([
  ["all named", REFS, true, "top", []],
  ["one missing", ["R1", "R2", "R10"], true, "top", ["R3"]],
  ["two of four missing, in order", ["R1", "R2"], true, "top", ["R3", "R10"]],
  ["most missing: this silkscreen names no parts", ["R1"], true, "top", []],
  ["nothing says whose the ink is", ["R1", "R2", "R3"], false, "top", []],
  ["no ink of parts at all", [], true, "top", []],
  ["named on the side they are not on", ["R1", "R2", "R3"], true, "bottom", []],
])("names on the silkscreen: %s", (_, named, says, side, expected) => {
  expect(missing(named, says, side)).toEqual(expected);
});

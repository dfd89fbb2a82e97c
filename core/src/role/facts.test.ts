import { expect, test } from "@jest/globals";
import { readLayer } from "../gerber/read.ts";
import { factsOf, roleFromContent, roleFromFunction } from "./role.ts";

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n%ADD10C,0.1*%\n%ADD11C,0.5*%\n%ADD12R,1.0X1.0*%\nD10*\n";
const at = (x: number, y: number) => `X${Math.round(x * 1e6)}Y${Math.round(y * 1e6)}`;
const line = (x1: number, y1: number, x2: number, y2: number) => `${at(x1, y1)}D02*\nG01${at(x2, y2)}D01*\n`;
const facts = (body: string) => factsOf(readLayer(new TextEncoder().encode(`${HEAD}${body}M02*\n`), "a.gbr"));
const SQUARE = line(0, 0, 4, 0) + line(4, 0, 4, 3) + line(4, 3, 0, 3) + line(0, 3, 0, 0);
const flash = (n: number) => Array.from({ length: n }, (_, i) => `${at(i, -1)}D03*\n`).join("");

test("what a layer consists of is counted, with the box of all of it", () => {
  expect(facts(SQUARE)).toEqual({
    flashes: 0,
    strokes: 4,
    regions: 0,
    widths: 1,
    box: [0, 0, 4, 3],
    closedLoops: true,
  });
  expect(facts(`${flash(2)}D11*\n${line(0, 0, 9, 9)}D12*\n${flash(1)}`)).toMatchObject({
    flashes: 3,
    strokes: 1,
    widths: 1,
    box: [0, -1, 9, 9],
  });
  expect(facts(`${line(0, 0, 1, 0)}D11*\n${line(1, 0, 2, 0)}`).widths).toBe(2);
  expect(
    facts(`G36*\n${at(-2, -3)}D02*\nG01${at(5, 0)}D01*\n${at(5, 6)}D01*\n${at(-2, -3)}D01*\nG37*\n`),
  ).toMatchObject({ regions: 1, strokes: 0, flashes: 0, box: [-2, -3, 5, 6] });
  expect(facts("").box).toBeUndefined();
});

test.each([
  ["three sides that meet", line(0, 0, 4, 0) + line(4, 0, 2, 3) + line(2, 3, 0, 0), true],
  ["two strokes there and back", line(0, 0, 4, 0) + line(4, 0, 0, 0), false],
  ["a side that is missing", line(0, 0, 4, 0) + line(4, 0, 4, 3) + line(4, 3, 0, 3), false],
  ["ends 5 µm apart, which is one place", line(0, 0, 4, 0) + line(4.005, 0, 4, 3) + line(4, 3, 0, 0), true],
  ["ends 0.1 mm apart, which are two", line(0, 0, 4, 0) + line(4.1, 0, 4, 3) + line(4, 3, 0, 0), false],
])("closed loops: %s", (_, body, is) => {
  expect(facts(body).closedLoops).toBe(is);
});

test.each([
  ["closed thin lines are the profile", SQUARE, "profile"],
  ["with a pad they are not", SQUARE + flash(1), undefined],
  ["with a second width they are not", `${SQUARE}D11*\n${line(1, 1, 2, 1)}${line(2, 1, 1, 1)}`, undefined],
  ["four pads and four tracks are copper", SQUARE + flash(4), "copper"],
  ["three pads are not", SQUARE + flash(3), undefined],
  ["three tracks are not", line(0, 0, 1, 0) + line(0, 1, 1, 1) + line(0, 2, 1, 2) + flash(4), undefined],
])("by its content: %s", (_, body, role) => {
  expect(roleFromContent(facts(body))?.role).toBe(role);
});

test.each<[string, object | undefined]>([
  ["Copper,L1,Top", { role: "copper", side: "top" }],
  ["Copper,L4,Bot", { role: "copper", side: "bottom" }],
  ["Copper,L2,Inr", { role: "copper", side: "inner", index: 1 }],
  ["Copper,L3,Inr", { role: "copper", side: "inner", index: 2 }],
  ["Copper,L1,Inr", { role: "copper", side: "inner", index: 1 }],
  ["Soldermask,Top", { role: "mask", side: "top" }],
  ["Legend,Bot", { role: "legend", side: "bottom" }],
  ["Paste,Top", { role: "paste", side: "top" }],
  ["Profile,NP", { role: "profile" }],
  ["Plated,1,2,PTH", { role: "drill", plated: true }],
  ["NonPlated,1,2,NPTH", { role: "drill", plated: false }],
  ["MixedPlating,1,2", { role: "drill", plated: "mixed" }],
  ["Vcut", { role: "score" }],
  ["Component,L1,Top", { role: "placement", side: "top" }],
  ["Drillmap", { role: "drawing" }],
  ["FabricationDrawing", { role: "drawing" }],
  ["AssemblyDrawing,Top", { role: "drawing" }],
  ["ArrayDrawing", { role: "drawing" }],
  ["VcutMap", { role: "drawing" }],
  ["OtherDrawing,x", { role: "drawing" }],
  ["Glue,Top", { role: "unknown" }],
  ["", undefined],
])("the attribute %s says %j", (text, guess) => {
  const read = roleFromFunction(text.split(","), "attribute");
  if (guess === undefined) expect(read).toBeUndefined();
  else
    expect(read).toEqual({
      because: "attribute",
      reason: expect.stringContaining("its own attribute says"),
      ...guess,
    });
  if (text !== "") expect(roleFromFunction(text.split(","), "job")!.reason).toContain("the job file says");
});

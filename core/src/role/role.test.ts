import { expect, test } from "@jest/globals";
import { kindOf } from "../board/read/kind.ts";
import { roleFromContent, roleFromFunction } from "./role.ts";
import { roleFromName } from "./role-name.ts";

test.each([
  ["board.GTL", "copper", "top"],
  ["x-F_Cu.gbr", "copper", "top"],
  ["x-B_Cu.gbr", "copper", "bottom"],
  ["x.g1", "copper", "inner"],
  ["x-In2_Cu.gbr", "copper", "inner"],
  ["x-F_Mask.gbr", "mask", "top"],
  ["soldermask_bottom.art", "mask", "bottom"],
  ["x-B_Silkscreen.gbr", "legend", "bottom"],
  ["x.gto", "legend", "top"],
  ["x-F_Paste.gbr", "paste", "top"],
  ["stencil-top.gbr", "paste", "top"],
  ["Edge_Cuts.gbr", "profile", undefined],
  ["x.gko", "profile", undefined],
  ["outline.gbr", "profile", undefined],
  ["v_score.gbr", "score", undefined],
])("a layer named %s proposes %s %s", (name, role, side) => {
  expect(roleFromName(name)).toMatchObject({ role, ...(side ? { side } : {}), because: "name" });
});

test("a name that says nothing proposes nothing", () => {
  expect(roleFromName("x17.art")).toBeUndefined();
});

test.each([
  ["Copper,L1,Top", { role: "copper", side: "top" }],
  ["Copper,L2,Inr,Plane", { role: "copper", side: "inner", index: 1 }],
  ["Copper,L4,Bot", { role: "copper", side: "bottom" }],
  ["Soldermask,Bot", { role: "mask", side: "bottom" }],
  ["Profile,NP", { role: "profile" }],
  ["Plated,1,2,PTH", { role: "drill", plated: true }],
  ["NonPlated,1,2,NPTH", { role: "drill", plated: false }],
  ["Vcut", { role: "score" }],
  ["FabricationDrawing", { role: "drawing" }],
  ["Other,Thing", { role: "unknown" }],
] as const)("the file function %s is %j", (text, want) => {
  expect(roleFromFunction(text.split(","), "attribute")).toMatchObject(want);
});

const bytes = (text: string) => new TextEncoder().encode(text);
test.each([
  ["a layer", "%FSLAX46Y46*%\n%MOMM*%\n", "layer"],
  ["a layer of the oldest kind", "G04 old*\nD10*\nX1Y1D03*\n", "layer"],
  ["a drill", "M48\nMETRIC\nT1C0.8\n%\n", "drill"],
  ["a drill whose tools carry a number format", "T1F00S00C0.8\nX1Y1\n", "drill"],
  ["a netlist", "P  JOB   X\nP  UNITS CUST 1\n317GND   ", "netlist"],
  ["a job", '{"Header":{},"FilesAttributes":[]}', "job"],
  ["a table", "Ref,Qty\nR1,1\nR2,1\n", "table"],
  ["a note", "Please make this board.\nThank you.\n", "other"],
  ["nothing", "", "empty"],
])("%s is recognised by its content", (_, text, kind) => {
  expect(kindOf(bytes(text))).toBe(kind);
});

test("pictures, archives and binary files are recognised by their first bytes, whatever their name", () => {
  expect(kindOf(Uint8Array.of(0xff, 0xd8, 0xff, 0xe0))).toBe("picture");
  expect(kindOf(Uint8Array.of(0x50, 0x4b, 3, 4, 20, 0))).toBe("archive");
  expect(kindOf(bytes("PK\u0003\u0004 [Content_Types].xml"))).toBe("table");
  expect(kindOf(Uint8Array.of(1, 0, 2, 0, 3, 0))).toBe("other");
});

const facts = (more: object) => ({
  flashes: 0,
  strokes: 4,
  regions: 0,
  widths: 1,
  box: undefined,
  closedLoops: true,
  ...more,
});
test.each([
  ["closed lines of one width", {}, "profile"],
  ["closed lines of two widths", { widths: 2 }, undefined],
  ["lines that do not close", { closedLoops: false }, undefined],
  ["closed lines and a filled area", { regions: 1 }, undefined],
  ["pads and tracks", { flashes: 4, strokes: 4, closedLoops: false }, "copper"],
  ["three pads", { flashes: 3, strokes: 9, closedLoops: false }, undefined],
  ["pads and three tracks", { flashes: 9, strokes: 3, closedLoops: false }, undefined],
])("an image nobody names that holds %s: %j is %s", (_, more, role) => {
  expect(roleFromContent(facts(more) as never)?.role).toBe(role);
});

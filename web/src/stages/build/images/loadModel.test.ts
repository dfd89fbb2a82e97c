import { expect, test } from "@jest/globals";
import type { Fits, ImageLoad, ProgramImage, RunAssembly } from "@kobbin/core";
import { bySocket, givenValue, leftToDo, loadOf, loadPieces, loadsOf, went } from "./loadModel.ts";

const image = (id: string, at: string, more: Partial<ProgramImage> = {}) =>
  ({ id, at, name: id, version: "1", expect: "", values: [], ...more }) as ProgramImage;
const IMAGES = [image("start", "U1"), image("watch", "J5"), image("watch 2", "J5"), image("other", "J9")];
const assembly = { programAt: ["J5"], programLoose: ["U1"], images: IMAGES } as unknown as RunAssembly;
const load = (unit: number, imageId: string, isRight: boolean, more: Partial<ImageLoad> = {}) =>
  ({ unit, image: imageId, isRight, given: {}, ...more }) as ImageLoad;

test("images are loaded into a board one after the other, into loose chips one chip after the other", () => {
  const names = (kind: string, refs: string[], boards = 3) =>
    loadPieces(assembly, { kind, refs }, boards).map((p) => p.name);
  expect(names("program", ["J5"])).toEqual(["load watch", "load watch 2"]);
  expect(names("program-before", ["U1"])).toEqual(["load start #1", "load start #2", "load start #3"]);
  expect([names("test", ["J5"]), names("program", ["J1"])]).toEqual([[], []]);
  expect(loadOf("load watch 2", IMAGES)).toEqual({ image: IMAGES[2] });
  expect(loadOf("load start #12", IMAGES)).toEqual({ image: IMAGES[0], chip: 12 });
  expect([
    loadOf("load gone", IMAGES),
    loadOf("U1", IMAGES),
    loadOf(undefined, IMAGES),
    loadOf("load watch", undefined),
  ]).toEqual(Array(4).fill(undefined));
});

test("a go is right where the person says so and the tool does not say otherwise, and none where it is refused", () => {
  const yes: Fits = { is: "yes", because: "" };
  const want = image("w", "J5", { expect: "verified" });
  expect(went(want, yes, true, "").is).toBe("right");
  expect(went(want, yes, true, "all VERIFIED").is).toBe("right");
  expect(went(want, yes, true, "timeout")).toEqual({
    is: "wrong",
    because: "It does not say “verified”: noted as not loaded.",
  });
  expect(went(want, yes, false, "verified").is).toBe("wrong");
  expect(went(want, { is: "no", because: "other pins" }, true, "verified")).toEqual({
    is: "refused",
    because: "other pins",
  });
  for (const is of ["unknown", "limits"] as const)
    expect(went(want, { is, because: "" }, true, "").is).toBe("right");
});

test("the last go counts; what is not wiped is told, and the socket that wears", () => {
  const secret = image("watch", "J5", { values: [{ name: "key", isWiped: true }] });
  const loads = [
    load(1, "watch", false, { socket: 2 }),
    load(1, "watch", true, { socket: 1 }),
    load(2, "watch", true, { socket: 1 }),
    load(2, "watch", false, { socket: 2 }),
    load(3, "watch", true, { wipedOn: "2026-12-01", socket: 3 }),
    load(3, "start", true),
  ];
  expect(loadsOf(loads, 1, "watch").map((l) => l.isRight)).toEqual([false, true]);
  const left = (unit: number) => {
    const { open, toWipe } = leftToDo([secret, image("start", "U1")], loads, unit);
    return [open.map((i) => i.id), toWipe.length];
  };
  expect([left(1), left(2), left(3), left(4)]).toEqual([
    [["start"], 1],
    [["watch", "start"], 0],
    [[], 0],
    [["watch", "start"], 0],
  ]);
  expect(bySocket(loads)).toEqual([
    { socket: 2, wrong: 2, of: 2 },
    { socket: 1, wrong: 0, of: 2 },
    { socket: 3, wrong: 0, of: 1 },
  ]);
});

test("a constant fills the value of its name until somebody types another, or nothing", () => {
  const fit = { kind: "straight", gain: 0.5, offset: -0.5, points: [], worst: 0 } as const;
  const lines = [{ of: "probe", fit }];
  expect(givenValue("probe gain", undefined, lines)).toEqual({ text: "0.5", isConstant: true });
  expect(givenValue("probe gain", "0.5", lines).isConstant).toBe(true);
  expect(givenValue("probe gain", "0.6", lines)).toEqual({ text: "0.6", isConstant: false });
  expect(givenValue("probe gain", "", lines)).toEqual({ text: "", isConstant: false });
  expect(givenValue("number", undefined, lines)).toEqual({ text: "", isConstant: false });
});

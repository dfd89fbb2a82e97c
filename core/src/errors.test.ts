import { expect, test } from "@jest/globals";
import { AppError, assert, fromWire, toWire } from "./errors.ts";

test("an error of ours crosses as data and is the same on the other side; a defect is none of ours", () => {
  const e = new AppError("OUT_OF_RANGE", "It is 7.", "Make it 6.", { details: { at: 3 } });
  const wire = toWire(e)!;
  expect(JSON.parse(JSON.stringify(wire))).toEqual(wire);
  expect(fromWire(wire)).toMatchObject({
    code: e.code,
    message: e.message,
    hint: e.hint,
    details: { at: 3 },
  });
  expect(toWire(new AppError("BUSY", "a", "b"))).not.toHaveProperty("details");
  for (const other of [new Error("x"), "x", undefined, { code: "BUSY" }])
    expect(toWire(other)).toBeUndefined();
});

test("a broken promise stops with its name and is nobody's to mend", () => {
  expect(() => assert(true, "never")).not.toThrow();
  expect(() => assert(false, "sorted")).toThrow("sorted");
  expect(toWire(tried(() => assert(false, "sorted")))).toBeUndefined();
});

function tried(work: () => void): unknown {
  try {
    work();
  } catch (error) {
    return error;
  }
  return undefined;
}

test("what caused an error goes with it, and where nothing did there is none", () => {
  const cause = new Error("first");
  expect(new AppError("BUSY", "a", "b", { cause }).cause).toBe(cause);
  expect(Object.hasOwn(new AppError("BUSY", "a", "b"), "cause")).toBe(false);
  expect(new AppError("BUSY", "a", "b").name).toBe("AppError");
});

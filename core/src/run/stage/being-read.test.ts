import { expect, test } from "@jest/globals";
import type { RunDocument } from "../document/document.ts";
import { madeMeasure, madeRun } from "../made-up.fixture.ts";
import { isBeingRead } from "./being-read.ts";

const READ = { layers: [], drilled: 0, platedShare: 0, givenUp: [] };
const place = { pin: "", x: 1, y: 1, reading: READ };
const doc = (board: Partial<RunDocument["boards"][number]>, more: Partial<RunDocument>) =>
  madeRun({ boards: [{ name: "Main", perProduct: 1, measure: madeMeasure(), ...board }], ...more });
const lesson = (kind: "place" | "asked") =>
  ({ id: "l", check: kind === "place" ? { kind, at: [1, 1] } : { kind } }) as never;
const erratum = (more: object) => ({ id: "e", isHere: false, spot: { at: [1, 1] }, ...more }) as never;
const fitRow = (kind: string) => ({ id: "f", label: "x", spec: { kind, at: [1, 1] } }) as never;

test("files are being read as long as something is judged by them that nobody has read", () => {
  expect(isBeingRead(doc({}, {}))).toBe(false);
  expect(isBeingRead(doc({}, { lessons: [lesson("asked")] }))).toBe(false);
  expect(isBeingRead(doc({}, { lessons: [lesson("place")] }))).toBe(true);
  expect(isBeingRead(doc({ learned: { l: [] } }, { lessons: [lesson("place")] }))).toBe(false);
  expect(isBeingRead(doc({ learned: { e: [place] } }, { errata: [erratum({})] }))).toBe(true);
  expect(isBeingRead(doc({}, { errata: [erratum({ before: [place] })] }))).toBe(true);
  expect(isBeingRead(doc({ learned: { e: [place] } }, { errata: [erratum({ before: [place] })] }))).toBe(
    false,
  );
  expect(isBeingRead(doc({}, { errata: [erratum({ isHere: true })] }))).toBe(false);
  expect(isBeingRead(doc({}, { errata: [erratum({ spot: {} })] }))).toBe(false);
  expect(isBeingRead(doc({}, { fits: [fitRow("edge")] }))).toBe(false);
  expect(isBeingRead(doc({}, { fits: [fitRow("intended")] }))).toBe(true);
  expect(isBeingRead(doc({ places: { f: READ } }, { fits: [fitRow("intended")] }))).toBe(false);
  // without a closed outline there is no place to read
  expect(
    isBeingRead(
      doc(
        { measure: madeMeasure({ outline: { cutouts: 0, closed: false } }) },
        { fits: [fitRow("intended")] },
      ),
    ),
  ).toBe(false);
});

import { expect, test } from "@jest/globals";
import type { RunErratum } from "../../learn/erratum.ts";
import type { Note } from "../document/note.ts";
import { madeMeasure, madeRun } from "../made-up.fixture.ts";
import { erratumNotes } from "./erratum-notes.ts";

const READ = { layers: [], board: 1, drilled: 0, platedShare: 0, givenUp: [] };
const place = { pin: "", x: 6, y: 4, reading: READ };
const erratum = (more: Partial<RunErratum> = {}): RunErratum => ({
  id: "e",
  title: "slot too narrow",
  effect: "the lid does not close",
  harm: "worse",
  spot: { at: [6, 4], side: "top", diameterMm: 1 },
  way: "none",
  workaround: "",
  planned: "",
  evidence: "",
  foundOn: "2026-03-01",
  foundIn: "A",
  isHere: false,
  before: [place],
  corner: [0, 0],
  ...more,
});
function notes(e: RunErratum, after: object[] | undefined = [place]): Note[] {
  const out: Partial<Note>[] = [];
  const board = { name: "Main", perProduct: 1, measure: madeMeasure() };
  erratumNotes(
    madeRun({
      revision: "B",
      boards: [{ ...board, ...(after ? { learned: { e: after as never } } : {}) }],
      errata: [e],
    }),
    (stage, key, level, text, more) => out.push({ stage, key, level, text, ...more }),
  );
  return out as Note[];
}
const decided = (is: "fixed" | "stays" | "gone", because = "") => ({
  decision: { is, because, on: "2026-04-01" },
});

test("of its own revision it is known, as bad as it is; with a workaround what stops a board is a caution", () => {
  const level = (more: Partial<RunErratum>) => notes(erratum({ isHere: true, ...more }))[0]!.level;
  expect(level({ harm: "stops" })).toBe("error");
  expect(level({ harm: "stops", workaround: "file it" })).toBe("warning");
  expect(level({ harm: "looks" })).toBe("remark");
  expect(notes(erratum({ isHere: true, workaround: "file it open" }))).toEqual([
    {
      stage: "board",
      key: "erratum e known",
      level: "warning",
      text: "Known of this revision since 2026-03-01: slot too narrow. The lid does not close.",
      do: "On each board: file it open.",
      at: { layer: "top", x: 6, y: 4 },
    },
  ]);
});

test("another revision is stopped until it is decided on, with what was changed at its place", () => {
  const [open] = notes(erratum());
  expect(open).toMatchObject({ key: "erratum e undecided", level: "error" });
  expect(open!.text).toMatch(
    /^Found in A, and nobody has decided on it for B: .* Nothing is changed at its place\.$/,
  );
  expect(notes(erratum(), [])[0]!.text).toMatch(/Changed at its place: It is not there any more\.$/);
  expect(notes(erratum({ spot: { side: "top", diameterMm: 1 } }))[0]!.text).toMatch(
    /no place that could be compared/,
  );
  expect(notes(erratum({ spot: { board: "Side", side: "top", diameterMm: 1 } }))[0]!.text).toMatch(
    /no board called Side/,
  );
});

test("said to be mended and the same as before stops it; changed, or not known, or gone, is taken at its word", () => {
  expect(notes(erratum(decided("fixed")))).toMatchObject([{ key: "erratum e unchanged", level: "error" }]);
  expect(notes(erratum(decided("fixed")), [{ ...place, x: 7 }])).toEqual([]);
  expect(notes(erratum({ ...decided("fixed"), spot: { side: "top", diameterMm: 1 } }))).toEqual([]);
  expect(notes(erratum(decided("gone")))).toEqual([]);
  expect(notes(erratum(decided("stays", "the lid is wider now")))[0]).toMatchObject({
    key: "erratum e known",
    text: "Known since A and left as it is (the lid is wider now): slot too narrow. The lid does not close.",
  });
});

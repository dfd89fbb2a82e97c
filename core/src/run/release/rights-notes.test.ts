import { expect, test } from "@jest/globals";
import { judgeRight, type Right } from "../../rights/right.ts";
import type { RunDocument } from "../document/document.ts";
import type { Note } from "../document/note.ts";
import { madeRun } from "../made-up.fixture.ts";
import { openQuestions, rightsNotes } from "./rights-notes.ts";

const right = (more: Partial<Right> = {}): Right => ({
  id: "r",
  kind: "logo",
  what: "emblem of a club",
  place: "top silkscreen",
  owner: "Moss Club",
  state: "unknown",
  evidence: "",
  facts: {},
  ...more,
});
function notes(rights: Right[], choices: RunDocument["choices"] = {}): Note[] {
  const out: Partial<Note>[] = [];
  rightsNotes(madeRun({ rights, choices }), (stage, key, level, text, more) =>
    out.push({ stage, key, level, text, ...more }),
  );
  return out as Note[];
}

test.each<[string, Partial<Right>, string]>([
  ["nobody has looked", {}, "open"],
  ["one's own needs no paper", { state: "own" }, "proven"],
  ["but an approval does", { kind: "approval", state: "own" }, "open"],
  ["and is one with it", { kind: "approval", state: "own", evidence: "report 12" }, "proven"],
  ["granted, and nothing shows it", { state: "granted" }, "open"],
  ["granted by somebody with a letter", { state: "granted", evidence: "letter of May" }, "proven"],
  ["a letter of nobody", { state: "granted", evidence: "letter of May", owner: " " }, "open"],
  ["blanks are no letter", { state: "granted", evidence: "  " }, "open"],
  ["refused stays refused, whatever is written", { state: "refused", evidence: "letter" }, "refused"],
  ["nobody has looked, whatever is written", { evidence: "a page on the web" }, "open"],
  ["a question wants an answer", { kind: "question", what: "lead", state: "own" }, "open"],
])("whether one may: %s", (_, more, verdict) => {
  expect(judgeRight(right(more))).toBe(verdict);
});

test("what nobody has shown to be allowed stops a run that is sold, and one of which nobody said; for the shop alone it stays a remark, an approval a caution", () => {
  const levels = (r: Partial<Right>) =>
    ([undefined, "sold", "private"] as const).map(
      (use) => notes([right(r)], use ? { use } : {}).find((n) => n.key.startsWith("right r"))?.level,
    );
  expect(levels({})).toEqual(["error", "error", "remark"]);
  expect(levels({ kind: "approval", state: "refused" })).toEqual(["error", "error", "warning"]);
  expect(levels({ state: "own" })).toEqual([undefined, undefined, undefined]);
  expect(notes([right()])[0]).toEqual({
    stage: "board",
    key: "right r open",
    level: "error",
    text: "emblem of a club (a mark or a logo, top silkscreen, of Moss Club) may not be this shop’s to use: nobody has looked.",
    do: "Write down who entitles to it, take it off the board, or make the run for this shop alone.",
  });
  expect(notes([right({ kind: "approval" })])[0]!.text).toMatch(/declares something\.$/);
});

test("a borrowed design that nobody is known to have working is told before anything is paid", () => {
  const design = (facts: Right["facts"]) =>
    notes([right({ kind: "design", state: "granted", evidence: "licence", facts })]).map((n) => [
      n.key,
      n.level,
      n.text,
    ]);
  expect(design({ built: "yes" })).toEqual([]);
  expect(design({ status: "untested" })).toEqual([
    [
      "right r unbuilt",
      "warning",
      expect.stringMatching(/nobody is known to have it working; its author says: untested\.$/),
    ],
  ]);
  expect(design({ built: "no" })[0]![2]).toMatch(/nobody has it working\.$/);
});

test("questions before a sale are asked of what is sold; a price of what is not is odd", () => {
  const lead = right({
    kind: "question",
    what: "lead",
    state: "own",
    evidence: "none by the makers’ sheets",
  });
  expect(openQuestions([])).toHaveLength(6);
  expect(openQuestions([lead])).not.toContain("lead");
  expect(notes([lead])).toEqual([]);
  const [asked] = notes([lead], { use: "sold" });
  expect(asked).toMatchObject({ key: "right-questions", level: "warning" });
  expect(asked!.text).toMatch(/^Before it is sold, 5 questions are open: Which rules/);
  const price = { channels: [] } as never;
  expect(notes([], { use: "private", price }).map((n) => n.key)).toEqual(["right-priced-private"]);
  expect(notes([], { price })).toEqual([]);
});

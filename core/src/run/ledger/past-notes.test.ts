import { expect, test } from "@jest/globals";
import type { Note } from "../document/note.ts";
import { madeRun } from "../made-up.fixture.ts";
import { pastNotes } from "./past-notes.ts";

test("a lesson of the run before is said as a sentence, however it was ended; a run without one says nothing", () => {
  const told = (lesson: string) => {
    const out: Partial<Note>[] = [];
    const past = [{ name: "first", closedOn: "2026-10-01", lesson }];
    pastNotes({ ...madeRun({}), past } as never, (stage, key, level, text) =>
      out.push({ stage, key, level, text }),
    );
    return out.map((n) => n.text);
  };
  const said = "“first”, the run before, left this to be remembered:";
  expect(told("check the tape ")).toEqual([`${said} check the tape.`]);
  expect(told("Check the tape!")).toEqual([`${said} Check the tape!`]);
  expect(told("Was it the tape?")).toEqual([`${said} Was it the tape?`]);
  expect(told("")).toEqual([]);
  // of several only the last is the one before
  const two = [
    { name: "older", closedOn: "2026-03-01", lesson: "a" },
    { name: "last", closedOn: "2026-10-01", lesson: "b" },
  ];
  const out: string[] = [];
  pastNotes({ ...madeRun({}), past: two } as never, (_, __, ___, text) => out.push(text));
  expect(out.map((t) => t.split(", left")[0])).toEqual([
    "“older”, closed on 2026-03-01",
    "“last”, the run before",
  ]);
});

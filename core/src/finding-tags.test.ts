import { expect, test } from "@jest/globals";
import { writtenBoard } from "../test/dialects/boards.ts";
import { judgeBoard } from "../test/dialects/judge-board.ts";
import { judgeList } from "../test/dialects/judge-list.ts";
import { judgePlaces } from "../test/dialects/judge-places.ts";
import { writtenList } from "../test/dialects/lists.ts";
import { writtenPlaces } from "../test/dialects/places.ts";
import { often } from "../test/long.ts";
import { FINDING_TAGS } from "./finding-tags.ts";
import type { Finding } from "./findings.ts";

test("whatever is read, a finding weighs only what its tag may weigh, and says what to do where it blocks", () => {
  const seen = new Set<string>();
  const look = (findings: readonly Finding[]) => {
    for (const f of findings) {
      seen.add(f.tag);
      expect([f.tag, FINDING_TAGS[f.tag]]).toEqual([f.tag, expect.arrayContaining([f.level])]);
      if (f.level === "error" && !/more of the same kind/.test(f.text))
        expect([f.tag, f.do]).toEqual([f.tag, expect.any(String)]);
      expect(f.text).toMatch(/[.?]$/);
    }
  };
  const many = often(60, 2000);
  for (let n = 0; n < many; n++) {
    look(judgeList(writtenList(71, n)).bom.findings);
    look(judgePlaces(writtenPlaces(71, n)).findings);
    look(judgeBoard(writtenBoard(71, n)).measure.findings);
  }
  expect(seen.size).toBeGreaterThan(25);
});

import { expect, test } from "@jest/globals";
import type { LearnedAnswer, ShopErratum, ShopLesson, ShopReport } from "@kobbin/contract";
import { nextRevisions } from "./nextRevision.ts";

const erratum = (id: string, more: Partial<ShopErratum>): ShopErratum =>
  ({
    id,
    productId: "p",
    title: id,
    revisionId: "a",
    foundOn: "2026-03-01",
    planned: "",
    decisions: {},
    reworks: [],
    ...more,
  }) as unknown as ShopErratum;
const decided = (is: "fixed" | "stays" | "gone") => ({ b: { is, because: "", on: "2026-03-02" } });
const lesson = (id: string, more: Partial<ShopLesson>): ShopLesson =>
  ({ id, title: id, since: "2026-02-01", caught: [], runs: [], ...more }) as unknown as ShopLesson;
const run = (revision: string, is: "broken" | "ask", because?: string) =>
  ({
    id: "r",
    name: "one",
    product: "Watch",
    revision,
    is,
    found: "",
    ...(because ? { because } : {}),
  }) as const;
const report = (id: string, on: string, erratumId?: string): ShopReport =>
  ({ id, productId: "p", says: id, on, ...(erratumId ? { erratumId } : {}) }) as unknown as ShopReport;
const data = (more: Partial<LearnedAnswer>) => ({
  products: [
    {
      id: "p",
      name: "Watch",
      revisions: [
        { id: "a", label: "A", out: 0 },
        { id: "b", label: "B", out: 0 },
      ],
    },
    { id: "empty", name: "Empty", revisions: [] },
  ],
  errata: [],
  lessons: [],
  reports: [],
  plans: [],
  ...more,
});

test("what speaks for another revision: faults the newest has or that nobody decided on, lessons it breaks, what owners say that is no known fault", () => {
  const unit = (n: number, minutes?: number) => ({ id: String(n), unit: n, ...(minutes ? { minutes } : {}) });
  const [n, ...rest] = nextRevisions(
    data({
      errata: [
        erratum("mended", { decisions: decided("fixed") }),
        erratum("gone", { decisions: decided("gone") }),
        erratum("stays", {
          decisions: decided("stays"),
          planned: "C",
          reworks: [
            { units: [unit(1, 6), unit(2)] },
            { units: [unit(1, 4)] },
          ] as unknown as ShopErratum["reworks"],
        }),
        erratum("undecided", {}),
        erratum("new", { revisionId: "b" }),
        erratum("of another", { productId: "q" }),
      ],
      lessons: [
        lesson("broken", {
          runs: [run("B", "broken")],
          caught: [{ product: "Watch", revision: "B", on: "2026-04-01", found: "" }],
        }),
        lesson("in A alone", { runs: [run("A", "broken")] }),
        lesson("accepted", { runs: [run("B", "broken", "seen")] }),
        lesson("asked", { runs: [run("B", "ask")] }),
        lesson("cleared", { clearedOn: "2026-04-02", runs: [run("B", "broken")] }),
      ],
      reports: [report("fades", "2026-05-01"), report("the slot", "2026-05-02", "stays")],
    }),
  );
  expect(rest).toEqual([]);
  expect(n!.speaks.map((s) => [s.kind, s.words, s.since, s.minutes, s.planned])).toEqual([
    ["fault", "stays", "2026-03-01", 10, "C"],
    ["fault", "undecided", "2026-03-01", 0, ""],
    ["fault", "new", "2026-03-01", 0, ""],
    ["lesson", "broken", "2026-04-01", 0, ""],
    ["owner", "fades", "2026-05-01", 0, ""],
  ]);
  expect([n!.newest, n!.plan, n!.after]).toEqual(["B", undefined, []]);
});

test("what came after the decision is told; what was known on that day was decided with", () => {
  const plan = { productId: "p", isNeeded: false, because: "", begins: "", on: "2026-05-01", person: "M" };
  const reports = [report("before", "2026-05-01"), report("after", "2026-05-02")];
  const [n] = nextRevisions(data({ reports, plans: [plan] }));
  expect(n!.plan).toBe(plan);
  expect(n!.after.map((s) => s.words)).toEqual(["after"]);
});

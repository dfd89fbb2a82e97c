import { expect, test } from "@jest/globals";
import { often } from "../../test/long.ts";
import { madeUpRuns } from "../../test/second/made-up.ts";
import type { OptionKey } from "../fab/options.ts";
import { routesOf } from "./assemble/routes.ts";
import { boardK } from "./board-k.fixture.ts";
import type { RunAssembly, RunDocument } from "./document/document.ts";
import { layChange } from "./document/lay-change.ts";
import type { StageKey } from "./document/note.ts";
import { withHouse } from "./fab/fab-effects.ts";
import { rollUp } from "./roll-up.ts";
import { onSheets } from "./sheets.fixture.ts";
import type { Effect, HouseEffect, WhatIf } from "./stage/effect.ts";
import { whatIf } from "./what-if.ts";

type Lists = Exclude<keyof WhatIf, "houses" | "options">;
const assembled = (doc: RunDocument, more: Partial<RunAssembly>): RunDocument => ({
  ...doc,
  assembly: { ...doc.assembly, ...more },
});
/** How each alternative is chosen, as the page does it. A list that is forgotten here does not compile. */
const CHOSEN: Readonly<Record<Lists, (doc: RunDocument, value: string) => RunDocument>> = {
  methods: (doc, value) =>
    layChange(doc, { assembly: routesOf(doc, rollUp(doc)).find((r) => r.key === value)!.change }),
  confidence: (doc, value) => ({ ...doc, confidence: Number(value) }),
  foils: (doc, value) => {
    const { foil: _, ...rest } = doc.assembly;
    return { ...doc, assembly: value === "" ? rest : { ...rest, foil: value } };
  },
  foilsAt: (doc, value) => {
    const [foilHouse = "", foilForm] = value.split(":");
    return assembled(doc, { foilHouse, ...(foilForm ? { foilForm: foilForm as "loose" } : {}) });
  },
  leftovers: (doc, value) => ({ ...doc, choices: { ...doc.choices, leftovers: value as "stock" } }),
  overrun: (doc, value) => ({ ...doc, choices: { ...doc.choices, overrun: value as "bare" } }),
};

const RUNS = [boardK(), onSheets(), ...madeUpRuns(often(5, 40), 2026)];

test("what any alternative of any stage says it changes is the change of the figures at which it stands", () => {
  let tried = 0;
  for (const doc of RUNS) {
    const base = rollUp(doc);
    const all = whatIf(doc, base);
    const holds = (what: string, e: Effect, next: RunDocument) => {
      if (e.cannot) return;
      tried++;
      const r = rollUp(next);
      const said = [e.perGood, e.cash, e.days];
      const is = [
        (r.perGood - base.perGood) / 1e6,
        (r.cashNeeded - base.cashNeeded) / 1e6,
        r.ready.days - base.ready.days,
      ];
      const off = said.map((v, i) => Math.abs(v - is[i]!));
      expect([what, e.label, said, is, off[0]! < 2e-6 && off[1]! < 2e-6 && off[2]! < 0.06]).toEqual([
        what,
        e.label,
        said,
        is,
        true,
      ]);
    };
    for (const [key, choose] of Object.entries(CHOSEN) as [Lists, (typeof CHOSEN)[Lists]][])
      for (const e of all[key]) holds(key, e, choose(doc, e.value));
    for (const e of all.houses as readonly HouseEffect[]) {
      const house = (doc.houses ?? []).find((h) => h.id === e.house)!;
      holds("house", e, withHouse(doc, house).doc);
    }
    for (const [key, list] of Object.entries(all.options) as [OptionKey, readonly Effect[]][])
      for (const e of list) {
        const value = key === "leadDays" ? Number(e.value) : e.value;
        const changes = Object.fromEntries(
          (e.with ?? []).map((c) => [c.key, c.key === "leadDays" ? Number(c.value) : c.value]),
        );
        holds(key, e, { ...doc, options: { ...base.options, [key]: value, ...changes } as never });
      }
  }
  expect(tried).toBeGreaterThan(150);
});

test("a stage's lists asked for alone are those of all, and nothing else is counted", () => {
  const doc = onSheets();
  const base = rollUp(doc);
  const all = whatIf(doc, base);
  const of = (...stages: StageKey[]) => whatIf(doc, base, new Map(), stages);
  const lists = {
    fab: ["houses", "options"],
    panel: ["overrun"],
    assemble: ["methods", "confidence", "foils", "foilsAt"],
    cost: ["leftovers"],
  } as const;
  for (const [stage, keys] of Object.entries(lists) as [keyof typeof lists, readonly (keyof WhatIf)[]][])
    expect(of(stage)).toEqual(Object.fromEntries(keys.map((k) => [k, all[k]])));
  expect(of("fab", "cost")).toEqual({ houses: all.houses, options: all.options, leftovers: all.leftovers });
  expect(of("board")).toEqual({});
});

import { expect, test } from "@jest/globals";
import { boardK } from "../board-k.fixture.ts";
import { trayParts } from "./tray.ts";

test("a map of parts has every part the run fits, by hand or not, with its direction; what has no place stands beside", () => {
  const doc = boardK();
  const refs = doc.lines.filter((l) => !l.dnp && l.refs.length > 0).flatMap((l) => l.refs);
  const [first, second, third] = doc.lines
    .filter((l) => !l.dnp && l.refs.length > 0)
    .map((l) => l.refs[0]!) as [string, string, string];
  const lineOf = (ref: string) => doc.lines.find((l) => l.refs.includes(ref))!;
  const changed = {
    ...doc,
    lines: doc.lines.map((l) =>
      l === lineOf(first) ? { ...l, mount: "hand" as const } : l === lineOf(third) ? { ...l, dnp: true } : l,
    ),
    placements: refs
      .filter((r) => r !== second)
      .map((ref, i) => ({
        ref,
        xMm: i,
        yMm: 1,
        rotationDeg: 0,
        side: i % 2 === 0 ? ("top" as const) : ("bottom" as const),
      })),
  };
  const { top, bottom, beside } = trayParts(changed, 0);
  const all = [...top, ...bottom, ...beside].map((p) => p.ref);
  const left = lineOf(third).refs;
  expect(new Set(all)).toEqual(new Set(refs.filter((r) => !left.includes(r))));
  expect(all).toContain(first);
  expect(beside.map((p) => p.ref)).toEqual([second]);
  const directed = [...top, ...bottom, ...beside].filter((p) => p.direction !== undefined).map((p) => p.ref);
  expect(directed.length).toBeGreaterThan(0);
  expect(directed.every((r) => /^[DUQC]/.test(r))).toBe(true);
  expect(trayParts(changed, 1)).toEqual({ top: [], bottom: [], beside: [] });
});

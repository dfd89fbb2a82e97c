import { expect, test } from "@jest/globals";
import { measureBoard } from "../src/board/measure.ts";
import type { Measure } from "../src/board/measure-document.ts";
import { readBoard } from "../src/board/read/read.ts";

/** One rule of a published format: a small file that turns on it, and what follows by hand. */
export interface Rule {
  readonly rule: string;
  readonly files: Readonly<Record<string, string>>;
  /** Copper of the top: area mm², islands, box. */
  readonly area?: number;
  readonly islands?: number;
  readonly box?: readonly [number, number, number, number];
  readonly holes?: readonly (readonly [number, number])[];
  readonly tags?: readonly string[];
  readonly also?: (m: Measure) => void;
}

export const PI = Math.PI;
export const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
export const END = "M02*\n";
export const C1 = "%ADD10C,1*%\n";
/** A layer of the usual head: millimetres, six decimals; points are written in micrometres for brevity. */
export const mm = (body: string): string =>
  HEAD + body.replace(/([XYIJ])(-?\d+)u/g, (_, c, v) => `${c}${Number(v) * 1000}`) + END;
export const top = (body: string) => ({ "a.gtl": mm(body) });
export const raw = (text: string) => ({ "a.gtl": text });
/** A square as a region, by its lower left corner and its side, µm. */
export const square = (x: number, y: number, a: number): string =>
  `G36*\nX${x}uY${y}uD02*\nG01*\nX${x + a}uY${y}uD01*\nX${x + a}uY${y + a}uD01*\nX${x}uY${y + a}uD01*\nX${x}uY${y}uD01*\nG37*\n`;

/** A test for each rule: its files read as a board and measured. */
export function testRules(rules: readonly Rule[]): void {
  test.each(rules.map((r) => [r.rule, r] as const))("%s", (_, r) => {
    const entries = Object.entries(r.files).map(([path, text]) => ({
      path,
      bytes: new TextEncoder().encode(text),
    }));
    const m = measureBoard(readBoard(entries));
    expect(m.outcome).toBe("accept");
    if (r.area !== undefined)
      expect(Math.abs(m.copperAreaMm2.top! - r.area)).toBeLessThan(0.004 * Math.max(1, r.area));
    if (r.islands !== undefined) expect(m.copperIslands.top).toBe(r.islands);
    if (r.box) for (let k = 0; k < 4; k++) expect(m.extentMm![k]).toBeCloseTo(r.box[k]!, 3);
    if (r.holes) expect(m.holes.map((h) => [h.diameterMm, h.count])).toEqual(r.holes);
    for (const tag of r.tags ?? []) expect(m.findings.map((f) => f.tag)).toContain(tag);
    r.also?.(m);
  });
}

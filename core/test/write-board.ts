import type { Corrections, Entry } from "../src/board/board-file.ts";
import { measureBoard } from "../src/board/measure.ts";
import type { Measure } from "../src/board/measure-document.ts";
import { readBoard } from "../src/board/read/read.ts";

// boards of a few shapes, written in the published formats; every length in mm

const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const nm = (v: number) => Math.round(v * 1e6);

export const entry = (path: string, text: string): Entry => ({ path, bytes: new TextEncoder().encode(text) });
export const at = (x: number, y: number): string => `X${nm(x)}Y${nm(y)}`;
export const flash = (x: number, y: number): string => `${at(x, y)}D03*\n`;
export const stroke = (x1: number, y1: number, x2: number, y2: number): string =>
  `${at(x1, y1)}D02*\nG01${at(x2, y2)}D01*\n`;
export const area = (...p: [number, number][]): string =>
  `G36*\n${at(...p[0]!)}D02*\nG01*\n${[...p.slice(1), p[0]!].map((q) => `${at(...q)}D01*\n`).join("")}G37*\n`;
export const layer = (path: string, body: string): Entry => entry(path, `${HEAD}${body}M02*\n`);
/** A rectangular outline with its lower left corner at 0/0. */
export const rim = (w: number, h: number): Entry =>
  layer(
    "b.gko",
    `%ADD10C,0.1*%\nD10*\n${stroke(0, 0, w, 0)}${stroke(w, 0, w, h)}${stroke(w, h, 0, h)}${stroke(0, h, 0, 0)}`,
  );
export const drill = (
  path: string,
  tools: readonly (readonly [number, readonly (readonly [number, number])[]])[],
): Entry =>
  entry(
    path,
    `M48\nMETRIC\n${tools.map(([d], i) => `T${i + 1}C${d.toFixed(3)}\n`).join("")}%\n${tools
      .map(
        ([, list], i) => `T${i + 1}\n${list.map(([x, y]) => `X${x.toFixed(3)}Y${y.toFixed(3)}\n`).join("")}`,
      )
      .join("")}M30\n`,
  );
/** A table of a drop, its cells read already. */
export const table = (path: string, rows: readonly (readonly string[])[]): Entry => ({
  ...entry(path, rows.map((r) => r.join(",")).join("\n")),
  cells: rows.map((r) => [...r]),
});
/** A test point of a netlist in micrometres, that is touched from the top. */
export const listedPoint = (net: string, ref: string, pin: string, x: number, y: number): string => {
  const um = (v: number) => `${v < 0 ? "-" : "+"}${String(Math.abs(Math.round(v * 1000))).padStart(6, "0")}`;
  return `327${net.padEnd(14)}   ${ref.padEnd(6)}-${pin.padEnd(4)}       A01X${um(x)}Y${um(y)}\n`;
};
export const netlist = (...points: string[]): Entry =>
  entry("b.ipc", `C  made up\nP  UNITS CUST 1\n${points.join("")}999\n`);
/** The files read as one board and measured. */
export const measure = (entries: readonly Entry[], corrections: Corrections = {}): Measure =>
  measureBoard(readBoard(entries, corrections));

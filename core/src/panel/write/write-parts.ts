import { angleOf } from "../../assembly/turns.ts";
import { posed } from "../../geometry/turn.ts";
import { writeNetlist } from "../../netlist/write.ts";
import type { PanelFiles, PanelLayout, PanelSource } from "../spec.ts";

/** Reference of a part in a copy: R1 of copy 3 is R1_3. */
export const refInCopy = (ref: string, copy: number): string => `${ref}_${copy}`;

/** The netlist of every copy: nets and references with the copy behind them. */
export function netlistText(
  sources: readonly PanelSource[],
  layout: PanelLayout,
  slug: string,
  copper: number,
): string | undefined {
  const points = layout.places.flatMap((p) =>
    (sources[p.board]!.set.netlist?.points ?? []).map((t) => {
      const [x, y] = posed(p, t.x, t.y);
      return {
        ...t,
        x,
        y,
        net: t.net === "N/C" || t.net === "" ? t.net : `${t.net}_${p.copy}`,
        ref: t.ref === "VIA" || t.ref === "" ? t.ref : refInCopy(t.ref, p.copy),
      };
    }),
  );
  return points.length > 0 ? writeNetlist(slug.toUpperCase().slice(0, 30), points, copper) : undefined;
}

const num = (v: number) => (Math.round(v * 1e4) / 1e4).toFixed(4);

/** Places and parts of every copy, and what the sheet takes in all. */
export function partTables(
  sources: readonly PanelSource[],
  layout: PanelLayout,
  slug: string,
): PanelFiles["tables"] {
  const places: string[][] = [];
  const lines: string[][] = [];
  sources.forEach((s, board) => {
    const copies = layout.places.filter((p) => p.board === board);
    const lineOf = new Map(s.set.bom?.lines.flatMap((l) => l.refs.map((r) => [r, l] as const)) ?? []);
    for (const p of copies)
      for (const part of s.set.placements?.parts ?? []) {
        const [x, y] = posed(p, part.xMm, part.yMm);
        const line = lineOf.get(part.ref);
        places.push([
          refInCopy(part.ref, p.copy),
          num(x),
          num(y),
          String(angleOf(part.rotationDeg + p.turnDeg)),
          part.side === "top" ? "Top" : "Bottom",
          line?.valueText ?? "",
          line?.package ?? "",
          s.design.name,
        ]);
      }
    for (const l of s.set.bom?.lines ?? [])
      lines.push([
        copies.flatMap((p) => l.refs.map((r) => refInCopy(r, p.copy))).join(" "),
        String(l.qty * copies.length),
        l.valueText,
        l.package,
        l.mpn,
        l.maker,
        l.description,
        l.dnp ? "yes" : "",
        s.design.name,
      ]);
  });
  return [
    ...(places.length > 0
      ? [
          {
            path: `${slug}-places.csv`,
            rows: [["Ref", "X mm", "Y mm", "Rot deg", "Side", "Value", "Package", "Board"], ...places],
          },
        ]
      : []),
    ...(lines.length > 0
      ? [
          {
            path: `${slug}-parts.csv`,
            rows: [
              [
                "Ref",
                "Qty",
                "Value",
                "Package",
                "Part number",
                "Maker",
                "Description",
                "Do not place",
                "Board",
              ],
              ...lines,
            ],
          },
        ]
      : []),
  ];
}

import type { DiffPlace, FigureChange, PartChange, StencilVerdict } from "@kobbin/core";
import { count, fixed, mm } from "../../../ui/text/format.ts";

/** "copper-inner-1" → "copper inner 1", "legend-top" → "silkscreen top". */
export const layerWords = (key: string): string => key.replace(/^legend/, "silkscreen").replaceAll("-", " ");

/** What became of a place: "slot 1.6 → 1.82 mm" where it is one hole, else what came or went and its size. */
export function placeWords(p: DiffPlace): string {
  if (p.kind === "resized") return `${mm(p.wasMm)} → ${mm(p.nowMm)} mm`;
  if (p.kind === "moved" && p.byMm !== undefined) return `moved ${mm(p.byMm)} mm`;
  const bore = p.nowMm ?? p.wasMm;
  return `${p.kind}, ${bore === undefined ? fixed(Math.max(p.widthMm, p.heightMm), 1) : mm(bore)} mm`;
}

/** What a stencil that was cut for the other board is worth, in words. */
export function stencilWords(s: StencilVerdict): string {
  const missing = count(s.missing, "opening");
  switch (s.says) {
    case "reuse":
      return `serves again: all ${s.of} openings are in it`;
    case "tape":
      return `serves again with tape over ${count(s.extra, "opening")} it has too many`;
    case "dispense":
      return `serves again where a run is placed by hand: ${missing} of ${s.of} ${s.missing === 1 ? "is" : "are"} missing, paste ${s.missing === 1 ? "it" : "them"} with a syringe${s.extra > 0 ? `; tape over ${count(s.extra, "opening")} too many` : ""}`;
    case "new":
      return `is needed anew: ${[
        s.changed > 0 && `${count(s.changed, "opening")} moved or of another size`,
        s.missing > 0 && `${missing} missing`,
        s.harmful > 0 && `${s.harmful} would put paste on bare copper`,
      ]
        .filter(Boolean)
        .join(", ")}`;
  }
}

/** Parts that changed alike, told once: "C1, C2 and 3 more moved 0.5 / 0". */
export interface PartGroup {
  readonly words: string;
  readonly parts: readonly PartChange[];
}

export function partGroups(parts: readonly PartChange[]): PartGroup[] {
  const groups = new Map<string, PartChange[]>();
  for (const p of parts) {
    const words = partWords(p);
    const list = groups.get(words);
    if (list) list.push(p);
    else groups.set(words, [p]);
  }
  return [...groups].map(([words, list]) => ({ words, parts: list }));
}

const by = ({ by: [x, y] }: PartChange): string => `${fixed(x, 2)} / ${fixed(y, 2)} mm`;

function partWords(p: PartChange): string {
  if (p.kind === "moved") return `moved by ${by(p)}`;
  if (p.kind === "turned")
    return `turned by ${Math.round(p.turnDeg * 10) / 10}°${Math.hypot(...p.by) > 0.01 ? `, moved by ${by(p)}` : ""}`;
  return { added: "new", gone: "gone", "other side": "on the other side", "other pads": "other pads" }[
    p.kind
  ];
}

const LEVEL = { fine: "fine", tight: "just so", look: "look", cannot: "cannot" } as const;

/** "0.2 → 0.15 mm, worse: just so → cannot". */
export function figureWords(f: FigureChange): string {
  const figure = (v: number | undefined) => (v === undefined ? "none" : f.unit === "mm" ? mm(v) : String(v));
  const unit = f.unit === "mm" ? " mm" : "";
  const level =
    f.levelWas !== f.levelNow && f.levelNow
      ? `: ${f.levelWas ? `${LEVEL[f.levelWas]} → ` : ""}${LEVEL[f.levelNow]}`
      : "";
  return `${figure(f.was)} → ${figure(f.now)}${unit}${f.is ? `, ${f.is}` : ""}${level}`;
}

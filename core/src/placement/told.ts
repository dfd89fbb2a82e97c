import { wordsOf } from "../role/role-name.ts";
import type { Cells } from "../table/columns.ts";
import type { Side } from "./side.ts";
import { unitIn } from "./units.ts";

/** A unit told in a remark: "# Unit = mils", "Units: inch", "all in mm"; undefined where none or several are. */
export function unitOf(remarks: Cells): number | undefined {
  const found = new Set<number>();
  for (const r of remarks) {
    const text = r.filter((t) => t.trim() !== "").join(" ");
    const m =
      /(?:^|[^\p{L}])(?:units?|einheit(?:en)?|unités?|unidad(?:es)?|unità|eenheid|jednostk[ai]|unidades?|enhet|jednotk[ay])(?![\p{L}])(.*)$/iu.exec(
        text,
      ) ??
      /(?:^|[^\p{L}])(?:all|coordinates|dimensions|values|positions|places|alle|maße|koordinaten|cotes|dimensiones|misure)(?![\p{L}]).{0,30}?(?:\b(?:in|en|are)\b|[:=])(.*)$/iu.exec(
        text,
      );
    const f = m
      ? unitIn(
          m[1]!.replace(/\b(used|are|is|in)\b/gi, (w) =>
            w === "in" && !/^\s*\W*in\W*$/i.test(m[1]!) ? " " : w,
          ),
        )?.factor
      : undefined;
    if (f !== undefined) found.add(f);
  }
  return found.size === 1 ? [...found][0] : undefined;
}

/** A side that a file's name says. */
export function sideInName(file: string): Side | undefined {
  const words = wordsOf(file);
  if (words.some((w) => ["bottom", "bot", "back"].includes(w))) return "bottom";
  return words.some((w) => ["top", "front"].includes(w)) ? "top" : undefined;
}

import { BOM_WORDS } from "../bom/words.ts";
import type { Account, ColumnAccount } from "../table/account.ts";
import { type Cells, plain } from "../table/columns.ts";
import type { PlacementHead } from "./head.ts";
import { fittedBy, headingOf, weightOf } from "./headings.ts";
import { readNumber } from "./number.ts";

const BECAUSE = {
  chosen: "a person said so",
  heading: "its heading says so",
  content: "what stands in it says so",
} as const;
const SURE = { chosen: 1, heading: 0.97, content: 0.85 } as const;
/** What a parts list says of parts, and a table of places only repeats. */
const OF_PARTS = new Set(
  (["value", "package", "mpn", "maker", "description", "qty"] as const).flatMap((key) => BOM_WORDS[key]),
);
const KNOWN_PAIR = /^(smd|smt|tht|th|pth|through hole|yes|no|true|false)$/i;

/**
 * Account of a table of places: what became of each of its columns. One that nothing explains is asked about where it
 * could be what is still wanted: a side, a turn; else nothing in it says where or how a part stands.
 *
 * @param places rows that were read as places
 * @param counts of rows; those whose side is not known are in doubt, all of them where a column is asked about
 */
export function accountOfPlaces(
  head: PlacementHead,
  places: Cells,
  counts: { readonly lines: number; readonly passed: number; readonly withoutSide: number },
): Account {
  const width = Math.max(head.texts.length, ...places.map((r) => r.length), 0);
  const keys = new Map<number, string>();
  for (const [key, i] of Object.entries(head.at))
    keys.set(i, head.isPair && (key === "x" || key === "y") ? "x and y" : key);
  const columns: ColumnAccount[] = [];
  for (let i = 0; i < width; i++) {
    const heading = head.texts[i]?.trim() || `column ${i + 1}`;
    const one = { heading, place: i + 1 };
    const key = keys.get(i);
    if (key !== undefined) {
      const how = head.told[key === "x and y" ? "x" : (key as "x")] ?? "heading";
      columns.push({ ...one, as: key, because: BECAUSE[how], sure: SURE[how] });
      continue;
    }
    const texts = places.map((r) => (r[i] ?? "").trim());
    if (texts.every((t) => t === "") && (head.texts[i] ?? "").trim() === "") continue;
    const why = noMatter(texts, heading, head);
    const marks = [...new Set(texts)].slice(0, 6);
    columns.push(
      why === undefined
        ? {
            ...one,
            as: "asked",
            because: "it could be a side or a rotation, and nothing says so",
            sure: 0,
            marks,
          }
        : { ...one, as: "passed", because: why, sure: 0.9 },
    );
  }
  const isOpen = columns.some((c) => c.as === "asked");
  const { lines, passed, withoutSide } = counts;
  return { columns, rows: { lines, passed, doubtful: isOpen ? lines : withoutSide } };
}

/** Why a column changes nothing; undefined where it may. */
function noMatter(texts: readonly string[], heading: string, head: PlacementHead): string | undefined {
  const filled = texts.filter((t) => t !== "");
  if (filled.length === 0) return "nothing stands in it";
  if (texts.length > 1 && texts.every((t, k) => Number(t) === Number(texts[0]) + k && t !== ""))
    return "it counts the rows";
  const named = headingOf(heading);
  if (weightOf(named, "x") > 0 || weightOf(named, "y") > 0) return "another pair of coordinates counts";
  if (OF_PARTS.has(plain(heading))) return "what a part is, the parts list says";
  if (fittedBy(heading) !== undefined) return "whether a part is fitted, the parts list says";
  const kinds = new Set(filled.map((t) => t.toLowerCase()));
  const mayBeSide =
    head.at.side === undefined &&
    head.at.mirror === undefined &&
    kinds.size === 2 &&
    filled.length > 0.5 * texts.length &&
    [...kinds].every((t) => /^[\p{L}\d .]{1,16}$/u.test(t)) &&
    ![...kinds].some((t) => KNOWN_PAIR.test(t) && !/yes|no|true|false/i.test(t));
  const turns = filled.map((t) => readNumber(t)?.n);
  const mayBeTurn =
    head.at.rotation === undefined && kinds.size > 1 && turns.every((n) => n !== undefined && n % 15 === 0);
  if (mayBeSide || mayBeTurn) return undefined;
  return kinds.size === 1 && filled.length === texts.length && texts.length > 2
    ? "it is the same in every row"
    : "nothing in it says where or how a part stands";
}

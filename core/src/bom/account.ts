import type { Account, ColumnAccount } from "../table/account.ts";
import { type Cells, findHeader, plain } from "../table/columns.ts";
import type { ChosenColumns, Layout } from "./layout.ts";
import type { BomLine } from "./line.ts";
import { markIn } from "./marks.ts";
import { isOfElse, namesParts } from "./status.ts";
import { BOM_WORDS, type BomColumn } from "./words.ts";

/** How sure a column is by what told it. */
const SURE = { chosen: 1, heading: 0.97, content: 0.85 } as const;
const BECAUSE = {
  chosen: "a person said so",
  heading: "its heading says so",
  content: "what stands in it says so",
} as const;
const PRICE = /price|cost|preis|prix|precio|prezzo|prijs|cena|preço|pris\b|€|\$|£|eur\b|usd\b/i;
/** Headings of where parts lie, which lists of places say. */
const OF_PLACES =
  /^(side|layer|seite|lage|face|côté|lado|lato|zijde|strona|rot|rotation|angle|winkel|x|y|(mid|center|pos) [xy])( (mm|mil|inch|in|deg))?$/;
const LINK = /^https?:\/\//i;

/** What is given to an account beside the list itself. */
interface Read {
  readonly layout: Layout;
  readonly at: Partial<Record<BomColumn, number>>;
  readonly lines: readonly BomLine[];
  readonly passed: number;
  readonly chosen?: ChosenColumns;
}

/** Account of a list: what became of each of its columns and rows. */
export function accountOf(cells: Cells, { layout, at, lines, passed, chosen = {} }: Read): Account {
  const { heads, firstRow, units, asked = [], answered = [], leftOff } = layout;
  const rows = lines.map((l) => cells[l.row - 1]!);
  const width = Math.max(heads.length, ...rows.map((r) => r.length), 0);
  const named = findHeader(cells, BOM_WORDS, 2)?.at ?? {};
  const keyAt = new Map(Object.entries(at).map(([key, i]) => [i as number, key as BomColumn]));
  const columns = Array.from({ length: width }, (_, i): ColumnAccount => {
    const heading = heads[i]?.trim() || `column ${i + 1}`;
    const place = i + 1;
    const key = keyAt.get(i);
    if (key !== undefined) {
      const how =
        chosen[key] !== undefined || answered.includes(i)
          ? "chosen"
          : named[key] === i
            ? "heading"
            : "content";
      return { heading, place, as: key, because: BECAUSE[how], sure: SURE[how] };
    }
    if (units?.column === i)
      return { heading, place, as: "unit", because: "it holds nothing but units", sure: 0.95 };
    if (asked.includes(i))
      return {
        heading,
        place,
        as: "asked",
        because: "it marks some of the lines, and nothing says what for",
        sure: 0,
        marks: marksOf(rows.map((r) => r[i] ?? "")),
      };
    if (leftOff?.column === i)
      return { heading, place, as: "fitted", because: BECAUSE.chosen, sure: SURE.chosen };
    if (answered.includes(i))
      return {
        heading,
        place,
        as: "passed",
        because: "a person said that it does not matter",
        sure: SURE.chosen,
      };
    const why = noMatter(
      rows.map((r) => (r[i] ?? "").trim()),
      heads[i]?.trim() ?? "",
      (k) => (at[k] === undefined ? [] : rows.map((r) => (r[at[k]!] ?? "").trim())),
      lines,
    );
    return why === undefined
      ? {
          heading,
          place,
          as: "asked",
          because: "neither its heading nor what stands in it says what it is",
          sure: 0,
        }
      : { heading, place, as: "passed", because: why, sure: 0.9 };
  }).filter((c) => c.because !== NOTHING || !/^column \d+$/.test(c.heading));
  return {
    columns,
    rows: {
      lines: lines.length,
      passed: passed + Math.max(0, firstRow),
      doubtful: lines.filter((l) => l.fitted === "doubtful").length,
    },
  };
}

/** Marks of a column, each once as it is written first; alike but for capitals is one. */
function marksOf(texts: readonly string[]): string[] {
  const kinds = new Map<string, string>();
  for (const t of texts.map((x) => x.trim())) if (!kinds.has(t.toLowerCase())) kinds.set(t.toLowerCase(), t);
  return [...kinds.values()];
}

const NOTHING = "nothing stands in it";

/** Why a column changes nothing; undefined where it may. */
function noMatter(
  texts: readonly string[],
  heading: string,
  column: (key: BomColumn) => readonly string[],
  lines: readonly BomLine[],
): string | undefined {
  const filled = texts.filter((t) => t !== "");
  if (filled.length === 0) return NOTHING;
  if (lines.length > 1 && texts.every((t, i) => Number(t) === Number(texts[0]) + i && t !== ""))
    return "it counts the rows";
  for (const key of ["refs", "value", "mpn", "package", "maker", "qty"] as const) {
    const other = column(key);
    if (other.length > 0 && texts.every((t, i) => t === other[i])) return `it repeats ${WORDS[key]}`;
  }
  // of what is left off a total may say none
  const times = lines.flatMap((l, i) => (l.dnp && Number(texts[i]) === 0 ? [] : [Number(texts[i]) / l.qty]));
  if (lines.length > 1 && Number.isInteger(times[0]) && times[0]! > 0 && times.every((t) => t === times[0]))
    return times[0] === 1 ? "it repeats what the references count" : `it is ${times[0]} times the quantity`;
  if (PRICE.test(heading) && filled.every((t) => /^\D{0,4}\d+([.,]\d+)?\D{0,4}$/.test(t)))
    return "prices are not taken from a parts list";
  if (OF_PLACES.test(plain(heading))) return "where a part lies is not taken from a parts list";
  if (filled.every((t) => LINK.test(t))) return "links are not followed";
  if (namesParts(heading) && filled.every((t) => markIn(t) === "nothing"))
    return "it names the parts, which other columns do as well";
  if (isOfElse(heading)) return "it is of something else than what is fitted";
  if (
    /supplier|vendor|distributor|order|lieferant|bestell|fournisseur|proveedor|fornitore|leverancier/i.test(
      heading,
    )
  )
    return "a supplier's own number says nothing of the part";
  if (lines.length > 2 && filled.length === lines.length && new Set(filled).size === 1)
    return "it is the same in every row";
  return undefined;
}

const WORDS = {
  refs: "the references",
  value: "the value",
  mpn: "the part number",
  package: "the package",
  maker: "the maker",
  qty: "the quantity",
} as const;

import { isDay } from "../day.ts";
import type { Tip } from "./equipment.ts";

/** What was typed, or what is wrong with it in words. */
export type Typed<T> = { readonly value: T } | { readonly wrong: string };

const no = (wrong: string): { readonly wrong: string } => ({ wrong });
/** A number with a point or a comma; one that could be thousands is none. */
const NUMBER = "(\\d+(?:[.,]\\d+)?)";
const isThousands = (t: string) => /^[1-9]\d{0,2},\d{3}$/.test(t);
const toNumber = (t: string): number => Number(t.replace(",", "."));
const doubt = (t: string) => no(`“${t}” is read in two ways: write it without the comma.`);

const PER: Readonly<Record<string, number>> = { mm: 1, cm: 10, in: 25.4, inch: 25.4, '"': 25.4 };

/** Room for boards, as “200 × 150”, “20 x 15 cm”, “8 by 6 in”: millimetres where no unit stands. */
export function typedSpace(text: string): Typed<readonly [number, number]> {
  const unit = `\\s*(mm|cm|in|inch|")?\\s*`;
  const m = new RegExp(`^${NUMBER}${unit}(?:x|×|\\*|by|\\s)\\s*${NUMBER}${unit}$`, "i").exec(text.trim());
  if (!m) return no("Write two lengths, as 200 × 150 mm.");
  const [, a = "", u1, b = "", u2] = m;
  const odd = [a, b].find(isThousands);
  if (odd) return doubt(odd);
  if (u1 && u2 && u1.toLowerCase() !== u2.toLowerCase()) return no("Write both lengths in one unit.");
  const per = PER[(u2 ?? u1 ?? "mm").toLowerCase()]!;
  const value = [a, b].map((t) => Math.round(toNumber(t) * per * 100) / 100);
  return value.every((v) => v >= 1 && v <= 5000)
    ? { value: value as unknown as readonly [number, number] }
    : no("Each length is from 1 to 5000 mm.");
}

/** One length, likewise. */
export function typedLength(text: string): Typed<number> {
  const m = new RegExp(`^${NUMBER}\\s*(mm|cm|in|inch|")?$`, "i").exec(text.trim());
  if (!m) return no("Write one length, as 60 mm.");
  if (isThousands(m[1]!)) return doubt(m[1]!);
  const value = Math.round(toNumber(m[1]!) * PER[(m[2] ?? "mm").toLowerCase()]! * 100) / 100;
  return value >= 1 && value <= 5000 ? { value } : no("It is from 1 to 5000 mm.");
}

/** A temperature, as “260”, “260 °C”, “500 F”: Celsius where no unit stands. */
export function typedHeat(text: string): Typed<number> {
  const m = new RegExp(`^${NUMBER}\\s*(?:°|deg)?\\s*(c|f)?$`, "i").exec(text.trim());
  if (!m) return no("Write one temperature, as 260 °C.");
  if (isThousands(m[1]!)) return doubt(m[1]!);
  const t = toNumber(m[1]!);
  const value = Math.round(m[2]?.toLowerCase() === "f" ? ((t - 32) * 5) / 9 : t);
  return value >= 20 && value <= 1000 ? { value } : no("It is from 20 to 1000 °C.");
}

/** How much a glass magnifies, as “5”, “× 5”, “7 to 20” (the most counts), “3 dioptres” (a quarter of them and one). */
export function typedSight(text: string): Typed<number> {
  const t = text.trim();
  const lens = new RegExp(`^\\+?${NUMBER}\\s*(?:d|dpt|diopt(?:re|er)s?)$`, "i").exec(t);
  const plain = new RegExp(
    `^[x×]?\\s*(?:${NUMBER}\\s*[x×]?\\s*(?:-|–|to)\\s*[x×]?\\s*)?${NUMBER}\\s*[x×]?$`,
    "i",
  ).exec(t);
  const [least, most] = [plain?.[1], lens?.[1] ?? plain?.[2]];
  if (most === undefined) return no("Write how many times, as × 5, or as dioptres, as 3 D.");
  if (isThousands(most)) return doubt(most);
  if (least !== undefined && toNumber(least) > toNumber(most)) return no("Write the lesser number first.");
  const value = lens ? toNumber(most) / 4 + 1 : toNumber(most);
  return value >= 1 && value <= 200 ? { value } : no("It is from 1 to 200 times.");
}

const SHAPES: readonly (readonly [RegExp, Tip["shape"]])[] = [
  [/^(cone|conical|point(ed)?|needle)$/, "cone"],
  [/^(chisel|screwdriver|flat)$/, "chisel"],
  [/^(bevel(led)?|slanted|hoof)$/, "bevel"],
  [/^(knife|blade)$/, "knife"],
];

/** Tips of an iron, as “chisel 2.4, bevel 2 mm; 0,5 cone”: a shape and one width or several, mm. */
export function typedTips(text: string): Typed<readonly Tip[]> {
  const tips: Tip[] = [];
  // a comma between digits is part of a number; the other ones stand between tips
  for (const part of text.split(/[;\n]|,(?!\d)/)) {
    const words = part.trim().toLowerCase();
    if (words === "") continue;
    const read = tipsIn(words);
    if ("wrong" in read) return read;
    tips.push(...read.value);
  }
  return tips.length > 40 ? no("An iron has 40 tips at most.") : { value: tips };
}

function tipsIn(words: string): Typed<readonly Tip[]> {
  const parts = words.split(/\s+|\//).filter((w) => w !== "" && w !== "mm");
  const shapes = parts.flatMap((w) => SHAPES.find(([is]) => is.test(w))?.[1] ?? []);
  const widths = parts.filter((w) => new RegExp(`^${NUMBER}(mm)?$`).test(w));
  if (shapes.length !== 1) return no(`“${words}”: which shape? It is one of cone, chisel, bevel, knife.`);
  if (widths.length === 0 || widths.length + 1 !== parts.length)
    return no(`“${words}”: write its width in mm, as ${shapes[0]} 2.4.`);
  const mm = widths.map((w) => toNumber(w.replace("mm", "")));
  return mm.every((v) => v >= 0.1 && v <= 20)
    ? { value: mm.map((v) => ({ shape: shapes[0]!, mm: v })) }
    : no(`“${words}”: a tip is 0.1 to 20 mm wide.`);
}

const MONTHS = "jan feb mar apr may jun jul aug sep oct nov dec".split(" ");
const YEAR = "(20\\d\\d)";
const MONTH = `(${MONTHS.join("|")})[a-z]*\\.?`;

/**
 * A day as it stands on a sticker: “2026-12-31”, “31.12.2026”, “31 Dec 2026”, “Dec 31, 2026”; a month alone, as “12/2026” or
 * “Dec 2026”, is its last day. What may be read in two ways is none.
 */
export function typedDay(text: string): Typed<string> {
  const t = text.trim().toLowerCase();
  const found = (pattern: string) => new RegExp(`^${pattern}$`).exec(t);
  const byName = (name: string) => MONTHS.indexOf(name.slice(0, 3)) + 1;
  const made = (y: string, m: number, d: number): Typed<string> => {
    const iso = `${y}-${String(m).padStart(2, "0")}-${String(d).padStart(2, "0")}`;
    return isDay(iso) ? { value: iso } : no("There is no such day.");
  };
  const lastOf = (y: string, m: number): Typed<string> =>
    m >= 1 && m <= 12
      ? made(y, m, new Date(Date.UTC(Number(y), m, 0)).getUTCDate())
      : no("There is no such month.");
  let m = found(`${YEAR}[-/.](\\d{1,2})[-/.](\\d{1,2})`);
  if (m) return made(m[1]!, Number(m[2]), Number(m[3]));
  m = found(`(\\d{1,2})\\.\\s?(\\d{1,2})\\.\\s?${YEAR}`);
  if (m) return made(m[3]!, Number(m[2]), Number(m[1]));
  m = found(`(\\d{1,2})\\.?\\s*${MONTH},?\\s*${YEAR}`);
  if (m) return made(m[3]!, byName(m[2]!), Number(m[1]));
  m = found(`${MONTH}\\s*(\\d{1,2}),?\\s+${YEAR}`);
  if (m) return made(m[3]!, byName(m[1]!), Number(m[2]));
  m = found(`(\\d{1,2})[/-](\\d{1,2})[/-]${YEAR}`);
  if (m) {
    const [a, b] = [Number(m[1]), Number(m[2])];
    if (a <= 12 && b <= 12 && a !== b) return no("Day and month may be either: write it as 2026-12-31.");
    return a > 12 ? made(m[3]!, b, a) : made(m[3]!, a, b);
  }
  m = found(`(\\d{1,2})[/.-]${YEAR}`) ?? found(`${MONTH},?\\s*${YEAR}`);
  if (m) return lastOf(m[2]!, /^\d/.test(m[1]!) ? Number(m[1]) : byName(m[1]!));
  m = found(`${YEAR}[-/.](\\d{1,2})`);
  if (m) return lastOf(m[1]!, Number(m[2]));
  return no("Write a day with its year in full, as 2026-12-31 or 31 Dec 2026, or a month, as 12/2026.");
}

import { numberKey } from "../bom/number.ts";
import { lettersOf } from "../bom/refs.ts";
import { packageKey, ratingsOf } from "../bom/same.ts";
import { readValue } from "../bom/value.ts";
import type { FactLine } from "./fact-line.ts";
import type { LibraryPart, PartKind } from "./part.ts";
import { colourOf, headerOf } from "./words.ts";

/** What is known of a part, from a line's words or from the library. */
export interface PartFacts {
  readonly mpn: string;
  readonly maker: string;
  readonly kind: PartKind;
  readonly package: string;
  /** Attribute key → text as typed, with its unit. */
  readonly params: Readonly<Record<string, string>>;
}

const BY_LETTERS: Readonly<Record<string, PartKind>> = {
  R: "resistor",
  RN: "resistor",
  C: "capacitor",
  L: "inductor",
  FB: "bead",
  LED: "lamp",
  Q: "transistor",
  T: "transistor",
  Y: "crystal",
  X: "crystal",
  J: "connector",
  P: "connector",
  CN: "connector",
  JP: "connector",
  F: "fuse",
  SW: "switch",
  S: "switch",
  K: "switch",
  RLY: "switch",
};

/** The class of a line's part: by the letters of its references, and its words where letters leave it open. */
export function kindOfLine(line: FactLine): PartKind {
  const letters = lettersOf(line.refs[0] ?? "");
  const words = `${line.valueText} ${line.description}`;
  if (letters === "D")
    return /\b(led|lamp|indicator)\b|^(red|green|amber|blue|white|yellow)\b/i.test(words) ? "lamp" : "diode";
  if (letters === "U" || letters === "IC") return /\bregulator|\bLDO\b/i.test(words) ? "regulator" : "chip";
  return BY_LETTERS[letters] ?? "other";
}

/** The facts of a line: its own words first, then what the library knows of its number. */
export function factsOfLine(line: FactLine, library: readonly LibraryPart[] = []): PartFacts {
  const own = line.mpn === "" ? undefined : library.find((p) => numberKey(p.mpn) === numberKey(line.mpn));
  const kind = own && own.kind !== "other" ? own.kind : kindOfLine(line);
  const { value } = readValue(line.valueText, line.refs[0]);
  const r = ratingsOf(line);
  const said: Record<string, string> = {
    ...(value ? { value: valueWords(value.si, value.unit) } : {}),
    ...(r.tolerance ? { tolerance: `${r.tolerance} %` } : {}),
    ...(r.voltage ? { voltage: `${r.voltage} V` } : {}),
    ...(r.power ? { power: `${r.power} W` } : {}),
    ...(r.dielectric ? { dielectric: r.dielectric } : {}),
  };
  const colour = kind === "lamp" ? colourOf(line) : undefined;
  return {
    mpn: line.mpn,
    maker: line.maker || (own?.maker ?? ""),
    kind,
    package: line.package || own?.package || sizeIn(line),
    // what only words tell gives way to what the library knows
    params: {
      ...(kind === "connector" ? headerOf(line) : {}),
      ...(colour ? { colour } : {}),
      ...(own ? paramsOf(own) : {}),
      ...said,
    },
  };
}

/** A chip size that stands in a line's words, where it names no package: "10k 0603 1%". */
const sizeIn = (line: FactLine): string =>
  line.mpn === "" ? (CHIP_IN_WORDS.exec(`${line.valueText} ${line.description}`)?.[0] ?? "") : "";
/** Chip sizes as bills write them, one or the other. */
export const CHIP_CODES = "0201|0402|0603|0805|1206|1210|1812|2010|2512";
const CHIP_IN_WORDS = new RegExp(`(?<![\\dA-Za-z.])(${CHIP_CODES})(?![\\dA-Za-z.])`);

/** The facts of a part of the library. */
export const factsOfPart = (p: LibraryPart): PartFacts => ({
  mpn: p.mpn,
  maker: p.maker,
  kind: p.kind,
  package: p.package,
  params: paramsOf(p),
});

const paramsOf = (p: LibraryPart): Record<string, string> => ({
  ...p.params,
  ...(p.heightMm === undefined ? {} : { height: `${p.heightMm} mm` }),
});

const SYMBOL = { ohm: "Ω", farad: "F", henry: "H", volt: "V", hertz: "Hz" } as const;
const PREFIXES = [
  [9, "G"],
  [6, "M"],
  [3, "k"],
  [0, ""],
  [-3, "m"],
  [-6, "µ"],
  [-9, "n"],
  [-12, "p"],
] as const;

/**
 * A value with its unit and the prefix that leaves one to three digits before the point.
 * @example valueWords(4700, "ohm") // "4.7 kΩ"
 */
export function valueWords(si: number, unit: keyof typeof SYMBOL): string {
  if (si === 0) return `0 ${SYMBOL[unit]}`;
  const found = PREFIXES.find(([e]) => Math.abs(si) >= 10 ** e * 0.9999999) ?? PREFIXES.at(-1)!;
  return `${Number((si / 10 ** found[0]).toPrecision(6))} ${found[1]}${SYMBOL[unit]}`;
}

/**
 * The key under which what may replace a line's part is remembered, the same in every product: its number, else what
 * its words ask for. Undefined where the words ask for nothing that can be compared.
 */
export function lineKey(line: FactLine): string | undefined {
  if (line.mpn !== "") return `number ${numberKey(line.mpn)}`;
  const f = factsOfLine(line);
  if (f.kind === "connector" && f.params.pins)
    return [
      "any",
      f.kind,
      ...["pins", "rows", "pitch", "gender", "orientation"].map((k) => f.params[k] ?? ""),
    ].join("|");
  if (f.kind === "lamp" && f.params.colour && f.package !== "")
    return ["any", f.kind, f.params.colour, packageKey(f.package)].join("|");
  if (!f.params.value || f.package === "") return undefined;
  const more = ["tolerance", "voltage", "power", "dielectric"].map((k) => f.params[k] ?? "");
  return ["any", f.kind, f.params.value, packageKey(f.package), ...more].join("|");
}

/** What a line without a number asks for, in words: "any 10 kΩ 1 % 0603 resistor". */
export function ruleWords(line: FactLine): string {
  const f = factsOfLine(line);
  const more = ["value", "colour", "tolerance", "voltage", "power", "dielectric"].flatMap(
    (k) => f.params[k] ?? [],
  );
  if (f.kind === "connector" && f.params.pins)
    return [
      "any row of",
      `${f.params.rows} × ${Number(f.params.pins) / Number(f.params.rows)}`,
      f.params.pitch ?? "",
      f.params.gender ?? "",
      f.params.orientation ?? "",
    ]
      .filter((t) => t !== "")
      .join(" ");
  return ["any", ...more, packageKey(f.package), f.kind === "other" ? "" : f.kind]
    .filter((t) => t !== "")
    .join(" ");
}

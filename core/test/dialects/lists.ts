import { type Chance, chance } from "../random.ts";
import { LANGUAGES, type Language, UNTAUGHT } from "./list-words.ts";

/** A line as it is meant; `fitted` is open where nobody could tell from the list. */
export interface TrueLine {
  readonly refs: readonly string[];
  readonly si?: number;
  readonly mpn: string;
  readonly maker: string;
  readonly package: string;
  readonly fitted: boolean | "open";
}

/** A list somebody wrote, and what was meant by it. */
export interface WrittenList {
  readonly kind: string;
  readonly cells: readonly (readonly string[])[];
  readonly lines: readonly TrueLine[];
}

interface Part extends TrueLine {
  readonly value: string;
  readonly unit: "ohm" | "farad" | "henry" | "";
  readonly text: string;
}

type Column = readonly [heading: string, cell: (p: Part, row: number) => string];
type Dress = (columns: Column[], parts: Part[], l: Language, c: Chance) => Column[];

const UNITS = {
  ohm: [1, "R", ["", "R", "k", "M"], ["Ω", "Ohm", "ohm", ""]],
  farad: [1, "C", ["p", "n", "u", "µ"], ["F", "", "F"]],
  henry: [1, "L", ["n", "u", "µ", "m"], ["H", "H"]],
} as const;
const SCALE: Readonly<Record<string, number>> = {
  p: 1e-12,
  n: 1e-9,
  u: 1e-6,
  µ: 1e-6,
  m: 1e-3,
  "": 1,
  R: 1,
  k: 1e3,
  M: 1e6,
};

/** A value in one of the ways it is written. */
function madeValue(unit: keyof typeof UNITS, c: Chance): { si: number; text: string } {
  const [, , prefixes, names] = UNITS[unit];
  const prefix = c.pick(prefixes);
  const figure = c.pick([1, 1.5, 2.2, 4.7, 10, 22, 33, 47, 100, 220, 470]);
  const si = Number((figure * SCALE[prefix]!).toPrecision(6));
  const mark = c.is(0.2) ? "," : ".";
  const plain = String(figure).replace(".", mark);
  if (prefix === "R")
    return {
      si,
      text: c.pick([
        `${String(figure).replace(".", "R")}${figure % 1 === 0 ? "R" : ""}`,
        `${plain} Ω`,
        `${plain}R`,
      ]),
    };
  if (figure % 1 !== 0 && c.is(0.3))
    return { si, text: String(figure).replace(".", prefix === "" ? "R" : prefix) };
  return {
    si,
    text: `${plain}${c.pick(["", " "])}${prefix}${prefix === "" && unit !== "ohm" ? "" : c.pick(names)}`.trim(),
  };
}

function partsOf(c: Chance): Part[] {
  const next: Record<string, number> = {};
  return Array.from({ length: 4 + c.below(9) }, (_, i) => {
    const unit = c.pick(["ohm", "ohm", "farad", "farad", "henry", ""] as const);
    const letter = unit === "" ? c.pick(["U", "Q", "D", "J"]) : UNITS[unit][1];
    const from = (next[letter] ?? 1) + (c.is(0.2) ? 1 : 0);
    const many = unit === "" ? 1 + c.below(2) : 1 + c.below(5);
    next[letter] = from + many;
    const { si, text } =
      unit === "" ? { si: undefined, text: c.pick(["gate", "regulator", "socket 4p"]) } : madeValue(unit, c);
    const isKnown = c.is(0.75);
    return {
      refs: Array.from({ length: many }, (_, k) => `${letter}${from + k}`),
      ...(si === undefined ? {} : { si }),
      value: text,
      unit,
      text,
      package:
        unit === ""
          ? c.pick(["SOIC-8", "SOT-23", "QFN-16", "HDR-1x4"])
          : c.pick(["0402", "0603", "0805", "1206"]),
      mpn: isKnown
        ? `${c.pick(["ZQ", "KX", "VT", "HB"])}${1000 + i * 37}-${c.pick(["A", "T1", "R", "103"])}`
        : "",
      maker: isKnown ? c.pick(["Alder", "Fernwood Parts", "Brook & Sons", "Ostwig"]) : "",
      fitted: c.is(0.8),
    };
  });
}

function refsText(refs: readonly string[], c: Chance): string {
  if (refs.length > 2 && c.is(0.4)) return `${refs[0]}${c.pick(["-", "–", "..", " - "])}${refs.at(-1)}`;
  return refs.join(c.pick([",", ", ", " ", "; ", "\n"]));
}

/** The ordinary columns in a language. */
function ordinary(l: Language, c: Chance): Column[] {
  return [
    [c.pick(l.refs), (p) => refsText(p.refs, c)],
    [c.pick(l.value), (p) => p.value],
    [c.pick(l.package), (p) => p.package],
    [c.pick(l.qty), (p) => String(p.refs.length)],
    [c.pick(l.mpn), (p) => p.mpn],
    [c.pick(l.maker), (p) => p.maker],
  ];
}

const open = (parts: Part[], is: (p: Part) => boolean) => {
  for (const [i, p] of parts.entries()) if (is(p)) parts[i] = { ...p, fitted: "open" };
};
const all = (parts: Part[], fitted: boolean) => {
  for (const [i, p] of parts.entries()) parts[i] = { ...p, fitted };
};
/** Some are left off, and some are not: a column of marks says something. */
const mixed = (parts: Part[]) => {
  parts[0] = { ...parts[0]!, fitted: false };
  parts[1] = { ...parts[1]!, fitted: true };
  parts[2] = { ...parts[2]!, fitted: true };
};

/** Ways a list is dressed, each with what is meant by it. */
export const DRESSES: Readonly<Record<string, Dress>> = {
  "ordinary, in a language": (cols, parts) => {
    all(parts, true);
    return cols;
  },
  "a column of what is fitted, yes and no": (cols, parts, l, c) => {
    mixed(parts);
    const [yes, no] = [c.pick(l.yes), c.pick(l.no)];
    return [...cols, [c.pick(l.fitted), (p) => (p.fitted ? yes : no)]];
  },
  "a column of what is left off, marked": (cols, parts, l, c) => {
    mixed(parts);
    const mark = c.pick([c.pick(l.yes), c.pick(l.leftOff), "x", "X"]);
    return [...cols, [c.pick(l.off), (p) => (p.fitted ? "" : mark)]];
  },
  "a status of its own heading, in words": (cols, parts, l, c) => {
    mixed(parts);
    const [on, off] = [c.pick(["", c.pick(l.putOn)]), c.pick(l.leftOff)];
    return [
      ...cols,
      [c.pick(["Status", "Option", "Variant A", "Assembly", "State", "Build"]), (p) => (p.fitted ? on : off)],
    ];
  },
  "a status nobody can tell the sense of": (cols, parts, _l, c) => {
    mixed(parts);
    const marks = parts.map((p) => p.fitted);
    open(parts, () => true);
    const mark = c.pick(["x", "X", "•"]);
    return [...cols, [c.pick(["Var. 1", "Kit", "A", "Basic"]), (_, row) => (marks[row] ? mark : "")]];
  },
  "left off in the value": (cols, parts, l, c) => {
    mixed(parts);
    const off = c.pick(l.leftOff);
    return cols.map(([h, cell], i) => [
      h,
      i === 1
        ? (p, r) =>
            p.fitted ? cell(p, r) : `${p.value} ${c.pick(["", "- ", "("])}${off}`.replace(/\((.*)$/, "($1)")
        : cell,
    ]);
  },
  "left off in a note": (cols, parts, l, c) => {
    mixed(parts);
    const off = c.pick(l.leftOff);
    return [...cols, [c.pick(l.note), (p) => (p.fitted ? c.pick(["", "", "1 %", "X7R"]) : off)]];
  },
  "a unit in the heading": (cols, parts, _l, c) => {
    all(parts, true);
    for (const [i, p] of parts.entries()) {
      const figure = c.pick([1, 2.2, 4.7, 10, 47]);
      parts[i] = {
        ...p,
        refs: p.refs.map((_, k) => `R${100 * (i + 1) + k}`),
        unit: "ohm",
        si: figure * 1000,
        value: String(figure),
      };
    }
    return cols.map(([h, cell], i) => [
      i === 1 ? `${h} ${c.pick(["(kΩ)", "[kOhm]", "in kΩ", "/ kΩ"])}` : h,
      cell,
    ]);
  },
  "a unit in a column of its own": (cols, parts, _l, c) => {
    all(parts, true);
    const units: string[] = [];
    for (const [i, p] of parts.entries()) {
      if (p.unit === "") {
        units.push("");
        continue;
      }
      const [prefix, name] =
        p.unit === "ohm" ? ["k", c.pick(["kΩ", "kOhm"])] : p.unit === "farad" ? ["n", "nF"] : ["u", "µH"];
      const figure = c.pick([1, 2.2, 4.7, 10, 47]);
      parts[i] = { ...p, si: Number((figure * SCALE[prefix]!).toPrecision(6)), value: String(figure) };
      units.push(name);
    }
    return [
      ...cols.slice(0, 2),
      [c.pick(["Unit", "Einheit", "Unité"]), (_, row) => units[row]!],
      ...cols.slice(2),
    ];
  },
  "two quantities": (cols, parts, l, c) => {
    all(parts, true);
    const n = c.pick([10, 25, 50]);
    const kit: Column = [
      c.pick([`Qty for ${n}`, `Total qty`, `${c.pick(l.qty)} (${n})`, `Kit of ${n}`]),
      (p) => String(p.refs.length * n),
    ];
    return c.is(0.5) ? [...cols, kit] : [kit, ...cols];
  },
  "a price, a counter and a shop's number": (cols, parts, l, c) => {
    all(parts, true);
    return [
      [c.pick(l.counter), (_, row) => String(row + 1)],
      ...cols,
      ["Supplier part", (p) => (p.mpn === "" ? "" : `S-${p.mpn.length}${p.mpn.slice(2, 6)}`)],
      [c.pick(l.price), () => (c.below(900) / 100).toFixed(2)],
    ];
  },
  "several numbers with a maker each": (cols, parts) => {
    all(parts, true);
    const base = cols.slice(0, 4);
    return [
      ...base,
      ["MPN 1", (p) => p.mpn],
      ["Manufacturer 1", (p) => p.maker],
      ["MPN 2", (p) => (p.mpn === "" ? "" : `ALT${p.mpn}`)],
      ["Manufacturer 2", (p) => (p.mpn === "" ? "" : "Second Source")],
    ];
  },
};

/** Ways whose headings are of a language that is not taught. */
export const STRANGE: Readonly<Record<string, Dress>> = {
  "headings nobody taught": (cols, parts) => {
    all(parts, true);
    return cols;
  },
  "headings nobody taught, with what is fitted": (cols, parts, l, c) => {
    mixed(parts);
    const [heading, yes, no] = c.is(0.5)
      ? [c.pick(l.fitted), c.pick(l.yes), c.pick(l.no)]
      : [c.pick(l.off), c.pick(l.no), c.pick(l.yes)];
    return [...cols, [heading, (p) => (p.fitted ? yes : no)]];
  },
};

/** Ways that need no language. */
export const ODD: Readonly<Record<string, Dress>> = {
  "yes and no of something else": (cols, parts, l, c) => {
    all(parts, true);
    const [yes, no] = [c.pick(l.yes), c.pick(l.no)];
    return [
      ...cols,
      [
        c.pick(["RoHS", "SMD", "Polarised", "Critical", "In stock", "Ordered"]),
        (_, row) => (row % 3 === 0 ? no : yes),
      ],
    ];
  },
  "names under a heading of references": (cols, parts, _l, c) => {
    all(parts, true);
    const named: Column = [
      c.pick(["Component", "Element", "Bauteil"]),
      (p) => (p.unit === "" ? "part" : p.unit),
    ];
    return [named, ...cols.map(([h, cell], i): Column => [i === 0 ? "Where on the board" : h, cell])];
  },
  "a side of one letter": (cols, parts, _l, c) => {
    all(parts, true);
    const side = c.pick(["F", "M"]);
    return [...cols, [c.pick(["Side", "Layer"]), () => side]];
  },
  "everything left off": (cols, parts, l, c) => {
    all(parts, false);
    const off = c.pick(l.leftOff);
    return [...cols, [c.pick(["Build", "Status", "Option"]), () => off]];
  },
  "a heading of fitting behind another word": (cols, parts, l, c) => {
    mixed(parts);
    const [yes, no] = [c.pick(l.yes), c.pick(l.no)];
    return [...cols, [c.pick(["SMT placed", "SMD bestückt", "THT mounted"]), (p) => (p.fitted ? yes : no)]];
  },
  "nothing of what is left off": (cols, parts) => {
    mixed(parts);
    return cols.map(([h, cell], i) => [h, i === 3 ? (p, r) => (p.fitted ? cell(p, r) : "0") : cell]);
  },
  "a star and what it means": (cols, parts, l, c) => {
    mixed(parts);
    const off = c.pick(l.leftOff);
    return [
      ...cols.map(
        ([h, cell], i): Column => [h, i === 1 ? (p, r) => (p.fitted ? cell(p, r) : `${p.value}*`) : cell],
      ),
      ["", (_, row) => (row === parts.length - 1 ? `* = ${off}` : "")],
    ];
  },
  "numbers a sheet shows otherwise": (cols, parts) => {
    all(parts, true);
    for (const [i, p] of parts.entries()) if (p.mpn !== "") parts[i] = { ...p, mpn: `00${12345 + i}` };
    return cols;
  },
};

/** The list as text in columns, with blanks alone between them. */
const IN_COLUMNS = "in columns, without marks between them";
function inColumns(rows: readonly (readonly string[])[]): string[][] {
  const texts = rows.map((r) => r.map((t) => t.replaceAll("\n", ", ")));
  const wide = texts[0]!.map((_, i) => Math.max(...texts.map((r) => (r[i] ?? "").length)) + 2);
  return texts.map((r) => [
    r
      .map((t, i) => t.padEnd(wide[i] ?? 0))
      .join("")
      .trimEnd(),
  ]);
}

/** Ways of which nobody could tell from the list what is meant, each with its reason; there asking is what is right. */
export const UNDECIDED: Readonly<Record<string, string>> = {
  "headings nobody taught, with what is fitted":
    "which of two strange words is the yes, and of what, no cell says",
  "a heading of fitting behind another word":
    "not placed by the machine may be placed by hand, or not at all",
};

/** The list under titles, with what stands between and below its lines. */
function laidOut(columns: readonly Column[], parts: readonly Part[], l: Language, c: Chance): string[][] {
  const heads = columns.map(([h]) => h);
  const blank = heads.map(() => "");
  const one = (text: string, at = 0) => blank.map((_, i) => (i === at ? text : ""));
  const rows: string[][] = [];
  if (c.is(0.4))
    rows.push(
      one("Moss Lane Instruments"),
      one(`Rev. ${c.pick(["A", "B", "C2"])}, 2026-11-${10 + c.below(19)}`),
      blank,
    );
  if (c.is(0.05)) for (let i = 0; i < 44; i++) rows.push(one(c.pick(["", "", "Approved", "see drawing"])));
  rows.push(heads);
  for (const [i, p] of parts.entries()) {
    if (i > 0 && c.is(0.06)) rows.push(blank);
    rows.push(columns.map(([, cell]) => cell(p, i)));
  }
  if (c.is(0.2)) rows.push(blank);
  if (c.is(0.2)) {
    const qty = heads.findIndex((h) => l.qty.includes(h));
    rows.push(
      blank.map((_, i) =>
        i === 0 ? c.pick(l.total) : i === qty ? String(parts.reduce((n, p) => n + p.refs.length, 0)) : "",
      ),
    );
  }
  return rows;
}

/** A list of a seed and a number. */
export function writtenList(seed: number, n: number): WrittenList {
  const c = chance(seed * 1_000_003 + n);
  const kinds: Readonly<Record<string, Dress>> = {
    ...DRESSES,
    ...STRANGE,
    ...ODD,
    [IN_COLUMNS]: DRESSES["ordinary, in a language"]!,
  };
  const kind = Object.keys(kinds)[n % Object.keys(kinds).length]!;
  const spoken = Object.hasOwn(STRANGE, kind) ? UNTAUGHT : LANGUAGES;
  const l = spoken[c.pick(Object.keys(spoken))]!;
  const parts = partsOf(c);
  const columns = kinds[kind]!(ordinary(l, c), parts, l, c);
  const order = c.is(0.35) ? c.shuffled(columns) : columns;
  const rows = laidOut(order, parts, l, c);
  const cells = kind === IN_COLUMNS ? inColumns(rows) : rows;
  return {
    kind,
    cells,
    lines: parts.map(({ refs, si, mpn, maker, package: body, fitted }) => ({
      refs,
      ...(si === undefined ? {} : { si }),
      mpn,
      maker,
      package: body,
      fitted,
    })),
  };
}

import type { Cells } from "../src/table/columns.ts";
import type { Chance } from "./random.ts";

/** A line of a parts list as it is meant. */
export interface MeantLine {
  readonly refs: readonly string[];
  /** SI value and how it is written; empty for a part without one. */
  readonly si?: number;
  readonly value: string;
  readonly package: string;
  readonly mpn: string;
  readonly maker: string;
  readonly dnp: boolean;
}

const VALUES: readonly (readonly [letter: string, si: number, written: readonly string[]])[] = [
  ["R", 4700, ["4k7", "4.7k", "4,7k", "4700", "4.7 kΩ", "4K7"]],
  ["R", 0.1, ["100mR", "0R1", "0.1R", "100 mΩ"]],
  ["R", 1e6, ["1M", "1 MΩ", "1M0", "1000k"]],
  ["R", 10, ["10R", "10 Ω", "10Ω"]],
  ["C", 1e-7, ["100n", "0.1u", "100nF", "0.1µF", "0,1 µF", "100 nF"]],
  ["C", 2.2e-6, ["2u2", "2.2uF", "2,2µ", "2.2 μF"]],
  ["C", 1.5e-11, ["15p", "15pF", "15 pF"]],
];
const HEADS: Readonly<Record<string, readonly string[]>> = {
  refs: ["Reference", "Designator", "RefDes", "References", "Bezeichner", "Repère"],
  qty: ["Qty", "Quantity", "Menge", "Count", "Anzahl", "Quantité"],
  value: ["Value", "Wert", "Valeur", "Val"],
  package: ["Package", "Footprint", "Case", "Bauform"],
  mpn: ["MPN", "Manufacturer Part Number", "Part Number", "Mfr Part No"],
  maker: ["Manufacturer", "Maker", "Hersteller", "Mfr"],
};

/** Lines with made-up makers and numbers. */
export function meantLines(c: Chance): MeantLine[] {
  let n = 1;
  return Array.from({ length: 3 + c.below(6) }, (_, i) => {
    const [letter, si, written] = c.pick(VALUES);
    const isChip = c.is(0.25);
    const from = n;
    const count = 1 + c.below(5);
    n += count + (c.is(0.3) ? 2 : 0);
    return {
      refs: Array.from({ length: count }, (_, k) => `${isChip ? "U" : letter}${from + k}`),
      ...(isChip ? {} : { si }),
      value: isChip ? c.pick(["regulator", "gate"]) : c.pick(written),
      package: c.pick(["0402", "0603", "0805", "SO8"]),
      mpn: c.is(0.8) ? `${c.pick(["ZQ", "KX", "VT"])}${1000 + i * 37}-${c.pick(["A", "T1", "R"])}` : "",
      maker: c.pick(["Alder", "Fernwood Parts", "Brook & Sons"]),
      dnp: c.is(0.15),
    };
  });
}

/** References as people write them: listed, in ranges, with blanks or semicolons. */
function refsText(refs: readonly string[], c: Chance): string {
  if (refs.length > 2 && c.is(0.4)) {
    const dash = c.pick(["-", "–", "..", " to ", "…"]);
    return `${refs[0]}${dash}${c.is(0.7) || dash === " to " ? refs.at(-1) : refs.at(-1)!.replace(/\D/g, "")}`;
  }
  return refs.join(c.pick([",", ", ", " ", ";", "; ", "\n"]));
}

/** The list in one of the ways people write it. */
export function writeList(lines: readonly MeantLine[], c: Chance): Cells {
  const fitted = c.pick(["none", "off", "on"] as const);
  const yes = c.pick(["yes", "Y", "1", "true", "x"]);
  const no = c.pick(["no", "N", "0", "false"]);
  const off = c.pick(["DNP", "dnp", "do not place", "not fitted", "nicht bestückt", "DNF", "no-pop"]);
  const left = (text: string): string =>
    /^0\d+$/.test(text) && c.is(0.2) ? c.pick([`="${text}"`, `'${text}`]) : text;
  const columns: [key: string, write: (l: MeantLine) => string][] = [
    ["refs", (l) => refsText(l.refs, c)],
    ["value", (l) => (l.dnp && fitted === "none" ? `${l.value} ${off}` : l.value)],
    ["package", (l) => left(l.package)],
    ["mpn", (l) => l.mpn],
    ["maker", (l) => (l.mpn === "" ? "" : l.maker)],
  ];
  if (c.is(0.8)) columns.push(["qty", (l) => c.pick([String(l.refs.length), `${l.refs.length}.0`])]);
  const order = c.is(0.5) ? columns : c.shuffled(columns);
  const heads = order.map(([k]) => c.pick(HEADS[k]!));
  const write = (l: MeantLine) => order.map(([, w]) => w(l));
  const mark = (l: MeantLine) =>
    fitted === "off" ? (l.dnp ? c.pick([yes, off]) : c.pick([no, ""])) : l.dnp ? no : yes;
  const add = (row: string[], last: string) => (fitted === "none" ? row : [...row, last]);
  const head = add(
    heads,
    fitted === "off" ? c.pick(["DNP", "Do not place"]) : c.pick(["Fitted", "Populate", "Bestückt"]),
  );
  const blank = head.map(() => "");
  const rows: string[][] = [];
  if (c.is(0.3)) rows.push(["Parts of a made-up board", ...blank.slice(1)], blank);
  rows.push(head);
  lines.forEach((l, i) => {
    if (i > 0 && c.is(0.1))
      rows.push(
        [...blank.slice(1), ""].map((_, k) =>
          k === 0 ? c.pick(["Capacitors", "Semiconductors", "Resistors"]) : "",
        ),
      );
    if (i > 0 && c.is(0.07)) rows.push(head);
    rows.push(add(write(l), mark(l)));
  });
  const total = order.findIndex(([k]) => k === "qty");
  if (c.is(0.2) && total > 0)
    rows.push(
      blank.map((_, k) =>
        k === 0 ? "Total" : k === total ? String(lines.reduce((n, l) => n + l.refs.length, 0)) : "",
      ),
    );
  if (c.is(0.2)) rows.push(blank.map((_, k) => (k === 0 ? "All parts lead free, page 1 of 1" : "")));
  return rows;
}

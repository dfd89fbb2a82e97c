import { type Chance, chance } from "../random.ts";
import { PLACE_LANGUAGES, PLACE_UNTAUGHT, type PlaceLanguage } from "./place-words.ts";

/** A part as it stands on the board; rotation counter-clockwise. */
export interface TruePlace {
  readonly ref: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly rotationDeg: number;
  readonly side: "top" | "bottom";
  readonly value: string;
  readonly package: string;
}

/** A table of places somebody wrote, and what was meant by it. */
export interface WrittenPlaces {
  readonly kind: string;
  readonly file: string;
  readonly cells: readonly (readonly string[])[];
  readonly places: readonly TruePlace[];
  /** The board it is of, where one lies beside it. */
  readonly box?: readonly [number, number, number, number];
}

/** Coordinates are whole multiples of five mil, which every unit here writes exactly. */
const GRID_MM = 0.127;
const WIDE = 480;
const HIGH = 320;
const BOX = [0, 0, WIDE * GRID_MM, HIGH * GRID_MM] as const;

type Column = readonly [heading: string, cell: (p: TruePlace, row: number) => string];

/** A table under way: what a way of writing changes. */
interface Sheet {
  file: string;
  above: string[];
  below: string[];
  ref: Column;
  x: Column;
  y: Column;
  turn: Column | undefined;
  side: Column | undefined;
  /** Columns besides: value, package and what else stands there. */
  more: Column[];
  /** A row between the heading and the places. */
  under: ((heads: readonly string[]) => string[]) | undefined;
  hasBox: boolean;
  /** The rows as they stand in the file, from the finished table; what most leave as it is. */
  finish: (rows: string[][], heads: number) => string[][];
  shuffle: boolean;
}

type Dress = (s: Sheet, places: TruePlace[], l: PlaceLanguage, c: Chance) => void;

/** A unit as it is written: its words, and how many of it are in a millimetre. */
const UNITS: readonly (readonly [words: readonly string[], perMm: number])[] = [
  [["mm", "millimeter", "millimetres"], 1],
  [["mil", "mils", "thou"], 1 / 0.0254],
  [["inch", "inches", "in"], 1 / 25.4],
  [["µm", "um", "micron"], 1000],
  [["1/100 mm", "0.01 mm", "hundredths of a millimetre"], 100],
  [["1/1000 inch", "0.001 in", "thousandths of an inch"], 1 / 0.0254],
  [["0.1 mil", "1/10 mil"], 10 / 0.0254],
];

const plain = (v: number, mark = ".") => Number(v.toFixed(5)).toString().replace(".", mark);

/** Puts the coordinates into a unit. */
function inUnit(s: Sheet, perMm: readonly [number, number], behind: readonly [string, string] = ["", ""]) {
  s.x = [s.x[0], (p) => `${plain(p.xMm * perMm[0])}${behind[0]}`];
  s.y = [s.y[0], (p) => `${plain(p.yMm * perMm[1])}${behind[1]}`];
}

const headed = (column: Column, heading: string): Column => [heading, column[1]];

/** Ways places are written, each with what is meant by it. */
export const PLACE_DRESSES: Readonly<Record<string, Dress>> = {
  "ordinary, in a language": () => {},
  "a unit in the headings": (s, _p, _l, c) => {
    const [words, perMm] = c.pick(UNITS);
    const word = c.pick(words);
    const wrap = c.pick([
      (t: string) => `${t} (${word})`,
      (t: string) => `${t} [${word}]`,
      (t: string) => `${t}, ${word}`,
    ]);
    inUnit(s, [perMm, perMm]);
    [s.x, s.y] = [headed(s.x, wrap(s.x[0])), headed(s.y, wrap(s.y[0]))];
  },
  "a unit of its own in each heading": (s, _p, _l, c) => {
    const [a, b] = [c.pick(UNITS.slice(0, 4)), c.pick(UNITS.slice(0, 4))];
    inUnit(s, [a[1], b[1]]);
    [s.x, s.y] = [headed(s.x, `${s.x[0]} (${c.pick(a[0])})`), headed(s.y, `${s.y[0]} (${c.pick(b[0])})`)];
  },
  "a unit behind each number": (s, _p, _l, c) => {
    const [words, perMm] = c.pick(UNITS.slice(0, 4));
    const behind = `${c.pick(["", " "])}${words[0]}`;
    inUnit(s, [perMm, perMm], [behind, behind]);
  },
  "a unit told above": (s, _p, l, c) => {
    const [words, perMm] = c.pick(UNITS);
    const word = perMm === 1 / 25.4 ? c.pick(l.inch) : c.pick(words);
    inUnit(s, [perMm, perMm]);
    s.above.push(
      c.pick([
        `# ${c.pick(l.unit)}: ${word}`,
        `${c.pick(l.unit)} = ${word}`,
        `; ${c.pick(l.unit)} : ${word}`,
        `# all coordinates in ${word}`,
        `Dimensions in ${word}`,
      ]),
    );
  },
  "a unit told below": (s, _p, l, c) => {
    const [words, perMm] = c.pick(UNITS.slice(0, 4));
    inUnit(s, [perMm, perMm]);
    s.below.push(c.pick([`# ${c.pick(l.unit)}: ${c.pick(words)}`, `All dimensions in ${c.pick(words)}`]));
  },
  "a unit in a column of its own": (s, _p, l, c) => {
    const [a, b] = [c.pick(UNITS.slice(0, 3)), c.pick(UNITS.slice(0, 3))];
    const of = (row: number) => (row % 2 === 0 ? a : b);
    const rowOf = new Map<TruePlace, number>();
    s.more.push([
      c.pick(l.unit),
      (p, row) => {
        rowOf.set(p, row);
        return of(row)[0][0]!;
      },
    ]);
    s.x = [s.x[0], (p, row) => plain(p.xMm * of(row)[1])];
    s.y = [s.y[0], (p, row) => plain(p.yMm * of(row)[1])];
  },
  "a unit in a row under the headings": (s, _p, _l, c) => {
    const [words, perMm] = c.pick(UNITS.slice(0, 4));
    inUnit(s, [perMm, perMm]);
    s.under = (heads) =>
      heads.map((h) =>
        h === s.x[0] || h === s.y[0] ? c.pick([words[0]!, `[${words[0]}]`]) : h === s.turn?.[0] ? "deg" : "",
      );
  },
  "no unit, beside its board": (s, _p, _l, c) => {
    const perMm = c.pick([1, 1 / 0.0254, 1 / 25.4]);
    inUnit(s, [perMm, perMm]);
    s.hasBox = true;
  },
  "no unit, and no board": (s, _p, _l, c) => {
    const perMm = c.pick([1, 1 / 0.0254]);
    inUnit(s, [perMm, perMm]);
    s.hasBox = false;
  },
  "a unit that cannot be": (s, _p, _l, c) => {
    const perMm = c.pick([1 / 0.0254, 1 / 25.4, 100]);
    inUnit(s, [perMm, perMm]);
    [s.x, s.y] = [headed(s.x, `${s.x[0]} (mm)`), headed(s.y, `${s.y[0]} (mm)`)];
    s.hasBox = true;
  },
  "a rotation in parts of a degree": (s, _p, _l, c) => {
    const [per, word] = c.pick([
      [10, "1/10 deg"],
      [10, "0.1 deg"],
      [100, "1/100 deg"],
      [1000, "mdeg"],
    ] as const);
    s.turn = [`${s.turn![0]} ${c.pick([`(${word})`, `[${word}]`])}`, (p) => plain(p.rotationDeg * per)];
  },
  "a rotation in radians": (s, _p, _l, c) => {
    s.turn = [
      `${s.turn![0]} ${c.pick(["(rad)", "[rad]", "in radians"])}`,
      (p) => plain((p.rotationDeg * Math.PI) / 180),
    ];
  },
  "a rotation in tenths, which nobody says": (s, places) => {
    places[0] = { ...places[0]!, rotationDeg: 90 };
    s.turn = [s.turn![0], (p) => plain(p.rotationDeg * 10)];
  },
  "a rotation in radians, which nobody says": (s, places) => {
    places[0] = { ...places[0]!, rotationDeg: 90 };
    s.turn = [s.turn![0], (p) => plain((p.rotationDeg * Math.PI) / 180)];
  },
  "a rotation the other way round": (s, _p, l, c) => {
    const word = c.pick(l.clockwise);
    const turned = (p: TruePlace) => plain((360 - p.rotationDeg) % 360);
    if (c.is(0.5)) s.turn = [`${s.turn![0]} (${word})`, turned];
    else {
      s.turn = [s.turn![0], turned];
      s.above.push(c.pick([`# ${s.turn[0]}: ${word}`, `# ${s.turn[0]} ${word}`]));
    }
  },
  "a mark behind each rotation": (s, _p, _l, c) => {
    const mark = c.pick(["°", " °", "deg", " deg", " Deg"]);
    s.turn = [
      s.turn![0],
      (p) => `${plain(p.rotationDeg > 180 && c.is(0.5) ? p.rotationDeg - 360 : p.rotationDeg)}${mark}`,
    ];
  },
  "mirrored instead of a side": (s, _p, l, c) => {
    s.side = [c.pick(l.mirror), (p) => (p.side === "bottom" ? l.yes : c.pick([l.no, l.no]))];
  },
  "sides by a number or a letter": (s, _p, l, c) => {
    const [top, bottom] = c.pick([
      ["1", "2"],
      ["T", "B"],
      ["t", "b"],
      ["L1", "L2"],
      ["1", "4"],
    ] as const);
    s.side = [c.pick(l.side), (p) => (p.side === "top" ? top : bottom)];
  },
  "a table for each side": (s, places, l, c) => {
    const [top, bottom] = c.pick(l.sides.filter(([t]) => t.length > 2));
    s.side = undefined;
    places.sort((a, b) => (a.side < b.side ? 1 : a.side > b.side ? -1 : 0));
    const tops = places.filter((p) => p.side === "top").length;
    s.finish = (rows) => [
      [top!],
      rows[0]!,
      ...rows.slice(1, 1 + tops),
      [],
      [bottom!],
      rows[0]!,
      ...rows.slice(1 + tops),
    ];
  },
  "a side in the name of the file": (s, places, _l, c) => {
    const side = c.pick(["top", "bottom"] as const);
    for (const [i, p] of places.entries()) places[i] = { ...p, side };
    s.side = undefined;
    s.file = c.pick([`places-${side}.csv`, `${side}_places.csv`, `board ${side}.csv`]);
  },
  "no side anywhere": (s, places) => {
    for (const [i, p] of places.entries()) places[i] = { ...p, side: "top" };
    s.side = undefined;
  },
  "no headings": (s, _p, _l, c) => {
    s.x = headed(s.x, "x");
    s.more = c.is(0.5) ? [] : s.more;
    s.shuffle = false;
    s.finish = (rows) => rows.slice(1);
  },
  "columns in place of marks between them": (s, _p, _l, c) => {
    s.more = s.more.map(([h, cell]) => [
      h,
      (p, row) => c.pick([cell(p, row), `${cell(p, row)} 5 %`, `10 ${cell(p, row)}`]),
    ]);
    s.finish = (rows) => {
      const wide = rows[0]!.map((_, i) => Math.max(...rows.map((r) => (r[i] ?? "").length)) + 2);
      return rows.map((r) => [
        r
          .map((t, i) => t.padEnd(wide[i]!))
          .join("")
          .trimEnd(),
      ]);
    };
  },
  "decimal commas": (s) => {
    s.x = [s.x[0], (p) => `${plain(p.xMm, ",")}`];
    s.y = [s.y[0], (p) => `${plain(p.yMm, ",")}`];
    [s.x, s.y] = [headed(s.x, `${s.x[0]} (mm)`), headed(s.y, `${s.y[0]} (mm)`)];
  },
  "marks between thousands": (s, _p, _l, c) => {
    const mark = c.pick([",", " ", "'", "."] as const);
    const decimal = mark === "." ? "," : ".";
    const cell = (v: number) => {
      const [whole = "", behind] = v.toFixed(2).split(".");
      return `${whole.replace(/\B(?=(\d{3})+$)/g, mark)}${decimal}${behind}`;
    };
    s.x = [`${s.x[0]} (µm)`, (p) => cell(p.xMm * 1000)];
    s.y = [`${s.y[0]} (µm)`, (p) => cell(p.yMm * 1000)];
  },
  "decimal commas in a list parted by commas": (s) => {
    s.x = [`${s.x[0]} (mm)`, (p) => p.xMm.toFixed(3).replace(".", ",")];
    s.y = [`${s.y[0]} (mm)`, (p) => p.yMm.toFixed(3).replace(".", ",")];
    s.finish = (rows, above) => rows.map((r, i) => (i <= above ? r : r.join(",").split(",")));
  },
  "several pairs of coordinates": (s, _p, _l, c) => {
    const mid = c.pick([
      ["Mid X", "Mid Y"],
      ["Center X", "Center Y"],
    ] as const);
    const [dx, dy] = [1 + c.below(4), 1 + c.below(4)];
    const other = c.pick(["Pad", "Ref", "Pin1"]);
    const more: Column[] = [
      [`${other} X`, (p) => plain(p.xMm + dx)],
      [`${other} Y`, (p) => plain(p.yMm + dy)],
    ];
    [s.x, s.y] = [headed(s.x, `${mid[0]} (mm)`), headed(s.y, `${mid[1]} (mm)`)];
    s.more = c.is(0.5) ? [...more, ...s.more] : [...s.more, ...more];
  },
  "both coordinates in one column": (s, _p, _l, c) => {
    const [x, y] = [s.x[1], s.y[1]];
    const [open, mark, close] = c.pick([
      ["", "; ", ""],
      ["(", ", ", ")"],
      ["", " / ", ""],
      ["", " ", ""],
    ] as const);
    s.x = [
      c.pick(["X, Y (mm)", "XY (mm)", "Position (X/Y), mm"]),
      (p, r) => `${open}${x(p, r)}${mark}${y(p, r)}${close}`,
    ];
    s.y = ["", () => ""];
  },
  "the heading once more, its columns in another order": (s, places) => {
    s.finish = (rows, head) => {
      const half = head + 1 + Math.floor(places.length / 2);
      const turned = (r: readonly string[]) => [...r].reverse();
      return [...rows.slice(0, half), turned(rows[head]!), ...rows.slice(half).map(turned)];
    };
  },
  "names in front of references": (s, _p, _l, c) => {
    s.ref = headed(s.ref, c.pick(["Where", "Mark", "On board", "ID"]));
    s.more.push([c.pick(["Part", "Component", "Name"]), (p) => `${p.value} ${p.package}`]);
  },
  "headings nobody taught": () => {},
  "headings nobody taught, mirrored": (s, _p, l) => {
    s.side = [l.mirror[0]!, (p) => (p.side === "bottom" ? l.yes : l.no)];
  },
  "marked as not fitted": (s, _p, _l, c) => {
    const mark = c.pick(["DNP", "no", "not fitted"]);
    s.more.push([c.pick(["Fitted", "Populate", "Mounted"]), (_, row) => (row % 4 === 1 ? mark : "yes")]);
  },
};

const UNSPOKEN = ["headings nobody taught", "headings nobody taught, mirrored"];

/** Ways of which nobody could tell what is meant, each with its reason; there asking is what is right. */
export const PLACE_UNDECIDED: Readonly<Record<string, string>> = {
  "a unit that cannot be": "the file goes to whoever places the parts, who reads the unit it states",
  "headings nobody taught": "which of two strange words is the top no cell says",
  "headings nobody taught, mirrored": "which of two strange words is the yes no cell says",
};

function placesOf(c: Chance): TruePlace[] {
  const next: Record<string, number> = {};
  const many = 8 + c.below(20);
  return Array.from({ length: many }, (_, i) => {
    const letter = c.pick(["R", "R", "C", "C", "U", "D", "J", "L"]);
    next[letter] = (next[letter] ?? 0) + 1 + (c.is(0.1) ? 1 : 0);
    return {
      ref: `${letter}${next[letter]}`,
      // from corner to corner, so that a board is told from a part of one
      xMm: Number(((i === 0 ? 20 : i === 1 ? WIDE - 20 : 1 + c.below(WIDE - 2)) * GRID_MM).toFixed(4)),
      yMm: Number(((i === 0 ? 20 : i === 1 ? HIGH - 20 : 1 + c.below(HIGH - 2)) * GRID_MM).toFixed(4)),
      rotationDeg: i === 2 ? 90 : c.is(0.9) ? 90 * c.below(4) : c.pick([45, 30, 135, 315]),
      side: i % 3 === 2 || (i > 3 && c.is(0.2)) ? "bottom" : "top",
      value: c.pick(["10k", "100n", "4u7", "gate", "socket"]),
      package: c.pick(["0402", "0603", "SOIC-8", "HDR-1x4"]),
    };
  });
}

/** A table of places of a seed and a number. */
export function writtenPlaces(seed: number, n: number): WrittenPlaces {
  const c = chance(seed * 1_000_003 + n);
  const kinds = Object.keys(PLACE_DRESSES);
  const kind = kinds[n % kinds.length]!;
  const languages = UNSPOKEN.includes(kind) ? PLACE_UNTAUGHT : PLACE_LANGUAGES;
  const l = languages[c.pick(Object.keys(languages))]!;
  const places = placesOf(c);
  const [headX, headY] = c.pick(l.xy);
  const [top, bottom] = c.pick(l.sides);
  const hasUnit = c.is(0.7);
  const s: Sheet = {
    file: "places.csv",
    above: [],
    below: [],
    ref: [c.pick(l.ref), (p) => p.ref],
    x: [headX!, (p) => plain(p.xMm)],
    y: [headY!, (p) => plain(p.yMm)],
    turn: [c.pick(l.turn), (p) => plain(p.rotationDeg)],
    side: [c.pick(l.side), (p) => (p.side === "top" ? top! : bottom!)],
    more: [
      [c.pick(l.value), (p) => p.value],
      [c.pick(l.package), (p) => p.package],
    ],
    under: undefined,
    hasBox: c.is(0.5),
    finish: (rows) => rows,
    shuffle: c.is(0.3),
  };
  PLACE_DRESSES[kind]!(s, places, l, c);
  // what states no unit of its own states it where the way is not about it
  if (hasUnit && !/unit|mm|µm/i.test(`${kind} ${s.x[0]}`))
    [s.x, s.y] = [headed(s.x, `${s.x[0]} (mm)`), headed(s.y, s.y[0] === "" ? "" : `${s.y[0]} (mm)`)];
  const ordinary = [s.ref, ...s.more.slice(0, c.below(3)), s.x, s.y, s.turn, s.side, ...s.more].filter(
    (col, i, all): col is Column => col !== undefined && col[0] !== "" && all.indexOf(col) === i,
  );
  const columns = s.shuffle ? c.shuffled(ordinary) : ordinary;
  const heads = columns.map(([h]) => h);
  const rows = [
    heads,
    ...(s.under ? [s.under(heads)] : []),
    ...places.map((p, i) => columns.map(([, cell]) => cell(p, i))),
  ];
  const above = [...(c.is(0.3) ? ["# Moss Lane Instruments", "# made up, 2026"] : []), ...s.above].map(
    (t) => [t],
  );
  const below = [...s.below, ...(c.is(0.15) ? [`${l.total}: ${places.length}`] : [])].map((t) => [t]);
  const finished = s.finish(
    rows.map((r) => [...r]),
    0,
  );
  return {
    kind,
    file: s.file,
    cells: [...above, ...finished, ...below],
    places,
    ...(s.hasBox ? { box: BOX } : {}),
  };
}

/** A made-up board of 80 × 60 mm with a list as somebody typed it: 29 lines, most of them a value and a size. */
const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const nm = (v: number) => Math.round(v * 1e6);
const flash = (x: number, y: number) => `X${nm(x)}Y${nm(y)}D03*\n`;
const line = (x1: number, y1: number, x2: number, y2: number) =>
  `X${nm(x1)}Y${nm(y1)}D02*\nG01X${nm(x2)}Y${nm(y2)}D01*\n`;

/** References, pieces, value and size as typed; the last holds what names a part. */
const ROWS: readonly (readonly [
  refs: string,
  count: string,
  value: string,
  body: string,
  number?: string,
])[] = [
  ["R1-R4", "4", "10k", "0603"],
  ["R5, R6", "2", "10K 1%", "R0603"],
  ["R7", "1", "4k7", "0603"],
  ["R8;R9", "2", "1K", "R_0603"],
  ["R10", "1", "330R", "0603"],
  ["R11", "1", "0R", "0603"],
  ["R12", "1", "100k 0.1%", "0603"],
  ["R13", "1", "2M2", "0603"],
  ["R14 R15", "2", "47R", "0805"],
  ["R16", "1", "22k/5%", "0402"],
  ["R17", "1", "120", "0603"],
  ["R18", "1", "5,6k", "0603"],
  ["C1..C6", "6", "100n", "0603"],
  ["C7, C8", "2", "100nF 50V X7R", "C_0603"],
  ["C9", "1", "22p", "0603"],
  ["C10", "1", "22pF NP0", "0603"],
  ["C11", "1", "1u", "0603"],
  ["C12", "1", "2u2/16V", "0805"],
  ["C13", "1", "10u", "0805"],
  ["C14", "1", "4n7", "0603"],
  ["C15", "1", "470p C0G", "0603"],
  ["LED1", "1", "green", "0603"],
  ["LED2", "1", "red", "LED_0603"],
  ["J1", "1", "1 x 4 header 2.54", ""],
  ["J2", "1", "Conn_01x06", "PinHeader_1x06_P2.54mm"],
  ["U1", "1", "controller", "QFP-48", "TB-M4864-Q48"],
  ["U2", "1", "3.3 V regulator", "SOT-223", "TB-LV33-223"],
  ["D1", "1", "1 A", "SOD-123", "HB-S1K-123"],
  ["H1-H4", "4", "screw M3", "", "HB-M3X8"],
];
const LETTERS = /^([A-Z]+)(\d+)$/;
const expand = (refs: string): string[] => {
  const range = /^([A-Z]+)(\d+)(?:-|\.\.)[A-Z]*(\d+)$/.exec(refs);
  if (!range) return refs.split(/[,; ]+/);
  const [, letters, from, to] = range;
  return Array.from({ length: Number(to) - Number(from) + 1 }, (_, i) => `${letters}${Number(from) + i}`);
};

/** Files of the board, its list and its places, as they lie in a folder. */
export function messyBoard(): Record<string, string> {
  const placed = ROWS.flatMap(([refs]) => expand(refs)).filter((r) => !/^[JH]/.test(r));
  const at = new Map(placed.map((r, i) => [r, [8 + 9 * (i % 8), 8 + 8 * Math.floor(i / 8)] as const]));
  const pads = [...at.values()].flatMap(([x, y]) => [
    [x - 0.8, y],
    [x + 0.8, y],
  ]) as [number, number][];
  const pins = [4, 6].flatMap((n, row) =>
    Array.from({ length: n }, (_, i) => [10 + 2.54 * i, 50 + 5 * row] as const),
  );
  const smd = (d: string) => `${HEAD}%ADD10R,${d}*%\nD10*\n${pads.map(([x, y]) => flash(x, y)).join("")}`;
  const holes = (d: number) => `%ADD12C,${d}*%\nD12*\n${pins.map(([x, y]) => flash(x, y)).join("")}`;
  return {
    "sensor.gtl": `${smd("0.8X0.9")}${holes(1.7)}M02*\n`,
    "sensor.gbl": `${HEAD}${holes(1.7)}M02*\n`,
    "sensor.gts": `${smd("0.9X1")}${holes(1.8)}M02*\n`,
    "sensor.gbs": `${HEAD}${holes(1.8)}M02*\n`,
    "sensor.gtp": `${smd("0.8X0.9")}M02*\n`,
    "sensor.gto": `${HEAD}%ADD10C,0.18*%\nD10*\n${line(5, 4, 70, 4)}M02*\n`,
    "sensor.gko": `${HEAD}%ADD10C,0.1*%\nD10*\n${line(0, 0, 80, 0)}${line(80, 0, 80, 60)}${line(80, 60, 0, 60)}${line(0, 60, 0, 0)}M02*\n`,
    "sensor-pth.drl": `M48\nMETRIC\nT1C1.000\n%\nT1\n${pins.map(([x, y]) => `X${x.toFixed(2)}Y${y.toFixed(2)}`).join("\n")}\nM30\n`,
    "parts list.csv": [
      "Sensor board;;;;",
      "typed by hand, spring;;;;",
      ";;;;",
      "Ref des;No.;What;Body;Part no.",
      ...ROWS.map(([refs, count, value, body, number]) =>
        [refs, count, value, body, number ?? ""].map((c) => (c.includes(";") ? `"${c}"` : c)).join(";"),
      ),
      ";;;;",
    ].join("\r\n"),
    "places.csv": [
      "Ref,X,Y,Rot,Side",
      ...[...at].map(([r, [x, y]]) => `${r},${x},${y},${LETTERS.exec(r)![1] === "C" ? 90 : 0},top`),
    ].join("\n"),
  };
}

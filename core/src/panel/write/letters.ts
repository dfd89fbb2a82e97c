/** A plain single-line lettering, four wide and six high: strokes of points "xy", parted by commas. */
const STROKES: Readonly<Record<string, string>> = {
  A: "00 26 40,12 32",
  B: "00 06 36 45 44 33 03,33 42 41 30 00",
  C: "45 36 16 05 01 10 30 41",
  D: "00 06 26 44 42 20 00",
  E: "46 06 00 40,03 33",
  F: "46 06 00,03 33",
  G: "45 36 16 05 01 10 30 41 43 23",
  H: "00 06,40 46,03 43",
  I: "20 26",
  J: "46 41 30 10 01",
  K: "00 06,46 03 40",
  L: "06 00 40",
  M: "00 06 23 46 40",
  N: "00 06 40 46",
  O: "16 05 01 10 30 41 45 36 16",
  P: "00 06 36 45 44 33 03",
  Q: "16 05 01 10 30 41 45 36 16,22 40",
  R: "00 06 36 45 44 33 03,23 40",
  S: "45 36 16 05 04 13 33 42 41 30 10 01",
  T: "06 46,26 20",
  U: "06 01 10 30 41 46",
  V: "06 20 46",
  W: "06 10 23 30 46",
  X: "00 46,06 40",
  Y: "06 23 46,23 20",
  Z: "06 46 00 40",
  "0": "16 05 01 10 30 41 45 36 16,11 35",
  "1": "04 26 20",
  "2": "05 16 36 45 44 00 40",
  "3": "06 46 23 33 42 41 30 10 01",
  "4": "30 36 02 42",
  "5": "46 06 03 33 42 41 30 10 01",
  "6": "36 16 04 01 10 30 41 42 33 03",
  "7": "06 46 10",
  "8": "13 04 05 16 36 45 44 33 13 02 01 10 30 41 42 33",
  "9": "43 13 04 05 16 36 45 42 30 10",
  "-": "13 33",
  ".": "20 21",
  "/": "00 46",
  _: "00 40",
  ">": "03 43,35 43 31",
};

/** Height of the letters' grid, and from one letter to the next. */
const GRID = 6;
const PITCH = 5.4;

/** Length of a line of text, mm. */
export const textWidth = (text: string, heightMm: number): number => (text.length * PITCH * heightMm) / GRID;

/** Strokes of a line of text from its lower left corner on: x1, y1, x2, y2 each. What has no letter is left blank. */
export function textStrokes(
  text: string,
  heightMm: number,
): readonly (readonly [number, number, number, number])[] {
  const k = heightMm / GRID;
  return [...text.toUpperCase()].flatMap((c, i) =>
    (STROKES[c] ?? "").split(",").flatMap((stroke) => {
      const points = stroke
        .split(" ")
        .filter((p) => p.length === 2)
        .map((p) => [(Number(p[0]) + i * PITCH) * k, Number(p[1]) * k] as const);
      return points.slice(1).map((p, n) => [points[n]![0], points[n]![1], p[0], p[1]] as const);
    }),
  );
}

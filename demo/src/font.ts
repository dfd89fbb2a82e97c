/** Strokes of a plain single-line lettering on a grid 4 wide and 6 high: points "xy", strokes apart by a blank. */
const GLYPHS: Record<string, string> = {
  A: "002640 1232",
  B: "00061636454434140434 34434130 3000",
  C: "4536160501103041",
  D: "000626444220 2000",
  E: "46060040 0333",
  F: "460600 0333",
  G: "453616050110304143 4323",
  H: "0006 4640 0343",
  I: "1636 2620 1030",
  J: "46413010 1001",
  K: "0006 4603 1340",
  L: "060040",
  M: "0006234640",
  N: "00064046",
  O: "1605011030414536 3616",
  P: "0006364544330 303",
  Q: "160501103041453616 2240",
  R: "000636454433 3303 2340",
  S: "4536160504134332 414130100 1",
  T: "0646 2620",
  U: "060110304146",
  V: "062046",
  W: "0610233046",
  X: "0046 0640",
  Y: "062346 2320",
  Z: "06460040",
  "0": "160501103041453616 0145",
  "1": "052620 1030",
  "2": "05163645440040",
  "3": "0516364544331333 33424130100 1",
  "4": "303602 0242",
  "5": "460604344341301001",
  "6": "4536160501103041423303",
  "7": "064610",
  "8": "160504133342413010010213 0504 33444536 1636",
  "9": "011030414536160504133343",
  "-": "1333",
  "+": "1333 2422",
  ".": "2021",
  "/": "0046",
  ":": "2122 2425",
  " ": "",
};

/**
 * Lines of a text in mm.
 * @param height cap height; @param mirrored for text read from below
 * @returns segments [x1, y1, x2, y2]
 */
export function letter(
  text: string,
  x: number,
  y: number,
  height: number,
  mirrored = false,
): [number, number, number, number][] {
  const s = height / 6;
  const out: [number, number, number, number][] = [];
  let at = 0;
  for (const c of text.toUpperCase()) {
    for (const stroke of (GLYPHS[c] ?? "").split(" ")) {
      for (let i = 2; i + 1 < stroke.length; i += 2) {
        const [x1, y1, x2, y2] = [stroke[i - 2], stroke[i - 1], stroke[i], stroke[i + 1]].map(Number) as [
          number,
          number,
          number,
          number,
        ];
        const px = (v: number) => x + (mirrored ? -1 : 1) * (at + v) * s;
        out.push([px(x1), y + y1 * s, px(x2), y + y2 * s]);
      }
    }
    at += 5.6;
  }
  return out;
}

/** Width of a text in mm. */
export const textWidth = (text: string, height: number) => ((text.length * 5.6 - 1.6) * height) / 6;

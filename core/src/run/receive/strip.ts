/** Pieces in strips of tape by their length, how many more or fewer the ruler leaves open, and what does not come out even. */
export type Measured =
  | { readonly pieces: number; readonly openTo: number; readonly doubt?: string }
  | { readonly wrong: string };

/** A ruler along a strip is right to this, mm. */
const READ_MM = 1;
/** Pockets on carrier tape are 2 mm apart or a multiple of 4 mm, as its holes are (usual, recalled); others are asked about. */
const USUAL_MM: readonly number[] = [2, 4, 8, 12, 16, 20, 24, 28, 32, 36, 40, 44];
const UNITS: Readonly<Record<string, number>> = { mm: 1, cm: 10, m: 1000, in: 25.4, '"': 25.4 };
const MOST_MM = 1e6;

/**
 * Counts cut tape by length: each strip holds as many pockets as its length has spacings, to the nearest.
 *
 * @param strips lengths as they are typed, one or several: "402", "40,2 cm + 118", "12 in; 7 in"; mm where no unit stands
 * @param apartMm from one pocket to the next
 * @param empty pockets without a piece, over all strips
 * @example countByLength("400 + 118", 4, 0) // 100, and 30 open to one, since it does not come out even
 */
export function countByLength(strips: string, apartMm: number, empty: number): Measured {
  if (!(apartMm > 0) || apartMm > 500) return { wrong: "Say how far apart the pieces are, in mm." };
  if (!Number.isInteger(empty) || empty < 0) return { wrong: "Empty pockets are counted: 0, 1, 2 …" };
  const texts = strips
    .replace(/(\d)\s*(mm|cm|m|in|")(?![a-z])/gi, "$1$2")
    .split(/[+;\s]+|,(?=\s)/)
    .filter((t) => t !== "");
  if (texts.length === 0) return { wrong: "Say how long the strip is." };
  let [pieces, openTo] = [0, 0];
  const odd: string[] = [];
  for (const text of texts) {
    const m = /^(\d+(?:[.,]\d+)?|[.,]\d+)(mm|cm|m|in|")?,?$/i.exec(text);
    if (!m) return { wrong: `“${text}” is no length.` };
    // a ruler reads no thousandths of a millimetre
    if (/^[1-9]\d{0,2}[.,]\d{3}$/.test(m[1]!) && m[2]?.toLowerCase() !== "m")
      return { wrong: `“${text}” may be thousands: write it without the mark, or fewer digits behind it.` };
    const mm = Number(m[1]!.replace(",", ".")) * UNITS[(m[2] ?? "mm").toLowerCase()]!;
    if (!(mm > 0) || mm > MOST_MM) return { wrong: `“${text}” is no length of a strip.` };
    const n = Math.round(mm / apartMm);
    const rest = Math.abs(mm - n * apartMm);
    pieces += n;
    openTo += Math.floor((rest + READ_MM) / apartMm + 0.5 - 1e-9);
    if (n === 0 || rest > Math.max(READ_MM, 0.25 * apartMm) + 1e-9) odd.push(text);
  }
  if (empty > pieces) return { wrong: `${empty} empty pockets are more than there are.` };
  const doubts = [
    ...(odd.length > 0
      ? [`${odd.join(", ")} does not come out even at ${apartMm} mm: is the spacing right?`]
      : []),
    ...(USUAL_MM.includes(apartMm)
      ? []
      : [`${apartMm} mm is no usual spacing: tape has 2 mm or a multiple of 4.`]),
  ];
  return { pieces: pieces - empty, openTo, ...(doubts.length > 0 ? { doubt: doubts.join(" ") } : {}) };
}

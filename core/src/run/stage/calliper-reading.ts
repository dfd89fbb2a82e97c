/** Readings as typed, or what is wrong; `doubt` where they are taken only when they are typed once more. */
export type Reading =
  | { readonly values: readonly number[]; readonly doubt?: string }
  | { readonly wrong: string };

const MOST = 9;

/**
 * What a calliper showed, as people type it: "1.58", "1,58 1,6", "1.58; 1.60 mm", ".062 in", "62 mil". Several readings stand
 * apart by blanks or semicolons; a comma is a decimal mark unless a blank follows it. A reading of less than half or more than twice what
 * was ordered is asked about, with the unit it would be right in.
 */
export function readReading(text: string, orderedMm: number): Reading {
  const parts = text
    .trim()
    .replace(/(\d)\s*(mm|in|inch|mil|")(?=$|[\s;,])/gi, "$1$2")
    .split(/[;\s]+|,(?=\s)/)
    .filter((p) => p !== "");
  if (parts.length === 0) return { wrong: "Nothing was typed." };
  if (parts.length > MOST) return { wrong: `At most ${MOST} readings of one size.` };
  const values: number[] = [];
  for (const p of parts) {
    const m = /^(\d+(?:[.,]\d+)?|[.,]\d+)(mm|in|inch|mil|")?,?$/i.exec(p);
    if (!m) return { wrong: `“${p}” is no length.` };
    const n = Number(m[1]!.replace(",", "."));
    const unit = (m[2] ?? "mm").toLowerCase();
    const mm = unit === "mm" ? n : unit === "mil" ? n * 0.0254 : n * 25.4;
    values.push(Math.round(mm * 1e4) / 1e4);
  }
  if (values.some((v) => v <= 0 || v > 5000))
    return { wrong: "A length is more than 0 and at most 5000 mm." };
  const odd = values.find((v) => v < orderedMm / 2 || v > 2 * orderedMm);
  return odd === undefined ? { values } : { values, doubt: doubtOf(odd, orderedMm) };
}

function doubtOf(v: number, orderedMm: number): string {
  const near = (x: number) => Math.abs(x - orderedMm) < 0.1 * orderedMm;
  const said = String(v);
  if (near(v * 25.4)) return `${said} would be right in inches: write ${said} in.`;
  if (near(v * 0.0254)) return `${said} would be right in mil: write ${said} mil.`;
  if (near(v / 10)) return `${said} is ten times what was ordered: was a point left out?`;
  return `${said} mm is far from the ${orderedMm} mm ordered. Enter once more if it is so.`;
}

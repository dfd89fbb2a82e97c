import { NO_CONNECTION, type TestPoint } from "./read.ts";

const pad = (t: string, n: number) => t.slice(0, n).padEnd(n);
const um = (mm: number, digits: number) => String(Math.abs(Math.round(mm * 1000))).padStart(digits, "0");
const signed = (mm: number) => `${Math.round(mm * 1000) < 0 ? "-" : "+"}${um(mm, 6)}`;

/**
 * A netlist of test points in the published format, columns as in domain.md 11.4, in thousandths of a millimetre.
 *
 * Names longer than the 14 columns are given an alias, which is declared.
 *
 * @param layers copper layers, whose number is the bottom's access code
 * @returns the text, line ends LF; undefined where a place lies farther out than six digits reach
 */
export function writeNetlist(
  job: string,
  points: readonly (TestPoint & { readonly widthMm?: number })[],
  layers: number,
): string | undefined {
  if (points.some((p) => Math.max(Math.abs(p.x), Math.abs(p.y)) > 999.999)) return undefined;
  const alias = new Map<string, string>();
  for (const { net } of points)
    if (net.length > 14 && !alias.has(net)) alias.set(net, `NNAME${alias.size + 1}`);
  const lines = [`P  JOB   ${job}`, "P  UNITS CUST 1"];
  for (const [net, name] of alias) lines.push(`P  ${name} ${net}`);
  for (const p of points) {
    const isDrilled = p.holeMm !== undefined;
    const record = isDrilled ? (p.plated === false ? "367" : "317") : "327";
    const access =
      p.side === "both" || isDrilled ? 0 : (p.layer ?? (p.side === "bottom" ? Math.max(2, layers) : 1));
    const hole = isDrilled ? `D${um(p.holeMm!, 4)}${p.plated === false ? "U" : "P"}` : "      ";
    const net = p.net === "" ? NO_CONNECTION : (alias.get(p.net) ?? p.net);
    lines.push(
      `${record}${pad(net, 14)}   ${pad(p.ref, 6)}${p.pin ? "-" : " "}${pad(p.pin, 4)} ${hole}A${String(access).padStart(2, "0")}X${signed(p.x)}Y${signed(p.y)}`,
    );
  }
  lines.push("999", "");
  return lines.join("\n");
}

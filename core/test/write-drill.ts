import type { Chance } from "./random.ts";

/** A hole or slot as it is meant, mm. */
export interface MeantHole {
  readonly x: number;
  readonly y: number;
  /** End of a slot. */
  readonly to?: readonly [number, number];
  readonly mm: number;
}

/** Holes on a grid of a mil, spread over 60 × 50 mm. */
export function meantHoles(c: Chance): MeantHole[] {
  const sizes = c.shuffled([0.3, 0.6, 0.8, 1, 1.2, 3.2]).slice(0, 1 + c.below(3));
  return Array.from({ length: 12 + c.below(20) }, (): MeantHole => {
    const [x, y] = [(100 + c.below(2200)) * 0.0254, (100 + c.below(1800)) * 0.0254];
    const hole = { x, y, mm: c.pick(sizes) };
    return c.is(0.08) ? { ...hole, to: [x + c.pick([0, 1]) * 2.54, y + 2.54] } : hole;
  });
}

/** What the writer left open: a reader may weigh it, and has to say so. */
export interface Written {
  readonly text: string;
  readonly isOpen: boolean;
}

/** The holes in one of the dialects found in the wild. */
export function writeDrill(holes: readonly MeantHole[], c: Chance): Written {
  const isInch = c.is(0.4);
  const unit = isInch ? 25.4 : 1;
  const style = c.pick(["points", "leading", "trailing"] as const);
  const [integers, decimals] = isInch ? [2, 4] : [3, 3];
  const saysUnit = c.is(0.75);
  const saysZeros = c.is(0.7) || style === "points";
  const number = (mm: number): string => {
    const v = mm / unit;
    if (style === "points") return v.toFixed(isInch ? 5 : 4).replace(/0+$/, c.pick(["", "0"]));
    const digits = String(Math.round(v * 10 ** decimals)).padStart(integers + decimals, "0");
    // leading zeros kept: the trailing ones may go, and the other way round
    return style === "leading" ? digits.replace(/0+$/, "") || "0" : digits.replace(/^0+/, "") || "0";
  };
  const end = c.pick(["\n", "\r\n"]);
  const sizes = [...new Set(holes.map((h) => h.mm))];
  const code = (k: number) => c.pick([`T${k + 1}`, `T0${k + 1}`]);
  const head: string[] = ["M48"];
  if (c.is(0.3)) head.push("; written for a made-up board");
  const zeros = style === "points" || !saysZeros ? "" : style === "leading" ? ",LZ" : ",TZ";
  if (saysUnit) head.push(isInch ? `INCH${zeros}` : `METRIC${zeros}`);
  else if (zeros !== "" && c.is(0.5)) head.push(`; FILE_FORMAT=${integers}:${decimals}`);
  const names = sizes.map((_, k) => code(k));
  for (const [k, mm] of sizes.entries()) {
    const speed = c.is(0.3) ? "F100S50" : "";
    head.push(`${names[k]}${speed && c.is(0.5) ? speed : ""}C${(mm / unit).toFixed(isInch ? 4 : 3)}`);
  }
  head.push(c.pick(["%", "M95"]));
  const body: string[] = c.is(0.5) ? ["G90", "G05"] : [];
  if (saysUnit && c.is(0.2)) body.push(isInch ? "M72" : "M71");
  for (const [k, mm] of sizes.entries()) {
    body.push(names[k]!);
    let [px, py] = ["", ""];
    for (const h of holes.filter((q) => q.mm === mm)) {
      const [x, y] = [number(h.x), number(h.y)];
      if (h.to) {
        body.push(`X${x}Y${y}G85X${number(h.to[0])}Y${number(h.to[1])}`);
        [px, py] = ["", ""];
        continue;
      }
      // a coordinate that stays need not be written again
      const isModal = c.is(0.5);
      const words = `${isModal && x === px ? "" : `X${x}`}${isModal && y === py ? "" : `Y${y}`}`;
      if (words !== "") body.push(words);
      [px, py] = [x, y];
    }
  }
  body.push(c.pick(["M30", "M00\nM30"]));
  return { text: [...head, ...body, ""].join(end), isOpen: !saysUnit || !saysZeros };
}

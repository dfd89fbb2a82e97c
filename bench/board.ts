import { random } from "./random.ts";
/**
 * A board of about `objects` copper objects on four layers, with holes, as its files: rows of tracks with pads at their
 * ends on layers 1 and 3, columns on 2 and 4, vias where ends meet nothing, an outline around all.
 */
export function largeBoard(objects: number, holes: number): { path: string; bytes: Uint8Array }[] {
  const rnd = random(3);
  const perLayer = Math.round(objects / 4);
  const strokes = Math.round((perLayer * 5) / 7);
  const size = Math.sqrt(strokes * 0.78) + 6;
  const ends: [number, number][] = [];
  const nm = (v: number) => Math.round(v * 1e6);
  const layer = (index: number): string => {
    const lines = [
      `%TF.FileFunction,Copper,L${index + 1},${index === 0 ? "Top" : index === 3 ? "Bot" : "Inr"}*%`,
      "%FSLAX46Y46*%",
      "%MOMM*%",
      "G75*",
      "G01*",
      "%ADD10C,0.15*%",
      "%ADD11C,0.2*%",
      "%ADD12C,0.3*%",
      "%ADD13R,0.3X0.26*%",
    ];
    const isColumn = index % 2 === 1;
    const put = (x: number, y: number, d: string) =>
      lines.push(isColumn ? `X${nm(y)}Y${nm(x)}${d}` : `X${nm(x)}Y${nm(y)}${d}`);
    const pads: [number, number][] = [];
    let drawn = 0;
    for (let y = 1; drawn < strokes && y < size - 1; y += 0.42) {
      let x = 1 + rnd() * 2;
      while (x < size - 3 && drawn < strokes) {
        lines.push(rnd() < 0.5 ? "D10*" : "D11*");
        put(x, y, "D02*");
        pads.push([x, y]);
        for (let k = 2 + Math.floor(rnd() * 7); k > 0 && drawn < strokes && x < size - 3; k--, drawn++) {
          x += 0.6 + rnd() * 1.4;
          put(x, y, "D01*");
        }
        pads.push([x, y]);
        x += 0.7 + rnd() * 1.2;
      }
    }
    for (let k = perLayer - strokes; k > 0; k--) {
      const [x, y] = pads[Math.floor(rnd() * pads.length)]!;
      if (k % 2 === 0) lines.push("D12*");
      else lines.push("D13*");
      put(x, y, "D03*");
      ends.push(isColumn ? [y, x] : [x, y]);
    }
    return `${lines.join("\n")}\nM02*\n`;
  };
  const text: [string, string][] = [0, 1, 2, 3].map((i) => [`large-l${i + 1}.gbr`, layer(i)]);
  const hits = Array.from({ length: holes }, () => ends[Math.floor(rnd() * ends.length)]!);
  text.push([
    "large-plated.drl",
    `M48\nMETRIC\nT1C0.2\n%\nT1\n${hits.map(([x, y]) => `X${x.toFixed(4)}Y${y.toFixed(4)}`).join("\n")}\nM30\n`,
  ]);
  const s = nm(size);
  text.push([
    "large-profile.gbr",
    `%TF.FileFunction,Profile,NP*%\n%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,0.1*%\nD10*\nX0Y0D02*\nG01X${s}Y0D01*\nX${s}Y${s}D01*\nX0Y${s}D01*\nX0Y0D01*\nM02*\n`,
  ]);
  return text.map(([path, t]) => ({ path, bytes: new TextEncoder().encode(t) }));
}

export const HEAD = "%FSLAX46Y46*%\n%MOMM*%\nG75*\n";
const nm = (v: number) => Math.round(v * 1e6);
export const line = (x1: number, y1: number, x2: number, y2: number) =>
  `X${nm(x1)}Y${nm(y1)}D02*\nG01X${nm(x2)}Y${nm(y2)}D01*\n`;
export const flash = (x: number, y: number) => `X${nm(x)}Y${nm(y)}D03*\n`;
export const pads = [
  [6, 6],
  [10, 6],
  [6, 12],
  [10, 12],
] as const;

/** A board of nobody's, written by hand: 26 × 18 mm, two parts, one via, one unplated hole. */
export const LAMP: Readonly<Record<string, string>> = {
  "lamp.gtl": `${HEAD}%ADD10R,1.2X1.4*%\n%ADD11C,0.35*%\n%ADD12C,0.8*%\nD10*\n${pads.map(([x, y]) => flash(x, y)).join("")}D12*\n${flash(18, 9)}D11*\n${line(10, 6, 18, 9)}${line(10, 12, 18, 9)}M02*\n`,
  "lamp.gbl": `${HEAD}%ADD11C,0.35*%\n%ADD12C,0.8*%\nD12*\n${flash(18, 9)}D11*\n${line(18, 9, 23, 9)}M02*\n`,
  "lamp.gts": `${HEAD}%ADD10R,1.3X1.5*%\nD10*\n${pads.map(([x, y]) => flash(x, y)).join("")}M02*\n`,
  "lamp.gbs": `${HEAD}%ADD10C,1*%\nD10*\n${flash(23, 9)}M02*\n`,
  "lamp.gtp": `${HEAD}%ADD10R,1.2X1.4*%\nD10*\n${pads.map(([x, y]) => flash(x, y)).join("")}M02*\n`,
  "lamp.gto": `${HEAD}%ADD10C,0.18*%\nD10*\n${line(5, 8, 11, 8)}M02*\n`,
  "lamp.gko": `${HEAD}%ADD10C,0.1*%\nD10*\n${line(0, 0, 26, 0)}${line(26, 0, 26, 18)}${line(26, 18, 0, 18)}${line(0, 18, 0, 0)}M02*\n`,
  "lamp-pth.drl": "M48\nMETRIC\nT1C0.400\n%\nT1\nX18.0Y9.0\nM30\n",
  "lamp-npth.drl": "M48\nMETRIC\nT1C3.200\n%\nT1\nX22.0Y4.0\nM30\n",
  "lamp parts.csv":
    "Designator;Quantity;Comment;Footprint;Part Number\nR1;1;330R;1206;ZZ-330\nD1;1;red;1206;ZZ-RED\n;2;M3 screw;;ZZ-M3\n",
  "lamp places.csv": "Ref,X,Y,Rot,Side\nR1,8,6,0,top\nD1,8,12,180,top\n",
};
export const payload = (files: Readonly<Record<string, string>>) =>
  Object.entries(files).map(([name, text]) => ({
    name,
    mimeType: "application/octet-stream",
    buffer: Buffer.from(text),
  }));

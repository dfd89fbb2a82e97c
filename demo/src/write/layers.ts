import type { Design, Edge, Pad } from "../design.ts";

const nm = (mm: number) => String(Math.round(mm * 1e6));
const STAMP = "2026-10-05T09:00:00+00:00";

/** One layer in the published layer format, attributes included. */
export class LayerText {
  private readonly head: string[];
  private readonly defs: string[] = [];
  private readonly body: string[] = [];
  private readonly codes = new Map<string, number>();
  private macro = false;
  private current = 0;
  private dark = true;
  private object = "";

  constructor(design: Design, fn: string, polarity: string) {
    this.head = [
      "%TF.GenerationSoftware,Kobbin,Demo,1*%",
      `%TF.CreationDate,${STAMP}*%`,
      `%TF.ProjectId,${design.name},0b0b0b0b-0001-4000-8000-000000000001,${design.revision}*%`,
      "%TF.SameCoordinates,Original*%",
      `%TF.FileFunction,${fn}*%`,
      `%TF.FilePolarity,${polarity}*%`,
      "%FSLAX46Y46*%",
      "%MOMM*%",
    ];
  }

  private stamp(template: string, fn = ""): void {
    const key = `${template}|${fn}`;
    let code = this.codes.get(key);
    if (code === undefined) {
      code = 10 + this.codes.size;
      this.codes.set(key, code);
      if (fn) this.defs.push(`%TA.AperFunction,${fn}*%`);
      this.defs.push(`%ADD${code}${template}*%`);
      if (fn) this.defs.push("%TD.AperFunction*%");
    }
    if (this.current !== code) this.body.push(`D${code}*`);
    this.current = code;
  }

  private polarity(dark: boolean): void {
    if (this.dark !== dark) this.body.push(dark ? "%LPD*%" : "%LPC*%");
    this.dark = dark;
  }

  private attach(lines: readonly string[]): void {
    const key = lines.join("");
    if (key === this.object) return;
    if (this.object !== "") this.body.push("%TD*%");
    this.body.push(...lines);
    this.object = key;
  }

  flash(p: Pad, grow = 0, attributes = false): void {
    this.polarity(true);
    this.attach(
      attributes
        ? [
            ...(p.ref && p.function !== "ViaPad" ? [`%TO.P,${p.ref},${p.pin}*%`] : []),
            ...(p.net ? [`%TO.N,${p.net}*%`] : []),
          ]
        : [],
    );
    const f = (v: number) => (v + 2 * grow).toFixed(6);
    const fn = attributes ? p.function : "";
    if (p.shape === "circle") this.stamp(`C,${f(p.w)}`, fn);
    else if (p.shape === "rect") this.stamp(`R,${f(p.w)}X${f(p.h)}`, fn);
    else if (p.shape === "oval") this.stamp(`O,${f(p.w)}X${f(p.h)}`, fn);
    else {
      this.macro = true;
      const r = cornerOf(p) + grow;
      this.stamp(`SOFT,${f(p.w)}X${f(p.h)}X${r.toFixed(6)}`, fn);
    }
    this.body.push(`X${nm(p.x)}Y${nm(p.y)}D03*`);
  }

  line(x1: number, y1: number, x2: number, y2: number, width: number, fn = "", net = ""): void {
    this.polarity(true);
    this.attach(net ? [`%TO.N,${net}*%`] : []);
    this.stamp(`C,${width.toFixed(6)}`, fn);
    this.body.push("G01*", `X${nm(x1)}Y${nm(y1)}D02*`, `X${nm(x2)}Y${nm(y2)}D01*`);
  }

  edges(edges: readonly Edge[], width: number): void {
    this.stamp(`C,${width.toFixed(6)}`, "Profile");
    let isFirst = true;
    for (const e of edges) {
      if (isFirst) this.body.push(`X${nm(e.x1)}Y${nm(e.y1)}D02*`);
      isFirst = false;
      if (e.arc)
        this.body.push(
          e.arc.ccw ? "G03*" : "G02*",
          `X${nm(e.x2)}Y${nm(e.y2)}I${nm(e.arc.cx - e.x1)}J${nm(e.arc.cy - e.y1)}D01*`,
        );
      else this.body.push("G01*", `X${nm(e.x2)}Y${nm(e.y2)}D01*`);
    }
  }

  region(ring: readonly number[], dark: boolean, net = ""): void {
    this.polarity(dark);
    if (dark) this.attach(net ? [`%TO.N,${net}*%`] : []);
    this.body.push("G36*", "G01*", `X${nm(ring[0]!)}Y${nm(ring[1]!)}D02*`);
    for (let i = 2; i < ring.length; i += 2) this.body.push(`X${nm(ring[i]!)}Y${nm(ring[i + 1]!)}D01*`);
    this.body.push(`X${nm(ring[0]!)}Y${nm(ring[1]!)}D01*`, "G37*");
  }

  text(): string {
    // a rectangle with four round corners of radius $3
    const soft =
      "%AMSOFT*21,1,$1,$2-$3-$3,0,0,0*21,1,$1-$3-$3,$2,0,0,0*1,1,$3+$3,$1/2-$3,$2/2-$3*1,1,$3+$3,$3-$1/2,$2/2-$3*1,1,$3+$3,$3-$1/2,$3-$2/2*1,1,$3+$3,$1/2-$3,$3-$2/2*%";
    return `${[...this.head, ...(this.macro ? [soft] : []), ...this.defs, "G75*", "%LPD*%", ...this.body, "M02*"].join("\n")}\n`;
  }
}

/** Corner radius of a rounded pad: a quarter of its lesser side, 0.2 mm at most. */
export const cornerOf = (p: { w: number; h: number }) => Math.min(0.2, Math.min(p.w, p.h) / 4);

/** How much the mask opens beyond a pad. */
export const MASK_GROWTH = 0.05;

/** All layer images of a design: file name → text. */
export function writeLayers(d: Design): Record<string, string> {
  const out: Record<string, string> = {};
  for (const side of ["top", "bottom"] as const) {
    const here = (p: Pad) => p.side === "through" || p.side === side;
    const word = side === "top" ? "Top" : "Bot";
    const copper = new LayerText(d, `Copper,${side === "top" ? "L1" : "L2"},${word}`, "Positive");
    for (const f of d.fills.filter((f) => f.layer === side)) {
      copper.region(f.outer, true, f.net);
      for (const h of f.holes) copper.region(h, false);
    }
    for (const t of d.tracks.filter((t) => t.layer === side))
      copper.line(t.x1, t.y1, t.x2, t.y2, t.width, "Conductor", t.net);
    for (const p of d.pads.filter(here)) copper.flash(p, 0, true);
    out[`${d.name}-copper-${side}.gbr`] = copper.text();
    const mask = new LayerText(d, `Soldermask,${word}`, "Negative");
    for (const p of d.pads.filter((p) => here(p) && p.mask)) mask.flash(p, MASK_GROWTH);
    for (const m of d.maskExtra.filter((m) => m.side === side))
      mask.region([m.x, m.y, m.x + m.w, m.y, m.x + m.w, m.y + m.h, m.x, m.y + m.h], true);
    for (const h of d.holes)
      mask.flash(
        {
          ref: "",
          pin: "",
          net: "",
          x: h.x,
          y: h.y,
          shape: "circle",
          w: h.d,
          h: h.d,
          side: "through",
          function: "ViaPad",
          mask: true,
          paste: false,
        },
        MASK_GROWTH,
      );
    out[`${d.name}-mask-${side}.gbr`] = mask.text();
    const ink = d.ink.filter((i) => i.side === side && i.lines.length > 0);
    if (ink.length > 0) {
      const legend = new LayerText(d, `Legend,${word}`, "Positive");
      for (const i of ink) for (const l of i.lines) legend.line(...l, i.width);
      out[`${d.name}-legend-${side}.gbr`] = legend.text();
    }
    const paste = d.pads.filter((p) => p.paste && p.side === side);
    if (paste.length > 0) {
      const layer = new LayerText(d, `Paste,${word}`, "Positive");
      for (const p of paste) layer.flash(p);
      out[`${d.name}-paste-${side}.gbr`] = layer.text();
    }
  }
  const profile = new LayerText(d, "Profile,NP", "Positive");
  profile.edges(d.edges, 0.1);
  for (const c of d.cutouts) profile.edges(c, 0.1);
  out[`${d.name}-profile.gbr`] = profile.text();
  return out;
}

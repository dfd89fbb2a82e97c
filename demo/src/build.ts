import type { Design, Edge, Ink, Pad, Part, Track } from "./design.ts";
import { fill } from "./fill.ts";
import { letter, textWidth } from "./font.ts";
import { PATTERNS, placePads } from "./footprints.ts";
import { type RouteRules, route } from "./router.ts";

/** A part as a board's source states it: what it is, where it sits, and its nets by pin. */
export interface Seat {
  readonly ref: string;
  readonly value: string;
  readonly package: string;
  readonly mpn: string;
  readonly maker?: string;
  readonly description?: string;
  readonly dnp?: boolean;
  readonly at?: readonly [number, number, number?];
  readonly nets?: Readonly<Record<string, string>>;
}

export interface BoardSource {
  readonly name: string;
  readonly revision: string;
  readonly thickness: number;
  readonly width: number;
  readonly height: number;
  readonly edges: readonly Edge[];
  readonly cutouts: readonly (readonly Edge[])[];
  readonly seats: readonly Seat[];
  /** Parts of the product that are not on the board. */
  readonly loose: readonly Seat[];
  readonly extraPads: readonly Pad[];
  readonly holes: Design["holes"];
  readonly slots: Design["slots"];
  readonly maskExtra: Design["maskExtra"];
  readonly titles: readonly {
    readonly text: string;
    readonly x: number;
    readonly y: number;
    readonly height: number;
    readonly side: "top" | "bottom";
    readonly width?: number;
  }[];
  readonly inside: (x: number, y: number, reach: number) => boolean;
  readonly rules: RouteRules;
  readonly fillNet?: string;
  /** Stretches, with a reach, that fills stay out of: the contacts of a card. */
  readonly fillSpares?: readonly {
    readonly x1: number;
    readonly y1: number;
    readonly x2: number;
    readonly y2: number;
    readonly r: number;
  }[];
}

/** Turns a source into the drawing list: pads, tracks, vias, fills and lettering. */
export function build(source: BoardSource): Design {
  const pads: Pad[] = [...source.extraPads];
  const parts: Part[] = [];
  for (const s of source.seats) {
    const pattern = PATTERNS[s.package];
    if (s.at && !pattern) throw new Error(`no land pattern ${s.package}`);
    if (s.at)
      pads.push(...placePads(pattern!, s.ref, s.at[0], s.at[1], s.at[2] ?? 0, (pin) => s.nets?.[pin] ?? ""));
    parts.push(toPart(s, pattern !== undefined && !pattern.isThrough));
  }
  for (const s of source.loose) parts.push(toPart(s, false));
  refuseOverlaps(pads);
  const keep = [
    ...source.holes.map((h) => ({ x1: h.x, y1: h.y, x2: h.x, y2: h.y, r: h.d / 2 })),
    ...source.slots.map((s) => ({ ...s, r: s.d / 2 })),
  ];
  const free = (x: number, y: number, reach: number) =>
    source.inside(x, y, reach + 0.5) && keep.every((k) => segmentDistance(k, x, y) > k.r + 0.35 + reach);
  const routed = route(pads, source.width, source.height, free, source.rules);
  const vias: Pad[] = routed.vias.map(
    (v): Pad => ({
      ref: "",
      pin: "",
      net: v.net,
      x: v.x,
      y: v.y,
      shape: "circle",
      w: source.rules.viaPad,
      h: source.rules.viaPad,
      side: "through",
      drill: source.rules.viaDrill,
      function: "ViaPad",
      mask: false,
      paste: false,
    }),
  );
  const all = [...pads, ...vias];
  const spared = [...keep.map((k) => ({ ...k, r: k.r + 0.4 })), ...(source.fillSpares ?? [])];
  const fills = source.fillNet
    ? (["top", "bottom"] as const).flatMap((layer) =>
        fill(source.edges, source.cutouts, layer, source.fillNet!, all, routed.tracks, spared, 0.25),
      )
    : [];
  return {
    name: source.name,
    revision: source.revision,
    thickness: source.thickness,
    edges: source.edges,
    cutouts: source.cutouts,
    pads: all,
    tracks: routed.tracks as Track[],
    fills,
    ink: lettering(source, pads),
    parts,
    holes: source.holes,
    slots: source.slots,
    maskExtra: source.maskExtra,
  };
}

/** Two parts' pads closer than 0.2 mm are a mistake of the source. */
function refuseOverlaps(pads: readonly Pad[]): void {
  const bad: string[] = [];
  pads.forEach((a, i) => {
    for (const b of pads.slice(i + 1)) {
      if (a.ref === b.ref || (a.side !== b.side && a.side !== "through" && b.side !== "through")) continue;
      const dx = Math.abs(a.x - b.x) - (a.w + b.w) / 2;
      const dy = Math.abs(a.y - b.y) - (a.h + b.h) / 2;
      if (Math.max(dx, dy) < 0.2) bad.push(`${a.ref}.${a.pin} and ${b.ref}.${b.pin}`);
    }
  });
  if (bad.length > 0) throw new Error(`pads too close: ${bad.join("; ")}`);
}

const toPart = (s: Seat, smd: boolean): Part => ({
  ref: s.ref,
  value: s.value,
  package: s.package,
  mpn: s.mpn,
  maker: s.maker ?? "",
  description: s.description ?? "",
  ...(s.dnp ? { dnp: true } : {}),
  ...(s.at ? { x: s.at[0], y: s.at[1], rotation: s.at[2] ?? 0, side: "top" as const } : {}),
  smd,
});

const segmentDistance = (k: { x1: number; y1: number; x2: number; y2: number }, x: number, y: number) => {
  const l2 = (k.x2 - k.x1) ** 2 + (k.y2 - k.y1) ** 2;
  const t =
    l2 > 0 ? Math.max(0, Math.min(1, ((x - k.x1) * (k.x2 - k.x1) + (y - k.y1) * (k.y2 - k.y1)) / l2)) : 0;
  return Math.hypot(x - k.x1 - t * (k.x2 - k.x1), y - k.y1 - t * (k.y2 - k.y1));
};

/** References beside their parts where no pad is covered, bodies, pin-one marks and titles. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one alphabet on one board
function lettering(source: BoardSource, pads: readonly Pad[]): Ink[] {
  const taken: [number, number, number, number][] = pads.map((p) => [
    p.x - p.w / 2 - 0.15,
    p.y - p.h / 2 - 0.15,
    p.x + p.w / 2 + 0.15,
    p.y + p.h / 2 + 0.15,
  ]);
  const hits = (b: readonly number[]) =>
    taken.some((t) => b[0]! < t[2] && b[2]! > t[0] && b[1]! < t[3] && b[3]! > t[1]);
  const thin: [number, number, number, number][] = [];
  const bottom: [number, number, number, number][] = [];
  const H = 0.9;
  for (const t of source.titles) {
    const w = textWidth(t.text, t.height);
    const x = t.side === "top" ? t.x : t.x + w;
    (t.side === "top" ? thin : bottom).push(...letter(t.text, x, t.y, t.height, t.side === "bottom"));
    if (t.side === "top") taken.push([t.x - 0.2, t.y - 0.2, t.x + w + 0.2, t.y + t.height + 0.2]);
  }
  for (const s of source.seats) {
    if (!s.at) continue;
    const [x, y, rot = 0] = s.at;
    const [bw, bh] = PATTERNS[s.package]!.body;
    const [hw, hh] = rot % 180 === 0 ? [bw, bh] : [bh, bw];
    const isSmall = Math.max(hw, hh) < 1.2;
    if (!isSmall) {
      const box: [number, number, number, number][] = [
        [x - hw, y - hh, x + hw, y - hh],
        [x + hw, y - hh, x + hw, y + hh],
        [x + hw, y + hh, x - hw, y + hh],
        [x - hw, y + hh, x - hw, y - hh],
      ];
      for (const l of box)
        if (
          !hits([
            Math.min(l[0], l[2]) - 0.1,
            Math.min(l[1], l[3]) - 0.1,
            Math.max(l[0], l[2]) + 0.1,
            Math.max(l[1], l[3]) + 0.1,
          ])
        )
          thin.push(l);
      if (/^(U|D|Y)/.test(s.ref)) {
        // the mark of pin one: inside the corner where no pad lies, else beside the corner
        const [cx, cy] = [x - hw, y - hh];
        const mark = [0.8, 1.2, 1.6, -0.5, -0.9]
          .map((d): [number, number, number, number] => [cx + d, cy + d, cx + d + 0.3, cy + d])
          .find((l) => !hits([l[0] - 0.1, l[1] - 0.1, l[2] + 0.1, l[3] + 0.1]));
        if (mark) thin.push(mark);
      }
    }
    const w = textWidth(s.ref, H);
    const reach = pads
      .filter((p) => p.ref === s.ref)
      .reduce(
        (r, p) => [
          Math.max(r[0]!, Math.abs(p.x - x) + p.w / 2),
          Math.max(r[1]!, Math.abs(p.y - y) + p.h / 2),
        ],
        [hw, hh],
      );
    const spots = [
      [x - w / 2, y + reach[1]! + 0.35],
      [x - w / 2, y - reach[1]! - 0.35 - H],
      [x + reach[0]! + 0.35, y - H / 2],
      [x - reach[0]! - 0.35 - w, y - H / 2],
      [x - w / 2, y - H / 2],
    ] as const;
    for (const [tx, ty] of spots) {
      const b: [number, number, number, number] = [tx - 0.1, ty - 0.1, tx + w + 0.1, ty + H + 0.1];
      if (hits(b) || !source.inside(tx, ty, 0.3) || !source.inside(tx + w, ty + H, 0.3)) continue;
      taken.push(b);
      thin.push(...letter(s.ref, tx, ty, H));
      break;
    }
  }
  return [
    { side: "top", width: 0.15, lines: thin },
    { side: "bottom", width: 0.15, lines: bottom },
  ];
}

import type { LayerImage } from "../gerber/image.ts";

/** What a file is for; see docs/glossary.md. */
export type Role =
  | "copper"
  | "mask"
  | "legend"
  | "paste"
  | "profile"
  | "drill"
  | "job"
  | "netlist"
  | "bom"
  | "placement"
  | "score"
  | "drawing"
  | "unknown";
/** Which side of the board; inner layers carry an index from 1. */
export type Side = "top" | "bottom" | "inner";
/** Where the role came from. */
export type Because = "attribute" | "job" | "content" | "name" | "corrected";

/** A role with its reason. */
export interface RoleGuess {
  readonly role: Role;
  readonly side?: Side;
  readonly index?: number;
  readonly plated?: boolean | "mixed";
  readonly because: Because;
  /** The words that decided, for the person. */
  readonly reason: string;
  /** Counted from the top, 1 is the top, where only that is known: its place in the stack follows from the others. */
  readonly layerNumber?: number;
  /** Why it may be otherwise: a sentence that asks. */
  readonly doubt?: string;
}

const sideOf = (word: string | undefined): { side?: Side } =>
  /^top$/i.test(word ?? "") ? { side: "top" } : /^bot/i.test(word ?? "") ? { side: "bottom" } : {};

/**
 * Role from a file function attribute, as ["Copper", "L1", "Top"] (values recalled from the published format).
 * @returns undefined where the attribute says nothing usable
 */
export function roleFromFunction(
  fields: readonly string[],
  because: "attribute" | "job",
): RoleGuess | undefined {
  const [key = "", a, b] = fields;
  const reason = `${because === "job" ? "the job file" : "its own attribute"} says ${fields.slice(0, 3).join(", ")}`;
  const make = (role: Role, more: Partial<RoleGuess> = {}): RoleGuess => ({ role, ...more, because, reason });
  switch (key.toLowerCase()) {
    case "copper": {
      const p = Number(/^L(\d+)$/i.exec(a ?? "")?.[1] ?? 0);
      if (/^inr$/i.test(b ?? "")) return make("copper", { side: "inner", index: Math.max(1, p - 1) });
      return make("copper", sideOf(b));
    }
    case "soldermask":
      return make("mask", sideOf(a));
    case "legend":
      return make("legend", sideOf(a));
    case "paste":
      return make("paste", sideOf(a));
    case "profile":
      return make("profile");
    case "plated":
      return make("drill", { plated: true });
    case "nonplated":
      return make("drill", { plated: false });
    case "mixedplating":
      return make("drill", { plated: "mixed" });
    case "vcut":
      return make("score");
    case "component":
      return make("placement", sideOf(b));
    case "drillmap":
    case "fabricationdrawing":
    case "assemblydrawing":
    case "arraydrawing":
    case "vcutmap":
    case "otherdrawing":
      return make("drawing");
    default:
      return key === "" ? undefined : make("unknown");
  }
}

/** A few facts about a layer that let its content speak. */
export interface LayerFacts {
  readonly flashes: number;
  readonly strokes: number;
  readonly regions: number;
  readonly widths: number;
  readonly box: readonly [number, number, number, number] | undefined;
  readonly closedLoops: boolean;
}

/** Counts what a layer consists of. */
export function factsOf(image: LayerImage): LayerFacts {
  let [flashes, strokes, regions] = [0, 0, 0];
  const widths = new Set<number>();
  let box: [number, number, number, number] | undefined;
  const ends = new Map<string, number>();
  const end = (x: number, y: number) => {
    const key = `${Math.round(x * 50)} ${Math.round(y * 50)}`;
    ends.set(key, (ends.get(key) ?? 0) + 1);
  };
  const grow = (x: number, y: number) => {
    box = box
      ? [Math.min(box[0], x), Math.min(box[1], y), Math.max(box[2], x), Math.max(box[3], y)]
      : [x, y, x, y];
  };
  for (let i = 0; i < image.n; i++) {
    const o = i * 6;
    const g = image.geo;
    if (image.kind[i] === 5) {
      regions++;
      for (let k = g[o]!; k < g[o + 1]!; k++) grow(image.points[k * 2]!, image.points[k * 2 + 1]!);
      continue;
    }
    grow(g[o]!, g[o + 1]!);
    if (image.kind[i] === 4) flashes++;
    else {
      strokes++;
      grow(g[o + 2]!, g[o + 3]!);
      if (strokes < 5000) {
        end(g[o]!, g[o + 1]!);
        end(g[o + 2]!, g[o + 3]!);
      }
      const w = image.apertures[image.aperture[i]!]?.circleMm;
      if (w !== undefined) widths.add(Math.round(w * 1e4));
    }
  }
  return {
    flashes,
    strokes,
    regions,
    widths: widths.size,
    box,
    closedLoops: strokes >= 3 && [...ends.values()].every((n) => n % 2 === 0),
  };
}

/** Role of an image nobody names, from its content alone: closed thin loops are the profile, many flashes copper. */
export function roleFromContent(facts: LayerFacts): RoleGuess | undefined {
  const make = (role: Role, reason: string): RoleGuess => ({ role, because: "content", reason });
  if (facts.flashes === 0 && facts.regions === 0 && facts.closedLoops && facts.widths <= 1)
    return make("profile", "it holds closed thin lines only");
  if (facts.flashes > 3 && facts.strokes > 3 && facts.widths >= 1)
    return make("copper", `it holds ${facts.flashes} pads and ${facts.strokes} tracks`);
  return undefined;
}

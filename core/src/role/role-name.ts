import type { Role, RoleGuess, Side } from "./role.ts";

/** What a word in a file's name means. */
type Meaning =
  | { readonly role: Role; readonly weight: number; readonly not?: string }
  | { readonly side: Side; readonly weight: number };

/** Endings that some layout programs give each layer; each is a role and a side by itself (rules of domain.md 2.1). */
const EXTENSIONS: Readonly<Record<string, readonly [Role, Side?]>> = {
  gtl: ["copper", "top"],
  cmp: ["copper", "top"],
  gbl: ["copper", "bottom"],
  sol: ["copper", "bottom"],
  gts: ["mask", "top"],
  stc: ["mask", "top"],
  tsm: ["mask", "top"],
  gbs: ["mask", "bottom"],
  sts: ["mask", "bottom"],
  bsm: ["mask", "bottom"],
  gto: ["legend", "top"],
  plc: ["legend", "top"],
  sst: ["legend", "top"],
  gbo: ["legend", "bottom"],
  pls: ["legend", "bottom"],
  ssb: ["legend", "bottom"],
  gtp: ["paste", "top"],
  crc: ["paste", "top"],
  spt: ["paste", "top"],
  gbp: ["paste", "bottom"],
  crs: ["paste", "bottom"],
  spb: ["paste", "bottom"],
  gko: ["profile"],
  gm1: ["profile"],
  gml: ["profile"],
  oln: ["profile"],
  dim: ["profile"],
  bor: ["profile"],
};

const role = (r: Role, weight: number, not?: string): Meaning => ({
  role: r,
  weight,
  ...(not ? { not } : {}),
});
const top: Meaning = { side: "top", weight: 2 };
const bottom: Meaning = { side: "bottom", weight: 2 };
const letter = (side: Side): Meaning => ({ side, weight: 1 });

/** Words by what they mean. Of several roles in a name the heavier one speaks: paste before mask, mask before copper. */
const WORDS: Readonly<Record<string, Meaning>> = Object.fromEntries(
  (
    [
      ["top upper front primary component components comp oben vorne dessus haut cima superior", top],
      ["bottom bot lower back rear secondary unten hinten dessous bas inferior btm", bottom],
      ["f t cs", letter("top")],
      ["b ss", letter("bottom")],
      ["inner inr internal int mid innen midlayer", { side: "inner", weight: 2 }],
      ["paste cream stencil solderpaste spaste pastemask tcream bcream schablone lotpaste", role("paste", 9)],
      [
        "mask soldermask solderresist resist sm stop stopmask smask solderstop lotstopp stopplack tstop bstop",
        role("mask", 8),
      ],
      [
        "silk silkscreen silks legend overlay ink screen ident bestueckungsdruck place tplace bplace slk",
        role("legend", 8),
      ],
      [
        "copper cu signal sig plane track tracks conductor wiring etch kupfer leiterbahn cuivre cobre",
        role("copper", 4),
      ],
      [
        "outline profile contour edge edges border boundary cuts cutout dimension dimensions umriss kontur route routing milling mill outlines",
        role("profile", 7),
      ],
      ["vcut vscore score scoring vgroove ritz", role("score", 8)],
      ["adhesive adhes adhesives glue glued kleber tglue bglue", role("unknown", 12, "adhesive")],
      ["peelable peel strip abziehlack", role("unknown", 12, "peelable mask")],
      ["carbon carbonink", role("unknown", 12, "carbon ink")],
      ["courtyard crtyd keepout keepin", role("drawing", 11, "room around parts")],
      [
        "assembly assy assemblydrawing bestueckung fab fabrication fabdrawing doc docs documentation document dwg drawing drawings comments user eco margin readme notes tdocu bdocu",
        role("drawing", 11, "a drawing"),
      ],
      ["drillmap drillguide drilldrawing drillplan map guide", role("drawing", 11, "a drawing")],
    ] as const
  ).flatMap(([words, meaning]) => words.split(" ").map((w): [string, Meaning] => [w, meaning])),
);
/** Words that say nothing, beside which a word of a side alone still speaks. */
const FILLER = new Set(
  "layer layers board brd pcb side gerber gbr art pho ger file final rev main the".split(" "),
);
/** Words that may stand glued to others, the longest first. */
const GLUED = Object.keys(WORDS)
  .filter((w) => w.length >= 3 || w === "cu")
  .concat("layer", "board", "brd", "pcb", "side")
  .sort((a, b) => b.length - a.length);

/**
 * Words of a file's name, its ending left off: parted at signs, where the case changes, between letters and digits, and
 * where known words are glued together.
 *
 * @example wordsOf("boardBottomMask.gbr") // ["board", "bottom", "mask"]
 */
export function wordsOf(path: string): string[] {
  const name = (path.split("/").pop() ?? path).replace(/\.[A-Za-z0-9]{1,4}$/, "");
  return name
    .replace(/([a-z\d])([A-Z])/g, "$1 $2")
    .replace(/([A-Z]+)([A-Z][a-z])/g, "$1 $2")
    .toLowerCase()
    .split(/[^\p{L}\d]+/u)
    .flatMap((w) => w.split(/(?<=\p{L})(?=\d)|(?<=\d)(?=\p{L})/u))
    .filter((w) => w !== "")
    .flatMap(unglue)
    .reduce<string[]>((all, w) => {
      // one word that the case parted: VCut, CrtYd
      const joined = (all.at(-1) ?? "") + w;
      if (all.length > 0 && Object.hasOwn(WORDS, joined)) all[all.length - 1] = joined;
      else all.push(w);
      return all;
    }, []);
}

/** A word taken apart where all of it, or all but its beginning, is known words and one of them names a layer. */
function unglue(word: string): string[] {
  if (word in WORDS || FILLER.has(word) || word.length < 5) return [word];
  const parts: string[] = [];
  let rest = word;
  while (rest !== "") {
    const w = GLUED.find((g) => rest.endsWith(g));
    if (w) {
      parts.unshift(w);
      rest = rest.slice(0, -w.length);
      continue;
    }
    // one letter of a side before the first word: fmask, bcu
    if (/^[ftb]$/.test(rest)) parts.unshift(rest);
    else if (parts.length === 0) return [word];
    else parts.unshift(rest);
    break;
  }
  const named = parts.filter((p) => {
    const m = WORDS[p];
    return m && "role" in m;
  });
  // a word that only ends like a side, as laptop, is a word of its own
  return named.length > 0 || parts.every((p) => p in WORDS || FILLER.has(p)) ? parts : [word];
}

/**
 * Role proposed by the name of a layer image, or undefined when the name says nothing.
 *
 * @param shared words all names of the drop have: the board's own name, which may be a layer's word by chance
 */
export function roleFromName(path: string, shared: ReadonlySet<string> = new Set()): RoleGuess | undefined {
  const file = path.split("/").pop() ?? path;
  const ext = /\.([a-z0-9]+)$/i.exec(file)?.[1]?.toLowerCase() ?? "";
  const reason = `its name, ${file}`;
  const make = (r: Role, more: Partial<RoleGuess> = {}): RoleGuess => ({
    role: r,
    ...more,
    because: "name",
    reason,
  });
  const known = EXTENSIONS[ext];
  const words = wordsOf(path).filter((w) => !shared.has(w));
  const said = fromWords(words, make);
  if (known) {
    const [r, side] = known;
    const isOther =
      said &&
      said.role !== "drawing" &&
      (said.role !== r || (said.side !== undefined && side !== undefined && said.side !== side));
    return make(r, {
      ...(side ? { side } : {}),
      ...(isOther
        ? {
            doubt: `The ending .${ext} is used for ${r}${side ? ` ${side}` : ""}, the rest of the name reads as ${said.role}${said.side ? ` ${said.side}` : ""}; the ending counts.`,
          }
        : {}),
    });
  }
  const inner = /^(?:g|gl|in|gp|ly)(\d{1,2})$/.exec(ext);
  if (inner) return make("copper", { side: "inner", index: Number(inner[1]) });
  if (ext === "top" || ext === "bot")
    return said ?? make("copper", { side: ext === "top" ? "top" : "bottom" });
  return said;
}

function fromWords(
  words: readonly string[],
  make: (r: Role, more?: Partial<RoleGuess>) => RoleGuess,
): RoleGuess | undefined {
  let best: { role: Role; weight: number; not?: string } | undefined;
  const sides = new Map<Side, number>();
  const roles = new Set<Role>();
  let rival: Role | undefined;
  for (const [i, w] of words.entries()) {
    const m = Object.hasOwn(WORDS, w) ? WORDS[w]! : undefined;
    if (!m) continue;
    if ("side" in m) {
      sides.set(m.side, Math.max(sides.get(m.side) ?? 0, m.weight));
      continue;
    }
    // "paste mask" is paste, "edge cuts" one word; a drill's map is a drawing only where it says drill
    if ((w === "map" || w === "guide") && words[i - 1] !== "drill") continue;
    roles.add(m.role);
    if (!best || m.weight > best.weight) {
      best = m;
      rival = undefined;
    } else if (m.weight === best.weight && m.role !== best.role) rival ??= m.role;
  }
  const has = (...list: string[]) => list.some((w) => words.includes(w));
  // solder alone is the old word for the side that is soldered; beside a side it is short for the mask
  if (has("solder") && !best) {
    if (has("side") || sides.size === 0)
      return make("copper", {
        side: "bottom",
        ...(has("side")
          ? {}
          : {
              doubt:
                "“solder” may be the solder side’s copper or the solder mask; it was taken as bottom copper.",
            }),
      });
    return make("mask", { ...sideOf(sides), doubt: "“solder” beside a side was taken as the solder mask." });
  }
  const number = layerNumber(words);
  if (!best) {
    if (has("drill")) return undefined;
    if (number) return number(make);
    const side = sideOf(sides);
    // a side alone is its copper only where nothing else is said, or nothing that could name another layer
    if (side.side === undefined || side.side === "inner") return undefined;
    const others = words.filter((w) => !Object.hasOwn(WORDS, w) && !FILLER.has(w) && !/^\d+$/.test(w));
    const isStrong = (sides.get(side.side) ?? 0) > 1;
    if (!isStrong && others.length > 0) return undefined;
    return make("copper", side);
  }
  if (best.not !== undefined)
    return make(best.role, {
      ...sideOf(sides),
      ...(best.role === "unknown" ? { doubt: `A layer of ${best.not}: no copper, and not used.` } : {}),
    });
  if (best.role === "copper" && number && !sides.has("top") && !sides.has("bottom")) return number(make);
  if (best.role === "profile" || best.role === "score") return make(best.role);
  const side = sideOf(sides);
  if (!rival) return make(best.role, side);
  const doubt = `The name says ${best.role} and ${rival}; it was taken as ${best.role}.`;
  return make(best.role, { ...side, doubt: side.doubt ? `${doubt} ${side.doubt}` : doubt });
}

function sideOf(sides: ReadonlyMap<Side, number>): { side?: Side; doubt?: string } {
  const list = [...sides].sort((a, b) => b[1] - a[1]);
  if (list.length === 0) return {};
  const [first, second] = list;
  if (second && second[1] === first![1])
    return { doubt: `The name says ${first![0]} and ${second[0]}; no side was taken.` };
  return { side: first![0] };
}

/** Words a layer's number follows. */
export const NUMBERED: ReadonlySet<string> = new Set(
  "in inner inr int internal mid midlayer innen l layer ly lyr lay art signal sig cu copper plane".split(" "),
);

/**
 * The number of a layer in its name. "In2", "inner 2", "mid 2", "plane 2" count the inner ones; "L2", "layer 2", "ly2",
 * "art02" and "signal 2" count from the top.
 */
function layerNumber(
  words: readonly string[],
): ((make: (r: Role, more?: Partial<RoleGuess>) => RoleGuess) => RoleGuess) | undefined {
  for (let i = 0; i + 1 < words.length; i++) {
    const n = /^\d{1,2}$/.test(words[i + 1]!) ? Number(words[i + 1]) : 0;
    if (n < 1 || n > 64) continue;
    const w = words[i]!;
    const before = words[i - 1];
    if (
      ["in", "inner", "inr", "int", "internal", "mid", "midlayer", "innen"].includes(w) ||
      (["layer", "plane", "signal"].includes(w) &&
        ["inner", "mid", "internal", "int", "in"].includes(before ?? ""))
    )
      return (make) => make("copper", { side: "inner", index: n });
    if (["l", "layer", "ly", "lyr", "lay", "art", "signal", "sig", "cu", "copper"].includes(w))
      return (make) => make("copper", { ...(n === 1 ? { side: "top" as const } : {}), layerNumber: n });
    if (w === "plane")
      return (make) =>
        make("copper", {
          side: "inner",
          index: n,
          doubt: "The number of the plane was taken as its place among the inner layers.",
        });
  }
  return undefined;
}

import { BOM_WORDS } from "../bom/words.ts";
import { plain } from "../table/columns.ts";
import type { PlacementColumn } from "./column.ts";
import { degreesOf, factorOf, senseIn, unitIn } from "./units.ts";

/** A heading taken apart: words, the unit it names, and which way round it turns. */
export interface Heading {
  readonly words: readonly string[];
  /** Millimetres in one of the unit it names. */
  readonly factor?: number;
  /** Degrees in one of the unit of angle it names. */
  readonly degrees?: number;
  readonly sense?: "clockwise" | "counter-clockwise";
}

/** Words of a heading, parted at signs, where the case changes and before a single X or Y; units among them apart. */
export function headingOf(text: string): Heading {
  const parted = text.replace(/([a-z])([A-Z])/g, "$1 $2").replace(/^[#;*%!/\s"]+/, "");
  const degrees = unitIn(parted, degreesOf);
  const length = unitIn(parted.replace(/([xy])(mm|mils?|in|inch|um)(?![a-z])/gi, "$1 $2"), factorOf);
  const sense = senseIn(parted);
  const words = parted
    .toLowerCase()
    .split(/[^\p{L}\p{N}"″µμ]+/u)
    .filter((w) => w !== "")
    .flatMap((w) => {
      if (w === "xy") return ["x", "y"];
      const m = /^(pos|mid|center|centre|loc|coord|koord|ref|pad|part|comp|body|centroid)([xy])$/.exec(w);
      if (m) return [m[1]!, m[2]!];
      const n = /^([xy])(mm|mils?|in|inch|pos|coord|koord|loc|um|position)$/.exec(w);
      return n ? [n[1]!, n[2]!] : [w];
    });
  return {
    words: words.filter((w) => factorOf(w) === undefined && degreesOf(w) === undefined && !/^\d+$/.test(w)),
    ...(length ? { factor: length.factor } : {}),
    ...(degrees ? { degrees: degrees.factor } : {}),
    ...(sense ? { sense } : {}),
  };
}

const set = (text: string) => new Set(text.split(" "));
const TURN = set(
  "rotation rot rotations angle orientation theta winkel drehung drehwinkel rotate turn rotación ángulo angulo giro rotazione angolo rotatie hoek obrót kąt rotação ângulo natočení úhel rotace vridning vinkel",
);
const MIRROR = set(
  "mirror mirrored flip flipped gespiegelt spiegeln spiegelung gespiegeld miroir espejo reflejado specchiato odbicie lustro espelhado zrcadlení spegling",
);
const SIDE = set(
  "side layer tb seite lage ebene bestückungsseite face côté cote couche cara lado capa lato faccia zijde kant laag strona warstwa camada strana vrstva sida lager mountside",
);
const UNIT = set(
  "unit units einheit einheiten unité unités unidad unidades unità eenheid jednostka jednostki unidade jednotka enhet",
);
const MIDDLE = set("mid center centre middle centroid mitte milieu centro midden środek střed");
/** Words that make of a heading with an X something else than a coordinate of the part. */
const NO_PLACE = set("size width length height offset scale step count");
const REFS = new Set(BOM_WORDS.refs);
const NO_REFERENCE = set("value val package footprint number description comment");

/** How well a heading names a column, 0 where not. */
export function weightOf({ words }: Heading, key: PlacementColumn): number {
  const has = (list: ReadonlySet<string>) => words.some((w) => list.has(w));
  const is = (...list: string[]) => words.some((w) => list.includes(w));
  if (words.length === 0 || words.length > 5) return 0;
  switch (key) {
    case "x":
    case "y":
      if (!is(key) || has(TURN) || has(NO_PLACE)) return 0;
      // of several the middle of the part counts, not its first pad or its reference
      return has(MIDDLE)
        ? 5
        : words.some((w) => /^(pad|pin)\d*$/.test(w))
          ? 1
          : is("ref", "reference")
            ? 2
            : 4;
    case "rotation":
      return has(TURN) ? 3 : 0;
    case "mirror":
      return has(MIRROR) ? 3 : 0;
    case "side":
      return has(SIDE) && !is("x", "y") ? 3 : 0;
    case "unit":
      return has(UNIT) && words.length === 1 ? 3 : 0;
    case "fitted":
      return fittedBy(words.join(" ")) ? 3 : 0;
    case "ref":
      if (is("x", "y") || has(NO_REFERENCE)) return 0;
      if (is("designator", "refdes", "designators", "bezeichner") || (is("ref") && is("des"))) return 5;
      if (is("reference", "references", "ref", "refs", "referenz", "symbol")) return 4;
      if (is("part", "component", "name", "item", "comp", "element", "bauteil")) return 2;
      return REFS.has(plain(words.join(" "))) ? 4 : 0;
  }
}

const FITTED: ReadonlyMap<string, boolean> = new Map([
  ...BOM_WORDS.fitted.map((w) => [w, true] as const),
  ...BOM_WORDS.dnp.map((w) => [w, false] as const),
]);

/** Whether a heading says what is fitted (true) or what is left off (false); undefined where it says neither. */
export const fittedBy = (heading: string): boolean | undefined => FITTED.get(plain(heading));

import { markInColumn } from "../bom/marks.ts";
import { plain } from "../table/columns.ts";

export type Side = "top" | "bottom";

/** Words that stand beside a side and say only what kind of word it is. */
const BESIDE = new Set(
  "layer side lage seite ebene face faces lado lato faccia côté cote zijde kant laag strona warstwa cara capa camada couche copper cu board pcb placement place places parts components component position positions the of auf der di parte bestückung elementy sida strana".split(
    " ",
  ),
);
const TOP = new Set(
  "t top tp f front c cs comp component p primary prim upper 1 l1 ts topside topside oben ober oberseite vorne vorderseite bestückungsseite bauteilseite dessus haut supérieure supérieur recto superior arriba cima sopra superiore boven bovenkant bovenzijde voorzijde góra górna górny góry horní přední övre ovan översida framsida ovansida".split(
    " ",
  ),
);
const BOTTOM = new Set(
  "b bot btm bt bottom back rear s solder ss secondary sec lower 2 l2 bottomside unten unter unterseite hinten rückseite lötseite dessous bas inférieure inférieur verso inferior abajo baixo sotto inferiore onder onderkant onderzijde achterzijde dół dolna dolny dolní zadní undre under undersida baksida".split(
    " ",
  ),
);

const wordsIn = (text: string) =>
  plain(text.replace(/([a-z])([A-Z])/g, "$1 $2").replace(/[_.]+/g, " "))
    .split(" ")
    .filter((w) => w !== "");

/** The side a word of it says; undefined where it says neither, or both. */
export function sideByWord(text: string): Side | undefined {
  const all = wordsIn(text);
  const says = (w: string): Side | undefined => (TOP.has(w) ? "top" : BOTTOM.has(w) ? "bottom" : undefined);
  // "component side": a word that is only beside a side is one where nothing else is
  const words = all.filter((w) => !BESIDE.has(w));
  const tell = words.length > 0 ? words : all.filter((w) => says(w) !== undefined);
  const said = new Set(tell.map(says));
  if (tell.length === 0 || said.size !== 1) return undefined;
  return [...said][0];
}

/** Pairs whose letters mean something else in another shop: told apart by what stands beside them in the column. */
const PAIRS: readonly (readonly [top: string, bottom: string])[] = [
  ["bs", "ls"],
  ["ts", "bs"],
  ["cs", "ss"],
  ["l1", "l2"],
];

/**
 * Reads the sides of a column by all that stands in it: marks that mean one thing beside one mark and another beside
 * another, and numbers of layers, where 1 is the top and the only other number the bottom.
 *
 * @param texts every cell of the column
 * @returns for a cell its side; undefined where it says neither
 */
export function sidesOf(texts: readonly string[]): (text: string) => Side | undefined {
  const kinds = new Set(texts.map((t) => plain(t)).filter((t) => t !== ""));
  const pair = PAIRS.find(([a, b]) => kinds.has(a) && kinds.has(b));
  const numbers = [...kinds].map((t) => /^(?:l|layer |lage |side )?(\d{1,2})$/.exec(t)?.[1]);
  const byNumber =
    kinds.size === 2 && numbers.every((n) => n !== undefined) && numbers.some((n) => Number(n) === 1)
      ? Math.max(...numbers.map(Number))
      : undefined;
  return (text) => {
    const t = plain(text);
    if (pair) {
      const at = pair.indexOf(t);
      if (at >= 0) return at === 0 ? "top" : "bottom";
    }
    if (byNumber !== undefined && byNumber >= 2)
      return Number(/(\d{1,2})$/.exec(t)?.[1]) === 1 ? "top" : "bottom";
    if (t === "bs" || t === "0") return undefined;
    return sideByWord(text);
  };
}

/** The side by what a column of mirrored parts says; undefined where it says neither yes nor no. */
export function sideByMirror(text: string): Side | undefined {
  const t = text.trim();
  if (/^(m|mir|mirror(ed)?|flip(ped)?|gespiegelt|gespiegeld|miroir|espejo|specchiato|espelhado|on)$/i.test(t))
    return "bottom";
  if (t === "" || /^(off|normal)$/i.test(t)) return "top";
  const said = markInColumn(t, false);
  return said === "yes" ? "bottom" : said === "no" ? "top" : undefined;
}

/** The side a title says: a few words in a row of their own, one of them a side. */
export function sideOfTitle(text: string): Side | undefined {
  const words = wordsIn(text.replace(/^[#;*%!/\s-]+/, ""));
  if (words.length === 0 || words.length > 4) return undefined;
  const sides = new Set(
    words
      .filter((w) => w.length > 2 && !BESIDE.has(w))
      .map((w) => (TOP.has(w) ? "top" : BOTTOM.has(w) ? "bottom" : undefined))
      .filter((s) => s !== undefined),
  );
  if (sides.size === 1) return [...sides][0];
  return sides.size === 0 && words.length <= 2 ? sideByWord(text.replace(/^[#;*%!/\s-]+/, "")) : undefined;
}

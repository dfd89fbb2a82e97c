import {
  answersRight,
  type Fits,
  type ImageLoad,
  imagesAt,
  lineValue,
  type Piece,
  type ProgramImage,
  type RunAssembly,
} from "@kobbin/core";

/** What an image is marked by at the bench: no piece is called so. Loose chips are loaded for all boards in one go, one mark each. */
const loadName = (image: string, chip?: number): string =>
  chip === undefined ? `load ${image}` : `load ${image} #${chip}`;

/** Images of a step as they are walked: one after the other into a board, or each into every loose chip. */
export function loadPieces(
  assembly: RunAssembly,
  row: { readonly kind: string; readonly refs: readonly string[] },
  boards: number,
): Piece[] {
  if (row.kind !== "program" && row.kind !== "program-before") return [];
  const images = row.refs.flatMap((ref) => imagesAt(assembly, ref));
  const names =
    row.kind === "program"
      ? images.map((i) => loadName(i.id))
      : Array.from({ length: boards }, (_, k) => images.map((i) => loadName(i.id, k + 1))).flat();
  return names.map((name, i) => ({ name, line: "", nth: i + 1, of: names.length }));
}

/** What a mark is of: the image, and the chip where it is loaded loose. */
export function loadOf(
  name: string | undefined,
  images: readonly ProgramImage[] | undefined,
): { readonly image: ProgramImage; readonly chip?: number } | undefined {
  const m = /^load (.+?)(?: #(\d+))?$/.exec(name ?? "");
  const image = m && images?.find((i) => i.id === m[1]);
  return image ? { image, ...(m[2] ? { chip: Number(m[2]) } : {}) } : undefined;
}

/** How an image stands on a board: the last go counts. */
export const loadsOf = (loads: readonly ImageLoad[] | undefined, unit: number, image: string): ImageLoad[] =>
  (loads ?? []).filter((l) => l.unit === unit && l.image === image);

/** What a go comes to before it is kept: refused, or right or not by what the tool said. */
export type Went =
  | { readonly is: "refused"; readonly because: string }
  | { readonly is: "wrong"; readonly because: string }
  | { readonly is: "right" };

export function went(image: ProgramImage, fits: Fits, isSaidRight: boolean, said: string): Went {
  if (fits.is === "no") return { is: "refused", because: fits.because };
  if (!isSaidRight) return { is: "wrong", because: `${image.name} is not loaded.` };
  return answersRight(image, said) === false
    ? { is: "wrong", because: `It does not say “${image.expect}”: noted as not loaded.` }
    : { is: "right" };
}

/** Sockets of several that are used at once, by how often a go went wrong in each; the worst first. */
export function bySocket(
  loads: readonly ImageLoad[],
): { readonly socket: number; readonly wrong: number; readonly of: number }[] {
  const all = new Map<number, { wrong: number; of: number }>();
  for (const l of loads) {
    if (l.socket === undefined) continue;
    const s = all.get(l.socket) ?? { wrong: 0, of: 0 };
    all.set(l.socket, { wrong: s.wrong + Number(!l.isRight), of: s.of + 1 });
  }
  return [...all]
    .map(([socket, s]) => ({ socket, ...s }))
    .sort((a, b) => b.wrong / b.of - a.wrong / a.of || a.socket - b.socket);
}

/** Images of a board that are not right by their last go, and values that are not wiped yet. */
export function leftToDo(
  images: readonly ProgramImage[],
  loads: readonly ImageLoad[] | undefined,
  unit: number,
): { readonly open: readonly ProgramImage[]; readonly toWipe: readonly ImageLoad[] } {
  const last = images.map((i) => ({ i, l: loadsOf(loads, unit, i.id).at(-1) }));
  return {
    open: last.filter(({ l }) => !l?.isRight).map(({ i }) => i),
    toWipe: last.flatMap(({ i, l }) =>
      l?.isRight && l.wipedOn === undefined && i.values.some((v) => v.isWiped) ? [l] : [],
    ),
  };
}

/**
 * What a value of a board is given: as somebody typed it, else the constant of its line that is called so; emptied it stays empty.
 *
 * @param constants of the lines of this board that stand
 */
export function givenValue(
  name: string,
  typed: string | undefined,
  constants: Parameters<typeof lineValue>[1],
): { readonly text: string; readonly isConstant: boolean } {
  const own = lineValue(name, constants);
  return { text: typed ?? own ?? "", isConstant: own !== undefined && (typed ?? own) === own };
}

import type { ProgramImage, RunAssembly, RunDocument } from "../document/document.ts";

type Said = Pick<RunAssembly, "programAt" | "programLoose" | "programs" | "images">;

/** References at which something is loaded: chips before they go on first, then those of the boards. */
export const loadedAt = ({ programLoose = [], programAt = [] }: Said): string[] => [
  ...new Set([...programLoose, ...programAt]),
];

/** Images of a place, in their order. */
export const imagesAt = ({ images = [] }: Said, ref: string): ProgramImage[] =>
  images.filter((i) => i.at === ref);

/** References at which something is to be loaded and nobody said what. */
export const notSaidAt = (a: Said): string[] =>
  loadedAt(a).filter((ref) => !a.programs?.[ref] && imagesAt(a, ref).length === 0);

/** Images that are loaded at none of the places where boards are programmed. */
export const strayImages = (a: Said): ProgramImage[] =>
  (a.images ?? []).filter((i) => !loadedAt(a).includes(i.at));

/** What is loaded at a place, in words. */
export function loadWords({ assembly }: Pick<RunDocument, "assembly">, refs: readonly string[]): string[] {
  return refs.flatMap((ref) => {
    const images = imagesAt(assembly, ref);
    const text = assembly.programs?.[ref];
    if (images.length === 0) return [text ? `${ref}: ${text}.` : `${ref}: what is loaded there is not said.`];
    return [
      ...images.map(
        (i, n) =>
          `${ref}${images.length > 1 ? `, ${n + 1}.` : ":"} ${i.name}${i.version ? ` ${i.version}` : ""}${i.sha256 ? `, file ${i.sha256.slice(0, 8)}…` : ""}${i.tool ? `, by ${i.tool}` : ""}${i.settings ? `; first set ${i.settings}` : ""}.`,
      ),
      ...(text ? [`${ref}: ${text}.`] : []),
    ];
  });
}

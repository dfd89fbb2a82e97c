import { panelStem, slug } from "./planned.ts";

/** Whose order a file of the package is sent with. */
export type PackageReader = "boards" | "assembly";

interface PackageFile {
  /** How its path begins, or the whole of it. */
  readonly at: string;
  /** What it is, for whoever opens the package. */
  readonly what: string;
  /** The orders it is sent with; none: it stays with the shop. */
  readonly to: readonly PackageReader[];
}

/** Every kind of file an order package holds: where it lies, what it is told as, whom it is sent to. The first that fits counts. */
export const PACKAGE_FILES = {
  sheetBoards: {
    at: "fabrication/",
    what: "the sheet, written from the boards' files and read back against them",
    to: ["boards", "assembly"],
  },
  fabrication: {
    at: "fabrication/",
    what: "as it was handed over, byte for byte",
    to: ["boards", "assembly"],
  },
  design: {
    at: "design/",
    what: "a board's own file, byte for byte: kept beside, the sheet's files are ordered",
    to: [],
  },
  stencil: { at: "stencil/", what: "paste openings as this run cuts them", to: [] },
  fitted: { at: "assembly/parts-list.csv", what: "what is fitted", to: ["assembly"] },
  placed: { at: "assembly/placement.csv", what: "where each part sits", to: ["assembly"] },
  sheetPlaced: { at: "assembly/", what: "the parts of the sheet, copy by copy", to: ["assembly"] },
  steps: {
    at: "steps/order-of-work.json",
    what: "the order of work, as it is built",
    to: [],
  },
  traveller: { at: "steps/order-of-work.pdf", what: "the order of work to tick off", to: [] },
  basket: { at: "baskets/", what: "a basket to import at the supplier", to: [] },
  boardSheet: { at: "sheets/fabrication-", what: "the printed sheet for the board house", to: ["boards"] },
  assemblySheet: {
    at: "sheets/assembly-",
    what: "the printed sheet for the assembly house",
    to: ["assembly"],
  },
  run: { at: "run.json", what: "this run, as one document", to: [] },
  manifest: { at: "manifest.json", what: "what the package holds, with the hashes", to: [] },
} as const satisfies Record<string, PackageFile>;

export type PackageFileKind = keyof typeof PACKAGE_FILES;

/** The folder a sheet's files of a product lie in. */
export const sheetFolder = (product: string): string =>
  `${PACKAGE_FILES.sheetBoards.at}${panelStem(product)}/`;

/** The folder a board's own files lie in while it is ordered by them. */
export const boardFolder = (board: string): string => `${PACKAGE_FILES.fabrication.at}${slug(board)}/`;

/**
 * What a file of an order package is.
 *
 * @param sheetOf the product, where its boards are ordered on a sheet: a single board may be named like one
 * @returns undefined for what this version does not put into packages
 */
export const packageFileKind = (path: string, sheetOf?: string): PackageFileKind | undefined => {
  const isSheet = sheetOf !== undefined && path.startsWith(sheetFolder(sheetOf));
  return (Object.keys(PACKAGE_FILES) as PackageFileKind[]).find((k) => {
    if (k === "sheetBoards") return isSheet;
    const { at } = PACKAGE_FILES[k];
    return /[/-]$/.test(at) ? path.startsWith(at) : path === at;
  });
};

/** Whether an order of this kind is sent with the file. */
export const isSentWith = (path: string, reader: PackageReader): boolean => {
  const kind = packageFileKind(path);
  return kind !== undefined && (PACKAGE_FILES[kind].to as readonly PackageReader[]).includes(reader);
};

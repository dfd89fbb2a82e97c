import { DEFAULT_ASSEMBLY, type RunAssembly, type RunDocument } from "./document/document.ts";
import { FAR, madeLine, madeMeasure, madeOffer, madeRun } from "./made-up.fixture.ts";

export const refs = (letter: string, n: number) => Array.from({ length: n }, (_, i) => `${letter}${i + 1}`);
export const place = (ref: string, side: "top" | "bottom") => ({ ref, xMm: 1, yMm: 1, rotationDeg: 0, side });
const { assembly: _, ...BARE } = FAR;
export const OTHER = { ...BARE, id: "other", name: "OTHER" };
/** Eight chips above, four below, a row of four pins through the board; ten good ones, and ten suffice. */
export const twoSided = (assembly: Partial<RunAssembly>, more: Partial<RunDocument> = {}): RunDocument =>
  madeRun({
    boards: [{ id: "b", name: "B", perProduct: 1, measure: madeMeasure() }],
    lines: [
      madeLine("r", refs("R", 8)),
      madeLine("c", refs("C", 4), { mpn: "OX-100N", valueText: "100n" }),
      madeLine("j", ["J1"], { mpn: "OX-H4", valueText: "", package: "HDR-1x4", mount: "hand" }),
    ],
    placements: [...refs("R", 8).map((r) => place(r, "top")), ...refs("C", 4).map((r) => place(r, "bottom"))],
    offers: ["r", "c", "j"].map((l) => madeOffer(`o${l}`, l, "0.1", { stock: 5000 })),
    house: OTHER,
    houses: [OTHER, FAR],
    assembly: { ...DEFAULT_ASSEMBLY, ...assembly },
    ...more,
  });

import type { House } from "../fab/house.ts";
import type { RunDocument } from "./document.ts";

/** The house that places the parts, or nobody. */
export const assemblyHouse = (doc: RunDocument): House | undefined =>
  doc.assembly.method === "house"
    ? ((doc.houses ?? []).find((h) => h.id === doc.assembly.house && h.assembly) ??
      (doc.houses ?? []).find((h) => h.assembly))
    : undefined;

import type { AssemblyPrice, House } from "../../fab/house.ts";
import type { RunDocument } from "./document.ts";
import { mayGo } from "./ways.ts";

/** A house that places parts: it states what it asks for that. */
export type AssemblyHouse = House & { readonly assembly: AssemblyPrice };

const places = (h: House): h is AssemblyHouse => h.assembly !== undefined;

/** The house that places the parts: the one chosen, else the first that does such work, which a note says. Nobody where none does. */
export function assemblyHouse(doc: RunDocument): AssemblyHouse | undefined {
  if (!mayGo(doc, "house")) return undefined;
  const able = (doc.houses ?? []).filter(places);
  return able.find((h) => h.id === doc.assembly.house) ?? able[0];
}

import type { PackageClass } from "../../assembly/package-class.ts";
import { Places } from "../document/boards.ts";
import type { RunDocument } from "../document/document.ts";
import { layChange } from "../document/lay-change.ts";
import { type LinePart, lineParts } from "../document/parts.ts";
import { type BoardSide, isForPaste } from "../document/ways.ts";
import { assemblyHouse } from "../document/who-places.ts";
import type { RunResult } from "../stage/result.ts";
import type { Route, WayChange } from "./route.ts";

/** Packages a hand finds hard: pins close to each other, joints out of sight, or bodies that are hardly seen. */
const HARD: ReadonlySet<PackageClass> = new Set(["gullFine", "leadless", "ball", "chip0402", "chip0201"]);

/** Whether a part is hard to solder by hand: it is what a house is asked for where it places only some. */
export const isHard = (p: Pick<LinePart, "kind">): boolean => HARD.has(p.kind);

/**
 * Ways in which a house does some of it: the side with more joints, the other one here; or only what is hard by hand. At the
 * house that is chosen for assembly, else the first that does such work, so that the list stays short.
 */
export function splitRoutes(
  doc: RunDocument,
  base: Pick<RunResult, "parts" | "sides">,
): Omit<Route, "assembly">[] {
  const house = assemblyHouse(doc) ?? (doc.houses ?? []).find((h) => h.assembly);
  if (!house || doc.placements.length === 0) return [];
  const own = wayKey(doc);
  const forPaste = base.parts.filter(isForPaste);
  const route = (key: string, label: string, change: WayChange, cannot?: string) => {
    const changed = layChange(doc, { assembly: change });
    return { key, label, change, isOwn: wayKey(changed) === own, ...(cannot ? { cannot } : {}) };
  };
  return [
    ...oneSide(doc, base, forPaste).map(({ most, least, way, cannot }) =>
      route(
        `house:${house.id}:${most}:${way}`,
        `${house.name} places the ${most}, the ${least} here ${way === "iron" ? "by iron" : "with paste"}`,
        {
          method: "house",
          house: house.id,
          handParts: "here",
          sides: { [least]: way },
          ways: null,
          // what lies on parts cannot lie on a plate, and a plate is what is used where nothing is said
          ...(way === "stencil" && (doc.assembly.heater ?? "plate") === "plate"
            ? { heater: "oven" as const }
            : {}),
        },
        cannot,
      ),
    ),
    ...(forPaste.some(isHard) && forPaste.some((p) => !isHard(p))
      ? [
          route(
            `house:${house.id}:hard`,
            `${house.name} places what is fine or hidden, the rest here by iron`,
            {
              method: "iron",
              house: house.id,
              handParts: "here",
              sides: null,
              ways: Object.fromEntries(forPaste.filter(isHard).map((p) => [p.line.id, "house" as const])),
            },
          ),
        ]
      : []),
  ];
}

interface OneSide {
  readonly most: BoardSide;
  readonly least: BoardSide;
  readonly way: "iron" | "stencil";
  readonly cannot?: string;
}

/** The side with more joints to a house and the other one here, where there are two. */
function oneSide(
  doc: RunDocument,
  { sides }: Pick<RunResult, "sides">,
  forPaste: readonly LinePart[],
): OneSide[] {
  if (sides.all.both.length === 0) return [];
  const places = new Places(doc);
  const joints = { top: 0, bottom: 0 };
  for (const p of forPaste)
    for (const ref of p.line.refs) joints[places.of(p.line, ref)?.side ?? "top"] += p.joints;
  const [most, least] =
    joints.top >= joints.bottom ? (["top", "bottom"] as const) : (["bottom", "top"] as const);
  const printed = doc.boards
    .filter((b) => sides.all.both.includes(b.name))
    .every((b) => (b.measure.paste[least]?.count ?? 0) > 0);
  return [
    { most, least, way: "iron" },
    {
      most,
      least,
      way: "stencil",
      ...(printed ? {} : { cannot: `there is no paste layer of the ${least}` }),
    },
  ];
}

/** Everything that tells one way from another: who does each part, at which house. Two that read the same are one. */
function wayKey(doc: RunDocument): string {
  const ways = lineParts(doc)
    .filter((p) => p.kind !== "loose")
    .map((p) => `${p.line.id} ${p.method} ${p.line.refs.join(",")}`)
    .sort();
  return [assemblyHouse(doc)?.id ?? "", ...ways].join("\n");
}

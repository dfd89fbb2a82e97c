import type { Attempts } from "../attempts.ts";
import {
  addSpaces,
  addStrokes,
  addToRings,
  cutoutRings,
  edgeRings,
  type LayerSolids,
  unionArea,
} from "../copper/copper.ts";
import { addNecks, addOutlineNecks } from "../copper/necks.ts";
import type { Nets } from "../copper/nets.ts";
import type { Outline } from "../outline/outline.ts";
import { r6, Worst } from "../worst.ts";

/** Necks of fills are searched up to this width, mm. */
const NECK_REACH_MM = 0.3;
/** Narrow places of the board itself are searched up to this width, mm. */
const OUTLINE_REACH_MM = 3;

/** Widths, gaps, distances to the edge and areas of the copper; a figure that one layer lacks is not known at all. */
export function measureCopper(
  copper: readonly LayerSolids[],
  nets: Nets,
  outline: Outline | undefined,
  attempts: Attempts,
): { keys: Record<string, unknown>; areaMm2: Record<string, number> } {
  const overLayers = (
    key: string,
    what: string,
    lost: string,
    add: (worst: Worst, layer: LayerSolids, index: number) => void,
  ): Record<string, unknown> => {
    const worst = new Worst();
    for (const [i, layer] of copper.entries()) {
      const isDone = attempts.optional(`${what} ${layer.name}`, lost, () => {
        add(worst, layer, i);
        return true;
      });
      if (!isDone) return {};
    }
    return worst.keys(key);
  };
  const edges = outline?.isClosed ? edgeRings(outline) : [];
  const cuts = outline?.isClosed ? cutoutRings(outline) : [];
  const narrow = new Worst();
  const hasNarrow = attempts.optional(
    "The search for narrow places of the board",
    "The narrowest place of the board is",
    (work) => {
      if (outline?.isClosed) addOutlineNecks(narrow, [...edges, ...cuts], OUTLINE_REACH_MM, work);
      return true;
    },
  );
  const areaMm2: Record<string, number> = {};
  for (const layer of copper) {
    const mm2 = attempts.optional(`The area of the copper ${layer.name}`, "It is", () => unionArea(layer));
    if (mm2 !== undefined) areaMm2[layer.name] = r6(mm2);
  }
  return {
    areaMm2,
    keys: {
      ...overLayers(
        "minTrack",
        "The search for narrow tracks of the copper",
        "The narrowest track is",
        (w, l) => {
          addStrokes(w, l.image, l.name);
          // what clear objects leave thin is mended or etched away by the house; what was drawn thin is a track
          if (!l.image.dark.includes(0)) addNecks(w, l, NECK_REACH_MM);
        },
      ),
      ...overLayers(
        "minNeck",
        "The search for narrow places in the fills of the copper",
        "The narrowest place is",
        (w, l) => addNecks(w, l, NECK_REACH_MM),
      ),
      ...overLayers("minSpace", "The search for gaps of the copper", "The least gap is", (w, l) =>
        addSpaces(w, l),
      ),
      ...overLayers(
        "minNetSpace",
        "The search for gaps between nets of the copper",
        "The least gap between nets is",
        (w, l, i) => addSpaces(w, l, (k) => nets.groups.find(nets.offsets[i]! + k)),
      ),
      ...overLayers("minCopperToEdge", "The way to the board's edge of the copper", "It is", (w, l) =>
        addToRings(w, l, edges),
      ),
      ...overLayers("minCopperToCutout", "The way to the cut-outs of the copper", "It is", (w, l) =>
        addToRings(w, l, cuts),
      ),
      ...(hasNarrow ? narrow.keys("minBoardNeck") : {}),
    },
  };
}

import type { Finding } from "../../findings.ts";
import type { Role, Side } from "../../role/role.ts";
import type { Attempts } from "../attempts.ts";
import type { BoardFile, BoardSet } from "../board-file.ts";
import { analyseLayer, type LayerSolids } from "../copper/copper.ts";
import { chainOutline, type Outline } from "../outline/outline.ts";
import { sayPanel } from "../panels/sets.ts";
import { layerName } from "./measure-keys.ts";

export const SIDES = ["top", "bottom"] as const;
/** Says what is being measured and the share done. */
export type Progress = (what: string, share: number) => void;

/** The layers a board is measured on, as pieces. */
export interface Ground {
  readonly used: readonly BoardFile[];
  readonly first: (role: Role, side?: Side) => BoardFile | undefined;
  readonly profile: BoardFile | undefined;
  readonly outline: Outline | undefined;
  /** Boards on it where it is a panel already. */
  readonly panel: ReturnType<typeof sayPanel>;
  /** One file a copper layer, and its pieces, in order through the board. */
  readonly copperFiles: readonly BoardFile[];
  readonly copper: readonly LayerSolids[];
  /** Of top and bottom. */
  readonly masks: readonly (LayerSolids | undefined)[];
  /** Paste or silkscreen of a side, looked at when it is asked for. */
  readonly coat: (role: "paste" | "legend", side: "top" | "bottom") => LayerSolids | undefined;
}

/** Outline, copper and masks as pieces; what is missing of them is said. */
export function groundOf(set: BoardSet, findings: Finding[], attempts: Attempts, progress: Progress): Ground {
  const used = set.files.filter((f) => f.role !== "unknown" && f.role !== "drawing");
  const first = (role: Role, side?: Side) =>
    used.find((f) => f.role === role && (side === undefined || f.side === side));
  progress("outline", 0.05);
  const profile = first("profile");
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  findings.push(...(outline?.findings ?? [NO_OUTLINE]));
  const panel = sayPanel(used, outline, findings);
  const copperFiles = copperOf(used);
  if (copperFiles.length === 0) findings.push(NO_COPPER);
  const copper = copperFiles.map((f, i) => {
    progress(`copper ${layerName(f)}`, 0.1 + (0.4 * i) / copperFiles.length);
    return attempts.needed(`The copper ${layerName(f)} (${f.path})`, (work) =>
      analyseLayer(f.layer!, layerName(f), work),
    );
  });
  // without its mask a side is another board; paste and silkscreen are only looked at
  const masks = SIDES.map((side) => {
    const f = first("mask", side);
    return f?.layer
      ? attempts.needed(`The mask ${side} (${f.path})`, (work) =>
          analyseLayer(f.layer!, `mask ${side}`, work),
        )
      : undefined;
  });
  const coat: Ground["coat"] = (role, side) => {
    const f = first(role, side);
    if (!f?.layer) return undefined;
    const isPaste = role === "paste";
    return attempts.optional(
      `The ${isPaste ? "paste" : "silkscreen"} ${side} (${f.path})`,
      isPaste ? `The openings of the stencil on the ${side} are` : `Lines and text on the ${side} are`,
      (work) => analyseLayer(f.layer!, `${role} ${side}`, work),
    );
  };
  return { used, first, profile, outline, panel, copperFiles, copper, masks, coat };
}

const NO_COPPER: Finding = {
  tag: "no-copper-layer",
  level: "error",
  text: "No file holds copper.",
  do: "Export the copper layers and drop them here, or correct the roles.",
};

const NO_OUTLINE: Finding = {
  tag: "outline-missing",
  level: "error",
  text: "No file holds the board's outline.",
  do: "Export the outline as its own layer and drop it here, or set the role of the file that holds it.",
};

/** One file per copper layer, in order through the board. */
function copperOf(used: readonly BoardFile[]): BoardFile[] {
  const order = (f: BoardFile) => (f.side === "top" ? 0 : f.side === "bottom" ? 1000 : (f.index ?? 500));
  const all = used
    .filter((f) => f.role === "copper" && f.layer && f.layer.n > 0)
    .sort((a, b) => order(a) - order(b));
  return all.filter((f, i) => all.findIndex((g) => layerName(g) === layerName(f)) === i);
}

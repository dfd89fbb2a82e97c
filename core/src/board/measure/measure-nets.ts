import type { Finding } from "../../findings.ts";
import type { BoardFile, BoardSet } from "../board-file.ts";
import { openPads } from "../copper/coats.ts";
import { bodiesOf, settlePlating, settleSlots } from "../copper/holes.ts";
import { drawnPads, joinNets, listNets, padsOf } from "../copper/nets.ts";
import { checkNames, checkNetlist } from "./connectivity.ts";
import { type Ground, type Progress, SIDES } from "./measure-ground.ts";

/** Copper joined through the board's holes: its nets, pads, and what the netlist says of them. */
export function joinBoard(
  set: BoardSet,
  { used, copper, masks }: Ground,
  findings: Finding[],
  progress: Progress,
) {
  progress("holes", 0.55);
  const drills: BoardFile[] = used.filter((f) => f.role === "drill" && f.drill);
  const holes = settlePlating(drills, copper);
  const slots = settleSlots(drills, copper);
  const bodies = bodiesOf(holes, slots);
  progress("nets", 0.6);
  const nets = joinNets(copper, bodies);
  const maskOf = (l: { readonly name: string }) => masks[SIDES.indexOf(l.name as "top" | "bottom")];
  const pads = copper.map((l, i) => {
    const flashed = padsOf(l, i, bodies);
    const drawn = drawnPads(l, i, maskOf(l), flashed);
    return drawn.length === 0 ? flashed : [...flashed, ...drawn];
  });
  const openOf = copper.map((l, i) => openPads(pads[i]!, maskOf(l)));
  const listed = set.netlist
    ? checkNetlist(set.netlist.points, set.netlist.file, nets, copper, findings)
    : undefined;
  const listedPoints = listed?.on ?? [];
  const netList = listNets(nets, copper, pads.flat(), listedPoints);
  checkNames(netList, findings);
  return { drills, holes, slots, bodies, nets, pads, openOf, netList, listedPoints, netlist: listed?.check };
}

export type Joined = ReturnType<typeof joinBoard>;

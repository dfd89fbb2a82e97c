import type { House } from "@kobbin/contract";
import { BENCH } from "./bench.ts";
import { GANNET } from "./gannet.ts";
import { NINEFOLD } from "./ninefold.ts";
import { PLOVER } from "./plover.ts";
import { SISKIN } from "./siskin.ts";
import { TERN } from "./tern.ts";

/**
 * Simulated houses as data: a cheap and slow one, a close and fast one, an exact and dear one, one that also places, one that
 * cuts foils, and the shop's own bench.
 */
export const HOUSES: readonly Omit<House, "id">[] = [NINEFOLD, PLOVER, GANNET, TERN, SISKIN, BENCH];

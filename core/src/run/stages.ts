import { assemble } from "./assemble/stage.ts";
import { board } from "./board/stage.ts";
import { cost } from "./cost/stage.ts";
import { fab } from "./fab/stage.ts";
import { panel } from "./panel/stage.ts";
import { parts } from "./parts/stage.ts";
import { release } from "./release/stage.ts";
import { source } from "./source/stage.ts";
import type { Stage } from "./stage/stage.ts";

/** The stages of a run in working order. A new one is a module of this folder and a line here. */
export const STAGES: readonly Stage[] = [
  board,
  parts,
  source,
  fab,
  panel,
  assemble,
  cost,
  release,
  { key: "order" },
  { key: "receive" },
  { key: "build" },
];

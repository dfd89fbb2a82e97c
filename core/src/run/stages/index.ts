import { assemble } from "./assemble.ts";
import { board } from "./board.ts";
import { cost } from "./cost.ts";
import { fab } from "./fab.ts";
import { panel } from "./panel.ts";
import { parts } from "./parts.ts";
import { source } from "./source.ts";
import type { Stage } from "./stage.ts";

/** The stages of a run in working order. A new one is a module of this folder and a line here. */
export const STAGES: readonly Stage[] = [
  board,
  parts,
  source,
  fab,
  panel,
  assemble,
  cost,
  { key: "release" },
  { key: "order" },
  { key: "receive" },
  { key: "build" },
];

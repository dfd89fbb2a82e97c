import { registerStages, type WebStage } from "../run/stages.ts";
import { assemble } from "./assemble/stage.ts";
import { board } from "./board/stage.ts";
import { build } from "./build/stage.ts";
import { cost } from "./cost/stage.ts";
import { fab } from "./fab/stage.ts";
import { order } from "./order/stage.ts";
import { panel } from "./panel/stage.ts";
import { parts } from "./parts/stage.ts";
import { receive } from "./receive/stage.ts";
import { release } from "./release/stage.ts";
import { source } from "./source/stage.ts";

/** The stages in working order. A new one is a folder beside this file and a line here. */
export const STAGES: readonly WebStage[] = [
  board,
  parts,
  source,
  fab,
  panel,
  assemble,
  cost,
  release,
  order,
  receive,
  build,
];
registerStages(STAGES);

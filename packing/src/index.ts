/** Drops in, packages out: what page, server and command line do alike over core and formats. */
export { boardOf, isTable, type ReadAsBoard, readAsBoard, type Under } from "./board.ts";
export { type PackedBoard, packRun } from "./package.ts";
export {
  type PackedPanel,
  type PanelBoard,
  type PanelWriting,
  packPanel,
  readPanelBoard,
} from "./panel.ts";
export { packRunSheet } from "./run-sheet.ts";

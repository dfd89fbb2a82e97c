/** The one door of formats: bytes in, text, rows and files out, and back. */
export {
  type ArchiveNote,
  type FileEntry,
  type Opened,
  openDrop,
  packZip,
  unpackZip,
} from "./archive.ts";
export { BudgetError, DROP_LIMITS, DropBudget, type DropLimits } from "./budget.ts";
export { type CalendarEvent, writeCalendar } from "./calendar.ts";
export type { Drawing, DrawnCircle, ReadDrawing } from "./drawing/drawing.ts";
export { readDrawing } from "./drawing/read.ts";
export { type DropEntry, type ReadDrop, readDrop, splitTables } from "./drop.ts";
export { sha256Hex } from "./hash.ts";
export { type BuiltPackage, buildPackage, type PackageInput } from "./package.ts";
export { cleanPath } from "./path.ts";
export { type NoPhoto, PHOTO_BYTES, PHOTO_PX, type PlainPhoto, plainJpeg } from "./photo/plain-jpeg.ts";
export { type PlanDrawing, planSvg, writePlan } from "./plan.ts";
export type { Sheet, SheetPicture } from "./sheet.ts";
export {
  defuse,
  type NamedTable,
  readCsv,
  readTable,
  readTables,
  type TableCells,
  undefuse,
  writeCsv,
} from "./table.ts";
export { decodeText } from "./text.ts";

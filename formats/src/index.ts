/** The one door of formats: bytes in, text, rows and files out, and back. */
export {
  ARCHIVE_LIMITS,
  type ArchiveLimits,
  type ArchiveNote,
  createZip,
  type FileEntry,
  type Opened,
  openDrop,
  packZip,
  unpackZip,
} from "./archive.ts";
export { sha256Hex } from "./hash.ts";
export { type BuiltPackage, buildPackage, type PackageInput } from "./package.ts";
export type { Sheet, SheetPicture } from "./sheet.ts";
export { defuse, readCsv, readTable, type TableCells, undefuse, writeCsv } from "./table.ts";
export { decodeText } from "./text.ts";

import { type FileEntry, packZip } from "./archive.ts";
import { sha256Hex } from "./hash.ts";
import { type Sheet, type SheetPicture, writeSheet } from "./sheet.ts";
import { writeCsv } from "./table.ts";

/** What goes into an order package, in plain data. */
export interface PackageInput {
  /** Fabrication files byte for byte, with their paths in the package. */
  readonly files: readonly FileEntry[];
  readonly tables: readonly { readonly path: string; readonly rows: readonly (readonly string[])[] }[];
  readonly sheets: readonly (Sheet & { readonly path: string; readonly listsFiles?: boolean })[];
  /** What a sheet that lists files lists: those its reader is sent, by the names they are told by. */
  readonly listed: readonly { readonly name: string; readonly bytes: Uint8Array }[];
  readonly pictures: readonly SheetPicture[];
  /** Further documents, written as JSON. */
  readonly documents?: readonly { readonly path: string; readonly value: unknown }[];
  /** The run as `run/1`. */
  readonly run: unknown;
  readonly about: {
    readonly run: string;
    readonly product: string;
    readonly revision: string;
    readonly createdAt: string;
  };
}

/** The zip and its manifest. */
export interface BuiltPackage {
  readonly zip: Uint8Array;
  readonly manifest: {
    readonly kobbin: "package/1";
    readonly files: readonly { readonly path: string; readonly bytes: number; readonly sha256: string }[];
  };
}

/** Writes tables and sheets, hashes every file, packs all with a manifest. */
export async function buildPackage(input: PackageInput): Promise<BuiltPackage> {
  const utf8 = new TextEncoder();
  const created = new Date(input.about.createdAt);
  const files: FileEntry[] = [
    ...input.files,
    ...input.tables.map((t) => ({ path: t.path, bytes: utf8.encode(writeCsv(t.rows)) })),
  ];
  const list = [
    ["Fabrication file", "Bytes", "SHA-256, first half"],
    ...input.listed.map((f) => [f.name, String(f.bytes.length), sha256Hex(f.bytes).slice(0, 32)]),
  ];
  for (const s of input.sheets) {
    const sheet = s.listsFiles ? { ...s, tables: [...s.tables, { heading: "Files", rows: list }] } : s;
    files.push({ path: s.path, bytes: await writeSheet(sheet, input.pictures, created) });
  }
  for (const d of input.documents ?? [])
    files.push({ path: d.path, bytes: utf8.encode(`${JSON.stringify(d.value, null, 1)}\n`) });
  files.push({ path: "run.json", bytes: utf8.encode(`${JSON.stringify(input.run, null, 1)}\n`) });
  const manifest = {
    kobbin: "package/1" as const,
    ...input.about,
    files: files.map((f) => ({ path: f.path, bytes: f.bytes.length, sha256: sha256Hex(f.bytes) })),
  };
  const zip = packZip(
    [...files, { path: "manifest.json", bytes: utf8.encode(`${JSON.stringify(manifest, null, 1)}\n`) }],
    created,
  );
  return { zip, manifest };
}

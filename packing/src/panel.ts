import {
  AppError,
  type BoardSet,
  bodiesOf,
  chainOutline,
  type DesignParts,
  type Entry,
  type Finding,
  type Measure,
  measureBoard,
  type PanelDesign,
  type PanelLayout,
  type PanelProof,
  type PanelRefusal,
  type ProvenSource,
  panelDesign,
  panelPlan,
  panelStem,
  provePanel,
  readBoard,
  type WriteMode,
  writePanel,
} from "@kobbin/core";
import { type FileEntry, packZip, writeCsv, writePlan } from "@kobbin/formats";
import { type ReadAsBoard, readAsBoard } from "./board.ts";

/** Objects of a sheet that is measured whole: beyond, measuring takes a minute. */
const MOST_MEASURED = 60_000;

/** A sheet's archive with what reading it back says. */
export interface PackedPanel {
  readonly zip: Uint8Array;
  readonly files: readonly FileEntry[];
  readonly proof: PanelProof;
  readonly findings: readonly Finding[];
}

/** How a sheet is written. */
export interface PanelWriting {
  readonly name: string;
  readonly revision: string;
  readonly thicknessMm: number;
  readonly mode: WriteMode;
  /** ISO time written into the archive. */
  readonly createdAt: string;
  /** Measures the sheet too and holds areas, nets and gaps against the boards': takes as long as measuring it. */
  readonly isMeasured: boolean;
}

/**
 * Writes a sheet, reads its own files back with the readers of any board, and proves it: the one way of page, server and
 * command line. A sheet that does not prove itself comes with what is wrong, and is not to be handed out.
 */
export async function packPanel(
  sources: readonly ProvenSource[],
  layout: PanelLayout,
  how: PanelWriting,
): Promise<PackedPanel> {
  const stem = panelStem(how.name);
  const written = writePanel(sources, layout, how, stem, how.mode);
  const utf8 = new TextEncoder();
  const tables = written.tables.map((t) => ({ ...t, bytes: utf8.encode(writeCsv(t.rows)) }));
  const entries: Entry[] = [
    ...written.files,
    ...tables.map((t) => ({ path: t.path, bytes: t.bytes, cells: t.rows.map((r) => [...r]) })),
  ];
  const back = readBoard(entries);
  const objects = back.files.reduce((n, f) => n + (f.layer?.n ?? 0), 0);
  const measured = how.isMeasured && objects <= MOST_MEASURED ? measureBoard(back) : undefined;
  const unmeasured: Finding[] =
    how.isMeasured && !measured
      ? [
          {
            tag: "panel-not-measured",
            level: "remark",
            text: `The sheet holds ${objects} objects: areas, nets and least gaps of it were not measured, every copy was held against its board all the same.`,
          },
        ]
      : [];
  const proof = provePanel(sources, layout, back, measured);
  const created = new Date(how.createdAt);
  const plan = panelPlan(
    sources.map((s) => s.design),
    layout,
    how,
    how.thicknessMm,
  );
  const files: FileEntry[] = [
    ...written.files,
    ...tables.map(({ path, bytes }) => ({ path, bytes })),
    { path: `${stem}-drawing.pdf`, bytes: await writePlan(plan, created) },
  ];
  return { zip: packZip(files, created), files, proof, findings: [...written.findings, ...unmeasured] };
}

/** A drop read as a board for a sheet. */
export interface PanelBoard extends ReadAsBoard {
  readonly name: string;
  readonly measure: Measure;
  /** What the sheet needs of it, or why no sheet can be made of it. */
  readonly design: PanelDesign | PanelRefusal;
}

/**
 * A drop as a board for a sheet: its exact outline, and bodies as far as packages tell their sizes.
 * @throws AppError NO_BOARD_FILE where the drop is no board
 */
export async function readPanelBoard(
  name: string,
  files: readonly FileEntry[],
  more: Partial<Pick<DesignParts, "isBevelled" | "snug">> = {},
): Promise<PanelBoard> {
  const read = await readAsBoard(files);
  const measure = measureBoard(read.set);
  if (read.rejected || measure.outcome === "reject")
    throw new AppError(
      "NO_BOARD_FILE",
      `${name}: ${read.rejected ?? measure.reason ?? "nothing in it is a board"}`,
      "Give it the archive of one board.",
    );
  return { ...read, name, measure, design: designOf(name, read.set, measure, more) };
}

/** A read board as a design for a sheet. */
function designOf(
  name: string,
  set: BoardSet,
  measure: Measure,
  more: Partial<Pick<DesignParts, "isBevelled" | "snug">> = {},
): PanelDesign | PanelRefusal {
  const places = new Map(set.placements?.parts.map((p) => [p.ref, p]) ?? []);
  const lines = set.bom?.lines.filter((l) => !l.dnp) ?? [];
  const packages = new Map(lines.flatMap((l) => l.refs.map((r) => [r, l.package] as const)));
  const refs = new Set([...packages.keys(), ...places.keys()]);
  const { bodies } = bodiesOf(
    [...refs].map((ref) => ({ ref, package: packages.get(ref) ?? "", place: places.get(ref) })),
    measure,
  );
  const rings = exactRings(set);
  return panelDesign({ name, measure, bodies, packages, ...(rings ? { rings } : {}), ...more });
}

/** The board's outline and its cut-outs as they are drawn; nothing where there is none. */
export function exactRings(set: BoardSet): readonly (readonly number[])[] | undefined {
  const profile = set.files.find((f) => f.role === "profile" && f.layer);
  const outline = profile?.layer ? chainOutline(profile.layer, profile.path) : undefined;
  const loops = outline?.loops ?? [];
  const board = loops.find((l) => l.depth === 0);
  return board && [board.ring, ...loops.filter((l) => l.depth === 1).map((l) => l.ring)];
}

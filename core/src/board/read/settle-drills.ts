import { type DrillData, type DrillReading, READINGS, readDrill } from "../../drill/read.ts";
import type { Finding } from "../../findings.ts";
import type { BoardFile } from "../board-file.ts";
import { flashes } from "./settle.ts";

/** Share of a file's holes that lie on pads, below which pads say nothing of how it is to be read. */
const SAYS_NOTHING = 0.5;

/** Cells of a tenth: a hole meets a pad whose middle lies in its own or one beside it. */
const at = (v: number) => Math.floor(v * 10);
const percent = (v: number) => `${Math.round(v * 100)} %`;

/** A drill file held against the pads: how it is read, and what is to be said of it. */
interface Settled {
  readonly file: BoardFile;
  readonly drill: DrillData;
  /** The reading that was taken in place of the file's own. */
  readonly reading?: DrillReading;
  /** Share of its holes on pads; nothing where nothing was open or nothing is there to hold it against. */
  readonly share?: number;
  readonly finding?: Finding;
}

/**
 * Drill files that leave unit or zeros open are read the way that fits the copper best; one whose holes have no pads, as
 * those without plating, the way the others of the set are read, where that puts its holes among theirs.
 */
export function settleDrills(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  const layers = cellsOf(files, "copper");
  const coats = cellsOf(files, "mask");
  const settled = files.map((f) => (f.drill ? byPads(f, f.drill, layers, coats) : undefined));
  const model = settled.find((s) => s?.share !== undefined && s.share >= SAYS_NOTHING && s.reading);
  return files.map((f, i) => {
    const own = settled[i];
    if (!own) return f;
    const s =
      model?.reading && own.share !== undefined && own.share < SAYS_NOTHING ? like(own, model, files) : own;
    if (s.finding) findings.push(s.finding);
    findings.push(...s.drill.findings);
    return s.drill === f.drill ? f : { ...f, drill: s.drill };
  });
}

type Cells = ReadonlySet<string>;

/** Cells where layers of a role flash something, and those beside them. */
const cellsOf = (files: readonly BoardFile[], role: BoardFile["role"]): Cells[] =>
  files
    .filter((f) => f.role === role)
    .map(flashes)
    .filter((pads) => pads.length > 0)
    .map(
      (pads) =>
        new Set(
          pads.flatMap((p) =>
            [-1, 0, 1].flatMap((a) => [-1, 0, 1].map((b) => `${at(p.x) + a} ${at(p.y) + b}`)),
          ),
        ),
    );

function byPads(
  file: BoardFile,
  drill: DrillData,
  layers: readonly Cells[],
  coats: readonly Cells[],
): Settled {
  if (drill.isCertain || drill.hits.length + drill.routs.length === 0) return { file, drill };
  if (layers.length === 0 || drill.text === undefined)
    return {
      file,
      drill,
      finding: open(
        file,
        "it was read as millimetres as far as it says nothing, and no pads are there to hold its holes against.",
        "warning",
      ),
    };
  const score = (d: DrillData, on = layers) =>
    d.hits.length === 0
      ? 0
      : d.hits.filter((h) => on.some((l) => l.has(`${at(h.x)} ${at(h.y)}`))).length / d.hits.length;
  // of readings alike the one that meets pads and openings on more layers: one of them may be at another scale
  const both = [...layers, ...coats];
  const mean = (d: DrillData) => both.reduce((n, l) => n + score(d, [l]), 0) / both.length;
  const own = score(drill);
  const tried = READINGS.map((r) => ({ r, d: readDrill(drill.text!, file.path, r) }))
    .map((t) => ({ ...t, s: score(t.d), m: mean(t.d) }))
    .sort((a, b) => b.s - a.s || b.m - a.m);
  const best = tried[0]!;
  const isBetter = best.s > own + 0.02 || (best.s >= own && best.m > mean(drill) + 0.1);
  const taken = isBetter ? best.d : drill;
  const now = Math.max(own, best.s);
  // the best of those that put the holes elsewhere
  const next = tried.find((t) => places(t.d) !== places(taken))?.s ?? 0;
  const reading = tried.find((t) => places(t.d) === places(taken))?.r;
  return {
    file,
    drill: taken,
    share: now,
    ...(reading ? { reading } : {}),
    finding: open(
      file,
      `${taken === drill ? "as it stands" : nameOf(best.r)} ${percent(now)} of its holes lie on pads, read otherwise ${percent(next)} at most; that was taken.`,
      now >= 0.95 && next < 0.5 ? "remark" : now >= 0.5 && next < now - 0.3 ? "warning" : "error",
    ),
  };
}

/** A file whose holes have no pads, read as another of its set is, where they then lie among the pads of the board. */
function like(own: Settled, model: Settled, files: readonly BoardFile[]): Settled {
  const { file } = own;
  const text = own.drill.text;
  if (text === undefined || !model.reading) return own;
  const drill = readDrill(text, file.path, model.reading);
  const pads = files.filter((f) => f.role === "copper").flatMap(flashes);
  const xs = pads.map((p) => p.x);
  const ys = pads.map((p) => p.y);
  const [x0, x1] = [Math.min(...xs) - 10, Math.max(...xs) + 10];
  const [y0, y1] = [Math.min(...ys) - 10, Math.max(...ys) + 10];
  const isAmong = drill.hits.every((h) => h.x >= x0 && h.x <= x1 && h.y >= y0 && h.y <= y1);
  if (!isAmong || drill.hits.length === 0) return own;
  return {
    file,
    drill,
    finding: open(
      file,
      `no pads are there to hold its holes against; it was ${nameOf(model.reading)} like ${model.file.path}, and all of them lie on the board then.`,
      "warning",
    ),
  };
}

const places = (d: DrillData) =>
  d.hits
    .slice(0, 50)
    .map((h) => `${at(h.x)} ${at(h.y)}`)
    .join();

const open = (file: BoardFile, text: string, level: Finding["level"]): Finding => ({
  tag: "drill-unit-unknown",
  level,
  file: file.path,
  text: `The drill file leaves its unit or zeros open; ${text}`,
  do: "Look at the holes on the picture, or export the file with both stated.",
});

const nameOf = (r: DrillReading) =>
  `read as ${r.unitMm === 1 ? "millimetres" : "inches"}, ${r.integers}.${r.decimals}, zeros kept ${r.zeros === "keep-leading" ? "in front" : "behind"},`;

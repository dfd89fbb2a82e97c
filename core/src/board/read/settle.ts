import type { Finding } from "../../findings.ts";
import { KIND } from "../../gerber/image.ts";
import type { BoardFile } from "../board-file.ts";
import { words } from "./guess.ts";

/**
 * Gives copper layers their place in the stack where a name only numbers them or says no side, and says two layers of
 * one role and side. Which side is up is never chosen by the order of names alone without a blocker that asks.
 */
export function settleLayers(
  files: readonly BoardFile[],
  findings: Finding[],
  jobLayers?: number,
): BoardFile[] {
  const out = withSides(withNumbers(files, findings, jobLayers), findings);
  const seen = new Map<string, BoardFile>();
  for (const f of out) {
    if (!["copper", "mask", "legend", "paste", "profile"].includes(f.role)) continue;
    const key = `${f.role} ${f.side ?? ""} ${f.index ?? ""}`;
    const first = seen.get(key);
    if (first !== undefined && isSameImage(first, f))
      findings.push({
        tag: "duplicate-layer",
        level: "remark",
        file: f.path,
        text: `${f.path} is the same as ${first.path}, shape for shape: one of them is enough, and ${first.path} is used.`,
      });
    else if (first !== undefined)
      findings.push({
        tag: "duplicate-layer",
        level: "warning",
        file: f.path,
        text: `A second layer for ${words(f)}; ${first.path} came first and is used.`,
        do: "Set the role of the one that does not count to unknown.",
      });
    else seen.set(key, f);
  }
  return out;
}

/** Whether two layers draw the same, object by object. */
function isSameImage({ layer: a }: BoardFile, { layer: b }: BoardFile): boolean {
  if (!a || !b || a.n !== b.n || a.points.length !== b.points.length) return false;
  const alike = (p: ArrayLike<number>, q: ArrayLike<number>, n: number) => {
    for (let i = 0; i < n; i++) if (p[i] !== q[i]) return false;
    return true;
  };
  return (
    alike(a.kind, b.kind, a.n) &&
    alike(a.dark, b.dark, a.n) &&
    alike(a.geo, b.geo, a.n * 6) &&
    alike(a.points, b.points, a.points.length) &&
    Array.from({ length: a.n }, (_, i) => i).every(
      (i) => JSON.stringify(a.apertures[a.aperture[i]!]) === JSON.stringify(b.apertures[b.aperture[i]!]),
    )
  );
}

/** Layers numbered from the top: the last one is the bottom, where nothing else is. */
function withNumbers(
  files: readonly BoardFile[],
  findings: Finding[],
  jobLayers: number | undefined,
): BoardFile[] {
  const numbered = files.filter((f) => f.role === "copper" && f.layerNumber !== undefined);
  if (numbered.length === 0) return files.map((f) => ({ ...f }));
  const other = (side: string) =>
    files.some((f) => f.role === "copper" && f.layerNumber === undefined && f.side === side);
  const numbers = numbered.map((f) => f.layerNumber!);
  const most = Math.max(...numbers);
  // where top and bottom have files of their own, a number 1 counts the inner ones
  const countsInner = numbers.includes(1) && other("top") && other("bottom");
  const isWhole = new Set(numbers).size === most || jobLayers === most;
  return files.map((f) => {
    const n = f.layerNumber;
    if (f.role !== "copper" || n === undefined) return { ...f };
    const { side: _s, index: _i, ...bare } = f;
    if (countsInner) return { ...bare, side: "inner" as const, index: n };
    if (n === 1) return { ...bare, side: "top" as const };
    const isLast = jobLayers === undefined ? n === most && !other("bottom") : n === jobLayers;
    if (!isLast) return { ...bare, side: "inner" as const, index: n - 1 };
    if (!isWhole)
      findings.push({
        tag: "side-guessed",
        level: "error",
        file: f.path,
        text: `${f.path} has the highest number of the copper layers, ${n}, and was taken as the bottom; layers before it are missing.`,
        do: "Set its role, or drop the whole set.",
      });
    return { ...bare, side: "bottom" as const };
  });
}

/** Copper that says no side: by elimination, else by which mask opens over its pads, else asked. */
function withSides(files: readonly BoardFile[], findings: Finding[]): BoardFile[] {
  const open = files.filter((f) => f.role === "copper" && !f.side);
  if (open.length === 0) return [...files];
  const free = (["top", "bottom"] as const).filter(
    (s) => !files.some((f) => f.role === "copper" && f.side === s),
  );
  const chosen = new Map<BoardFile, { side: "top" | "bottom"; why: string; level: Finding["level"] }>();
  const coats = (side: "top" | "bottom") =>
    files.filter((f) => (f.role === "mask" || f.role === "paste") && f.side === side);
  const fits = (f: BoardFile, side: "top" | "bottom") => shareOfPads(f, coats(side));
  if (open.length === 1 && free.length === 1)
    chosen.set(open[0]!, {
      side: free[0]!,
      why: `the only side without copper is the ${free[0]}`,
      level: "warning",
    });
  else if (free.length === 2 && open.length <= 2) {
    const scored = open.map((f) => ({ f, top: fits(f, "top"), bottom: fits(f, "bottom") }));
    const lead = scored.map((x) => (x.top ?? 0) - (x.bottom ?? 0));
    const percent = (v: number | undefined) => `${Math.round((v ?? 0) * 100)} %`;
    const isClear = open.length === 1 ? Math.abs(lead[0]!) > 0.3 : Math.abs(lead[0]! - lead[1]!) > 0.3;
    for (const [i, x] of scored.entries()) {
      const isTop = open.length === 1 ? lead[0]! >= 0 : i === 0 ? lead[0]! >= lead[1]! : lead[1]! > lead[0]!;
      const side = isTop ? ("top" as const) : ("bottom" as const);
      chosen.set(
        x.f,
        isClear
          ? {
              side,
              why: `the mask and paste of the top open over ${percent(x.top)} of its pads, those of the bottom over ${percent(x.bottom)}`,
              level: "warning",
            }
          : {
              side,
              why:
                open.length === 1
                  ? "it is the only copper"
                  : "nothing tells which of the two is up; the order of the names was taken",
              level: open.length === 1 ? "warning" : "error",
            },
      );
    }
  }
  for (const f of open) {
    const c = chosen.get(f);
    findings.push({
      tag: "side-guessed",
      level: c?.level ?? "error",
      file: f.path,
      text: c
        ? `${f.path} does not say its side; it was taken as the ${c.side}: ${c.why}.`
        : `${f.path} is copper, but nothing tells which side or layer; it is not used.`,
      do: "Set its role, top or bottom.",
    });
  }
  return files.map((f) => {
    const c = chosen.get(f);
    return c ? { ...f, side: c.side, reason: `${f.reason}; taken as ${c.side}` } : f;
  });
}

/** Share of a layer's pads in the middle of which some coat of a side opens; undefined where there are none. */
function shareOfPads(f: BoardFile, coats: readonly BoardFile[]): number | undefined {
  const pads = flashes(f);
  if (pads.length === 0 || coats.length === 0) return undefined;
  const key = (x: number, y: number) => `${Math.round(x * 20)} ${Math.round(y * 20)}`;
  const open = new Set(coats.flatMap(flashes).map((p) => key(p.x, p.y)));
  return pads.filter((p) => open.has(key(p.x, p.y))).length / pads.length;
}

/** Pads tried as targets of holes: enough to tell one reading from another. */
const MOST_PADS = 50_000;

/** Middles of what a layer flashes. */
export function flashes(f: BoardFile): { x: number; y: number }[] {
  const out: { x: number; y: number }[] = [];
  if (f.layer)
    for (let i = 0; i < f.layer.n && out.length < MOST_PADS; i++)
      if (f.layer.kind[i] === KIND.flash) out.push({ x: f.layer.geo[i * 6]!, y: f.layer.geo[i * 6 + 1]! });
  return out;
}

import * as Comlink from "comlink";
import type { BoardApi } from "./board.worker.ts";

/** A worker of its own for one board: reads, measures and paints off the page's thread. */
export function connectBoard() {
  const worker = new Worker(new URL("./board.worker.ts", import.meta.url), { type: "module", name: "board" });
  const board = Comlink.wrap<BoardApi>(worker);
  return {
    load: (
      files: readonly { path: string; bytes: Uint8Array }[],
      corrections: Parameters<BoardApi["load"]>[1],
      memory: Parameters<BoardApi["load"]>[2],
      progress: (what: string, share: number) => void,
    ) => board.load(files, corrections, memory, Comlink.proxy(progress)),
    open: (
      files: readonly { path: string; bytes: Uint8Array }[],
      corrections: Parameters<BoardApi["open"]>[1],
      progress: (what: string, share: number) => void,
    ) => board.open(files, corrections, Comlink.proxy(progress)),
    reread: (
      corrections: Parameters<BoardApi["reread"]>[0],
      memory: Parameters<BoardApi["reread"]>[1],
      progress: (what: string, share: number) => void,
    ) => board.reread(corrections, memory, Comlink.proxy(progress)),
    snap: (x: number, y: number, reachMm: number, side: "top" | "bottom") => board.snap(x, y, reachMm, side),
    picture: (side: "top" | "bottom", kind: "svg" | "png", colours: Parameters<BoardApi["picture"]>[2]) =>
      board.picture(side, kind, colours),
    paint: (request: Parameters<BoardApi["paint"]>[0]) => board.paint(request),
    close: () => {
      board[Comlink.releaseProxy]();
      worker.terminate();
    },
  };
}

export type BoardConnection = ReturnType<typeof connectBoard>;

import type { Corrections, Memory } from "@kobbin/core";
import type { FileEntry, ReadDrawing } from "@kobbin/formats";
import * as Comlink from "comlink";
import type { BoardApi, Loaded, Shown, StoredBoard } from "./board.worker.ts";

type Progress = (what: string, share: number) => void;

function start() {
  const worker = new Worker(new URL("./board.worker.ts", import.meta.url), { type: "module", name: "board" });
  const api = Comlink.wrap<BoardApi>(worker);
  return {
    api,
    close: () => {
      api[Comlink.releaseProxy]();
      worker.terminate();
    },
  };
}

/**
 * One board off the page's thread. A worker of its own draws it and answers the measuring hand; another, started when a
 * drop is to be measured, reads the same files beside it, so that the picture never waits for a figure.
 */
export function connectBoard() {
  const picture = start();
  let measurer: ReturnType<typeof start> | undefined;
  let painting = 0;
  // where the painter and the measurer would take the same cores, the picture goes first
  const isNarrow = (navigator.hardwareConcurrency ?? 2) <= 2;
  const isQuiet = async () => {
    for (let waited = 0, still = 0; waited < 1500 && still < 3; waited += 25) {
      await new Promise((done) => setTimeout(done, 25));
      still = painting === 0 ? still + 1 : 0;
    }
  };
  const nothing = Comlink.proxy(() => undefined);
  return {
    /** Opens files for their picture. */
    async open(files: readonly FileEntry[], corrections: Corrections, progress: Progress): Promise<Shown> {
      await picture.api.unpack(files);
      return picture.api.show(corrections, {}, Comlink.proxy(progress));
    },
    /** Opens a drop: its picture is there when `shown` is called, its figures when the promise is kept. */
    async load(
      files: readonly FileEntry[],
      memory: Memory,
      progress: Progress,
      shown: (picture: Shown) => void,
    ): Promise<Loaded> {
      measurer ??= start();
      const { api } = measurer;
      const drawn = (async () => {
        await picture.api.unpack(files);
        shown(await picture.api.show({}, memory, nothing));
      })();
      const measured = async (): Promise<Loaded> => {
        if (isNarrow) {
          await drawn;
          await isQuiet();
        }
        await api.unpack(files);
        return api.measure({}, memory, Comlink.proxy(progress));
      };
      return (await Promise.all([measured(), drawn]))[0];
    },
    /** Reads the open drop again under other corrections. */
    async reread(
      corrections: Corrections,
      memory: Memory,
      progress: Progress,
      shown: (picture: Shown) => void,
    ): Promise<Loaded> {
      measurer ??= start();
      const drawn = picture.api.show(corrections, memory, nothing).then(shown);
      const measured = measurer.api.measure(corrections, memory, Comlink.proxy(progress));
      return (await Promise.all([measured, drawn]))[0];
    },
    snap: (x: number, y: number, reachMm: number, side: "top" | "bottom") =>
      picture.api.snap(x, y, reachMm, side),
    print: (...of: Parameters<BoardApi["print"]>) => picture.api.print(...of),
    recipe: (...of: Parameters<BoardApi["recipe"]>) => picture.api.recipe(...of),
    foil: (...of: Parameters<BoardApi["foil"]>) => picture.api.foil(...of),
    picture: (side: "top" | "bottom", kind: "svg" | "png", colours: Parameters<BoardApi["picture"]>[2]) =>
      picture.api.picture(side, kind, colours),
    async paint(request: Parameters<BoardApi["paint"]>[0]) {
      painting++;
      try {
        return await picture.api.paint(request);
      } finally {
        painting--;
      }
    },
    close: () => {
      picture.close();
      measurer?.close();
    },
  };
}

/** The probing list of a stored board, worked out in a worker of its own. */
export async function probeStored(board: StoredBoard, minutes: number) {
  const { api, close } = start();
  try {
    return await api.probe(board, minutes);
  } finally {
    close();
  }
}

/** What a stored board's files have at round places, read in a worker of its own. */
export async function readPlacesStored(board: StoredBoard, spots: Parameters<BoardApi["places"]>[1]) {
  const { api, close } = start();
  try {
    return await api.places(board, spots);
  } finally {
    close();
  }
}

/** Currents in the copper of a stored board, followed in a worker of its own. */
export async function flowStored(board: StoredBoard, plan: Parameters<BoardApi["flow"]>[1]) {
  const { api, close } = start();
  try {
    return await api.flow(board, plan);
  } finally {
    close();
  }
}

/** A drawing a person means is read in a moment. */
const DRAWING_MS = 20_000;

/** A drawing read in a worker of its own, which is ended when its time is over. */
export async function readDrawingFile(bytes: Uint8Array): Promise<ReadDrawing> {
  const { api, close } = start();
  let late: ReturnType<typeof setTimeout> | undefined;
  const tooLong = new Promise<ReadDrawing>((done) => {
    late = setTimeout(
      () =>
        done({
          kind: "refused",
          why: `Reading it took longer than ${DRAWING_MS / 1000} seconds and was ended. Draw just the part that is met, and try that.`,
        }),
      DRAWING_MS,
    );
  });
  try {
    return await Promise.race([api.drawing(bytes), tooLong]);
  } finally {
    clearTimeout(late);
    close();
  }
}

export type { Shown };
export type BoardConnection = ReturnType<typeof connectBoard>;

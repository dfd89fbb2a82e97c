import {
  clashAt,
  DEFAULT_SPEC,
  isRefusal,
  measureBoard,
  type PanelDesign,
  type PanelLayout,
  panelDesign,
  provePanel,
  readBoard,
  solvePanel,
  TabHand,
  writePanel,
} from "@kobbin/core";
import { openDrop } from "@kobbin/formats";

type Add = (work: string, floor: string, ms: number, floorMs: number) => void;
type Time = (times: number, work: () => unknown) => Promise<number>;

/** An irregular outline of 120 corners: a star with rounded waves. */
const wavy = (): number[] =>
  Array.from({ length: 120 }, (_, i) => {
    const a = (2 * Math.PI * i) / 120;
    const r = 20 + 5 * Math.sin(5 * a);
    return [r * Math.cos(a), r * Math.sin(a)];
  }).flat();

const solved = (design: PanelDesign, count: number | "fill"): PanelLayout => {
  const made = solvePanel([design], {
    ...DEFAULT_SPEC,
    counts: [count],
    turns: [[0, 90, 180, 270]],
    maxWidthMm: 400,
    maxHeightMm: 500,
  });
  if (isRefusal(made)) throw new Error(made.reason);
  return made;
};

/** Sheets worked out, written and read back, against clipping as many corners and against one layer set of that size. */
export async function benchPanel(
  time: Time,
  add: Add,
  archive: { path: string; bytes: Uint8Array },
): Promise<void> {
  const measure = { ...measureBoard(readBoard([])), copperLayers: 2 };
  const outline = { widthMm: 50, heightMm: 48, areaMm2: 1, perimeterMm: 1, cutouts: 0, closed: true };
  // a new ring each time: what is kept of an outline would make the second one cheap
  const fresh = () => {
    const d = panelDesign({ name: "wavy", measure: { ...measure, outline }, rings: [wavy()], bodies: [] });
    if ("reason" in d) throw new Error(d.reason);
    return d;
  };
  const floor = () => {
    let s = 0;
    for (let k = 0; k < 1_000_000; k++) s += Math.sin(k);
    return s;
  };
  await time(3, () => solved(fresh(), 6));
  add(
    "a sheet of six of an outline with 120 corners, interlocked",
    "a million sines",
    await time(5, () => solved(fresh(), 6)),
    await time(5, floor),
  );
  const set = readBoard(openDrop([archive]).files);
  const kiln = measureBoard(set);
  const design = panelDesign({ name: "board", measure: kiln, bodies: [] });
  if ("reason" in design) throw new Error(design.reason);
  const layout = solved(design, 40);
  // what a page does for every frame while a board or a tab is held: forty places along a way over the sheet
  const steps = Array.from({ length: 40 }, (_, k) => k / 4);
  const place = layout.places[0]!;
  const hand = new TabHand([design], DEFAULT_SPEC, layout, 0);
  const { copy } = place;
  // a frame of each of the forty: what a thousand sines take
  const floorMs = (await time(5, floor)) / 25;
  add(
    "a board held over a sheet of 40, forty times",
    "forty times a thousand sines",
    await time(5, () =>
      steps.map((k) =>
        clashAt([design], layout.gapMm, {
          ...layout,
          places: [{ ...place, xMm: place.xMm + k, yMm: place.yMm + k }, ...layout.places.slice(1)],
        }),
      ),
    ),
    floorMs,
  );
  add(
    "a tab held over it, forty times",
    "forty times a thousand sines",
    await time(5, () => steps.map((k) => hand.at(copy, place.xMm + 4 * k, place.yMm))),
    floorMs,
  );
  const source = { design, set, measure: kiln };
  const name = { name: "board", revision: "A" };
  const written = writePanel([source], layout, name, "board");
  const read = await time(3, () => readBoard(written.files));
  // what it takes to read one set of layers of that size, and to put as many bytes together
  const texts = written.files.map((f) => new TextDecoder("latin1").decode(f.bytes));
  const join = await time(3, () => texts.map((t) => t.split("\n").join("\n").length));
  add(
    "40 copies written and read back",
    "reading layers of that size, and joining their lines",
    (await time(3, () => writePanel([source], layout, name, "board"))) + read,
    read + join,
  );
  const back = readBoard(written.files);
  add(
    "40 copies proven layer by layer",
    "reading them",
    await time(3, () => provePanel([source], layout, back)),
    read,
  );
}

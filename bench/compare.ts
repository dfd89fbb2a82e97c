import { diffBoards, judgeFit, measureBoard, probeBoard, readBoard } from "@kobbin/core";
import { largeBoard } from "./board.ts";

type Add = (work: string, floor: string, ms: number, floorMs: number) => void;
type Time = (times: number, work: () => unknown) => Promise<number>;

/** Two revisions of a large board against measuring one, its probing list, and twelve holes on twelve posts. */
export async function benchCompare(time: Time, add: Add): Promise<void> {
  const files = largeBoard(70_000, 5_000);
  const board = readBoard(files);
  // the other revision: one hole of another size, and one layer with a track more
  const other = readBoard(
    files.map((f) => {
      const text = new TextDecoder().decode(f.bytes);
      const changed = f.path.endsWith(".drl")
        ? text.replace("T1C0.2\n", "T1C0.2\nT2C0.9\n").replace("M30", "T2\nX5.0000Y5.0000\nM30")
        : f.path.endsWith("l1.gbr")
          ? text.replace("M02*", "X1000000Y1000000D02*\nX1500000Y1500000D01*\nM02*")
          : text;
      return { ...f, bytes: new TextEncoder().encode(changed) };
    }),
  );
  measureBoard(board);
  // what it takes to look at every byte of both, and to sort as many numbers as a board has objects
  const bytes = await time(5, () => {
    let n = 0;
    for (const f of files) for (let i = 0; i < f.bytes.length; i++) if (f.bytes[i] === f.bytes[i ^ 1]) n++;
    return n;
  });
  const numbers = Float64Array.from({ length: 70_000 }, (_, i) => Math.sin(i));
  const sorting = await time(5, () => numbers.slice().sort());
  add(
    "two boards of 70,000 objects compared",
    "looking at every byte of one",
    await time(3, () => diffBoards(other, board)),
    bytes,
  );
  add(
    "the probing list of a board of 70,000 objects",
    "sorting as many doubles",
    await time(3, () => probeBoard(board)),
    sorting,
  );
  const posts = Array.from({ length: 12 }, (_, i) => ({
    x: 20 * (i % 4) + 0.03 * Math.sin(i),
    y: 25 * Math.floor(i / 4) + 0.03 * Math.cos(i),
    diameterMm: 3,
  }));
  const holes = posts.map((_, i) => ({ x: 20 * (i % 4), y: 25 * Math.floor(i / 4), diameterMm: 3.2 }));
  const fit = () => judgeFit({ id: "a", kind: "pattern", posts, holes, postTolMm: 0.1, holeTolMm: 0.1 });
  // as a floor what it takes to add as many squares a thousand times
  const floor = () => {
    let s = 0;
    for (let k = 0; k < 1000; k++) for (const p of posts) s += p.x * p.x + p.y * p.y;
    return s;
  };
  await time(50, fit);
  await time(50, floor);
  add(
    "twelve holes on twelve posts in the best position",
    "twelve squared distances, a thousand times",
    await time(101, fit),
    await time(101, floor),
  );
}

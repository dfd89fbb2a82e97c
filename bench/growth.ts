// One size of the large board in a process of its own, so that its memory peak is its own: prints one JSON line.
import { type BoardSet, measureBoard, readBoard, readLayer } from "@kobbin/core";
import { addSpaces, analyseLayer } from "../core/src/board/copper/copper.ts";
import { bodiesOf } from "../core/src/board/copper/holes.ts";
import { joinNets } from "../core/src/board/copper/nets.ts";
import { Worst } from "../core/src/board/worst.ts";
import { largeBoard } from "./board.ts";

const objects = Number(process.argv[2]);
const holes = Number(process.argv[3]);
const times = Number(process.argv[4] ?? 7);
const median = (list: readonly number[]) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
const time = (n: number, work: () => unknown) => {
  const out: number[] = [];
  for (let i = 0; i < n; i++) {
    const t = performance.now();
    work();
    out.push(performance.now() - t);
  }
  return median(out);
};

const files = largeBoard(objects, holes);
const bytes = files[0]!.bytes;
const lines = () => {
  let n = 0;
  for (let i = 0; i < bytes.length; i++) if (bytes[i] === 10) n++;
  return n;
};
const firstRead = time(1, () => readLayer(bytes, "l"));
const floorLines = time(9, lines);
const read = time(times, () => readLayer(bytes, "l"));

const set: BoardSet = readBoard(files);
const copper = set.files.filter((f) => f.role === "copper" && f.layer);
const hits = set.files
  .flatMap((f) => f.drill?.hits ?? [])
  .map((h) => ({ x: h.x, y: h.y, diameterMm: h.diameterMm, plated: true }));
const doubles = Float64Array.from({ length: objects }, (_, i) => Math.sin(i * 12.9898) * 43758.5453);
const sort = time(9, () => doubles.slice().sort());
let nets = 0;
let pairs = 0;
const work = () => {
  const layers = copper.map((f) => analyseLayer(f.layer!, f.path));
  const joined = joinNets(layers, bodiesOf(hits, []));
  const worst = new Worst();
  pairs = 0;
  layers.forEach((l, i) => {
    addSpaces(worst, l, (k) => joined.groups.find(joined.offsets[i]! + k));
    for (let k = 0; k < l.islands.near.count; k++) if (l.islands.near.mm[k]! < 0.15) pairs++;
  });
  nets = joined.count;
};
const firstNets = time(1, work);
const netsMs = time(times, work);
const beforeMb = process.memoryUsage().rss / 1e6;
const all = time(1, () => measureBoard(readBoard(files)));
console.log(
  JSON.stringify({
    objects: copper.reduce((n, f) => n + f.layer!.n, 0),
    holes,
    megabytes: bytes.length / 1e6,
    nets,
    pairs,
    firstRead,
    read,
    floorLines,
    firstNets,
    netsMs,
    sort,
    all,
    beforeMb,
    peakMb: process.resourceUsage().maxRSS / 1000,
  }),
);

import { expect, test } from "@jest/globals";
import { chance } from "../../test/random.ts";
import { HEAD } from "../../test/rule.ts";
import { KIND, type LayerImage } from "./image.ts";
import { readLayer } from "./read.ts";
import { withoutCopies } from "./same-objects.ts";

const read = (body: string) => readLayer(new TextEncoder().encode(`${HEAD}${body}M02*\n`), "a.gbr");

/** Each object in words: what it is drawn with, where, under which name, and after how many changes of polarity. */
function objectsOf(image: LayerImage): string[] {
  const out: string[] = [];
  let run = 0;
  for (let i = 0; i < image.n; i++) {
    if (i > 0 && image.dark[i] !== image.dark[i - 1]) run++;
    const o = i * 6;
    const geo =
      image.kind[i] === KIND.region
        ? image.points.subarray(2 * image.geo[o]!, 2 * image.geo[o + 1]!)
        : image.geo.subarray(o, o + 6);
    out.push([image.kind[i], image.aperture[i], image.attributes[i], run, ...geo].join(" "));
  }
  return out;
}

// few places, stamps and names, so that most objects have copies and many have near ones
test("each object stays once where it came first: with another stamp, place, name or polarity it is another", () => {
  let gone = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const { pick, below, is } = chance(seed);
    const stamps = Array.from({ length: 1 + below(12) }, (_, i) => 10 + i);
    const body = [
      ...stamps.map((d) => `%ADD${d}C,${(d / 100).toFixed(2)}*%\n`),
      ...Array.from({ length: 200 }, () => {
        const [x, y, u] = [pick([0, 1]), pick([0, 1]), pick([2, 3])].map((v) => v * 1_000_000);
        const to = `X${u}Y${y}`;
        return [
          is(0.02) ? `%LP${pick(["D", "C"])}*%\n` : "",
          is(0.03) ? `%TO.N,${pick(["A", "B"])}*%\n` : "",
          `D${pick(stamps)}*\n`,
          pick([
            `X${x}Y${y}D03*\n`,
            `X${x}Y${y}D02*\nG01${to}D01*\n`,
            `X${x}Y${y}D02*\n${pick(["G02", "G03"])}${to}I${(u! - x!) / 2}J0D01*\nG01*\n`,
            `G36*\nX${x}Y${y}D02*\nG01X${u}D01*\nY${pick([4, 5])}000000D01*\nX${x}Y${y}D01*\nG37*\n`,
          ]),
        ].join("");
      }),
    ].join("");
    const drawn = read(body);
    const all = objectsOf(drawn);
    const once = withoutCopies(drawn);
    // a copy between two changes of polarity is one; the changes are counted as they are drawn
    expect(objectsOf(once)).toEqual([...new Set(all)]);
    gone += drawn.n - once.n;
  }
  expect(gone).toBeGreaterThan(1000);
});

test("where nothing is drawn twice the layer itself comes back", () => {
  const image = read("%ADD10C,1*%\nD10*\nX0Y0D03*\nX1Y0D03*\n");
  expect(withoutCopies(image)).toBe(image);
  expect(withoutCopies(read("")).n).toBe(0);
});

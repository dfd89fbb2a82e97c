import { expect, test } from "@jest/globals";
import { flash, layer, rim, stroke } from "../../../test/write-board.ts";
import type { Entry } from "../board-file.ts";
import { measureBoard } from "../measure.ts";
import { readBoard } from "../read/read.ts";

const measure = (entries: Entry[]) => measureBoard(readBoard(entries));

test("card contacts: pitch, width, length and setback", () => {
  const row = [0, 1, 2, 3, 5].map((k) => flash(4 + k * 2, 3)).join("");
  const m = measure([
    rim(20, 12),
    layer("b.gtl", `%ADD10R,1.4X5*%\nD10*\n${row}`),
    layer("b.gts", `%ADD10R,18X7*%\nD10*\n${flash(9, 3)}`),
  ]);
  expect(m.edgeContacts!.top).toEqual({
    count: 5,
    pitchMm: 2,
    widthMm: 1.4,
    lengthMm: 5,
    setbackMm: 0.5,
    edge: "bottom",
    tabMm: 20,
    at: { x: 8, y: 3 },
    from: { x: 4, y: 3 },
    to: { x: 14, y: 3 },
    freeAt: { x: 12, y: 3 },
    maskBetween: 0,
    tieBars: 0,
  });
  // a tab of 14 with a key between contacts: its width is that of the whole tab
  const tab = [
    [3, 0],
    [11, 0],
    [11, 5],
    [13, 5],
    [13, 0],
    [17, 0],
    [17, 6],
    [20, 6],
    [20, 12],
    [0, 12],
    [0, 6],
    [3, 6],
  ] as const;
  const rimOf = tab
    .map(([x, y], i) => stroke(x, y, tab[(i + 1) % tab.length]![0], tab[(i + 1) % tab.length]![1]))
    .join("");
  const keyed = measure([
    layer("b.gko", `%ADD10C,0.1*%\nD10*\n${rimOf}`),
    layer("b.gtl", `%ADD10R,1.4X5*%\nD10*\n${row}`),
  ]);
  expect(keyed.edgeContacts!.top).toMatchObject({ count: 5, tabMm: 14 });
});

test("card contacts: bars to the edge, mask between them, and one that is shorter than the others", () => {
  const row = [0, 1, 3, 4].map((k) => flash(4 + k * 2, 4)).join("");
  const card = (more: { copper?: string; mask?: string } = {}) =>
    measure([
      rim(20, 12),
      // the third place holds a contact of another length: 4 instead of 5
      layer(
        "b.gtl",
        `%ADD10R,1.4X5*%\n%ADD11R,1.4X4*%\n%ADD12C,0.3*%\nD10*\n${row}D11*\n${flash(8, 4)}${more.copper ?? ""}`,
      ),
      ...(more.mask === undefined ? [] : [layer("b.gts", more.mask)]),
    ]).edgeContacts!.top!;
  expect(card()).toMatchObject({
    count: 4,
    setbackMm: 1.5,
    from: { x: 4, y: 4 },
    to: { x: 12, y: 4 },
    odd: [{ x: 8, y: 4 }],
    tieBars: 0,
  });
  expect(card()).not.toHaveProperty("maskBetween");
  // a bar from the first contact to the edge, and one beside the second that reaches no contact's way
  expect(card({ copper: `D12*\n${stroke(4, 2, 4, 0)}${stroke(7, 2, 7, 0)}` }).tieBars).toBe(1);
  // one opening over the first two contacts, one each for the others
  const open = `%ADD10R,4X6*%\n%ADD11R,1.6X6*%\nD10*\n${flash(5, 4)}D11*\n${flash(10, 4)}${flash(12, 4)}`;
  expect(card({ mask: open }).maskBetween).toBe(1);
});

test("card contacts are found on whichever edge they stand, wherever the board lies", () => {
  // five contacts, the fourth place free, 1.4 by 5, half a millimetre from the edge; the board 20 by 12, its corner at 3/7
  const at = (turns: number) => {
    const put = (x: number, y: number): [number, number] => {
      let [u, v, w, h] = [x, y, 20, 12];
      for (let i = 0; i < turns; i++) [u, v, w, h] = [h - v, u, h, w];
      return [u + 3, v + 7];
    };
    const box = [put(0, 0), put(20, 12)];
    const [x0, y0, x1, y1] = [
      Math.min(box[0]![0], box[1]![0]),
      Math.min(box[0]![1], box[1]![1]),
      Math.max(box[0]![0], box[1]![0]),
      Math.max(box[0]![1], box[1]![1]),
    ];
    const edge = `%ADD10C,0.1*%\nD10*\n${stroke(x0, y0, x1, y0)}${stroke(x1, y0, x1, y1)}${stroke(x1, y1, x0, y1)}${stroke(x0, y1, x0, y0)}`;
    const pads = [0, 1, 2, 3, 5].map((k) => flash(...put(4 + k * 2, 3))).join("");
    return measure([
      layer("b.gko", edge),
      layer("b.gtl", `%ADD10R,${turns % 2 ? "5X1.4" : "1.4X5"}*%\nD10*\n${pads}`),
    ]).edgeContacts!.top!;
  };
  expect([0, 1, 2, 3].map((t) => at(t).edge)).toEqual(["bottom", "right", "top", "left"]);
  const size = { count: 5, pitchMm: 2, widthMm: 1.4, lengthMm: 5, setbackMm: 0.5, tabMm: 20 };
  for (const t of [0, 1, 2, 3]) expect(at(t)).toMatchObject(size);
  // the place left free, by hand: 12/3 on the board as drawn, turned and moved
  expect([0, 1, 2, 3].map((t) => [at(t).freeAt!.x, at(t).freeAt!.y])).toEqual([
    [15, 10],
    [12, 19],
    [11, 16],
    [6, 15],
  ]);
});

test("what stands in no even row is no card edge: two places free, an uneven step, contacts that touch, another width", () => {
  const found = (xs: readonly number[], size = "1.4X5") =>
    measure([rim(40, 12), layer("b.gtl", `%ADD10R,${size}*%\nD10*\n${xs.map((x) => flash(x, 3)).join("")}`)])
      .edgeContacts?.top?.count;
  expect(found([4, 6, 8, 10, 12])).toBe(5);
  expect(found([4, 6, 8, 12, 14])).toBe(5);
  expect(found([4, 6, 8, 12, 14, 18])).toBeUndefined();
  expect(found([4, 6, 8, 13, 15])).toBeUndefined();
  expect(found([4, 5, 6, 7, 8])).toBeUndefined();
  // of two rows on one edge the longer one is it
  const wide = [0, 1, 2, 3, 4, 5].map((k) => flash(20 + 3 * k, 3)).join("");
  const narrow = [0, 1, 2, 3].map((k) => flash(3 + 2 * k, 3)).join("");
  const both = (first: string) =>
    measure([rim(40, 12), layer("b.gtl", `%ADD10R,1.4X5*%\n%ADD11R,2X5*%\n${first}`)]).edgeContacts?.top;
  expect(both(`D10*\n${narrow}D11*\n${wide}`)).toMatchObject({ count: 6, pitchMm: 3 });
  expect(both(`D11*\n${wide}D10*\n${narrow}`)).toMatchObject({ count: 6, pitchMm: 3 });
});

import { expect, test } from "@jest/globals";
import { flash, layer, rim, stroke } from "../../test/write-board.ts";
import type { Entry } from "./board-file.ts";
import { measureBoard } from "./measure.ts";
import { readBoard } from "./read.ts";

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

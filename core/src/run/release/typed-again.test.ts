import { expect, test } from "@jest/globals";
import { boardK } from "../board-k.fixture.ts";
import type { RunDocument } from "../document/document.ts";
import type { Note } from "../document/note.ts";
import { rollUp } from "../roll-up.ts";
import { stakeOf } from "./stakes-table.ts";
import { againNotes, againWrong, askedAgain, judgeAgain, typedAgain } from "./typed-again.ts";

const with_ = (doc: RunDocument, said: Readonly<Record<string, string>>) =>
  ({ ...doc, choices: { ...doc.choices, again: typedAgain(said, "2026-12-02") } }) as RunDocument;
const worked = (doc: RunDocument) => ({ ...rollUp(doc), doc });
const K = boardK();
// 78.4 × 54 mm, with a hole of 3.2 and the part that costs most called by a longer number
const doc = {
  ...K,
  // a case asks for both of the holes of 3.2
  fits: [
    {
      id: "f",
      label: "case",
      spec: {
        kind: "pattern",
        holes: [4, 50].map((x) => [x, 4]),
        posts: [0, 46].map((x) => ({ x, y: 0, diameterMm: 3 })),
        postTolMm: 0.1,
      },
    },
  ],
  lines: K.lines.map((l) => ({ ...l, mpn: l.mpn && `${l.mpn}-QK77` })),
  boards: K.boards.map((b) => ({
    ...b,
    measure: {
      ...b.measure,
      outline: { widthMm: 54, heightMm: 78.4, cutouts: 0, closed: true },
      extentMm: [0, 0, 54, 78.4] as const,
      drillTable: [
        [3.2, [4, 4], [50, 4]],
        [3.2, [4, 74]],
        [2.1, [20, 20]],
      ].map(([diameterMm, ...at]) => ({
        file: "k.drl",
        diameterMm,
        plated: false,
        holes: at.length,
        slots: 0,
        at: at.map((p) => ({ x: (p as number[])[0], y: (p as number[])[1] })),
      })),
    },
  })),
} as never as RunDocument;
const asks = askedAgain(worked(doc) as never);
const keyOf = (ask: RegExp) => asks.find((a) => ask.test(a.ask))!.key;
/** How one answer stands. */
const stand = (ask: RegExp, text: string) => {
  const w = worked(with_(doc, { [keyOf(ask)]: text }));
  return judgeAgain(w as never).find((a) => a.asked.key === keyOf(ask))!.stand;
};

test("what is asked says nothing of what the run goes by", () => {
  expect(asks.length).toBeGreaterThan(6);
  for (const a of asks) {
    const is = a.is.kind === "mm" ? a.is.mm : a.is.kind === "count" ? a.is.n : a.is.text;
    expect(` ${a.ask} ${a.key.startsWith("layers") ? "" : a.how} `).not.toContain(` ${is} `);
  }
  expect(new Set(asks.map((a) => a.key)).size).toBe(asks.length);
});

test("holes and slots of one size are asked for once, and nothing tells how large they are", () => {
  const holes = askedAgain(worked(doc) as never).filter((a) => a.key.startsWith("hole"));
  expect(holes.map((a) => (a.is.kind === "mm" ? a.is.mm : 0))).toEqual([3.2, 2.1]);
  expect(holes[0]!.ask).toBe("the unplated hole that is marked");
  expect(holes[0]!.at).toEqual({ board: 0, from: [4, 4] });
});

const { widthMm, heightMm } = doc.boards[0]!.measure.outline!;
const long = Math.max(widthMm!, heightMm!);
const off = (by: number) => String(Math.round((long + by) * 100) / 100);
test.each<[RegExp, string, string]>([
  [/longer side/, String(long), "agrees"],
  [/longer side/, `${long}`.replace(".", ","), "agrees"],
  [/longer side/, `${Math.round((long / 25.4) * 1000) / 1000} in`, "agrees"],
  // written to the millimetre it means half a millimetre more or less; to the hundredth it does not
  [/longer side/, `${off(0.4)}0`, "differs"],
  [/longer side/, "78", "agrees"],
  [/longer side/, "78.0", "differs"],
  [/longer side/, off(2), "differs"],
  [/shorter side/, String(long), "differs"],
  [/unplated hole/, "3.2", "agrees"],
  // written to the millimetre it is still another hole
  [/unplated hole/, "3", "differs"],
  [/how thick/, "1.6", "agrees"],
  [/how thick/, "1", "differs"],
  [/copper layers/, String(doc.boards[0]!.measure.copperLayers), "agrees"],
  [/copper layers/, "4", "differs"],
  [/which revision/, `Rev. ${doc.revision.toLowerCase()}`, "agrees"],
  [/which revision/, "Z", "differs"],
  [/good ones/, String(doc.goodBoards), "agrees"],
  [/good ones/, String(doc.goodBoards + 1), "differs"],
])("%s typed as %s", (ask, text, is) => expect(stand(ask, text)).toBe(is));

test("it is the part whose buys cost most, whichever line it stands on", () => {
  const offered = K.lines.filter((l) => l.mpn && K.offers.some((o) => o.line === l.id));
  expect(offered.length).toBeGreaterThan(1);
  for (const l of offered.slice(0, 3)) {
    const offers = doc.offers.map((o) =>
      o.line === l.id ? { ...o, breaks: o.breaks.map((b) => ({ ...b, price: "900" })) } : o,
    );
    const part = askedAgain(worked({ ...doc, offers }) as never).find((a) => a.key.startsWith("part "))!;
    expect([part.key, part.is]).toEqual([`part ${l.id}`, { kind: "words", text: `${l.mpn}-QK77` }]);
  }
});

test("the dearest part is known by its number, by a family's beginning too, but not by a few letters", () => {
  const part = asks.find((a) => a.key.startsWith("part "))!;
  const number = (part.is as { text: string }).text;
  expect(stand(/costs most/, number.toLowerCase().replaceAll("-", " "))).toBe("agrees");
  expect(stand(/costs most/, number.slice(0, 6))).toBe("agrees");
  expect(stand(/costs most/, number.slice(0, 3))).toBe("differs");
  expect(stand(/costs most/, `${number}9`)).toBe("differs");
});

test("only what differs is told, against what the run goes by now; what was left away is not typed", () => {
  const notes = (d: RunDocument) => {
    const out: Partial<Note>[] = [];
    againNotes(worked(d) as never, (stage, key, level, text, more) =>
      out.push({ stage, key, level, text, ...more }),
    );
    return out;
  };
  expect(notes(doc)).toEqual([]);
  const good = keyOf(/good ones/);
  const typed = with_(doc, { [good]: String(doc.goodBoards), [keyOf(/copper layers/)]: " ", revision: "Z" });
  expect(typed.choices.again!.said.map((s) => s.key).sort()).toEqual([good, "revision"].sort());
  expect(notes(typed)).toEqual([
    {
      stage: "release",
      key: "again revision",
      level: "warning",
      text: `Typed without looking, which revision this is: Z; the run goes by ${doc.revision}.`,
      do: "Look which of the two is right: what is remembered, or what was dropped and chosen.",
    },
  ]);
  expect(notes({ ...typed, goodBoards: 99 }).map((n) => n.key)).toEqual(["again revision", "again good"]);
  expect(stakeOf({ key: "again revision", stage: "release", level: "warning" })).toMatchObject({
    lose: "boards",
  });
});

test.each([
  [/longer side/, "", "Nothing was typed."],
  [/longer side/, "78 54", "One length is asked for."],
  [/longer side/, "about 78", "“about” is no length."],
  [/longer side/, "78", undefined],
  [/good ones/, "many", "“many” is no number of something."],
  [/which revision/, "B".repeat(61), "That is longer than what is asked for."],
])("%s: “%s” is taken or not", (ask, text, because) =>
  expect(againWrong(asks.find((a) => ask.test(a.ask))!, text)).toBe(because),
);

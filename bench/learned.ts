import { judgeOnBoard, type LearnBoard, type LessonCheck, MEASURES, type Measure } from "@kobbin/core";

type Add = (work: string, floor: string, ms: number, floorMs: number) => void;
type Time = (times: number, work: () => unknown) => Promise<number>;
type OnBoard = Parameters<typeof judgeOnBoard>[0];

/** Two hundred lessons: sizes, marks, land patterns of two to a hundred pins, a slot, contacts. */
function lessons(): OnBoard[] {
  const pins = (n: number) => Array.from({ length: n }, (_, i) => String(i + 1));
  return Array.from({ length: 200 }, (_, i): OnBoard => {
    const n = 2 + ((i * 7) % 99);
    const kinds: readonly LessonCheck[] = [
      { kind: "measure", key: MEASURES[i % MEASURES.length]!.key, limit: 0.1 + i / 1000 },
      { kind: "marked", letters: i % 2 === 0 ? "D" : "U" },
      {
        kind: "pattern",
        letters: ["R", "C", "U", "D"][i % 4]!,
        pins: pins(n),
        at: pins(n).map((_, k) => [k * 0.5, i / 100] as const),
      },
      { kind: "slot", at: [i / 4, 30], leastMm: 1.5 },
      { kind: "contacts", what: "mask" },
    ];
    return kinds[i % kinds.length] as OnBoard;
  });
}

/** What a board is held against at import, beside measuring it: the pins of its nets sorted anew each time. */
export async function benchLearned(
  time: Time,
  add: Add,
  measured: () => Measure,
  measureMs: number,
): Promise<void> {
  const all = lessons();
  const m = measured();
  const judge = () => {
    // another object each time: nothing is remembered of it
    const board: LearnBoard = { measure: { ...m }, options: {}, sides: new Map() };
    return all.map((c) => judgeOnBoard(c, board).verdict);
  };
  await time(5, judge);
  add("200 lessons held against the largest demo board", "measuring it", await time(31, judge), measureMs);
}

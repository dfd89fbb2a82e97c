import { conflictsIn, type Work, type WorkPart, workOrder } from "@kobbin/core";

type Add = (work: string, floor: string, ms: number, floorMs: number) => void;
type Time = (times: number, work: () => unknown) => Promise<number>;

/** A board of 300 parts on both sides: heights, masses, covers, some after washing and after the test. */
function work(): Work {
  const parts = Array.from({ length: 300 }, (_, i): WorkPart => {
    const how = i % 10 === 9 ? "iron" : "paste";
    return {
      name: `P${i}`,
      ref: `P${i}`,
      board: 0,
      line: `line ${Math.floor(i / 4)}`,
      side: i % 3 === 0 ? "bottom" : "top",
      how,
      canIron: true,
      isThrough: how === "iron",
      isPolarised: i % 5 === 0,
      joints: 2 + (i % 40),
      heightMm: 0.5 + (i % 11),
      massMg: 10 + (i % 60),
      wettedMm2: 2 + (i % 60),
      isMoist: i % 60 === 7,
      ...(how === "iron" && i % 50 === 49 ? { fitAfter: "wash" as const } : {}),
      opensOnce: false,
      covers: how === "iron" && i % 20 === 19 ? [`P${i - 1}`, "TP1"] : [],
      micros: 1000 * (i % 97),
      minutes: 1 + (i % 7),
      trimMinutes: how === "iron" ? 0.3 : 0,
      defects: 0.0005 * (1 + (i % 5)),
      xMm: i % 20,
      yMm: Math.floor(i / 20),
    };
  });
  return {
    boards: [{ name: "B", printMinutes: 30, heatMinutes: 40, ironMinutes: 0 }],
    parts,
    given: [],
    programAt: ["TP1"],
    testAt: ["P9"],
    programLoose: [],
    minutes: { kit: 20, clean: 20, inspect: 60, test: 45, seal: 30 },
    loose: [],
    school: "low",
    start: 30,
    minuteMicros: 400_000,
    repairable: 0.92,
    bagMinutes: 0.75,
  };
}

/** The order of work of 300 parts, and the same after a line was moved by hand. */
export async function benchSteps(time: Time, add: Add): Promise<void> {
  const w = work();
  const own = { ...w, own: ["line 40", "line 7", "line 3"] };
  // as a floor the sort of the parts by height, once
  const floor = () => [...w.parts].sort((a, b) => a.heightMm! - b.heightMm!).length;
  await time(40, () => [workOrder(w), workOrder(own), floor()]);
  add(
    "the order of work of 300 parts",
    "the parts sorted by height",
    await time(15, () => workOrder(w)),
    await time(101, floor),
  );
  add(
    "the same after a line was moved",
    "the parts sorted by height",
    await time(15, () => workOrder(own)),
    await time(101, floor),
  );
  const heavy = { ...w, parts: w.parts.map((p) => ({ ...p, massMg: 20 * p.massMg! })) };
  await time(3, () => conflictsIn(heavy));
  add(
    `${conflictsIn(heavy).length} conflicts with what frees them`,
    "the parts sorted by height",
    await time(9, () => conflictsIn(heavy)),
    await time(101, floor),
  );
}

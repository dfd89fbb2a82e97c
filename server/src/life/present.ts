import { OWN_RISK, type Teller } from "./teller.ts";
import { plus, ToldRun } from "./told.ts";
import { AFTER_A_WEEK, AT_ANOTHERS, around, FIRMWARE, PROBE_POINTS, pointsOf, WATCH_TESTS } from "./watch.ts";

/** Rack cards that are ordered: one supplier is late. */
export async function waitingCards({ door, revision, begin }: Teller, today: string): Promise<void> {
  const id = await begin(
    plus(today, -9),
    revision("Rack Card", "A"),
    "for the club",
    20,
    "Gannet & Daughters",
  );
  const on = plus(today, -9);
  const run = await ToldRun.released(door, id, on, OWN_RISK);
  await run.isOrdered(on);
  await run.boardsAre(plus(today, -8), "accepted", "paid");
  await run.boardsAre(plus(today, -3), "made");
  const [first] = run.orders.filter((o) => o.kind === "parts");
  await run.cameFrom("parts", plus(today, -3), (_, o) => (o === first ? {} : undefined));
}

/** Probes whose parts are here but for five of one, and whose boards are on their way. */
export async function comingTails({ door, revision, begin }: Teller, today: string): Promise<void> {
  const id = await begin(
    plus(today, -17),
    revision("Probe Tail", "A"),
    "for the winter market",
    30,
    "Ninefold Circuit Co-op",
  );
  const on = plus(today, -16);
  const run = await ToldRun.released(door, id, on, OWN_RISK);
  await run.isOrdered(on);
  await run.boardsAre(plus(today, -15), "accepted", "paid");
  let isFirst = true;
  await run.cameFrom("parts", plus(today, -10), (i) => {
    if (!isFirst || i.qty < 20) return {};
    isFirst = false;
    return { qty: i.qty - 5, because: "five short, the rest follows" };
  });
  await run.boardsAre(plus(today, -9), "made", "shipped");
}

/** Watches for the autumn fairs, ordered in good time. */
export async function autumnWatches({ door, revision, begin }: Teller, today: string): Promise<ToldRun> {
  const id = await begin(
    plus(today, -32),
    revision("Kiln Watch", "B"),
    "for the autumn fairs",
    6,
    "Plover Lane Boards",
    {
      tests: [...WATCH_TESTS, ...PROBE_POINTS, AFTER_A_WEEK, AT_ANOTHERS],
      images: [FIRMWARE],
      programAt: ["U1"],
    },
  );
  const on = plus(today, -30);
  const run = await ToldRun.released(door, id, on, OWN_RISK);
  await run.isOrdered(on);
  await run.boardsAre(plus(today, -29), "accepted", "paid");
  await run.cameFrom("parts", plus(today, -22));
  await run.bagged(plus(today, -22), "TB-TK31-SO8", [["09:00", "dry"]]);
  await run.boardsAre(plus(today, -21), "made");
  await run.boardsAre(plus(today, -20), "shipped");
  return run;
}

/** A tub of paste that is good still on the day that is told last. */
export async function opensPaste({ door }: Teller, today: string): Promise<void> {
  await door.on(plus(today, -19));
  await door.ask("POST", "/api/equipment", {
    kind: "paste",
    name: "Grey paste, tub 4",
    facts: { alloy: "silver", keepsUntil: plus(today, 140), openedOn: plus(today, -19), openDays: 120 },
  });
}

/** Three of them are done, the fourth lies open, as somebody left it when the telephone rang. */
export async function watchesAtBench(run: ToldRun, today: string): Promise<void> {
  await run.cameFrom("boards", plus(today, -3));
  await run.measures(plus(today, -3), [1.6, 1.58], -0.03);
  await run.bagged(plus(today, -2), "TB-TK31-SO8", [
    ["06:40", "out"],
    ["09:20", "dry"],
  ]);
  await run.works(plus(today, -2), { started: 4, minutes: 60 });
  await run.sits(plus(today, -2), [1, 2, 3]);
  for (const unit of [1, 2, 3]) {
    const day = plus(today, -1);
    await run.reads(day, unit, "rail", around(3.3, 0.02, unit, 3), "V");
    await run.reads(day, unit, "rest", around(12.1, 1, unit, 1), "mA");
    await run.loads(day, unit, "watch", { "number of the probe": String(200 + unit) });
    await run.reads(day, unit, "ice", around(0.2, 0.4, unit, 1), "°C");
    for (const [item, value] of pointsOf(unit)) await run.reads(day, unit, item, value, "mV");
  }
  await run.works(plus(today, -1), { good: 3, reworked: 1, minutes: 65 });
  await run.faults(plus(today, -1), [{ unit: 2, at: "D3", code: "wrong way round", minutes: 6 }]);
  await run.isAmid(today, 4);
}

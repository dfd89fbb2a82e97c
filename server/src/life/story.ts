import type { BenchAnswer, LearnedAnswer, LotRow, RunAnswer } from "@kobbin/contract";
import type { ProgramImage, TestItem } from "@kobbin/core";
import { withWorkshop } from "../db/tx.ts";
import { addRun } from "../demo.ts";
import type { Deps } from "../deps.ts";
import type { By } from "../history/change.ts";
import { computeFigures } from "../jobs/figures.ts";
import { type Door, openDoor } from "./door.ts";
import { plus, ToldRun } from "./told.ts";

/** Readings of a size that lies where it should, one after another: steady, and of no board twice the same. */
const around = (middle: number, spread: number, unit: number, places: number): string =>
  (middle + spread * Math.sin(unit * 2.399)).toFixed(places);

const RAIL: TestItem = {
  id: "rail",
  name: "3.3 V rail",
  state: "powered",
  drives: ["VIN"],
  reads: ["V33"],
  through: [],
  expect: "",
  minutes: 0.5,
  unit: "V",
  min: "3.2",
  max: "3.4",
};
const REST: TestItem = {
  ...RAIL,
  id: "rest",
  name: "current at rest",
  reads: ["VIN"],
  unit: "mA",
  min: "8",
  max: "25",
};
const ICE: TestItem = {
  ...RAIL,
  id: "ice",
  name: "reads ice water",
  state: "programmed",
  reads: [],
  through: ["U2"],
  minutes: 2,
  unit: "°C",
  min: "-1.5",
  max: "1.5",
};
const WATCH_TESTS = [RAIL, REST, ICE];
const FIRMWARE: ProgramImage = {
  id: "watch",
  at: "U1",
  name: "Kiln Watch",
  version: "1.4",
  file: "kiln-watch-1.4.bin",
  from: "folder “released” of the shop’s own disk",
  tool: "Pod one",
  wires: [],
  settings: "",
  command: "",
  expect: "verified",
  fits: [{ versions: "1.0 - 1.9", revision: "B", is: "yes", why: "" }],
  values: [{ name: "number of the probe", isWiped: false }],
};

/** Who tells: the door, and what is begun through it. */
interface Teller {
  readonly door: Door;
  readonly revision: (product: string, label: string) => string;
  readonly begin: (
    on: string,
    revisionId: string,
    name: string,
    goodBoards: number,
    house: string,
    assembly?: object,
  ) => Promise<string>;
  /** What was learned is held against a run that day. */
  readonly caught: (run: string) => Promise<void>;
}

const OWN_RISK = "looked at on paper; we go on with it";

/**
 * The life of the demo shop: three runs that are closed, with a claim, a bag that was lost, faults, boards that were
 * worked around and a lesson that caught something, and a run each that waits for its parcels, has just been sent some,
 * and is at the bench. Told by the same requests a person's pages send.
 */
export async function fillLife(deps: Deps, by: By): Promise<void> {
  // without suppliers nothing can be bought, and nothing was built
  if (!deps.config.standInsUrl) return;
  const door = await openDoor(deps, by, "2026-03-18");
  try {
    const { products } = await door.ask<BenchAnswer>("GET", "/api/bench");
    const revision = (product: string, label: string) =>
      products.find((p) => p.name === product)!.revisions.find((r) => r.label === label)!.id;
    const begin: Teller["begin"] = async (on, revisionId, name, goodBoards, house, assembly) => {
      await door.on(on);
      const id = await addRun(door.deps, by, { revisionId, name, goodBoards }, house, true);
      if (assembly) {
        const { version } = await door.ask<RunAnswer>("GET", `/api/runs/${id}`);
        await door.ask("PATCH", `/api/runs/${id}`, { version, assembly });
      }
      return id;
    };
    const caught = (runId: string) => computeFigures(door.deps, { workshopId: by.workshopId, runId });
    const teller: Teller = { door, revision, begin, caught };
    const today = deps.today();
    const first = await firstWatches(teller);
    await summerTails(teller);
    const summer = await summerWatches(teller);
    await ownersWrite(teller, first, summer);
    const watches = await autumnWatches(teller, today);
    await comingTails(teller, today);
    await waitingCards(teller, today);
    await watchesAtBench(watches, today);
  } finally {
    await door.close();
  }
  // at once, not by a worker: nobody may see the shop before it is whole
  const { rows } = await withWorkshop(deps.pool, by.workshopId, (tx) =>
    tx.query<{ runId: string }>(`select run_id as "runId" from figures_due`),
  );
  for (const { runId } of rows) await computeFigures(deps, { workshopId: by.workshopId, runId });
}

/** The first twenty, of revision A: the diode without pads, the slot that was too narrow. */
async function firstWatches({ door, revision, begin }: Teller): Promise<ToldRun> {
  const id = await begin(
    "2026-04-10",
    revision("Kiln Watch", "A"),
    "the first twenty",
    20,
    "Plover Lane Boards",
  );
  const run = await ToldRun.released(door, id, "2026-04-13", OWN_RISK);
  await run.isOrdered("2026-04-13", {
    dearer: 1.02,
    boards: [
      ["accepted", 1],
      ["paid", 1],
      ["made", 8],
      ["shipped", 9],
    ],
  });
  await run.cameFrom("parts", "2026-04-20");
  await run.cameFrom("boards", "2026-05-06");
  await run.works("2026-05-11", { started: run.start, minutes: 120, note: "laid out, placed the first six" });
  await run.faults("2026-05-13", [
    { unit: 2, at: "U1.14", code: "bridge", minutes: 6 },
    { unit: 3, at: "D2", code: "wrong way round", minutes: 9 },
    { unit: 5, at: "U1.31", code: "bridge", minutes: 4 },
    { unit: 7, at: "D2", code: "wrong way round", minutes: 8 },
    { unit: 8, at: "U3", code: "cold", minutes: 5 },
    { unit: 11, at: "J2", code: "lifted pad", isOpen: true, note: "pulled off when it was turned" },
  ]);
  await run.works("2026-05-15", { good: 9, reworked: 5, minutes: 230 });
  await run.works("2026-05-19", {
    good: run.start - 11,
    scrapped: 2,
    minutes: 210,
    note: "two given up for their pads",
  });
  const { errata } = await door.ask<LearnedAnswer>("GET", "/api/learned");
  const pads = errata.find((e) => e.title.startsWith("D4"));
  for (const unit of [1, 2, 3, 4, 5, 6, 7, 8])
    await door.ask("PUT", `/api/errata/${pads!.id}/reworks`, {
      runId: id,
      unit,
      on: "2026-05-22",
      minutes: 6,
    });
  // two of them, and the bars of both are under the parts
  await door.ask("POST", "/api/lessons", {
    title: "Every D tells on the board which way round it sits",
    check: { kind: "marked", letters: "D" },
    level: "warning",
    sure: "certain",
    came: "two watches of the first twenty whose D2 sat the wrong way round",
    evidence: "Seventeen minutes of mending, and a board given up later for the same.",
    since: "2026-05-26",
    revisionId: revision("Kiln Watch", "A"),
  });
  await run.wentOut("2026-05-24", [1, 2, 3, 4, 5, 6, 7, 8, 9, 10], "spring fair");
  await run.isClosed(
    "2026-05-26",
    "the slot of the lid wants to be wider, and D4 wants pads: both are drawn in B",
  );
  return run;
}

/** Probes for the summer market: boards were missing, a bag was lost. */
async function summerTails({ door, revision, begin }: Teller): Promise<void> {
  const id = await begin(
    "2026-05-29",
    revision("Probe Tail", "A"),
    "for the summer market",
    60,
    "Ninefold Circuit Co-op",
  );
  const run = await ToldRun.released(door, id, "2026-06-01", OWN_RISK);
  await run.isOrdered("2026-06-01", {
    boards: [
      ["accepted", 1],
      ["paid", 1],
      ["made", 6],
      ["shipped", 7],
    ],
  });
  await run.cameFrom("parts", "2026-06-05");
  const short = 4;
  await run.cameFrom("boards", "2026-06-15", (i) => ({ qty: Math.max(run.start, i.qty - short) }));
  await run.claims(
    "2026-06-15",
    {
      pieces: short,
      because: "four boards are missing",
      letter: "Of the boards we ordered four did not come.",
    },
    { state: "settled", answer: "counted wrong on our side", credit: "3.20" },
  );
  await run.works("2026-06-18", { started: run.start, minutes: 200 });
  await run.faults("2026-06-19", [
    { unit: 4, at: "U1.4", code: "bridge", minutes: 3 },
    { unit: 9, at: "C1", code: "stood up", minutes: 2 },
    { unit: 17, at: "U1.2", code: "too little", minutes: 2 },
    { unit: 31, at: "U1.4", code: "bridge", minutes: 3 },
    { unit: 44, at: "U1", code: "dead", minutes: 7 },
  ]);
  await run.works("2026-06-23", {
    good: run.start - 2,
    scrapped: 2,
    reworked: 4,
    minutes: 300,
    note: "the crossing of U1 bridges when the foil is not wiped",
  });
  await run.isClosed("2026-06-27", "wipe the foil every ten boards");
  const lots = await door.ask<LotRow[]>("GET", "/api/lots");
  const lost = lots.find((l) => l.place === "drawer 9" && l.qty > 0 && l.reserved.length === 0);
  if (lost)
    await door.ask("POST", "/api/lots/count", {
      place: "drawer 9",
      because: "the bag was swept up with the wrappings",
      counts: [{ id: lost.id, version: lost.version, qty: 0 }],
    });
}

/** Revision B for the summer fairs: the amplifier that was suspected is caught, tried in ice water and cleared. */
async function summerWatches({ door, revision, begin, caught }: Teller): Promise<ToldRun> {
  const id = await begin(
    "2026-07-03",
    revision("Kiln Watch", "B"),
    "for the summer fairs",
    15,
    "Plover Lane Boards",
    { tests: WATCH_TESTS, images: [FIRMWARE] },
  );
  await caught(id);
  const run = await ToldRun.released(
    door,
    id,
    "2026-07-06",
    "suspected, not proven: we try ten of them in ice water",
  );
  await run.isOrdered("2026-07-06", {
    dearer: 1.03,
    boards: [
      ["asked", 1],
      ["answered", 1],
      ["accepted", 2],
      ["paid", 2],
      ["made", 10],
      ["shipped", 11],
    ],
  });
  await run.cameFrom("parts", "2026-07-13");
  await run.cameFrom("boards", "2026-07-28");
  await run.measures("2026-07-28", ["1", "2", "3"], [1.58, 1.59, 1.57]);
  const { start } = run;
  await run.works("2026-08-03", { started: start, minutes: 90 });
  const bad = new Set([6]);
  const units = Array.from({ length: start }, (_, i) => i + 1);
  for (const unit of units) {
    const on = unit <= 8 ? "2026-08-12" : "2026-08-19";
    await run.reads(on, unit, "rail", around(3.31, 0.02, unit, 3), "V");
    await run.reads(on, unit, "rest", unit === 6 ? "88.4" : around(12.4, 1.3, unit, 1), "mA");
    if (bad.has(unit)) continue;
    await run.loads(on, unit, "watch", { "number of the probe": String(100 + unit) });
    if (unit === 9) await run.reads(on, unit, "ice", "3.8", "°C");
    await run.reads(on, unit, "ice", around(0.1, 0.5, unit, 1), "°C");
  }
  await run.faults("2026-08-12", [
    { unit: 3, at: "U1.22", code: "bridge", minutes: 5 },
    { unit: 6, at: "U4", code: "wrong way round", isOpen: true, note: "its regulator went with it" },
    { unit: 9, at: "U2.3", code: "too little", minutes: 4 },
    { unit: 12, at: "D3", code: "wrong way round", minutes: 7 },
  ]);
  await run.works("2026-08-14", { good: 8, reworked: 1, minutes: 200 });
  await run.works("2026-08-20", {
    good: start - 9,
    scrapped: 1,
    reworked: 2,
    minutes: 190,
    note: "ten read ice water within half a degree",
  });
  await run.wentOut("2026-08-22", [1, 2, 4, 5, 7, 8, 10, 11, 12, 13], "summer fair");
  await run.wentOut("2026-08-23", [3], "order 1042", {
    holder: "N. Tallowby",
    reach: "the card on the pin board",
  });
  await run.isClosed(
    "2026-08-24",
    "D2 and D3 go on the wrong way round as long as their bars are not printed: for C",
  );
  return run;
}

/** What owners wrote in autumn, and what the shop made of it: one has the fault that is known, one a new one, one is answered. */
async function ownersWrite({ door }: Teller, first: ToldRun, summer: ToldRun): Promise<void> {
  const { errata } = await door.ask<LearnedAnswer>("GET", "/api/learned");
  const pads = errata.find((e) => e.title.startsWith("D4"))!;
  await first.isTold(
    "2026-09-04",
    9,
    { says: "Reads nothing since I plugged the probe in", conditions: "while the kiln was on" },
    { answer: "send it to us, we put the diode in", erratumId: pads.id },
  );
  await summer.isTold("2026-09-20", 4, {
    says: "It shows dashes for a second",
    conditions: "when the kiln's relay lets go",
    workaround: "waits",
  });
  await summer.isTold(
    "2026-10-02",
    11,
    { says: "The hour is lost when the power fails" },
    { answer: "it has no cell; the next edition of the program asks for the hour at its start" },
  );
  const { productId } = await door.ask<RunAnswer>("GET", `/api/runs/${summer.id}`);
  await door.on("2026-10-05");
  await door.ask("PUT", `/api/products/${productId}/next-revision`, {
    isNeeded: true,
    because: "bars for D2 and D3; a capacitor at the relay's line is tried before",
    begins: "after the spring fairs, when the boards of B are used up",
    on: "2026-10-05",
  });
}

/** Rack cards that are ordered: one supplier is late. */
async function waitingCards({ door, revision, begin }: Teller, today: string): Promise<void> {
  const id = await begin(
    plus(today, -9),
    revision("Rack Card", "A"),
    "for the club",
    20,
    "Gannet & Daughters",
  );
  const on = plus(today, -9);
  const run = await ToldRun.released(door, id, on, OWN_RISK);
  await run.isOrdered(on, {
    boards: [
      ["accepted", 1],
      ["paid", 1],
      ["made", 6],
    ],
  });
  const [first] = run.orders.filter((o) => o.kind === "parts");
  await run.cameFrom("parts", plus(today, -3), (_, o) => (o === first ? {} : undefined));
}

/** Probes whose boards came this morning: nothing of them is counted yet. */
async function comingTails({ door, revision, begin }: Teller, today: string): Promise<void> {
  const id = await begin(
    plus(today, -17),
    revision("Probe Tail", "A"),
    "for the winter market",
    30,
    "Ninefold Circuit Co-op",
  );
  const on = plus(today, -16);
  const run = await ToldRun.released(door, id, on, OWN_RISK);
  await run.isOrdered(on, {
    boards: [
      ["accepted", 1],
      ["paid", 1],
      ["made", 7],
      ["shipped", 8],
    ],
  });
  let isFirst = true;
  await run.cameFrom("parts", plus(today, -10), (i) => {
    if (!isFirst || i.qty < 20) return {};
    isFirst = false;
    return { qty: i.qty - 5, because: "five short, the rest follows" };
  });
}

/** Watches for the autumn fairs, ordered in good time. */
async function autumnWatches({ door, revision, begin }: Teller, today: string): Promise<ToldRun> {
  const id = await begin(
    plus(today, -32),
    revision("Kiln Watch", "B"),
    "for the autumn fairs",
    6,
    "Plover Lane Boards",
    { tests: WATCH_TESTS, images: [FIRMWARE] },
  );
  const on = plus(today, -30);
  const run = await ToldRun.released(door, id, on, OWN_RISK);
  await run.isOrdered(on, {
    boards: [
      ["accepted", 1],
      ["paid", 1],
      ["made", 9],
      ["shipped", 10],
    ],
  });
  await run.cameFrom("parts", plus(today, -22));
  return run;
}

/** Three of them are done, the fourth lies open, as somebody left it when the telephone rang. */
async function watchesAtBench(run: ToldRun, today: string): Promise<void> {
  await run.cameFrom("boards", plus(today, -3));
  await run.measures(plus(today, -3), ["1", "2"], [1.6, 1.58]);
  await run.works(plus(today, -2), { started: 4, minutes: 60 });
  await run.sits(plus(today, -2), [1, 2, 3]);
  for (const unit of [1, 2, 3]) {
    const day = plus(today, -1);
    await run.reads(day, unit, "rail", around(3.3, 0.02, unit, 3), "V");
    await run.reads(day, unit, "rest", around(12.1, 1, unit, 1), "mA");
    await run.loads(day, unit, "watch", { "number of the probe": String(200 + unit) });
    await run.reads(day, unit, "ice", around(0.2, 0.4, unit, 1), "°C");
  }
  await run.works(plus(today, -1), { good: 3, reworked: 1, minutes: 65 });
  await run.faults(plus(today, -1), [{ unit: 2, at: "D3", code: "wrong way round", minutes: 6 }]);
  await run.isAmid(today, 4);
}

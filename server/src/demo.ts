import { readFileSync } from "node:fs";
import type { FitBody, MeetBody } from "@kobbin/contract";
import { AppError, firstChoices } from "@kobbin/core";
import { alone, one, withTransaction, withWorkshop } from "./db/tx.ts";
import { fillLessons } from "./demo-lessons.ts";
import { fillLibrary } from "./demo-library.ts";
import type { Deps } from "./deps.ts";
import { type By, recordChange } from "./history/change.ts";
import { answerAsk } from "./jobs/feeds.ts";
import { computeFigures } from "./jobs/figures.ts";
import { insertFit } from "./resources/fit/index.ts";
import { manyHouses } from "./resources/house/index.ts";
import { insertMeeting } from "./resources/meeting/index.ts";
import { addRevision } from "./resources/product/index.ts";
import { insertRun, manyBoards } from "./resources/run/index.ts";
import { createShop, fetchStandIns, oneShop } from "./resources/shop/index.ts";
import { insertAsks } from "./resources/source/index.ts";

const archive = (name: string) => ({
  path: `${name}.zip`,
  bytes: new Uint8Array(readFileSync(new URL(`../../demo/boards/${name}.zip`, import.meta.url))),
});

/** Whoever makes a demo shop does it alone, in all processes. */
const LOCK = 41804180;

/**
 * Fills an empty database with the demo shop, through the same functions the pages use; does nothing when it is there.
 * Nobody can enter it before it is whole; what a start that was cut off left is taken away.
 */
export async function loadDemo(deps: Deps): Promise<boolean> {
  const { pool } = deps;
  // several servers may start at once: who comes second waits, and finds it there
  return alone(pool, LOCK, async () => {
    await dropOrphans(pool);
    const { rows } = await pool.query(
      "select 1 from member as m join account as a on a.id = m.account_id where a.email = 'demo@ashglaze' limit 1",
    );
    if (rows.length > 0) return false;
    // no password: the demo account can only be entered by the loopback door
    const { rows: account } = await pool.query<{ id: string }>(
      "insert into account (email) values ('demo@ashglaze') on conflict (email) do update set email = excluded.email returning id",
    );
    const accountId = one(account, "demo account").id;
    const shop = await fillDemo(deps, accountId);
    await pool.query("insert into member (workshop_id, account_id) values ($1, $2)", [shop, accountId]);
    return true;
  });
}

/**
 * The demo shop as it was at first: a new one takes the old one's place, for everybody who is in it.
 * @throws AppError BUSY where it is being done already
 */
export async function resetDemo(deps: Deps, oldShop: string): Promise<void> {
  const taken = (): never => {
    throw new AppError(
      "BUSY",
      "The demo shop is being set up anew at this moment.",
      "Wait some seconds and reload the page.",
    );
  };
  await alone(
    deps.pool,
    LOCK,
    async () => {
      await dropOrphans(deps.pool);
      // somebody else may have been quicker
      await withWorkshop(deps.pool, oldShop, oneShop);
      const { rows } = await deps.pool.query<{ id: string }>(
        "select id from account where email = 'demo@ashglaze'",
      );
      const shop = await fillDemo(deps, one(rows, "demo account").id);
      await withWorkshop(deps.pool, oldShop, async (tx) => {
        await tx.query(
          "insert into member (workshop_id, account_id, role) select $2, account_id, role from member where workshop_id = $1 on conflict do nothing",
          [oldShop, shop],
        );
        await tx.query("update session set workshop_id = $2 where workshop_id = $1", [oldShop, shop]);
        await tx.query("select set_config('app.change', 'off', true)");
        await tx.query("delete from workshop where id = $1", [oldShop]);
      });
    },
    taken,
  );
}

/** Demo shops nobody belongs to: what is left of a filling that was cut off. */
async function dropOrphans(pool: Deps["pool"]): Promise<void> {
  const { rows } = await pool.query<{ id: string }>("select id from demo_orphans() as id");
  for (const { id } of rows) await dropShop(pool, id);
}

const dropShop = (pool: Deps["pool"], shop: string) =>
  withWorkshop(pool, shop, async (tx) => {
    await tx.query("select set_config('app.change', 'off', true)");
    await tx.query("delete from workshop where id = $1", [shop]);
  });

/**
 * The shop with its life; without it where that could not be told whole: whoever comes in finds a shop in any case.
 *
 * @returns the id of the filled shop, which nobody belongs to yet
 */
async function fillDemo(deps: Deps, accountId: string): Promise<string> {
  const { fillLife, ...plain } = deps;
  if (!fillLife) return filled(plain, accountId);
  try {
    return await filled(deps, accountId);
  } catch (error) {
    deps.log({
      level: "error",
      message: `the demo shop stands before its first run: ${error instanceof Error ? error.message : String(error)}`,
    });
    return filled(plain, accountId);
  }
}

/** Fills a new shop; what was begun is taken away where it fails. */
async function filled(deps: Deps, accountId: string): Promise<string> {
  const { pool, config } = deps;
  const standIns = await fetchStandIns(config.standInsUrl);
  const shop = await withTransaction(pool, (tx) =>
    createShop(tx, { name: "Ashglaze Works", currency: "EUR", hourlyRate: "24.00", isDemo: true }, standIns),
  );
  try {
    const by = { workshopId: shop, accountId, person: "demo@ashglaze" };
    await fillShop(deps, by);
  } catch (error) {
    await dropShop(pool, shop).catch(() => undefined);
    throw error;
  }
  return shop;
}

async function fillShop(deps: Deps, by: By & { readonly accountId: string }): Promise<void> {
  const { value: first } = await addRevision(deps, by, {
    productName: "Kiln Watch",
    label: "A",
    files: [archive("kiln-watch-a")],
    corrections: {},
  });
  const { value: second } = await addRevision(deps, by, {
    productId: first.productId,
    label: "B",
    files: [archive("kiln-watch-b")],
    corrections: {},
  });
  const { value: tail } = await addRevision(deps, by, {
    productName: "Probe Tail",
    label: "A",
    files: [archive("probe-tail")],
    corrections: {},
  });
  const { value: card } = await addRevision(deps, by, {
    productName: "Rack Card",
    label: "A",
    files: [archive("rack-card")],
    corrections: {},
  });
  await recordChange(deps.pool, by, async (tx, change) => {
    change.says("what the boards must fit is written down");
    for (const f of WATCH_FITS) await insertFit(tx, first.productId, f);
    for (const m of WATCH_MEETS) await insertMeeting(tx, first.productId, m);
    for (const f of CARD_FITS) await insertFit(tx, card.productId, f);
  });
  await recordChange(deps.pool, by, async (tx, change) => {
    change.says("what was learned from the first watches is written down");
    await fillLessons(tx, { ...first, nextRevisionId: second.revisionId });
  });
  await fillLibrary(deps, by, first.revisionId, second.revisionId);
  await deps.fillLife?.(deps, by);
  for (const [revisionId, name, goodBoards, house, asks] of [
    [tail.revisionId, "for the autumn market", 120, "Ninefold Circuit Co-op", true],
    [card.revisionId, "first try", 12, "Gannet & Daughters", false],
    [second.revisionId, "for the spring fairs", 40, "Plover Lane Boards", true],
  ] as const) {
    const runId = await addRun(deps, by, { revisionId, name, goodBoards }, house, asks);
    // the bench shows figures at once, before any worker has started
    await computeFigures(deps, { workshopId: by.workshopId, runId });
  }
}

/** The case of the Kiln Watch: posts, lid, and the tab that was too thick for the slot of revision A. */
const WATCH_FITS: readonly FitBody[] = [
  {
    label: "Posts of the case",
    spec: {
      kind: "pattern",
      holes: [
        [4, 4],
        [74, 4],
        [4, 50],
        [74, 50],
      ],
      posts: [
        { x: 0, y: 0, diameterMm: 2.5 },
        { x: 70, y: 0, diameterMm: 2.5 },
        { x: 0, y: 46, diameterMm: 2.5 },
        { x: 70, y: 46, diameterMm: 2.5 },
      ],
      postTolMm: 0.1,
    },
  },
  {
    label: "Length inside the case",
    spec: { kind: "outline", across: "width", openingMm: 78.6, openingTolMm: 0.15 },
    playMm: 1,
  },
  { label: "Tab of the lid", spec: { kind: "slot", at: [6.5, 34], tabMm: 1.6, tabTolMm: 0.05 } },
  {
    label: "What stands under the lid",
    spec: { kind: "lid", side: "top", roomMm: 10.8, roomTolMm: 0.3 },
  },
  {
    label: "Name on the front",
    spec: { kind: "intended", at: [44.8, 41.3], diameterMm: 4, side: "top", what: "drawing" },
  },
  {
    label: "Board under the lid",
    spec: { kind: "stack", boards: 1, spacers: [{ mm: 12, tolMm: 0.1 }], gapMm: 14, gapTolMm: 0.12 },
  },
];
/** What is put onto the Kiln Watch: its supply, and the display it was drawn for. */
const WATCH_MEETS: readonly MeetBody[] = [
  {
    ref: "J1",
    other: "wall supply",
    spec: {
      ours: [
        { pin: "1", kind: "input", takesV: [4.5, 5.5] },
        { pin: "2", kind: "ground" },
      ],
      theirs: [
        { pin: "1", kind: "supply", volts: 5, net: "+" },
        { pin: "2", kind: "ground", net: "−" },
      ],
      meant: [
        ["1", "1"],
        ["2", "2"],
      ],
      stopped: ["turned", "shifted"],
      stopBy: "two-way plug with a latch",
      givesMa: 1000,
    },
  },
  {
    ref: "J5",
    other: "display, first edition",
    spec: {
      ours: [
        { pin: "1", kind: "ground" },
        { pin: "2", kind: "supply", volts: 3.3 },
        { pin: "3", kind: "both", takesV: [-0.3, 3.6] },
        { pin: "4", kind: "both", takesV: [-0.3, 3.6] },
      ],
      theirs: [
        { pin: "1", kind: "ground", net: "GND" },
        { pin: "2", kind: "input", takesV: [3, 3.6], net: "VCC" },
        { pin: "3", kind: "both", takesV: [-0.3, 3.6], net: "SDA" },
        { pin: "4", kind: "both", takesV: [-0.3, 3.6], net: "SCL" },
      ],
      meant: [
        ["1", "1"],
        ["2", "2"],
        ["3", "3"],
        ["4", "4"],
      ],
      stopped: ["shifted"],
      stopBy: "shroud",
    },
  },
];
/** A socket that only an exact house's boards always go into, and the way its contacts may slip. */
const CARD_FITS: readonly FitBody[] = [
  { label: "Socket of the rack", spec: { kind: "edge", allowsMm: [1.46, 1.74] } },
  {
    label: "Contacts of the rack",
    spec: { kind: "contacts", side: "top", openingMm: 33, openingTolMm: 0.1, contactMm: 0.8 },
  },
];

/** A run of the demo shop at a house, asked of its suppliers. @returns its id */
export async function addRun(
  deps: Deps,
  by: By,
  run: { revisionId: string; name: string; goodBoards: number },
  houseName: string,
  asks: boolean,
): Promise<string> {
  const shop = by.workshopId;
  const { value: id } = await recordChange(deps.pool, by, async (tx, change) => {
    const house = (await manyHouses(tx)).find((h) => h.name === houseName);
    const boards = await manyBoards(tx, run.revisionId);
    const { options } = firstChoices(
      boards.map((b) => b.measure),
      house ? [house] : [],
    );
    const id = await insertRun(tx, { ...run, houseId: house?.id ?? null, options });
    change.about({ runId: id });
    return id;
  });
  if (asks && deps.config.standInsUrl) {
    const due = await withWorkshop(deps.pool, shop, async (tx) => {
      await insertAsks(tx, id, by);
      const { rows } = await tx.query<{ askId: string }>(
        `select a.id as "askId" from feed_ask as a join supplier as s on s.id = a.supplier_id where a.run_id = $1 order by s.feed_key`,
        [id],
      );
      return rows;
    });
    // at once, not by a worker: nobody may see the shop before it is whole
    for (const { askId } of due) await answerAsk(deps, { workshopId: shop, askId }, () => undefined);
  }
  return id;
}

// What took longest, told at the end of a run and kept beside the packages: `near` plans by it.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { ROOT } from "./setup.mjs";

const KEPT = join(ROOT, "node_modules/.cache/kobbin/times.json");

/** Seconds of each test file and journey in the last run that reached it. */
export const readTimes = () => (existsSync(KEPT) ? JSON.parse(readFileSync(KEPT, "utf8")) : {});

/** @param seconds by file, relative to the clone */
export function keepTimes(seconds) {
  mkdirSync(dirname(KEPT), { recursive: true });
  writeFileSync(KEPT, JSON.stringify({ ...readTimes(), ...seconds }, null, 1));
}

/** Why a file or journey may take longer than others of its kind; whatever else does, is told without a reason. */
export const REASONS = {
  "server/src/life/life.test.ts":
    "six runs are bought, released, built and closed, as they were over half a year",
  "server/src/whole/hard/people.test.ts": "every route for every role, sixteen of them in a shop of its own",
  "server/src/whole/hard/attack.test.ts":
    "every body of every route with something else in each place, in its short form",
  "server/src/whole/hard/siege.test.ts": "files that ask for large work, through processes of their own",
  "server/src/whole/hard/siege-start.test.ts":
    "servers started at once on an empty database, with the demo shop in it",
  "server/src/whole/hard/several.test.ts": "two servers and two workers behind a balancer, killed under load",
  "server/src/whole/hard/hostile.test.ts":
    "each kind of bad answer is asked for four times by four suppliers",
  "server/src/whole/history.test.ts": "a law over random changes, each taken back and brought again",
  "server/src/whole/ops.test.ts": "the demo shop is filled anew",
  "server/src/whole/orders.test.ts":
    "nine runs are released and packed, each with orders that are talked about",
  "packing/src/package.test.ts": "packages are written whole and read back board by board",
  "e2e/access.spec.ts: every view passes the accessibility rules, by day and by night":
    "sixteen views, each by day and by night",
  "e2e/demo.spec.ts: a newcomer takes a demo board from the bench to an order package":
    "the whole way walked, the command line beside it",
  "e2e/hands.spec.ts: the whole first run by keyboard alone: door, files, parts, prices, choices, release, package":
    "the whole way walked by Tab",
  "e2e/stranger.spec.ts: a stranger's own files, prices and house become a package that reads back as the same board":
    "the whole way walked without any partner",
  "e2e/record.spec.ts: a released run is ordered, comes in two parcels with one board short, is built with two scrapped, and closed; the next begins with it":
    "the whole second half walked, and the next run begun",
  "e2e/panel.spec.ts: Probe Tail is paneled, changed by mouse and by keys, priced, downloaded, and known again when it is dropped":
    "a sheet worked out, changed, written, proven, and read again",
  "e2e/rules.spec.ts: a messy list of values and sizes becomes a complete, costed run in few actions, and the next one in fewer":
    "two products from their files to their cost",
  "e2e/feeds.spec.ts: a supplier goes down in the middle of a refresh: the others' answers are kept, its own come later":
    "a supplier is given up, and asked again, at the pace of real questions",
  "e2e/substitute.spec.ts: a substitute is proposed, compared, priced, approved with a reason, and known in the next run":
    "two runs, the library between them",
  "e2e/sums.spec.ts: every sum of an open run comes to what it stands at, computed from its own terms":
    "more than seventy sums of six stages are opened one by one",
  "e2e/sums.spec.ts: the sums of a run that is released, half built and closed come to what they stand at":
    "every sum of seven pages of one run is opened",
  "e2e/fit.spec.ts: a slot too narrow for its tab is found before ordering, mended by the size that is proposed, and holds on the next revision":
    "two revisions are read and measured, each held against its mate",
  "e2e/panel.spec.ts: two boards of a product lie on one sheet in the numbers the product has them":
    "a sheet of two boards is worked out, written and proven",
  "e2e/panel.spec.ts: another product shares the sheet: its boards are drawn, proven and paid with it, and leaving it away says what is left":
    "two sheets of two products are worked out and proven",
  "e2e/trust.spec.ts: a backup is downloaded and read back as a shop of its own":
    "every table of a shop is written, read and counted again",
  "e2e/trust.spec.ts: two people see each other; what they set apart joins, what they set alike is shown with both values":
    "two browsers, each change waited for in the other",
  "e2e/edge.spec.ts: a house's profile goes out as a file and comes back as another house; one that contradicts itself is refused whole":
    "a profile of every limit is written and read twice",
  "e2e/boards.spec.ts: a product gets a second board: its lines, places and price join the run, and it goes and comes back":
    "two boards are read and measured",
  "e2e/orders.spec.ts: a card's contacts lead to gold and a bevel, the released order sheet says so in the house's own words, and the order is sent, asked about, paid":
    "a run is released, sent and followed, at the pace of a house's answers",
  "core/src/panel/sheets.test.ts": "sheets of every outline are solved, written, read back and proven",
  "solver/src/solver.test.ts": "baskets are proven against every other way to buy them",
};

/**
 * Prints the slowest of a kind, with the reason of what is beyond the limit.
 * @param seconds by name
 */
export function tellSlowest(what, seconds, limit, most = 8) {
  const sorted = Object.entries(seconds).sort((a, b) => b[1] - a[1]);
  const beyond = sorted.filter(([, s]) => s > limit).length;
  console.log(`  slowest ${what} (${limit} s without a reason):`);
  for (const [name, s] of sorted.slice(0, Math.max(most, beyond))) {
    const why = s > limit ? `  ${REASONS[name] ?? "beyond the limit, and nobody says why"}` : "";
    console.log(`  ${s.toFixed(1).padStart(6)} s  ${name}${why}`);
  }
}

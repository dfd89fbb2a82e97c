import { defineConfig } from "@playwright/test";

/** Whole ways walked, and everything on them opened. */
const LONG = /(sums|access|record|demo)\.spec\.ts$/;

/** Journeys run against a server that npm test started on a database of its own. */
export default defineConfig({
  testDir: "e2e",
  fullyParallel: true,
  // one more than there are cores here: a journey waits for its server, its workers and its own eyes a sixth of its time
  workers: 3,
  // the longest first: one that begins at the end is waited for by itself
  projects: [
    { name: "long", testMatch: LONG },
    { name: "short", testIgnore: LONG },
  ],
  // far more than a loaded machine needs: what hangs is found, how fast it is is measured elsewhere
  timeout: 300_000,
  expect: { timeout: 60_000 },
  forbidOnly: Boolean(process.env.CI),
  outputDir: "test-results",
  reporter: process.env.JOURNEY_REPORT
    ? [["list"], ["json", { outputFile: process.env.JOURNEY_REPORT }]]
    : "list",
  use: {
    // what never comes ends its own journey only
    actionTimeout: 90_000,
    baseURL: process.env.BASE_URL ?? "http://127.0.0.1:4180",
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
      // a page of a journey lives for seconds: what makes code faster still for pages that live for hours costs more than it gives
      args: ["--js-flags=--invocation-count-for-maglev=400 --single-threaded-gc --no-turbofan"],
    },
    screenshot: "only-on-failure",
    trace: "off",
  },
});

import { expect, test } from "@jest/globals";
import { countJob, countRequest, figuresDue, livePages, metrics } from "../metrics.ts";

test("requests are counted by route and status, in steps of time; jobs by their outcome", async () => {
  for (const seconds of [0.004, 0.01, 0.04, 0.09, 0.2, 0.4, 0.9, 2, 9, 11])
    countRequest("GET", "/x", 200, seconds);
  countRequest("GET", "/x", 404, 0.001);
  countJob("done");
  countJob("done");
  countJob("failed");
  figuresDue.set(3);
  livePages.set(4);
  const text = await metrics.metrics();
  const of = (start: string) =>
    text.split("\n").flatMap((l) => (l.startsWith(start) ? [l.slice(l.lastIndexOf(" ") + 1)] : []));
  // each step holds what is below it too
  expect(
    text
      .split("\n")
      .filter((l) => l.startsWith("kobbin_request_seconds_bucket") && l.includes('status="200"'))
      .map((l) => [/le="([^"]+)"/.exec(l)![1], l.slice(l.lastIndexOf(" ") + 1)].join(": ")),
  ).toEqual([
    "0.005: 1",
    "0.02: 2",
    "0.05: 3",
    "0.1: 4",
    "0.25: 5",
    "0.5: 6",
    "1: 7",
    "2.5: 8",
    "10: 9",
    "+Inf: 10",
  ]);
  expect(of('kobbin_request_seconds_count{method="GET",route="/x",status="404"}')).toEqual(["1"]);
  expect(of('kobbin_jobs_total{outcome="done"}')).toEqual(["2"]);
  expect(of('kobbin_jobs_total{outcome="failed"}')).toEqual(["1"]);
  expect([of("kobbin_figures_due "), of("kobbin_live_pages ")]).toEqual([["3"], ["4"]]);
});

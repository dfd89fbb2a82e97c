import { Counter, collectDefaultMetrics, Gauge, Histogram, Registry } from "prom-client";

/** What the process counts of itself, in the open text exposition format. */
export const metrics = new Registry();
collectDefaultMetrics({ register: metrics });

const requests = new Histogram({
  name: "kobbin_request_seconds",
  help: "Time of a request by route and status",
  labelNames: ["method", "route", "status"],
  buckets: [0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10],
  registers: [metrics],
});
const jobs = new Counter({
  name: "kobbin_jobs_total",
  help: "Background jobs done, by outcome",
  labelNames: ["outcome"],
  registers: [metrics],
});
/** Runs whose figures wait to be computed; all processes see the same list. */
export const figuresDue = new Gauge({
  name: "kobbin_figures_due",
  help: "Runs whose figures are older than their choices",
  registers: [metrics],
});
/** Open event streams of this process. */
export const livePages = new Gauge({
  name: "kobbin_live_pages",
  help: "Open pages that listen",
  registers: [metrics],
});

export const countRequest = (method: string, route: string, status: number, seconds: number): void =>
  requests.observe({ method, route, status: String(status) }, seconds);
export const countJob = (outcome: "done" | "failed"): void => jobs.inc({ outcome });

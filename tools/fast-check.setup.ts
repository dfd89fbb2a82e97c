import fc from "fast-check";

fc.configureGlobal({ numRuns: Number(process.env.FC_RUNS ?? 100) });

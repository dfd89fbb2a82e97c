import fc from "fast-check";

// the same cases in every run, so that a run fails for what was changed; FC_SEED=any looks for new ones
const { FC_RUNS = "100", FC_SEED = "20261128" } = process.env;
fc.configureGlobal({ numRuns: Number(FC_RUNS), ...(FC_SEED === "any" ? {} : { seed: Number(FC_SEED) }) });

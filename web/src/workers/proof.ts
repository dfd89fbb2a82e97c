import * as Comlink from "comlink";
import type { ProofApi } from "./proof.worker.ts";

/** A worker for long questions about baskets. Closing it stops what it is at. */
export function connectProof() {
  const worker = new Worker(new URL("./proof.worker.ts", import.meta.url), { type: "module", name: "proof" });
  const api = Comlink.wrap<ProofApi>(worker);
  return {
    prove: (...args: Parameters<ProofApi["prove"]>) => api.prove(...args),
    explain: (...args: Parameters<ProofApi["explain"]>) => api.explain(...args),
    explainLine: (...args: Parameters<ProofApi["explainLine"]>) => api.explainLine(...args),
    close: () => worker.terminate(),
  };
}

let shared: ReturnType<typeof connectProof> | undefined;
/** The page's worker for explanations, made at first use; proofs have their own, so that they can be stopped. */
export const explainer = () => {
  shared ??= connectProof();
  return shared;
};

import {
  type BasketCache,
  type LinearModel,
  proveRun,
  type RunDocument,
  type Solve,
  type SolverAnswer,
} from "@kobbin/core";
import type { Highs, InitOptions } from "highs";

let loaded: Promise<Highs> | undefined;

/**
 * The general solver for mixed integer problems, loaded once a thread, when it is first needed.
 *
 * @param wasmUrl where its program lies in a browser; Node finds it by itself
 */
export async function loadSolver(wasmUrl?: string): Promise<Solve> {
  loaded ??= import("highs").then((m) => {
    // the package's types describe its CommonJS door, its module door gives the loader itself
    const load = m.default as unknown as (options?: InitOptions) => Promise<Highs>;
    return load(wasmUrl ? { locateFile: () => wasmUrl } : undefined);
  });
  const highs = await loaded;
  return (model, seconds) => solveWith(highs, model, seconds);
}

/**
 * Proves a run's best basket where its figures left a gap; the solver is loaded only then.
 *
 * @returns true when the cache holds something better than before
 */
export const proveBaskets = (doc: RunDocument, cache: BasketCache, seconds: number): Promise<boolean> =>
  proveRun(
    doc,
    cache,
    () => loadSolver(),
    seconds,
    () => performance.now(),
  );

/** Solves one model to the last digit, or as far as the time goes. The model's memory is given back in any case. */
function solveWith(highs: Highs, m: LinearModel, seconds: number): SolverAnswer {
  const columns = m.cost.length;
  const rows = m.rowLower.length;
  const bounded = (list: readonly number[]) =>
    Float64Array.from(list, (v) =>
      v === Number.POSITIVE_INFINITY ? highs.infinity : v === Number.NEGATIVE_INFINITY ? -highs.infinity : v,
    );
  const { integer, continuous } = highs.constants.variableType;
  return highs.withModel(
    {
      numCols: columns,
      numRows: rows,
      colCost: Float64Array.from(m.cost),
      colLower: new Float64Array(columns),
      colUpper: bounded(m.upper),
      rowLower: bounded(m.rowLower),
      rowUpper: bounded(m.rowUpper),
      matrix: {
        format: "csr",
        numRows: rows,
        numCols: columns,
        starts: Int32Array.from(m.start),
        indices: Int32Array.from(m.column),
        values: Float64Array.from(m.value),
      },
      integrality: m.isInteger.map((is) => (is ? integer : continuous)),
    },
    (model): SolverAnswer => {
      model.options.set({
        output_flag: false,
        // a gap of nothing: a relative one would be a fraction of a cent in some baskets and a euro in others
        mip_rel_gap: 0,
        mip_abs_gap: 1e-7,
        mip_feasibility_tolerance: 1e-9,
        primal_feasibility_tolerance: 1e-9,
        time_limit: Math.max(0.05, seconds),
        random_seed: 1,
      });
      model.run();
      const status = model.getModelStatus();
      const { optimal, infeasible } = highs.constants.modelStatus;
      if (status === infeasible) return { status: "infeasible", values: [], bound: Number.POSITIVE_INFINITY };
      const bound = Number(model.info.get("mip_dual_bound"));
      const hasValues = Number(model.info.get("primal_solution_status")) === 2;
      return {
        status: status === optimal ? "optimal" : "stopped",
        values: hasValues ? model.getSolution().colValue : [],
        bound,
      };
    },
  );
}

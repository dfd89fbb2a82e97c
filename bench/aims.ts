/** What a row of the bench is held to: times its floor, or milliseconds, and who says so. */
export interface Aim {
  readonly times?: number;
  readonly ms?: number;
  /** The shared aims, or what it took when it was looked at, with a third of room. */
  readonly by: "aims" | "own";
}

/** By the beginning of what the row is called; the first that fits counts. */
const AIMS: readonly (readonly [RegExp, Aim])[] = [
  [/^read one layer.*first call/, { times: 4, by: "aims" }],
  [/^read one layer/, { times: 2, by: "aims" }],
  [/^nets and all pairs.* 70,000/, { times: 8, ms: 100, by: "aims" }],
  [/^nets and all pairs/, { times: 8, by: "aims" }],
  [/^archive → first picture/, { times: 1.5, by: "aims" }],
  [/^archive → every figure/, { times: 90, by: "own" }],
  [/^effects of every single option|^the same at six houses/, { ms: 16, by: "aims" }],
  [/^the curve of 40|^the best basket at 40/, { times: 40, by: "aims" }],
  [/^basket of .* at once/, { times: 100, by: "aims" }],
  [/^basket of .* proven/, { times: 500, by: "aims" }],
  [/^a sheet of six of an outline/, { ms: 50, by: "aims" }],
  // forty of a frame each
  [/^a (board|tab) held over/, { ms: 80, by: "own" }],
  [/^40 copies written/, { times: 3, by: "own" }],
  [/^40 copies proven/, { times: 3, by: "own" }],
  [/^two boards of 70,000 objects compared/, { times: 55, by: "own" }],
  [/^the probing list/, { times: 165, by: "own" }],
  [/^twelve holes/, { ms: 1, by: "own" }],
  [/^what feeds and what floats/, { ms: 20, by: "aims" }],
  [/^currents of the ground/, { times: 5, by: "own" }],
  [/^the order of work/, { ms: 20, by: "aims" }],
  [/^the same after a line/, { ms: 5, by: "aims" }],
  [/conflicts with what frees them/, { ms: 400, by: "own" }],
  [/^two connectors/, { ms: 2, by: "own" }],
  // one frame, and a next test within twenty
  [/^coverage of/, { ms: 16, by: "aims" }],
  [/^200 lessons held/, { times: 0.2, by: "aims" }],
  [/^(pan|zoom)/, { times: 1.05, by: "aims" }],
  [/in every frame, bill of 1,000/, { times: 1.05, by: "aims" }],
  [/20,000 lots and 300,000 movements/, { times: 2, ms: 100, by: "aims" }],
  [/^recall of/, { times: 5, by: "aims" }],
  [/^search of .*typing error/, { times: 5, by: "aims" }],
  [/^search of/, { times: 2, by: "aims" }],
  [/^a route of one select/, { times: 2, by: "aims" }],
  [/^a select under row-level security/, { times: 4, by: "own" }],
  [/^an edit with its record/, { times: 4, by: "own" }],
  [/^find in the shop over HTTP/, { times: 20, by: "own" }],
];

/** @throws where a row has no aim: it would never be found too slow */
export function aimOf(work: string): Aim {
  const aim = AIMS.find(([pattern]) => pattern.test(work))?.[1];
  if (!aim) throw new Error(`no aim for “${work}” in bench/aims.ts`);
  return aim;
}

/** How a row stands: what it is held to, what of it is broken, and whether its floor is one at all. */
export function standing(row: { readonly work: string; readonly ms: number; readonly floorMs: number }) {
  const { times, ms, by } = aimOf(row.work);
  const ratio = row.ms / row.floorMs;
  return {
    held:
      [times && `≤ ${times} ×`, ms && `≤ ${ms} ms`].filter(Boolean).join(", ") +
      (by === "own" ? " (own)" : ""),
    isBroken: (times !== undefined && ratio > times) || (ms !== undefined && row.ms > ms),
    // work that is quicker than its floor was not measured against anything
    hasFloor: ratio >= 0.95,
  };
}

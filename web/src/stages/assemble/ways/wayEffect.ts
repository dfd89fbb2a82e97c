import type { RunResult } from "@kobbin/core";

/** What it would change if a row's parts went another way. */
export interface WayEffect {
  /** ± per good board, in the shop's currency. */
  readonly perGood: number;
  /** ± own minutes of the run. */
  readonly minutes: number;
  /** ± days. */
  readonly days: number;
  /** Why it cannot be. */
  readonly cannot?: string;
  /** What else would keep the order from going out that does not now: it can be mended, the way can be taken. */
  readonly brings?: string;
}

/** Blockers that say that the way itself cannot be: the order of work, what an iron does not reach, what a way needs. */
const IS_OF_WAY = /^(order |iron-balls$|paste-missing$|house-placement$|assembly-house-missing$)/;

/** @param then the run as it would be, or why it cannot be worked out */
export function effectOf(base: RunResult, then: RunResult | string): WayEffect {
  if (typeof then === "string") return { perGood: 0, minutes: 0, days: 0, cannot: then };
  const known = new Set(base.blockers.map((n) => n.key));
  const fresh = then.blockers.filter((n) => !known.has(n.key));
  const cannot = fresh.find((n) => IS_OF_WAY.test(n.key));
  return {
    perGood: (then.perGood - base.perGood) / 1e6,
    minutes: then.ownMinutes - base.ownMinutes,
    days: then.ready.days - base.ready.days,
    ...(cannot ? { cannot: cannot.text } : fresh[0] ? { brings: fresh[0].text } : {}),
  };
}

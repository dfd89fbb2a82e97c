import type { RunSitting } from "../document/sitting.ts";
import { isOnce, minutesOf, piecesOf, stepStand, unitOfStep } from "./sitting.ts";

/** A step as its pace is asked for. */
type StepOf = Parameters<typeof piecesOf>[0] & {
  readonly n: number;
  readonly kind: string;
  /** Own minutes as planned, over the whole run. */
  readonly minutes: number;
};

/** Fewer steps that were done with minutes written down say nothing of a pace. */
export const LEAST_PACED = 3;

/** How fast a run is built, and what of it is left. */
export interface Pace {
  /** Own minutes of steps that are done and have some, over what was planned for them; 1 where too few are. */
  readonly factor: number;
  /** Steps of boards it is from; the plan alone where fewer than {@link LEAST_PACED}. */
  readonly of: number;
  /** Own minutes that are left, at this pace. */
  readonly leftMinutes: number;
  /** Steps of boards that are left, begun ones among them. */
  readonly left: number;
  /** Boards of which a step is left; what is done once for all is of none. */
  readonly boards: number;
}

/**
 * What is left at the bench at the pace so far: planned minutes of steps that are not done, times minutes worked over minutes
 * planned of those that are. Of a step that was begun the share of its pieces that is not on counts. Done steps without minutes
 * (marked done afterwards) tell of no pace. Boards that are good or given up, and more than the bench saw to their end, were
 * finished beside it, nobody wrote down which: those with least left are taken for them, so rather more is told to be left.
 *
 * @param started boards that are built
 * @param counted boards among them that are good or given up
 */
export function paceOf(
  steps: readonly StepOf[],
  sittings: readonly Pick<RunSitting, "unit" | "step" | "marks" | "minutes" | "isDone">[],
  started: number,
  counted = 0,
): Pace {
  const by = new Map(sittings.map((s) => [`${s.unit} ${s.step}`, s]));
  let [worked, planned, of] = [0, 0, 0];
  // what is left of each board, and of what is done once for all under 0
  const rest = Array.from({ length: started + 1 }, () => ({ minutes: 0, steps: 0 }));
  for (const s of steps) {
    const units = isOnce(s.kind) ? [0] : Array.from({ length: started }, (_, i) => i + 1);
    const each = s.minutes / Math.max(1, units.length);
    const pieces = piecesOf(s);
    for (const u of units) {
      const sat = by.get(`${unitOfStep(s.kind, u)} ${s.n}`);
      const minutes = sat ? minutesOf([sat]) : 0;
      if (sat?.isDone) {
        if (minutes > 0 && each > 0) {
          worked += minutes;
          planned += each;
          of++;
        }
        continue;
      }
      const stand = stepStand(pieces, sat?.marks ?? {});
      rest[u]!.steps++;
      rest[u]!.minutes += each * (stand.of > 0 ? (stand.of - stand.on) / stand.of : 1);
    }
  }
  const [once, ...boards] = rest;
  const open = boards.filter((b) => b.steps > 0).sort((a, b) => a.minutes - b.minutes);
  const still = open.slice(Math.max(0, counted - (started - open.length)));
  const isPaced = of >= LEAST_PACED;
  const factor = isPaced ? worked / planned : 1;
  // with no board left that needs it, what is done once for all is not left either
  const isOver = still.length === 0 && steps.some((s) => !isOnce(s.kind));
  const sum = (what: "minutes" | "steps") => still.reduce((n, b) => n + b[what], isOver ? 0 : once![what]);
  return {
    factor,
    of: isPaced ? of : 0,
    leftMinutes: sum("minutes") * factor,
    left: sum("steps"),
    boards: still.length,
  };
}

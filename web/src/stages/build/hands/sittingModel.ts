import type { ClashDetail, SittingBody } from "@kobbin/contract";
import type { PieceMark, RunSitting } from "@kobbin/core";

/** What was pressed here and is not with the server yet; null takes back. */
export interface Unsent {
  readonly marks: Readonly<Record<string, PieceMark | null>>;
  readonly lost: Readonly<Record<string, number>>;
  readonly isDone?: boolean;
  /** With what the step is done, as far as it was said here. */
  readonly used?: Used;
  /** All of this device's minutes at the step; undefined while none were added. */
  readonly minutes?: number;
}
export const NOTHING_UNSENT: Unsent = { marks: {}, lost: {} };

export type Used = NonNullable<RunSitting["used"]>;
export type Sat = Pick<RunSitting, "marks" | "lost" | "minutes" | "isDone" | "used">;
const NOTHING: Sat = { marks: {}, lost: {}, minutes: {}, isDone: false };

/** A step as it stands for who sits here: what the server has with what was pressed since laid over it. */
export function laid(row: Sat | undefined, unsent: Unsent, device: string): Sat {
  const base = row ?? NOTHING;
  const marks = Object.entries({ ...base.marks, ...unsent.marks }).filter(([, m]) => m !== null);
  return {
    marks: Object.fromEntries(marks) as Sat["marks"],
    lost: { ...base.lost, ...unsent.lost },
    minutes: unsent.minutes === undefined ? base.minutes : { ...base.minutes, [device]: unsent.minutes },
    isDone: unsent.isDone ?? base.isDone,
    ...(base.used || unsent.used ? { used: { ...base.used, ...unsent.used } } : {}),
  };
}

/**
 * What is unsent once a piece is marked, or taken back. A step is not done any more where a piece of it is not on again.
 * @param s how the step stood
 */
export function marked(u: Unsent, s: Sat, name: string, mark: PieceMark | undefined): Unsent {
  // a look that is taken back leaves the step as it was
  const isOff = (mark === undefined || mark === "skipped") && !name.startsWith("check ");
  return {
    ...u,
    marks: { ...u.marks, [name]: mark ?? null },
    ...(isOff && s.isDone ? { isDone: false } : {}),
  };
}

/** What is unsent once pieces of a line were lost, or were not after all; never less than none. */
export const withLost = (u: Unsent, s: Sat, line: string, by: 1 | -1): Unsent => ({
  ...u,
  lost: { ...u.lost, [line]: Math.max(0, (s.lost[line] ?? 0) + by) },
});

/** What is left unsent once something of it arrived: what was pressed since. */
export function since(unsent: Unsent, sent: Unsent): Unsent {
  const rest = <T>(now: Readonly<Record<string, T>>, was: Readonly<Record<string, T>>) =>
    Object.fromEntries(Object.entries(now).filter(([k, v]) => was[k] !== v));
  return {
    marks: rest(unsent.marks, sent.marks),
    lost: rest(unsent.lost, sent.lost),
    ...(unsent.isDone !== undefined && unsent.isDone !== sent.isDone ? { isDone: unsent.isDone } : {}),
    ...(unsent.minutes !== undefined && unsent.minutes !== sent.minutes ? { minutes: unsent.minutes } : {}),
    ...some(rest(unsent.used ?? {}, sent.used ?? {})),
  };
}

const some = (used: Used): { readonly used?: Used } => (Object.keys(used).length > 0 ? { used } : {});

/**
 * What is left unsent where others marked some of it differently: of that theirs stands, the rest is sent again. Where
 * it is not said what clashes, all of it goes: sent as it is, it would be refused for ever.
 */
export function yielded(u: Unsent, clashes: readonly Pick<ClashDetail, "path">[]): Unsent {
  const isTheirs = (column: string, key?: string) =>
    clashes.some(({ path }) => path[0] === column && (path.length < 2 || path[1] === key));
  const rest = <T>(column: string, all: Readonly<Record<string, T>>) =>
    Object.fromEntries(Object.entries(all).filter(([key]) => !isTheirs(column, key)));
  const left: Unsent = {
    marks: rest("marks", u.marks),
    lost: rest("lost", u.lost),
    ...(u.isDone === undefined || isTheirs("is_done") ? {} : { isDone: u.isDone }),
    ...(u.minutes === undefined ? {} : { minutes: u.minutes }),
    ...some(rest("used", u.used ?? {})),
  };
  return size(left) < size(u) ? left : NOTHING_UNSENT;
}
const size = (u: Unsent): number =>
  Object.keys(u.marks).length +
  Object.keys(u.lost).length +
  Object.keys(u.used ?? {}).length +
  Number(u.isDone !== undefined);

export const isSent = (u: Unsent): boolean => size(u) === 0 && u.minutes === undefined;

/** What goes to the server: the step whole, as it stands here. */
export const bodyOf = (
  at: { readonly unit: number; readonly step: number; readonly version?: number | undefined },
  s: Sat,
): SittingBody => ({
  unit: at.unit,
  step: at.step,
  ...(at.version === undefined ? {} : { version: at.version }),
  marks: s.marks,
  lost: s.lost,
  minutes: s.minutes,
  isDone: s.isDone,
  used: { ...s.used },
});

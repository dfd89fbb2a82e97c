/** What happens to a bag of moisture-sensitive parts. */
export const AIR_STEPS = ["dry", "out", "baked", "damp", "plain"] as const;
/**
 * `dry`: in a sealed dry bag or a dry cabinet; `out`: in the air of the room; `baked`: dried by heat as its maker's sheet asks,
 * and back in a dry bag; `damp`: its humidity card is past its limit; `plain`: came in no dry bag, so nobody knows how long it
 * was out.
 */
export type AirStep = (typeof AIR_STEPS)[number];

/** One thing that happened to a bag. */
export interface AirEvent {
  /** ISO instant. */
  readonly at: string;
  readonly is: AirStep;
  readonly by: string;
}

/** What is written down of a lot's bag, the oldest event first. */
export interface LotAir {
  /** Hours out of the bag that its own label allows, where it says other than its level does. */
  readonly floorHours?: number;
  readonly events: readonly AirEvent[];
}

/** More than a bag is opened and closed in its life. */
export const MOST_AIR = 200;

/** How it is with a lot's bag. */
export interface AirState {
  /** `old`: sealed for so long that its card is to be looked at; `unbaked`: of a level that is baked before each use. */
  readonly is: "none" | "unsaid" | "dry" | "old" | "out" | "soon" | "spent" | "damp" | "unbaked" | "unknown";
  /** As it is counted: "3", "5a". */
  readonly level: string;
  /** Hours out of the dry bag that count, in all. */
  readonly outHours: number;
  /** Hours allowed; nothing where neither the level nor the label says so. */
  readonly floorHours?: number;
  /** Never below 0. */
  readonly leftHours?: number;
  /** ISO instant at which what lies in the air is past its hours. */
  readonly until?: string;
  /** ISO instant at which lying dry has made up for the hours out. */
  readonly resetOn?: string;
  readonly words: string;
}

/**
 * Hours out of the dry bag before soldering heat, at 30 °C and 60 % relative humidity or less (domain.md 7.10, recalled from the
 * standards). A bag's own label goes before it. Level 6 has only what its label says.
 */
export const FLOOR_HOURS: Readonly<Record<string, number>> = {
  "2": 365 * 24,
  "2a": 28 * 24,
  "3": 168,
  "4": 72,
  "5": 48,
  "5a": 24,
};

/**
 * So short out of the bag, and so many times as long dry after it: as if it had never been out (domain.md 7.10, recalled).
 * Level 6 has none.
 */
const RESETS: Readonly<Record<string, readonly [mostHours: number, times: number]>> = {
  "2": [12, 5],
  "2a": [12, 5],
  "3": [12, 5],
  "4": [8, 10],
  "5": [8, 10],
  "5a": [8, 10],
};

/** A sealed bag keeps so long before its card is to be looked at: twelve months (domain.md 7.10, recalled). */
const SEALED_HOURS = 365 * 24;
/** One is told that the hours end while a working day of them is left. */
const SOON_HOURS = 8;
const HOUR_MS = 3_600_000;

/**
 * A moisture level as people write it: "3", "MSL3", "level 5A", "MSL-2a".
 *
 * @returns "1" to "6", "2a" or "5a"; "" where nothing is said; undefined where nobody can read it
 */
export function moistureLevel(text: string): string | undefined {
  const t = text.trim();
  if (t === "") return "";
  return /^(?:(?:j-?std-?020\s*)?(?:msl|level)\s*[-:]?\s*)?([1-6]|[25]a)$/i.exec(t)?.[1]?.toLowerCase();
}

/** Hours as people say them: half an hour is told, minutes of a week are not. */
const hours = (h: number): string => (h < 10 ? `${Math.round(h * 10) / 10} h` : `${Math.round(h)} h`);

interface Fold {
  where: "dry" | "out" | undefined;
  /** Of the event that put it there, ms. */
  since: number;
  out: number;
  isDamp: boolean;
  isPlain: boolean;
  isBaked: boolean;
  /** Hours out were made up for by lying dry. */
  isMadeUp: boolean;
}

/**
 * The clock of a dry bag: hours in the air add up against what the level allows, lying dry stops them, baking sets them back,
 * and so does a short time out that was followed by a long enough time dry (domain.md 7.10). Hours of several short times out
 * count together, which errs to the safe side.
 *
 * @param level of the part, as it is written in the library
 * @param now ISO instant; before the last event, nothing has passed since
 */
export function airOf(level: string, air: LotAir | undefined, now: string): AirState {
  const read = moistureLevel(level);
  const events = air?.events ?? [];
  if (read === "1" || (read === "" && events.length === 0))
    return { is: "none", level: read, outHours: 0, words: "" };
  const known = read ?? level.trim();
  const floor = air?.floorHours ?? (read ? FLOOR_HOURS[read] : undefined);
  const name = known === "" ? "no moisture level said" : `moisture level ${known}`;
  const end = Date.parse(now);
  const f = fold(events, read ? RESETS[read] : undefined, end);
  const base = { level: known, outHours: f.out, ...(floor === undefined ? {} : { floorHours: floor }) };
  const say = (is: AirState["is"], words: string) => ({ ...base, is, words: `${name}: ${words}` });
  if (read === "6" && !f.isBaked)
    return say("unbaked", "baked before use, then out as long as its label says");
  if (events.length === 0) return say("unsaid", "whether it lies in its dry bag is not said");
  if (f.isDamp) return say("damp", "its card says it is damp");
  if (f.isPlain) return say("unknown", "it came in no dry bag, how long it was out is not known");
  if (floor === undefined)
    return f.out === 0
      ? say(f.where ?? "unknown", "its label says how long it may be out")
      : say("unknown", `out for ${hours(f.out)}; how long it may be stands on its label`);
  const left = floor - f.out;
  const counted = { ...base, leftHours: Math.max(0, left) };
  const whose = air?.floorHours === undefined ? `level ${known}` : "its label";
  const out = `out of its dry bag for ${hours(f.out)}; ${whose} allows ${hours(floor)}`;
  if (left <= 0) return { ...counted, is: "spent", words: out };
  if (f.where === "out")
    return {
      ...counted,
      is: left <= SOON_HOURS ? "soon" : "out",
      until: new Date(end + left * HOUR_MS).toISOString(),
      words: out,
    };
  return { ...counted, ...dryOf(f, floor, whose, read ? RESETS[read] : undefined, end) };
}

/** What is said of a bag that lies dry. */
function dryOf(
  f: Fold,
  floor: number,
  whose: string,
  reset: readonly [number, number] | undefined,
  end: number,
): Pick<AirState, "is" | "words" | "resetOn"> {
  const all = f.isMadeUp ? "; what it was out is made up for" : "";
  const words =
    f.out === 0
      ? `dry, all of the ${hours(floor)} left that ${whose} allows${all}`
      : `dry, ${hours(floor - f.out)} left of the ${hours(floor)} that ${whose} allows`;
  if (end - f.since > SEALED_HOURS * HOUR_MS)
    return { is: "old", words: `${words}; for more than a year: look at its card before it is used` };
  const isShort = f.out > 0 && reset !== undefined && f.out <= reset[0];
  return {
    is: "dry",
    words,
    ...(isShort ? { resetOn: new Date(f.since + f.out * reset[1] * HOUR_MS).toISOString() } : {}),
  };
}

function fold(events: readonly AirEvent[], reset: readonly [number, number] | undefined, end: number): Fold {
  const f: Fold = {
    where: undefined,
    since: 0,
    out: 0,
    isDamp: false,
    isPlain: false,
    isBaked: false,
    isMadeUp: false,
  };
  /** Lets time pass where it lies. */
  const pass = (to: number) => {
    const h = Math.max(0, to - f.since) / HOUR_MS;
    if (f.where === "out") f.out += h;
    else if (f.where === "dry" && f.out > 0 && reset && f.out <= reset[0] && h >= f.out * reset[1]) {
      f.out = 0;
      f.isMadeUp = true;
    }
  };
  for (const { at, is } of events) {
    const t = Date.parse(at);
    pass(t);
    if (is === "baked") {
      f.out = 0;
      f.isDamp = false;
      f.isPlain = false;
      f.isBaked = true;
      f.isMadeUp = false;
    }
    if (is === "damp") f.isDamp = true;
    if (is === "plain") f.isPlain = true;
    const where = is === "out" || is === "plain" || is === "damp" ? "out" : "dry";
    // dry again while it is dry: it lies there since then
    if (where === f.where && where === "dry" && is !== "baked") continue;
    f.where = where;
    f.since = t;
  }
  pass(end);
  return f;
}

/** Whether what lies in a bag may not go through heat as it is. */
export const needsBaking = (s: Pick<AirState, "is">): boolean =>
  s.is === "spent" || s.is === "damp" || s.is === "unbaked" || s.is === "unknown";

/**
 * What may be next of a bag. Damp is what a card says when it is opened; in no bag is how it came, so it is the first thing
 * said or nothing.
 */
export const nextAir = (air: LotAir | undefined): readonly AirStep[] => {
  const last = air?.events.at(-1)?.is;
  if (last === undefined) return ["dry", "out", "plain", "damp", "baked"];
  return last === "dry" || last === "baked" ? ["out", "damp", "baked"] : ["dry", "baked"];
};

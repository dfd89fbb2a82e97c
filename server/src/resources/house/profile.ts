import { AppError, type House } from "@kobbin/core";

/**
 * Checks a house profile that a person edited: the shape of the old one, numbers where numbers stand, money as decimals.
 * @throws AppError OUT_OF_RANGE naming the field by its path
 */
export function checkProfile(edited: unknown, old: House): Omit<House, "id"> {
  const bad = (path: string, what: string): never => {
    throw new AppError(
      "OUT_OF_RANGE",
      `${path}: ${what}.`,
      "Correct it and save again; nothing was changed.",
    );
  };
  const walk = (value: unknown, like: unknown, path: string): unknown => {
    if (Array.isArray(like)) {
      if (!Array.isArray(value) || value.length === 0 || value.length > 60)
        return bad(path, "should be a list");
      return value.map((v, i) => walk(v, like[Math.min(i, like.length - 1)], `${path} ${i + 1}`));
    }
    if (typeof like === "number")
      return typeof value === "number" && Number.isFinite(value) && value >= 0 && value < 1e6
        ? value
        : bad(path, "should be a number from 0");
    if (typeof like === "string") {
      if (typeof value !== "string" || value.length > 300) return bad(path, "should be a short text");
      return /^\d+(\.\d+)?$/.test(like) && !/^\d{1,9}(\.\d{1,6})?$/.test(value)
        ? bad(path, "should be an amount like 12.50")
        : value;
    }
    if (typeof like === "object" && like !== null) {
      if (typeof value !== "object" || value === null) return bad(path, "is missing");
      const out: Record<string, unknown> = {};
      for (const [k, v] of Object.entries(like)) {
        const given = (value as Record<string, unknown>)[k];
        out[k] = given === undefined ? v : walk(given, v, path ? `${path}, ${k}` : k);
      }
      return out;
    }
    return like;
  };
  const { id: _, ...shape } = old;
  const profile = walk(edited, shape, "") as Omit<House, "id">;
  const wished = (edited as Partial<House> | null)?.assembly;
  if (!profile.assembly || !wished) return profile;
  // what a house need not state: the old shape does not know it
  const { takes, leaderMm } = wished;
  if (takes !== undefined && takes !== "strips" && takes !== "reels")
    bad("assembly, takes", "should be strips or reels");
  if (leaderMm !== undefined && !(typeof leaderMm === "number" && leaderMm >= 0 && leaderMm <= 2000))
    bad("assembly, leaderMm", "should be a length from 0 to 2000 mm");
  return {
    ...profile,
    assembly: {
      ...profile.assembly,
      ...(takes === undefined ? {} : { takes }),
      ...(leaderMm === undefined ? {} : { leaderMm }),
    },
  };
}

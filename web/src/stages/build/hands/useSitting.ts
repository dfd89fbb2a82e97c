import { type PieceMark, workedMinutes } from "@kobbin/core";
import { useCallback, useEffect, useRef, useState } from "react";
import { clashesOf, RequestError } from "../../../resources/http.ts";
import { saveSitting } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { useSayError } from "../../../ui/toast/Toast.tsx";
import {
  bodyOf,
  isSent,
  laid,
  marked,
  NOTHING_UNSENT,
  type Sat,
  since,
  type Unsent,
  type Used,
  withLost,
  yielded,
} from "./sittingModel.ts";

/** What is pressed goes to the server so long after the last press: one writes down a few, not each. */
const AFTER_MS = 900;

/** This device, so that the minutes of two who sit at one board add up. */
function deviceId(): string {
  const known = localStorage.getItem("bench device");
  if (known && /^[a-z0-9]{4,40}$/.test(known)) return known;
  const made = Array.from(crypto.getRandomValues(new Uint8Array(8)), (b) =>
    b.toString(36).padStart(2, "0"),
  ).join("");
  localStorage.setItem("bench device", made);
  return made;
}

const read = (key: string): Unsent => {
  try {
    return { ...NOTHING_UNSENT, ...JSON.parse(localStorage.getItem(key) ?? "{}") };
  } catch {
    return NOTHING_UNSENT;
  }
};
const write = (key: string, u: Unsent) =>
  isSent(u) ? localStorage.removeItem(key) : localStorage.setItem(key, JSON.stringify(u));

/** Steps of which something is under way: of one nothing is sent twice. */
const underWay = new Set<string>();
interface Sent {
  readonly run: string;
  readonly key: string;
  readonly unit: number;
  readonly step: number;
  readonly version: number | undefined;
  readonly row: Sat | undefined;
  readonly device: string;
}

/**
 * Sends what is pressed at a step and not sent yet.
 * @returns what was pressed meanwhile; nothing where nothing was sent
 * @throws RequestError; of a piece that two marked differently the server's mark stands, anything else stays here and goes next
 */
async function send({ run, key, row, device, ...at }: Sent): Promise<Unsent | undefined> {
  const sent = read(key);
  if (isSent(sent) || underWay.has(key)) return undefined;
  underWay.add(key);
  try {
    await saveSitting(run, bodyOf(at, laid(row, sent, device)));
    const rest = since(read(key), sent);
    write(key, rest);
    return rest;
  } catch (error) {
    if (error instanceof RequestError && error.code === "STALE_VERSION")
      write(key, yielded(read(key), clashesOf(error)));
    throw error;
  } finally {
    underWay.delete(key);
  }
}

/** What an earlier life of the page pressed and could not send goes out once the bench is looked at again. */
export function useSendLeft(): void {
  const { id, answer, record } = useRun();
  const sayError = useSayError();
  useEffect(() => {
    for (const key of Object.keys(localStorage).filter((k) => k.startsWith(`sitting ${id} `))) {
      const [unit, step] = key.split(" ").slice(2).map(Number) as [number, number];
      const row = record.sittings?.find((s) => s.unit === unit && s.step === step);
      const version = row ? answer.versions[row.id] : undefined;
      send({ run: id, key, unit, step, version, row, device: deviceId() }).catch(sayError);
    }
  }, [id, answer, record, sayError]);
}

/** A step of a board as it stands, and what presses do to it. What is not sent survives the page. */
export function useSitting(unit: number, step: number) {
  const { id, answer, record } = useRun();
  const sayError = useSayError();
  const [device] = useState(deviceId);
  const key = `sitting ${id} ${unit} ${step}`;
  const row = record.sittings?.find((s) => s.unit === unit && s.step === step);
  const [unsent, setUnsent] = useState(() => ({ key, u: read(key) }));
  const now = unsent.key === key ? unsent.u : read(key);
  const sat = laid(row, now, device);
  // what the timers below work with: always what stands now
  const version = row ? answer.versions[row.id] : undefined;
  const live = useRef({ key, now, sat, unit, step, version, row });
  live.current = { key, now, sat, unit, step, version, row };
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const last = useRef<number>(undefined);

  const flush = useCallback(() => {
    clearTimeout(timer.current);
    const { key: of, now: _, sat: __, ...at } = live.current;
    send({ run: id, key: of, ...at, device })
      .then((rest) => {
        if (!rest) return;
        setUnsent((was) => (was.key === of ? { key: of, u: rest } : was));
        if (!isSent(rest)) timer.current = setTimeout(flush, AFTER_MS);
      })
      .catch((error) => {
        const left = read(of);
        setUnsent((was) => (was.key === of ? { key: of, u: left } : was));
        if (clashesOf(error).length > 0 && !isSent(left)) timer.current = setTimeout(flush, AFTER_MS);
        sayError(error);
      });
  }, [id, device, sayError]);

  const put = (change: (u: Unsent, s: Sat) => Unsent) => {
    const at = Date.now();
    const worked = last.current === undefined ? 0 : workedMinutes(at - last.current);
    last.current = at;
    const { now: u, sat: s } = live.current;
    const next = change(u, s);
    const minutes = Math.round(((s.minutes[device] ?? 0) + worked) * 1000) / 1000;
    const kept: Unsent = worked > 0 ? { ...next, minutes } : next;
    write(key, kept);
    setUnsent({ key, u: kept });
    live.current = { ...live.current, now: kept, sat: laid(row, kept, device) };
    clearTimeout(timer.current);
    timer.current = setTimeout(flush, AFTER_MS);
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: another step, and what was pressed of the one before goes out
  useEffect(() => {
    last.current = Date.now();
    setUnsent({ key, u: read(key) });
    const hide = () => document.visibilityState === "hidden" && flush();
    document.addEventListener("visibilitychange", hide);
    if (!isSent(read(key))) timer.current = setTimeout(flush, AFTER_MS);
    return () => {
      document.removeEventListener("visibilitychange", hide);
      flush();
    };
  }, [key]);

  return {
    sat,
    isAllSent: isSent(now),
    mark: (name: string, mark: PieceMark | undefined) => put((u, s) => marked(u, s, name, mark)),
    lose: (line: string, by: 1 | -1 = 1) => put((u, s) => withLost(u, s, line, by)),
    finish: (isDone: boolean, used: Used = {}) =>
      put((u) => ({
        ...u,
        isDone,
        ...(Object.keys(used).length > 0 ? { used: { ...u.used, ...used } } : {}),
      })),
    /** With what it is done: said before it is. */
    use: (used: Used) => put((u) => ({ ...u, used: { ...u.used, ...used } })),
    /** From here on nobody works until the next press. */
    pause: () => {
      last.current = undefined;
      flush();
    },
  };
}
export type Sitting = ReturnType<typeof useSitting>;

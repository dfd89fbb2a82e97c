import { type ImageLoad, imageFits, linesOfUnit, type ProgramImage } from "@kobbin/core";
import { useMemo, useState } from "react";
import { addLoad, removeLoad } from "../../../resources/record.ts";
import { effectiveRevision } from "../../../run/learn/effectiveRevision.ts";
import { useRun } from "../../../run/runState.ts";
import { todayIso } from "../../../ui/text/dates.ts";
import { useSay, useSayError } from "../../../ui/toast/Toast.tsx";
import { useKnownWrong } from "../units/KnownWrong.tsx";
import { givenValue, loadsOf, type Went, went } from "./loadModel.ts";

/** What is typed at a load before it is kept. */
interface Draft {
  readonly said: string;
  readonly given: Readonly<Record<string, string>>;
  readonly socket: string;
}
const NOTHING: Draft = { said: "", given: {}, socket: "" };

/** An image that is loaded into a board now: what is typed of it, its goes so far, and one more. */
export function useLoad(image: ProgramImage | undefined, unit: number) {
  const { id, doc, record } = useRun();
  const errata = useKnownWrong();
  const say = useSay();
  const sayError = useSayError();
  const key = `${image?.id} ${unit}`;
  // the socket stays from one to the next; what this board was given does not
  const [draft, setDraft] = useState<Draft & { readonly key: string }>({ ...NOTHING, key });
  const now: Draft = draft.key === key ? draft : { ...NOTHING, socket: draft.socket };
  const change = (more: Partial<Draft>) => setDraft({ ...now, ...more, key });
  const loads: readonly ImageLoad[] = image ? loadsOf(record.loads, unit, image.id) : [];
  // constants of this board that stand, where a value is called after them
  const constants = useMemo(
    () =>
      linesOfUnit(doc.assembly.tests ?? [], record.tries ?? [], unit).flatMap((l) =>
        l.fit && l.stand === "pass" ? [{ of: l.line.of, fit: l.fit }] : [],
      ),
    [doc.assembly.tests, record.tries, unit],
  );
  const given = (name: string) => givenValue(name, now.given[name], constants);
  const effective = effectiveRevision(doc.revision, errata, id, unit);
  const fits = image && imageFits(image, doc.revision, effective);
  /** Keeps a go; says why where it is none, or went wrong. */
  const answer = (isSaidRight: boolean): Went | undefined => {
    if (!image || !fits) return undefined;
    const w = went(image, fits, isSaidRight, now.said);
    if (w.is === "refused") {
      say(w.because, { isProblem: true, hint: "Nothing was written down." });
      return w;
    }
    const socket = Number(now.socket);
    addLoad(id, {
      unit,
      image: image.id,
      on: todayIso(),
      isRight: isSaidRight,
      said: now.said,
      given: Object.fromEntries(
        image.values.flatMap((v) => {
          const { text } = given(v.name);
          return !v.isWiped && text ? [[v.name, text]] : [];
        }),
      ),
      ...(Number.isInteger(socket) && socket >= 1 && socket <= 100 ? { socket } : {}),
    }).catch(sayError);
    if (w.is === "wrong") say(w.because, { isProblem: true });
    change({ said: "" });
    return w;
  };
  const takeBack = () => {
    const last = loads.at(-1);
    if (last) removeLoad(id, last.id).catch(sayError);
  };
  return { image, unit, draft: now, change, given, loads, fits, answer, takeBack };
}

export type Loading = ReturnType<typeof useLoad>;

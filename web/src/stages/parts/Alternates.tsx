import {
  type Candidate,
  candidatesFor,
  factsOfLine,
  type LibraryPart,
  lineKey,
  numberKey,
  type RunLine,
  unitOf,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { addParts, decideAlternate, useParts } from "../../resources/library.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Delta } from "../../ui/ChoiceRow.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { useOnce } from "../../ui/once.ts";
import { count, day } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { Compared } from "./Compared.tsx";
import { useAlternateEffects } from "./useAlternateEffects.ts";

const VERDICT = { equal: "equal", look: "needs a look", forbidden: "forbidden" } as const;
const KIND = { equal: "ready", look: "look", forbidden: "blocked" } as const;
const MOST = 12;

/** What may stand in for a line's part: compared, its effect known, approved by somebody for some runs. */
export function Alternates({ line }: { line: RunLine }) {
  const { doc, changeLine, isLocked } = useRun();
  const facts = factsOfLine(line, doc.library ?? []);
  const { data } = useParts(facts.kind === "other" ? undefined : facts.kind);
  const [open, setOpen] = useState<string>();
  const candidates = useMemo(() => {
    // the run's own copy of a part counts; the rest of the library stands beside it
    const own = new Map((doc.library ?? []).map((p) => [p.id, p]));
    for (const p of data?.parts ?? []) if (!own.has(p.id)) own.set(p.id, p);
    return candidatesFor(line, [...own.values()], doc.alternates ?? [], { rules: doc.workshop.rules });
  }, [line, doc.library, doc.alternates, doc.workshop.rules, data]);
  const effects = useAlternateEffects(line, candidates);
  const key = lineKey(line);
  if (!key)
    return (
      <p className="text-[14px] text-ink-2">
        The line says too little to compare anything with it: give it a value and a package, or a part number.
      </p>
    );
  return (
    <div>
      <h3 className="mb-1 text-[15px] font-semibold">
        {line.mpn === "" ? "Parts that answer it" : "May stand in for it"}
      </h3>
      {candidates.length === 0 ? (
        <p className="text-[14px] text-ink-2">
          The library holds no other {facts.kind === "other" ? "part" : facts.kind} that could.
        </p>
      ) : (
        <ul aria-label="Alternates">
          {candidates.slice(0, MOST).map((c) => (
            <li key={c.part.id} className="border-t border-rule py-[6px] text-[14px]">
              <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
                <button
                  type="button"
                  aria-expanded={open === c.part.id}
                  className="flex items-center gap-2 text-left"
                  onClick={() => setOpen(open === c.part.id ? undefined : c.part.id)}
                >
                  <Mark kind={KIND[c.comparison.verdict]} />
                  <span className="num why">{c.part.mpn}</span>
                </button>
                <span className="text-ink-2">{c.part.maker}</span>
                <span className={c.comparison.verdict === "forbidden" ? "text-stop" : ""}>
                  {VERDICT[c.comparison.verdict]}
                </span>
                <span className="text-ink-2">
                  {c.part.suspect
                    ? "suspected"
                    : c.part.triedOn
                      ? `tried ${day(c.part.triedOn)}`
                      : "not tried here"}
                </span>
                <Effect effect={effects.get(c.part.id)} candidate={c} unit={unitOf(doc)} />
                <State candidate={c} />
                {line.mpn === "" && !isLocked && c.comparison.verdict !== "forbidden" && (
                  <button
                    type="button"
                    className="quiet-link"
                    onClick={() =>
                      changeLine(
                        line.id,
                        { mpn: c.part.mpn, ...(c.part.maker ? { maker: c.part.maker } : {}) },
                        `${line.refs[0] ?? line.valueText}: part number ${c.part.mpn}`,
                      )
                    }
                  >
                    take just this one
                  </button>
                )}
              </div>
              {open === c.part.id && <Compared candidate={c} original={line.mpn || "the line"} />}
              {!isLocked && <Decide line={line} original={key} candidate={c} />}
            </li>
          ))}
        </ul>
      )}
      {candidates.length > MOST && (
        <p className="text-[13px] text-ink-2">{count(candidates.length - MOST, "further part")} not shown.</p>
      )}
      {!isLocked && <Propose line={line} original={key} known={candidates} />}
    </div>
  );
}

function Effect({
  effect,
  candidate: c,
  unit,
}: {
  effect: number | undefined;
  candidate: Candidate;
  unit: string;
}) {
  if (c.isUsable) return null;
  return (
    <span className="text-ink-2">
      {effect === undefined ? (
        "no offer known"
      ) : (
        <>
          <Delta value={effect} /> per good {unit}
        </>
      )}
    </span>
  );
}

function State({ candidate: c }: { candidate: Candidate }) {
  const d = c.decided;
  if (!d)
    return c.isUsable ? <span className="text-fine">counts: the line asks for any such part</span> : null;
  return (
    <span className={d.state === "approved" ? "text-fine" : "text-ink-2"}>
      {d.isElsewhere ? "approved for other runs only" : d.state}
      {d.isForAllRuns ? " for all runs" : d.state === "approved" ? " for this run" : ""} by {d.by},{" "}
      {day(d.at)}
      {d.because && `: ${d.because}`}
    </span>
  );
}

/** A part's number in the library: one that only a supplier named is taken over first, with what it says of it. */
async function kept({
  found,
  id,
  mpn,
  maker,
  kind,
  description,
  package: body,
  params,
}: LibraryPart): Promise<string> {
  if (!found) return id;
  const made = await addParts([{ mpn, maker, kind, description, package: body, params }]);
  return made.value.ids[0]!;
}

/** Proposing, approving and refusing, with a reason; what is forbidden cannot be approved. */
function Decide({ line, original, candidate: c }: { line: RunLine; original: string; candidate: Candidate }) {
  const { id, did } = useRun();
  const sayError = useSayError();
  const [because, setBecause] = useState("");
  const needsReason = c.comparison.verdict !== "equal" || c.part.suspect !== undefined;
  const isForbidden = c.comparison.verdict === "forbidden";
  const decide = (state: "proposed" | "approved" | "refused", forRun: boolean) => {
    const done = kept(c.part).then((partId) =>
      decideAlternate({
        original,
        partId,
        state,
        because: because.trim() || (c.decided?.because ?? ""),
        ...(forRun ? { runId: id } : {}),
      }),
    );
    done.then(
      () =>
        did(
          `${c.part.mpn} ${state}${state === "approved" ? (forRun ? " for this run" : " for all runs") : ""}`,
          done,
        ),
      sayError,
    );
    setBecause("");
  };
  const state = c.decided?.state;
  const isShort = needsReason && because.trim() === "" && !c.decided?.because;
  if (state === "approved" && c.decided?.isForAllRuns)
    return (
      <button type="button" className="quiet-link" onClick={() => decide("refused", true)}>
        refuse from now on
      </button>
    );
  return (
    <div className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1 pl-6">
      {!isForbidden && (
        <input
          aria-label={`Why ${c.part.mpn} in the place of ${line.mpn || "it"}`}
          placeholder={needsReason ? "why it is good enough (needed)" : "why, for who reads it later"}
          className="min-h-7! w-72 text-[13.5px]"
          value={because}
          onChange={(e) => setBecause(e.target.value)}
        />
      )}
      {state === undefined && !c.isUsable && !isForbidden && (
        <button type="button" className="quiet-link" onClick={() => decide("proposed", true)}>
          propose
        </button>
      )}
      {!isForbidden && (
        <>
          {!(state === "approved" && !c.decided?.isElsewhere) && !(c.isUsable && !c.decided) && (
            <button
              type="button"
              className="quiet-link disabled:text-ink-3"
              disabled={isShort}
              onClick={() => decide("approved", true)}
            >
              approve for this run
            </button>
          )}
          {!(c.isUsable && !c.decided) && (
            <button
              type="button"
              className="quiet-link disabled:text-ink-3"
              disabled={isShort}
              onClick={() => decide("approved", false)}
            >
              for all runs
            </button>
          )}
        </>
      )}
      {state !== "refused" && (
        <button type="button" className="quiet-link" onClick={() => decide("refused", true)}>
          refuse
        </button>
      )}
    </div>
  );
}

/** A number nobody compared yet: taken into the library with what is typed of it, its package too, and proposed. Nothing of the line's is taken over: what nobody said is not known. */
function Propose({
  line,
  original,
  known,
}: {
  line: RunLine;
  original: string;
  known: readonly Candidate[];
}) {
  const { id, doc, did } = useRun();
  const sayError = useSayError();
  const once = useOnce();
  const [mpn, setMpn] = useState("");
  const [maker, setMaker] = useState("");
  const [pkg, setPackage] = useState("");
  const facts = factsOfLine(line, doc.library ?? []);
  const isThere =
    known.some((c) => numberKey(c.part.mpn) === numberKey(mpn)) || numberKey(mpn) === numberKey(line.mpn);
  const propose = async () => {
    const made = await addParts([
      { mpn: mpn.trim(), maker: maker.trim(), kind: facts.kind, package: pkg.trim() },
    ]);
    const done = decideAlternate({
      original,
      partId: made.value.ids[0]!,
      state: "proposed",
      because: "",
      runId: id,
    });
    await done;
    did(`${mpn.trim()} is proposed; say in the library what is known of it`, done);
    setMpn("");
    setMaker("");
    setPackage("");
  };
  return (
    <form
      className="mt-2 flex flex-wrap items-center gap-2 border-t border-rule pt-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (mpn.trim() !== "" && !isThere) once(() => propose().catch(sayError));
      }}
    >
      <input
        aria-label="Number of another part"
        placeholder="another part number"
        className="num w-44"
        value={mpn}
        onChange={(e) => setMpn(e.target.value)}
      />
      <input
        aria-label="Its maker"
        placeholder="maker"
        className="w-32"
        value={maker}
        onChange={(e) => setMaker(e.target.value)}
      />
      <input
        aria-label="Its package"
        placeholder="its package"
        className="w-28"
        value={pkg}
        onChange={(e) => setPackage(e.target.value)}
      />
      <Button type="submit" disabled={mpn.trim() === "" || isThere}>
        Propose it
      </Button>
      {isThere && mpn.trim() !== "" && (
        <span className="text-[13px] text-ink-2">It is in the list already.</span>
      )}
    </form>
  );
}

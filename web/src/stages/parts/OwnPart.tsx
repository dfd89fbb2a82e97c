import { attributesOf, factsOfLine, type LibraryPart, type RunLine } from "@kobbin/core";
import { Link } from "react-router";
import { addParts } from "../../resources/library.ts";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { Mark } from "../../ui/Mark.tsx";
import { day } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";
import { mountWords, nameOf } from "./lineEdits.ts";

/** What the library knows of a line's own number, or that it does not know it yet. */
export function OwnPart({ line, part }: { line: RunLine; part: LibraryPart | undefined }) {
  const { doc, did, changeLine, isLocked } = useRun();
  const sayError = useSayError();
  if (line.mpn === "")
    return (
      <p className="mb-3 text-[14px] text-ink-2">
        The line names no part: it asks for any that is equal by comparison. Those below that are, count at
        once.
      </p>
    );
  const take = () => {
    const f = factsOfLine(line);
    const done = addParts([
      {
        mpn: line.mpn,
        maker: line.maker,
        description: line.description || line.valueText,
        kind: f.kind,
        package: line.package,
        params: { ...f.params },
      },
    ]);
    done.then(() => did(`${line.mpn} is in the library now`, done), sayError);
  };
  if (!part)
    return (
      <p className="mb-3 flex flex-wrap items-center gap-3 text-[14px] text-ink-2">
        <span>
          <span className="num">{line.mpn}</span> is not in the library: nothing is known of it but the bill's
          own words.
        </span>
        {!isLocked && <Button onClick={take}>Take it into the library</Button>}
      </p>
    );
  const facts = factsOfLine(line, doc.library ?? []);
  const known = attributesOf(facts.kind).flatMap((a) =>
    facts.params[a.key] ? [[a.label, facts.params[a.key]!]] : [],
  );
  return (
    <div className="mb-3 text-[14px]">
      {part.suspect && (
        <p className="mb-1 flex items-center gap-2 border-l-[3px] border-stop bg-stop-soft px-3 py-1">
          <Mark kind="blocked" /> Suspected since {day(part.suspect.since)} by {part.suspect.by}:{" "}
          {part.suspect.because}
        </p>
      )}
      <p>
        <span className="num">{part.mpn}</span>{" "}
        {part.maker && <span className="text-ink-2">{part.maker}</span>}{" "}
        <span className="text-ink-2">
          {[
            facts.kind,
            part.state === "unknown" ? "" : part.state,
            part.direction && `direction: ${part.direction}`,
          ]
            .filter(Boolean)
            .join(", ")}
          {part.triedOn
            ? `; tried on the bench ${day(part.triedOn)}${part.tried ? `: ${part.tried}` : ""}`
            : ""}
          .
        </span>{" "}
        <Link className="quiet-link" to={`/library?part=${part.id}`}>
          in the library
        </Link>
      </p>
      {part.mount && part.mount !== line.mount && (
        <p className="flex flex-wrap items-baseline gap-x-3">
          <Mark kind="look" />
          <span>
            The library has it {mountWords(part.mount)}, the bill {mountWords(line.mount)}.
          </span>
          {!isLocked && (
            <button
              type="button"
              className="quiet-link"
              onClick={() =>
                changeLine(
                  line.id,
                  { mount: part.mount! },
                  `${nameOf(line)} is mounted ${mountWords(part.mount!)}`,
                )
              }
            >
              take the library’s word
            </button>
          )}
        </p>
      )}
      {known.length > 0 && (
        <dl className="flex flex-wrap gap-x-5 text-ink-2">
          {known.map(([label, text]) => (
            <div key={label} className="flex gap-1">
              <dt>{label}</dt>
              <dd className="num text-ink">{text}</dd>
            </div>
          ))}
        </dl>
      )}
      {part.sheet && <p className="text-ink-2">Data sheet: {part.sheet}</p>}
      {part.measured && <p className="text-ink-2">Measured here: {part.measured}</p>}
    </div>
  );
}

import { type Comparison, type DiffPlace, judgeFits, type Measure, partsAt } from "@kobbin/core";
import { Fragment, type ReactNode, useMemo } from "react";
import { Link } from "react-router";
import type { Focus } from "../../../proof/useView.ts";
import { useBench } from "../../../resources/bench.ts";
import { useRun } from "../../../run/runState.ts";
import { count, fixed, said } from "../../../ui/text/format.ts";
import { FIT_WORDS } from "../fit/fitWords.ts";
import { figureWords, layerWords, partGroups, placeWords, stencilWords } from "./words.ts";

export type Shown = Focus;
type OnShow = (at: Shown, side: "top" | "bottom" | undefined) => void;

const LETTER = {
  none: "The same board: no new letter is needed.",
  stencil: "The board itself is the same; only its stencil is another. No new letter is needed.",
  suffix: "Only silkscreen differs: a suffix is enough, boards of both may be mixed.",
  letter: "It is another board: it deserves a letter of its own",
} as const;
const BECAUSE = {
  fit: "outline or holes",
  form: "mask",
  function: "copper",
  silkscreen: "silkscreen",
  paste: "paste",
} as const;

/** What follows from the difference of two revisions, what people ask first on top; then every place, shown at a press. */
export function Verdicts({
  found,
  label,
  isSister,
  revisionId,
  measure,
  was,
  shown,
  onShow,
}: {
  found: Comparison;
  label: string;
  /** It is of another product: no letter and no order follows from it. */
  isSister: boolean;
  revisionId: string;
  measure: Measure;
  was: Measure;
  shown: string | undefined;
  onShow: OnShow;
}) {
  const { diff, letter, notes } = found;
  return (
    <div className="mt-3 text-[14.5px]">
      <dl className="grid grid-cols-[minmax(120px,auto)_1fr] max-md:grid-cols-1">
        <Row name={isSister ? "Another design" : "Letter"}>
          {isSister && letter.says !== "none" ? (
            `It differs in ${letter.because.map((b) => BECAUSE[b]).join(", ")}: no letter of this product follows from that.`
          ) : (
            <>
              {LETTER[letter.says]}
              {letter.says === "letter" && ` (${letter.because.map((b) => BECAUSE[b]).join(", ")}).`}
            </>
          )}
        </Row>
        {Object.entries(diff.stencilReusable).map(([side, is]) => (
          <Row key={side} name={`Stencil ${side}`}>
            <span className={is ? "text-fine" : "text-look"}>
              {diff.stencil[side]
                ? `The one of ${label} ${stencilWords(diff.stencil[side])}.`
                : `${label} has no paste to compare with: it is needed anew.`}
            </span>
          </Row>
        ))}
        {!isSister && <Orders label={label} revisionId={revisionId} isSame={letter.says === "none"} />}
        <Fits measure={measure} was={was} />
        <Row name="Findings">
          {notes.fresh.length + notes.solved.length === 0 ? (
            `${count(notes.same, "finding")} as before, none new.`
          ) : (
            <>
              {notes.fresh.map((f) => (
                <p key={`new ${f.tag} ${f.text}`}>
                  <b className={f.level === "error" ? "text-stop" : "text-look"}>new</b> {said(f.text)}
                </p>
              ))}
              {notes.solved.map((f) => (
                <p key={`solved ${f.tag} ${f.text}`}>
                  <b className="text-fine">solved</b> <span className="text-ink-2">{said(f.text)}</span>
                </p>
              ))}
              {notes.same > 0 && <p className="text-ink-2">{notes.same} as before</p>}
            </>
          )}
        </Row>
        {found.figures.length > 0 && (
          <Row name="Figures">
            {found.figures.map((f) => (
              <p key={f.key}>
                {f.label}{" "}
                <span
                  className={`num ${f.levelNow === "cannot" ? "text-stop" : f.is === "worse" ? "text-look" : ""}`}
                >
                  {figureWords(f)}
                </span>
              </p>
            ))}
          </Row>
        )}
        <Parts found={found} shown={shown} onShow={onShow} />
        <Layers found={found} measure={measure} shown={shown} onShow={onShow} />
      </dl>
      {diff.unchanged.length > 0 && (
        <p className="mt-2 text-ink-2">Unchanged: {diff.unchanged.map(layerWords).join(", ")}.</p>
      )}
    </div>
  );
}

function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt className="border-t border-rule py-[6px] pr-4 text-ink-2">{name}</dt>
      <dd className="border-t border-rule py-[6px] max-md:border-t-0">{children}</dd>
    </>
  );
}

/** Rows of the fit sheet that another board makes another verdict of. */
function Fits({ measure, was }: { measure: Measure; was: Measure }) {
  const { doc } = useRun();
  const before = useMemo(() => {
    const boards = doc.boards.map((b) => (b.measure === measure ? { ...b, measure: was } : b));
    return judgeFits({ ...doc, boards });
  }, [doc, measure, was]);
  const now = useMemo(() => judgeFits(doc), [doc]);
  if (now.length === 0) return null;
  // what the files of the other board have at a place is not known here
  const isHeld = (f: (typeof now)[number]) => f.row.spec.kind !== "intended";
  const changed = now.flatMap((f, i) =>
    !isHeld(f) || f.verdict === before[i]!.verdict ? [] : [[before[i]!, f] as const],
  );
  const same = now.filter(isHeld).length - changed.length;
  return (
    <Row name="Fit sheet">
      {changed.map(([a, b]) => (
        <p key={b.row.id}>
          {b.row.label}{" "}
          <span className={b.verdict === "fits" ? "text-fine" : "text-look"}>
            {FIT_WORDS[a.verdict]} → {FIT_WORDS[b.verdict]}
          </span>
        </p>
      ))}
      {same > 0 && <span className="text-ink-2">{count(same, "row")} as before</span>}
    </Row>
  );
}

/** Runs of the other revision that are ordered and not closed, and what the bill leaves on the shelf. */
function Orders({ label, revisionId, isSame }: { label: string; revisionId: string; isSame: boolean }) {
  const { id, answer } = useRun();
  const { data } = useBench();
  const product = data?.products.find((p) => p.id === answer.productId);
  const of = product?.revisions.find((r) => r.id === revisionId)?.label;
  const runs = (data?.runs ?? []).filter(
    (r) => r.productId === answer.productId && r.revision === of && r.state === "released" && !r.isClosed,
  );
  return (
    <Row name="Orders">
      {runs.length === 0 ? (
        `No order of ${label} is open. `
      ) : (
        <>
          {isSame ? "Released with" : "It comes too late for what was released with"} {label}:{" "}
          {runs.map((r, i) => (
            <Fragment key={r.id}>
              {i > 0 && ", "}
              <Link className="quiet-link" to={`/runs/${r.id}/order`}>
                {r.name}
              </Link>
            </Fragment>
          ))}
          .{" "}
        </>
      )}
      <Link className="quiet-link" to={`/runs/${id}/parts?against=${revisionId}`}>
        what the bill changed, and what is left on the shelf
      </Link>
    </Row>
  );
}

function Parts({ found, shown, onShow }: { found: Comparison; shown: string | undefined; onShow: OnShow }) {
  if (found.parts.length === 0) return null;
  return (
    <Row name="Parts">
      {partGroups(found.parts).map(({ words, parts }) => (
        <p key={words} className="flex flex-wrap gap-x-3">
          {parts.map((p) => (
            <Press
              key={p.ref}
              isShown={shown === `part ${p.ref}`}
              label={`${p.ref} ${words}, show on the picture`}
              onPress={() =>
                onShow(
                  { x: p.at.x, y: p.at.y, key: `part ${p.ref}` },
                  p.at.layer === "bottom" ? "bottom" : "top",
                )
              }
            >
              {p.ref}
            </Press>
          ))}
          <span>{words}</span>
        </p>
      ))}
    </Row>
  );
}

/** " at C5, R7", where it is at few enough parts to help. */
function atParts(measure: Measure, p: DiffPlace): string {
  const refs = partsAt(measure, p);
  return refs.length > 0 && refs.length < 4 ? ` at ${refs.join(", ")}` : "";
}

function Layers({
  found,
  measure,
  shown,
  onShow,
}: {
  found: Comparison;
  measure: Measure;
  shown: string | undefined;
  onShow: OnShow;
}) {
  const { diff } = found;
  return diff.changed.map((key) => {
    const places = diff.places[key] ?? [];
    const more = diff.more?.[key];
    const side = key.endsWith("bottom") ? "bottom" : key.endsWith("top") ? "top" : undefined;
    return (
      <Row key={key} name={layerWords(key)}>
        {places.length === 0 ? (
          <span className="text-ink-2">only one of the two has it, or it cannot be compared</span>
        ) : (
          <span className="flex flex-wrap gap-x-5 gap-y-[2px]">
            {places.map((p, i) => (
              <span key={`${p.x} ${p.y}`} className="whitespace-nowrap">
                <Press
                  isShown={shown === `${key} ${i}`}
                  label={`${layerWords(key)}, difference ${i + 1} of ${places.length}, ${placeWords(p)}, show on the picture`}
                  onPress={() => onShow({ x: p.x, y: p.y, key: `${key} ${i}` }, side)}
                >
                  {fixed(p.x, 1)} / {fixed(p.y, 1)}
                </Press>{" "}
                <span className="text-ink-2">
                  {placeWords(p)}
                  {atParts(measure, p)}
                </span>
              </span>
            ))}
            {more && (
              <span className="text-look">
                these are the largest; there {more.count === 1 && !more.isAtLeast ? "is" : "are"}{" "}
                {more.isAtLeast ? "at least " : ""}
                {count(more.count, "more place", "more places")}
              </span>
            )}
          </span>
        )}
      </Row>
    );
  });
}

function Press({
  isShown,
  label,
  onPress,
  children,
}: {
  isShown: boolean;
  label: string;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      className={`why num ${isShown ? "font-bold" : ""}`}
      aria-pressed={isShown}
      aria-label={label}
      onClick={onPress}
    >
      {children}
    </button>
  );
}

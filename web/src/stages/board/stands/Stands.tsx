import {
  type BodiesOnBoard,
  type Body,
  clashWords,
  MOST_CLASHES,
  standingOn,
  type Zone,
  zonesOf,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { useRun } from "../../../run/runState.ts";
import { useKeys } from "../../../ui/keys.ts";
import { Tab } from "../../../ui/Tab.tsx";
import { count, mm } from "../../../ui/text/format.ts";
import type { BoardView } from "../useBoardView.ts";
import { Turned } from "./Turned.tsx";

type Clash = BodiesOnBoard["clashes"][number];

const FROM = {
  stated: "as the library says",
  package: "from the package's name",
  usual: "usual for the package",
} as const;

/** What stands on the board: every part as a box, which of them are in each other's way, and how tall each field is. */
export function Stands({ view: v }: { view: BoardView }) {
  const { doc, result } = useRun();
  const { bodies, clashes, ...stood } = useMemo(() => standingOn(doc, v.board), [doc, v.board]);
  const unknown = stood.unknown.map((u) => u.ref);
  const [quarter, setQuarter] = useState(0);
  const [shown, setShown] = useState<readonly string[]>([]);
  const bindings = useMemo(
    () => [{ keys: "q", does: "turn the board a quarter", run: () => setQuarter((k) => (k + 1) % 4) }],
    [],
  );
  useKeys(bindings);
  const m = v.board.measure;
  const extent = m.extentMm;
  const rings = useMemo(
    () =>
      m.outline?.rings ??
      (extent
        ? [[extent[0], extent[1], extent[2], extent[1], extent[2], extent[3], extent[0], extent[3]]]
        : []),
    [m, extent],
  );
  const ofSide = clashes.filter((c) => c.side === v.side);
  const inTheWay = useMemo(
    () =>
      new Set(clashes.filter((c) => c.verdict === "collides" && c.kind !== "edge").flatMap((c) => c.refs)),
    [clashes],
  );
  const shownSet = useMemo(() => new Set(shown), [shown]);
  const others = bodies.filter((b) => b.side !== v.side).length;
  const thickness = Number.parseFloat(result.options?.thickness ?? "") || m.thicknessMm || 1.6;
  if (bodies.length === 0)
    return (
      <p className="max-w-[70ch] text-ink-2">
        No part of this board has a place and a size that is known: a placement file, names on the pads and
        packages in the bill tell them.
      </p>
    );
  return (
    <section aria-label="What stands on it">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-5 text-[14.5px]">
        <p className="mr-auto max-w-[80ch] text-ink-2">{verdict(clashes, bodies, unknown)}</p>
        <Tab isOn={false} onClick={() => setQuarter((k) => (k + 1) % 4)}>
          turn a quarter
        </Tab>
        {others > 0 && (
          <Tab isOn={false} onClick={() => v.set({ side: v.side === "top" ? "bottom" : undefined })}>
            {v.side === "top" ? "the bottom" : "the top"}
          </Tab>
        )}
      </div>
      <Turned
        bodies={bodies}
        rings={rings}
        thicknessMm={thickness}
        side={v.side}
        quarter={quarter}
        shown={shownSet}
        inTheWay={inTheWay}
      />
      {!m.outline?.rings && (
        <p className="mt-1 text-[14px] text-look">
          {m.outline?.closed
            ? "An earlier version of Kobbin measured this board, or its outline has very many points: it is drawn as a rectangle, and what reaches over the edge is not judged."
            : "The outline is not closed: the board is drawn as a rectangle around its copper, and what reaches over the edge is not judged."}
        </p>
      )}
      <div className="mt-3 grid grid-cols-[1.3fr_1fr] gap-8 text-[14.5px] max-md:grid-cols-1">
        <InTheWay clashes={ofSide} onShow={setShown} shown={shown} side={v.side} />
        <div>
          {extent && (
            <Zones zones={zonesOf(bodies, extent, v.side)} side={v.side} onShow={(ref) => setShown([ref])} />
          )}
          <NotKnown bodies={bodies} unknown={unknown} />
        </div>
      </div>
    </section>
  );
}

function verdict(clashes: readonly Clash[], bodies: readonly Body[], unknown: readonly string[]): string {
  const sure = clashes.filter((c) => c.verdict === "collides" && c.kind !== "edge").length;
  const maybe = clashes.filter((c) => c.verdict === "may-touch").length;
  const known = unknown.length === 0 ? "" : ` Of ${unknown.length} more the size is not known.`;
  const found =
    sure > 0
      ? `${count(sure, "pair")} in each other's way`
      : maybe > 0
        ? `nothing lies in anything else as drawn, ${count(maybe, "pair")} may touch`
        : "nothing is in the way of anything else";
  return `${count(bodies.length, "body", "bodies")}: ${found}.${known}`;
}

function InTheWay({
  clashes,
  shown,
  side,
  onShow,
}: {
  clashes: readonly Clash[];
  shown: readonly string[];
  side: Body["side"];
  onShow: (refs: readonly string[]) => void;
}) {
  return (
    <div>
      <h2 className="mb-1 text-[16px]">In the way of each other</h2>
      {clashes.length === 0 ? (
        <p className="text-ink-2">Nothing on the {side}.</p>
      ) : (
        <ul>
          {clashes.slice(0, MOST_LISTED).map((c) => {
            const words = clashWords(c);
            const isOn = shown.join() === c.refs.join();
            return (
              <li key={`${c.kind} ${c.refs.join(" ")}`} className="border-t border-rule py-1.5">
                <button
                  type="button"
                  aria-pressed={isOn}
                  className={`quiet-link text-left ${c.verdict === "collides" && c.kind !== "edge" ? "text-stop" : ""}`}
                  onClick={() => onShow(isOn ? [] : c.refs)}
                >
                  {words.text}
                </button>
                {words.do && <p className="text-ink-2">{words.do}</p>}
              </li>
            );
          })}
        </ul>
      )}
      {clashes.length > MOST_LISTED && (
        <p className="text-ink-2">
          And {clashes.length >= MOST_CLASHES ? "at least " : ""}
          {clashes.length - MOST_LISTED} more of the same kinds.
        </p>
      )}
    </div>
  );
}

const MOST_LISTED = 40;

/** Fields of the board with what is tallest in each, as they lie. */
function Zones({
  zones,
  side,
  onShow,
}: {
  zones: readonly Zone[];
  side: Body["side"];
  onShow: (ref: string) => void;
}) {
  return (
    <>
      <h2 className="mb-1 text-[16px]">Tallest in each field of the {side}</h2>
      <ul className="grid grid-cols-3 border-t border-l border-rule">
        {zones.map((z) => (
          <li key={`${z.column} ${z.row}`} className="min-h-[52px] border-r border-b border-rule px-2 py-1">
            {z.tallest ? (
              <button
                type="button"
                className="quiet-link num text-left"
                onClick={() => onShow(z.tallest!.ref)}
              >
                {z.tallest.ref} {z.tallest.heightFrom === "usual" ? "about " : ""}
                {mm(z.tallest.heightMm!)} mm
              </button>
            ) : (
              <span className="text-ink-2">{z.withoutHeight.length > 0 ? "" : "nothing"}</span>
            )}
            {z.withoutHeight.length > 0 && (
              <span className="block text-[13px] text-look">not known: {few(z.withoutHeight)}</span>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

/** Where sizes and heights come from, and what is missing. */
function NotKnown({ bodies, unknown }: { bodies: readonly Body[]; unknown: readonly string[] }) {
  const flat = bodies.filter((b) => b.heightMm === undefined).map((b) => b.ref);
  const from = (["stated", "package", "usual"] as const)
    .map((k) => [k, bodies.filter((b) => b.heightFrom === k).length] as const)
    .filter(([, n]) => n > 0);
  const pads = bodies.filter((b) => b.sizeFrom === "pads").map((b) => b.ref);
  return (
    <div className="mt-3 text-ink-2">
      <p>Heights: {from.map(([k, n]) => `${n} ${FROM[k]}`).join(", ") || "none known"}.</p>
      {flat.length > 0 && <p>Drawn flat, their height is not known: {few(flat)}.</p>}
      {pads.length > 0 && <p>Only as large as their pads reach: {few(pads)}.</p>}
      {unknown.length > 0 && <p className="text-look">Not judged, without place or size: {few(unknown)}.</p>}
      {flat.length + pads.length + unknown.length > 0 && (
        <p>
          Height, length and width of a body are kept with its part in the{" "}
          <Link className="quiet-link" to="/library">
            library
          </Link>
          .
        </p>
      )}
    </div>
  );
}

const few = (refs: readonly string[]): string =>
  refs.length > 8 ? `${refs.slice(0, 8).join(", ")} and ${refs.length - 8} more` : refs.join(", ");

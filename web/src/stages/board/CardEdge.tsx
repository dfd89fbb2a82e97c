import {
  cardEdgesOf,
  type CardEdge as Edge,
  type Measure,
  railsOnContacts,
  SHARE_IN_PARALLEL,
} from "@kobbin/core";
import { useState } from "react";
import type { Show } from "../../proof/Details.tsx";
import { Field } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { count, mm, typedNumber, useFormats } from "../../ui/text/format.ts";

/** Edge contacts: how they lie, which bevel leaves them whole, and what their rails carry. */
export function CardEdge({
  measure: m,
  thicknessMm,
  onShow,
}: {
  measure: Measure;
  /** As chosen; not known while no house is. */
  thicknessMm: number | undefined;
  onShow: Show;
}) {
  useFormats();
  const edges = merged(cardEdgesOf(m, thicknessMm));
  if (edges.length === 0) return null;
  const worst = edges.flatMap((e) => e.bevels ?? []).filter((b) => b.marginMm < 0);
  return (
    <Fold
      id="card-edge"
      title="Card edge"
      verdict={
        thicknessMm === undefined
          ? `${edges[0]!.contacts.count} contacts; thickness not chosen`
          : worst.length === 0
            ? `${edges[0]!.contacts.count} contacts, whole at any usual bevel`
            : `${edges[0]!.contacts.count} contacts, too near the edge for a bevel of ${[...new Set(worst.map((b) => `${b.angleDeg}°`))].join(" and ")}`
      }
    >
      {edges.map((e) => (
        <Side key={e.side} edge={e} thicknessMm={thicknessMm} onShow={onShow} />
      ))}
      <Rails measure={m} />
    </Fold>
  );
}

const BOTH = "both sides";
/** Two sides that are alike are told once. */
function merged(edges: readonly Edge[]): readonly Edge[] {
  const [a, b] = edges;
  const like = ({ contacts: c }: Edge) =>
    JSON.stringify([
      c.count,
      c.pitchMm,
      c.widthMm,
      c.lengthMm,
      c.setbackMm,
      c.edge,
      c.odd,
      c.maskBetween,
      c.tieBars,
    ]);
  return a && b && like(a) === like(b) ? [{ ...a, side: BOTH }] : edges;
}
const layerOf = (e: Edge) => (e.side === BOTH ? "top" : e.side);

/** What the rails carry over the contacts, at what one contact carries. */
function Rails({ measure: m }: { measure: Measure }) {
  const [amps, setAmps] = useState("1");
  const each = Number(typedNumber(amps.trim()));
  const isAmps = Number.isFinite(each) && each > 0;
  const rails = railsOnContacts(m, isAmps ? each : 0);
  if (rails.length === 0) return null;
  return (
    <div className="mt-3 flex flex-wrap items-start gap-x-8 gap-y-2 text-[14px]">
      <Field
        label="One contact carries, A"
        hint={`as the socket's sheet says; several share unevenly, ${Math.round(SHARE_IN_PARALLEL * 100)} % of their sum counts`}
        className="w-72"
        isNumber
        inputMode="decimal"
        value={amps}
        onChange={(e) => setAmps(e.target.value)}
      />
      <dl className="grid min-w-72 grid-cols-[minmax(90px,auto)_1fr]">
        {rails.map((r) => (
          <Row key={r.net} name={r.net}>
            {count(r.contacts, "contact")}
            {isAmps && (
              <>
                , <b className="num">{mm(r.amps)} A</b> together
              </>
            )}
          </Row>
        ))}
      </dl>
    </div>
  );
}

function Side({
  edge: e,
  thicknessMm,
  onShow,
}: {
  edge: Edge;
  thicknessMm: number | undefined;
  onShow: Show;
}) {
  const c = e.contacts;
  return (
    <div className="mt-2 grid grid-cols-[1fr_320px] gap-x-6 text-[14px] max-md:grid-cols-1">
      <dl className="grid content-start grid-cols-[minmax(150px,auto)_1fr]">
        <Row name={`contacts, ${e.side}`}>
          {c.count} of {mm(c.widthMm)} × {mm(c.lengthMm)} mm at {mm(c.pitchMm)} mm
          {c.freeAt && (
            <>
              ;{" "}
              <button
                type="button"
                className="quiet-link"
                onClick={() => onShow({ layer: layerOf(e), ...c.freeAt! }, "key")}
              >
                one position is empty, where a key of the socket goes
              </button>
            </>
          )}
        </Row>
        <Row name="alike">
          {c.odd && c.odd.length > 0 ? (
            <button
              type="button"
              className="why text-look"
              onClick={() => onShow({ layer: layerOf(e), ...c.odd![0]! }, "odd")}
            >
              {count(c.odd.length, "more pad")} at their places {c.odd.length === 1 ? "is" : "are"} of another
              size or set-back
            </button>
          ) : (
            "all of one length and set-back"
          )}
        </Row>
        <Row name="mask between them">
          {c.maskBetween === undefined
            ? "not known: there is no mask layer"
            : c.maskBetween === 0
              ? "none left, one opening"
              : `in ${count(c.maskBetween, "gap")}: it flakes off under a socket's contacts`}
        </Row>
        <Row name="copper on to the edge">
          {c.tieBars === undefined
            ? "not measured by the version that read this board"
            : c.tieBars === 0
              ? "none: hard gold is plated before the edge is cut, or the house adds its bars"
              : `${count(c.tieBars, "contact")} with a bar for plating; the bevel cuts ${c.tieBars === 1 ? "it" : "them"}`}
        </Row>
      </dl>
      {e.bevels && thicknessMm !== undefined && <Section edge={e} thicknessMm={thicknessMm} />}
    </div>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <dt className="border-t border-rule py-[5px] pr-4 text-ink-2">{name}</dt>
      <dd className="border-t border-rule py-[5px]">{children}</dd>
    </>
  );
}

const SCALE = 42;
const LEFT = 12;

/** The board's edge cut through, to scale: where each bevel ends, and where the copper begins. */
function Section({ edge: e, thicknessMm: t }: { edge: Edge; thicknessMm: number }) {
  const bevels = e.bevels!;
  const y = 34;
  const h = t * SCALE;
  const x = (v: number) => LEFT + v * SCALE;
  const width = 320;
  return (
    <figure>
      <svg
        width="100%"
        viewBox={`0 0 ${width} ${h + 96}`}
        role="img"
        aria-label={`The edge in section: contacts begin at ${mm(e.contacts.setbackMm)} mm; ${bevels.map((b) => `a bevel of ${b.angleDeg} degrees ends at ${mm(b.depthMm)}`).join(", ")}`}
      >
        <path
          d={`M${width} ${y}H${x(0)}V${y + h}H${width}`}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="1.4"
        />
        <rect x={x(e.contacts.setbackMm)} y={y - 5} width={width} height="5" fill="var(--metal)" />
        {bevels.map((b) => (
          <path
            key={b.angleDeg}
            d={`M${x(b.depthMm)} ${y}L${x(0)} ${y + b.depthMm * Math.tan((b.angleDeg * Math.PI) / 180) * SCALE}`}
            stroke={b.marginMm < 0 ? "var(--stop)" : "var(--ink-2)"}
            strokeWidth={b.marginMm < 0 ? 2 : 1.2}
            strokeDasharray={b.marginMm < 0 ? undefined : "4 3"}
          />
        ))}
        <g fontFamily="var(--font-mono)" fontSize="13" fill="var(--ink)">
          <text x={x(e.contacts.setbackMm) + 4} y={y - 12}>
            copper from {mm(e.contacts.setbackMm)}
          </text>
          {bevels.map((b, i) => (
            <text
              key={b.angleDeg}
              x={LEFT}
              y={y + h + 18 + i * 19}
              fill={b.marginMm < 0 ? "var(--stop)" : "var(--ink)"}
            >
              {b.angleDeg}° {mm(b.depthMm)} deep{" "}
              {b.marginMm < 0 ? `${mm(-b.marginMm)} missing` : b.canReach ? "right, near its limit" : "right"}
            </text>
          ))}
        </g>
      </svg>
      <figcaption className="text-[13px] text-ink-2">
        {mm(t)} mm thick, in mm; copper keeps 0.2 behind the bevel
        {e.isThin ? "; boards under 1 mm are usually not bevelled" : ""}
      </figcaption>
    </figure>
  );
}

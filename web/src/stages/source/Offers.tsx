import {
  assemblyHouse,
  candidatesFor,
  daysBetween,
  FRESH_DAYS,
  type LinePart,
  microsToText,
  type Offer,
  packingOf,
  priceAt,
  type RunDocument,
  type RunOffer,
  rateOf,
  refusedPackings,
} from "@kobbin/core";
import { Link } from "react-router";
import { removeOffer } from "../../resources/run.ts";
import { useRun } from "../../run/runState.ts";
import { Sum } from "../../ui/Sum.tsx";
import { day, unitPrice } from "../../ui/text/format.ts";
import { useSayError } from "../../ui/toast/Toast.tsx";

const VERDICT = {
  equal: "equal by what is known",
  look: "wants a look",
  forbidden: "forbidden",
} as const;

/** What the pieces come in, and what that costs once. */
function Packaged({ offer: o }: { offer: RunOffer }) {
  if (!o.packaging && o.fee === undefined) return null;
  return (
    <span className="text-ink-2">
      {o.packaging}
      {o.fee !== undefined && (
        <>
          {o.packaging ? ", " : ""}
          <span className="num">
            {o.fee} {o.currency}
          </span>{" "}
          once
        </>
      )}
    </span>
  );
}

/** Offers for the lines themselves that are not in the running, each once, and why. */
function manyOthers(
  doc: RunDocument,
  parts: readonly LinePart[],
  lines: readonly string[],
  counted: ReadonlySet<string>,
): { readonly offer: RunOffer; readonly why: string }[] {
  const house = assemblyHouse(doc);
  const refused = new Set(
    parts.filter((p) => lines.includes(p.line.id)).flatMap((p) => refusedPackings(doc, p)),
  );
  const whyNot = (o: RunOffer): string => {
    if (refused.has(packingOf(o.packaging ?? "")))
      return `${house?.name} ${house?.assembly?.takes === "reels" ? "takes reels and trays only" : "takes no loose pieces"}`;
    if (rateOf(doc, o.currency) === undefined) return `the shop has no exchange rate for ${o.currency}`;
    if (doc.lines.some((l) => l.id === o.line && l.origin === "salvaged"))
      return "salvaged pieces come from the shelf";
    return "the same pieces without the charge are there";
  };
  // one answer of a supplier stands with each line of the purchase
  const keyOf = (o: RunOffer) => `${o.supplier} ${o.packaging ?? ""} ${o.fee ?? ""} ${o.stock}`;
  const own = doc.offers.filter((o) => o.part === undefined && lines.includes(o.line));
  const told = new Set(own.filter((o) => counted.has(o.id)).map(keyOf));
  return [...new Map(own.map((o) => [keyOf(o), o]))]
    .filter(([key]) => !told.has(key))
    .map(([, offer]) => ({ offer, why: whyNot(offer) }));
}

const supplierOf = (doc: RunDocument, s: string) => doc.suppliers.find((x) => x.id === s)?.name ?? s;
const partOf = (doc: RunDocument, p: string) => doc.library?.find((x) => x.id === p)?.mpn ?? "another part";

/** One offer that is in the running: whose, how many, for how much, how old; kept to, or removed. */
function OfferRow({
  lineId,
  need,
  offer: o,
  given,
}: {
  lineId: string;
  need: number;
  offer: Offer;
  given: RunOffer;
}) {
  const { id, doc, change, did, isLocked } = useRun();
  const sayError = useSayError();
  const { currency } = doc.workshop;
  const pins = doc.choices.pins ?? {};
  const age = daysBetween(given.capturedOn, doc.today);
  const supplier = supplierOf(doc, o.supplier);
  return (
    <li className="flex flex-wrap items-baseline gap-x-5 gap-y-1 py-1 text-[14px]">
      <span className="min-w-40 font-semibold">{supplier}</span>
      {o.part && <span className="num text-metal">{partOf(doc, o.part)}</span>}
      <span>
        stock <span className="num">{o.stock}</span>
      </span>
      <span>
        from <span className="num">{o.moq}</span>
        {o.multiple > 1 && (
          <>
            {" "}
            in steps of <span className="num">{o.multiple}</span>
          </>
        )}
      </span>
      <span>
        <Sum
          title={`${supplier}, each`}
          terms={given.breaks.map((b) => ({
            label: `from ${b.qty}`,
            value: `${b.price} ${given.currency}`,
          }))}
          result={`${microsToText(priceAt(o, need))} ${currency} at ${need}`}
          formula={
            given.currency === currency
              ? undefined
              : `1 ${given.currency} = ${doc.workshop.rates[given.currency]} ${currency}, the shop's rate`
          }
        >
          <span className="num">{unitPrice(priceAt(o, need))}</span>
        </Sum>{" "}
        at {need}
      </span>
      <Packaged offer={given} />
      {given.leadDays !== undefined && <span className="text-ink-2">{given.leadDays} days</span>}
      {given.restriction && <span className="text-look">{given.restriction}</span>}
      <span className={age > FRESH_DAYS ? "text-look" : "text-ink-2"}>
        {given.source === "feed" ? "asked" : given.source} {day(given.capturedOn)}
        {age > FRESH_DAYS && `, ${age} days old`}
        {given.validUntil && `, valid until ${day(given.validUntil)}`}
      </span>
      {!isLocked && (
        <>
          <button
            type="button"
            className="quiet-link"
            onClick={() =>
              change(
                {
                  pins:
                    pins[lineId] === o.supplier
                      ? Object.fromEntries(Object.entries(pins).filter(([k]) => k !== lineId))
                      : { ...pins, [lineId]: o.supplier },
                },
                pins[lineId] === o.supplier ? "The line is free again" : `Always from ${supplier}`,
              )
            }
          >
            {pins[lineId] === o.supplier ? "let the basket choose" : "always from here"}
          </button>
          {given.source !== "feed" && (
            <button
              type="button"
              className="quiet-link"
              onClick={() => {
                const done = removeOffer(id, o.id);
                done.then(() => did("The offer was removed", done), sayError);
              }}
            >
              remove
            </button>
          )}
        </>
      )}
    </li>
  );
}

/** Who offers a line: the suppliers asked, the offers typed; what is kept to one of them. */
export function Offers({
  lineId,
  lines,
  need,
  offers,
  unlisted: missing,
  onType,
}: {
  lineId: string;
  /** All lines of the purchase. */
  lines: readonly string[];
  need: number;
  offers: readonly Offer[];
  unlisted: readonly string[];
  onType: () => void;
}) {
  const { id, doc, result: r, isLocked } = useRun();
  // equal, or what is to be looked at: as the parts list compares them
  const compared = new Map(
    doc.lines
      .filter((l) => lines.includes(l.id))
      .flatMap((l) =>
        candidatesFor(l, doc.library ?? [], doc.alternates ?? [], { rules: doc.workshop.rules }),
      )
      .map((c) => [c.part.id, c.comparison.verdict]),
  );
  const verdictOf = (p: string) => {
    const verdict = compared.get(p);
    return verdict === undefined ? "" : `${VERDICT[verdict]}, `;
  };
  // offers for parts that are only thought of: shown with their price, not bought
  const counted = new Set(offers.map((o) => o.id));
  const thought = doc.offers.filter(
    (o) =>
      o.part !== undefined &&
      lines.includes(o.line) &&
      !counted.has(o.id) &&
      !offers.some((x) => x.part === o.part),
  );
  const others = manyOthers(doc, r.parts, lines, counted);
  const raw = new Map<string, RunOffer>(doc.offers.map((o) => [o.id, o]));
  return (
    <div className="pl-5">
      {offers.length === 0 && <p className="text-ink-2">Nobody offers this line yet.</p>}
      <ul>
        {offers.map((o) => {
          // the figures may be a moment older than the offers: what went meanwhile is not shown
          const given = raw.get(o.id);
          return given && <OfferRow key={o.id} lineId={lineId} need={need} offer={o} given={given} />;
        })}
        {thought.map((o) => (
          <li key={o.id} className="flex flex-wrap items-baseline gap-x-5 py-1 text-[14px] text-ink-2">
            <span className="min-w-40">{supplierOf(doc, o.supplier)}</span>
            <span className="num">{partOf(doc, o.part!)}</span>
            <span>
              stock <span className="num">{o.stock}</span>
            </span>
            <span>
              <span className="num">
                {o.breaks[0]?.price} {o.currency}
              </span>{" "}
              each
            </span>
            <span>
              {verdictOf(o.part!)}not approved for this run;{" "}
              <Link className="quiet-link" to={`/runs/${id}/parts?line=${o.line}`}>
                compare and approve
              </Link>
            </span>
          </li>
        ))}
        {others.map(({ offer: o, why }) => (
          <li key={o.id} className="flex flex-wrap items-baseline gap-x-5 py-1 text-[14px] text-ink-2">
            <span className="min-w-40">{supplierOf(doc, o.supplier)}</span>
            <Packaged offer={o} />
            <span>{why}</span>
          </li>
        ))}
        {missing.map((s) => (
          <li key={s} className="flex flex-wrap items-baseline gap-x-5 py-1 text-[14px] text-ink-2">
            <span className="min-w-40">{s}</span> <span>not listed</span>
          </li>
        ))}
      </ul>
      {!isLocked && (
        <button type="button" className="quiet-link mt-1" onClick={onType}>
          type or paste an offer
        </button>
      )}
    </div>
  );
}

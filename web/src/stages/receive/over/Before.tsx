import {
  type HouseTrend,
  houseTrends,
  isOfBoard,
  LEAST_LOTS,
  LEAST_SHARE,
  type LotBefore,
  type LotSize,
  lotSizes,
  type ReferenceSpot,
  referenceSpots,
  SIZE_KINDS,
  type SizeKind,
  spotPhotosOf,
} from "@kobbin/core";
import { useMemo } from "react";
import { useLotsBefore } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { Fold } from "../../../ui/Fold.tsx";
import { count, day, fixed, mm } from "../../../ui/text/format.ts";
import { lotWords, PhotosAt } from "./Reference.tsx";

/** This lot beside those that came before: size by size, house by house, spot by spot. */
export function Before({ index, order, item }: { index: number; order: string; item: string }) {
  const { id, doc, record } = useRun();
  const { data } = useLotsBefore(id);
  const own = useMemo(() => lotSizes(doc, record.measured ?? [], index), [doc, record.measured, index]);
  const spots = useMemo(() => referenceSpots(doc, index), [doc, index]);
  if (!data) return null;
  const same = data.filter((l) => isOfBoard(l, doc, index)).reverse();
  const { house } = doc;
  const trends = houseTrends([...data, ...(house ? [{ house, sizes: own }] : [])]);
  const ofHouse = trends.filter((t) => t.house === house?.id && t.lots > 1);
  const photos = spotPhotosOf(record, order, item);
  const shown = spots.filter(
    (s) => photos.some((p) => p.spot === s.key) || same.some((l) => l.photos.some((p) => p.spot === s.key)),
  );
  if (same.length + ofHouse.length + shown.length === 0) return null;
  const said = ofHouse.filter((t) => t.tends);
  return (
    <Fold
      id={`before-${index}`}
      title="Beside other lots"
      verdict={
        said.length > 0
          ? said
              .map((t) => `${house!.name}: ${SIZE_KINDS[t.kind]} come ${cameAs(t.kind, t.tends === "over")}`)
              .join("; ")
          : [
              same.length > 0 ? `${count(same.length, "lot")} of this board before` : "",
              shown.length > 0 ? `${count(shown.length, "spot")} photographed` : "",
            ]
              .filter(Boolean)
              .join(", ")
      }
    >
      {ofHouse.length > 0 && (
        <ul aria-label={`How ${house!.name} makes them`} className="my-2 text-[14px]">
          <li className="font-semibold">{house!.name}, all its lots</li>
          {ofHouse.map((t) => (
            <li key={t.kind}>{trendWords(t)}</li>
          ))}
        </ul>
      )}
      {same.some((l) => l.sizes.length > 0) && <Sizes same={same} own={own} />}
      {shown.map((s) => (
        <SpotRow key={s.key} spot={s} own={photos.filter((p) => p.spot === s.key)} same={same} />
      ))}
    </Fold>
  );
}

/** How what is over or under its size came, by kind. */
const CAME: Readonly<Record<SizeKind, readonly [over: string, under: string]>> = {
  thickness: ["thicker", "thinner"],
  outline: ["larger", "smaller"],
  slot: ["wider", "narrower"],
  plated: ["wider", "narrower"],
  unplated: ["wider", "narrower"],
};
const cameAs = (kind: SizeKind, isOver: boolean): string => CAME[kind][isOver ? 0 : 1];

/** @example "plated holes: 0.04 mm narrower on average, 40 % of what is allowed (12 readings of 3 lots); more than chance makes, at 95 %." */
function trendWords(t: HouseTrend): string {
  const off =
    Math.abs(t.offMm) < 0.0005 ? "as ordered" : `${mm(Math.abs(t.offMm))} mm ${cameAs(t.kind, t.offMm > 0)}`;
  const share = fixed(100 * Math.abs(t.offShare), 0);
  const from = `${count(t.readings, "reading")} of ${count(t.lots, "lot")}${t.outside > 0 ? `, ${t.outside} outside` : ""}`;
  const sure = t.tends
    ? "more than chance makes, at 95 %"
    : t.lots < LEAST_LOTS
      ? `fewer than ${LEAST_LOTS} lots tell nothing of a house`
      : Math.abs(t.offShare) < LEAST_SHARE
        ? "too little to matter"
        : "that may be chance";
  return `${SIZE_KINDS[t.kind]}: ${off} on average, ${share} % of what is allowed (${from}); ${sure}.`;
}

const [STEP, HIGH] = [54, 52];

/** Holes of one size are one row: as many as are measured, they are drilled alike. */
const rowOf = (s: LotSize): string => `${s.kind} ${s.what} ${s.mm}`;

/** Each size over the lots, the oldest first, this one last: what the order allowed as a band, each reading a dot. */
function Sizes({ same, own }: { same: readonly LotBefore[]; own: readonly LotSize[] }) {
  const lots = [
    ...same.map((l) => ({ key: `${l.run} ${l.item}`, words: lotWords(l), on: l.on, sizes: l.sizes })),
    { key: "own", words: "this lot", on: undefined, sizes: own },
  ];
  const rows = [...new Map(lots.flatMap((l) => l.sizes).map((s) => [rowOf(s), s])).values()];
  const wide = STEP * lots.length;
  return (
    <div className="overflow-x-auto">
      <ul aria-label="Sizes over the lots">
        {rows.map((k) => {
          const read = lots.map((l) => l.sizes.filter((s) => rowOf(s) === rowOf(k)));
          // a share of what was allowed, so that lots of different houses stand on one scale
          const shares = read.map((list) =>
            list.flatMap((s) => (s.tolMm > 0 ? s.values.map((v) => (v - s.mm) / s.tolMm) : [])),
          );
          const values = read.map((list) => list.flatMap((s) => s.values));
          const reach = Math.max(1.3, ...shares.flat().map(Math.abs)) * 1.05;
          const y = (v: number) => HIGH / 2 - (v / reach) * (HIGH / 2 - 3);
          return (
            <li
              key={rowOf(k)}
              className="grid grid-cols-[minmax(90px,150px)_auto] items-center gap-x-3 py-1 text-[14px]"
            >
              <span>
                {k.what}
                <span className="block text-[13px] text-ink-2">{mm(k.mm)} mm ordered</span>
              </span>
              <svg
                width={wide}
                height={HIGH}
                role="img"
                aria-label={`${k.what}: ${lots.map((l, i) => `${l.words} ${values[i]!.length > 0 ? `${values[i]!.map(mm).join(", ")} mm` : "not measured"}`).join("; ")}`}
              >
                <rect x="0" y={y(1)} width={wide} height={y(-1) - y(1)} fill="var(--fine-soft)" />
                <line x1="0" x2={wide} y1={y(0)} y2={y(0)} stroke="var(--ink-3)" />
                {shares.map((list, i) =>
                  list.map((v, n) => (
                    <circle
                      // biome-ignore lint/suspicious/noArrayIndexKey: readings have no other name
                      key={`${i} ${n}`}
                      cx={STEP * (i + 0.5)}
                      cy={y(v)}
                      r="4"
                      fill={Math.abs(v) <= 1 + 1e-9 ? "var(--metal)" : "var(--stop)"}
                      stroke={i === lots.length - 1 ? "var(--ink)" : "none"}
                    />
                  )),
                )}
              </svg>
            </li>
          );
        })}
      </ul>
      <ol className="ml-[162px] flex text-[12.5px] text-ink-2" aria-hidden>
        {lots.map((l) => (
          <li key={l.key} style={{ width: STEP }} className="text-center leading-tight">
            {l.on ? day(l.on).replace(/ \d{4}$/, "") : "this"}
          </li>
        ))}
      </ol>
      <ol className="mt-1 text-[13px] text-ink-2">
        {same.map((l) => (
          <li key={`${l.run} ${l.item}`}>
            {lotWords(l)}: {count(l.came, "board")}, {l.measured} measured
            {l.apart > 0 ? `, ${l.apart} set apart` : ""}
            {l.kept
              .filter((k) => k.purpose === "reference")
              .map((k) => `, ${k.pieces} kept back${k.place ? ` in ${k.place}` : ""}`)
              .join("")}
          </li>
        ))}
      </ol>
    </div>
  );
}

/** One agreed spot, lot beside lot. */
function SpotRow({
  spot: s,
  own,
  same,
}: {
  spot: ReferenceSpot;
  own: ReturnType<typeof spotPhotosOf>;
  same: readonly LotBefore[];
}) {
  return (
    <section aria-label={s.what} className="mt-3">
      <h3 className="text-[14.5px] font-semibold">
        {s.what}
        {s.at ? <span className="font-normal text-ink-2">, {s.side} side</span> : null}
      </h3>
      <div className="flex flex-wrap gap-x-5">
        <PhotosAt label="this lot" list={own} none="no photo" />
        {same.flatMap((l) => {
          const list = l.photos.filter((p) => p.spot === s.key);
          return list.length > 0
            ? [<PhotosAt key={`${l.run} ${l.item}`} label={lotWords(l)} list={list} />]
            : [];
        })}
      </div>
    </section>
  );
}

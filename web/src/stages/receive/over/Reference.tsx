import {
  isOfBoard,
  type LotBefore,
  type PlannedOrder,
  type ReferenceSpot,
  referenceSpots,
  spotPhotosOf,
} from "@kobbin/core";
import { useMemo, useRef, useState } from "react";
import { useClose, wholeOf } from "../../../bench-side/closeUp.ts";
import { BigKey, Frame } from "../../../bench-side/Frame.tsx";
import { photoSrc } from "../../../photos/photo.ts";
import { useAddPhotos } from "../../../photos/useAddPhotos.ts";
import { DrawnBoard } from "../../../proof/DrawnBoard.tsx";
import { useLotsBefore } from "../../../resources/record.ts";
import { useRun } from "../../../run/runState.ts";
import { useKeys } from "../../../ui/keys.ts";
import { count, day } from "../../../ui/text/format.ts";

const WHOLE = [560, 400] as const;
const WHOLE_NARROW = [340, 240] as const;

/** The board of a lot that is kept back, photographed at the agreed spots: one at a time, beside the same spot of lots before. */
export function Reference({
  index,
  order,
  item,
  onLeave,
}: {
  index: number;
  order: PlannedOrder;
  item: string;
  onLeave: () => void;
}) {
  const { doc, record } = useRun();
  const { add, left } = useAddPhotos();
  const board = doc.boards[index]!;
  const spots = useMemo(() => referenceSpots(doc, index), [doc, index]);
  const taken = spotPhotosOf(record, order.key, item);
  const has = (s: ReferenceSpot) => taken.filter((p) => p.spot === s.key);
  const [at, setAt] = useState(() => {
    const first = spots.findIndex((s) => has(s).length === 0);
    return first < 0 ? 0 : first;
  });
  const input = useRef<HTMLInputElement>(null);
  const spot = spots[at];
  const go = (by: number) => setAt(Math.min(spots.length, Math.max(0, at + by)));
  const shoot = () => spot && input.current?.click();
  useKeys(
    [
      { keys: "Escape", does: "leaves the photos", run: onLeave },
      { keys: "p", does: "takes a photo of this spot", run: shoot },
      { keys: "PageDown", does: "the next spot", run: () => go(1) },
      { keys: "PageUp", does: "the spot before", run: () => go(-1) },
    ],
    true,
  );
  const done = spots.filter((s) => has(s).length > 0).length;
  return (
    <Frame
      label={`The ${board.name} that is kept back`}
      share={spots.length === 0 ? 0 : done / spots.length}
      onLeave={onLeave}
      head={
        <>
          <b className="text-[19px]">{board.name}, kept back</b>
          <span className="text-[15px] text-ink-2" role="status">
            {done} of {count(spots.length, "spot")} photographed{left > 0 ? `, ${left} being kept` : ""}
          </span>
        </>
      }
      foot={
        <div className="flex flex-wrap gap-3">
          {spot && (
            <BigKey keys="p" look="main" onPress={shoot}>
              photo
            </BigKey>
          )}
          {spot && (
            <BigKey keys="PgDn" onPress={() => go(1)}>
              next
            </BigKey>
          )}
          <BigKey keys="PgUp" isOff={at === 0} onPress={() => go(-1)}>
            back
          </BigKey>
          {!spot && (
            <BigKey keys="Esc" look="main" onPress={onLeave}>
              leave
            </BigKey>
          )}
        </div>
      }
    >
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        multiple
        className="hidden"
        aria-label={spot ? `Photos of ${spot.what}` : "Photos"}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = "";
          if (files.length > 0 && spot)
            void add(files, { order: order.key, item, spot: spot.key }, `${board.name}: ${spot.what}`);
        }}
      />
      {spot ? (
        <div className="grid grid-cols-[auto_minmax(280px,1fr)] items-start gap-8 max-lg:grid-cols-1 max-lg:gap-3">
          <SpotPicture index={index} spot={spot} />
          <AtSpot index={index} spot={spot} nth={`${at + 1} of ${spots.length}`} own={has(spot)} />
        </div>
      ) : (
        <div className="text-[20px]">
          <h2 className="text-[30px]">
            {done === spots.length
              ? "Every spot is photographed."
              : `${done} of ${count(spots.length, "spot")}.`}
          </h2>
          <ul>{spots.flatMap((s) => (has(s).length > 0 ? [] : [<li key={s.key}>missing: {s.what}</li>]))}</ul>
        </div>
      )}
    </Frame>
  );
}

/** A spot in words, its photos of this lot, and those of lots before. */
function AtSpot({
  index,
  spot,
  nth,
  own,
}: {
  index: number;
  spot: ReferenceSpot;
  nth: string;
  own: ReturnType<typeof spotPhotosOf>;
}) {
  const { id, doc } = useRun();
  const { data: before } = useLotsBefore(id);
  return (
    <div>
      <p className="text-[17px] text-ink-2">
        {nth}, {spot.side} side
      </p>
      <h2 className="text-[30px] leading-tight max-sm:text-[22px]">{spot.what}</h2>
      {spot.at && <p className="text-[17px] text-ink-2">Through the lens, the ringed spot in the middle.</p>}
      <PhotosAt label="This lot" list={own} none="not photographed yet" />
      {(before ?? [])
        .filter((l) => isOfBoard(l, doc, index))
        .flatMap((l) => {
          const list = l.photos.filter((p) => p.spot === spot.key);
          return list.length > 0
            ? [<PhotosAt key={`${l.run} ${l.item}`} label={lotWords(l)} list={list} />]
            : [];
        })}
    </div>
  );
}

/** @example "Pinewell Boards, 14 Sep 2026 (for the spring fairs, rev B)" */
export const lotWords = (l: LotBefore): string =>
  `${l.house ? `${l.house.name}, ` : ""}${day(l.on)} (${l.runName}, rev ${l.revision})`;

/** Photos of one spot of one lot. */
export function PhotosAt({
  label,
  list,
  none,
}: {
  label: string;
  list: LotBefore["photos"] | ReturnType<typeof spotPhotosOf>;
  none?: string;
}) {
  return (
    <figure className="mt-3">
      <figcaption className="text-[14px] text-ink-2">
        {label}
        {list.length === 0 && none ? `: ${none}` : ""}
      </figcaption>
      <div className="flex flex-wrap gap-2">
        {list.map((p, i) => (
          <a key={p.id} href={photoSrc(p)} target="_blank" rel="noreferrer" className="border border-rule">
            <img
              src={photoSrc(p)}
              alt={`${label}, ${i + 1}${p.note ? `: ${p.note}` : ""}`}
              width={p.widthPx}
              height={p.heightPx}
              loading="lazy"
              className="h-[150px] w-auto max-sm:h-[110px]"
            />
          </a>
        ))}
      </div>
    </figure>
  );
}

/** Where the spot is: close up with a ring about it, or the whole side. */
function SpotPicture({ index, spot }: { index: number; spot: ReferenceSpot }) {
  const { doc } = useRun();
  const board = doc.boards[index]!;
  const close = useClose([560, 400], [340, 240]);
  const side = useClose(WHOLE, WHOLE_NARROW);
  const whole = useMemo(() => wholeOf(board), [board]);
  if (!spot.at)
    return (
      <DrawnBoard board={board} side={spot.side} size={side}>
        {() => null}
      </DrawnBoard>
    );
  const { at } = spot;
  return (
    <div>
      <DrawnBoard board={board} side={spot.side} size={whole} window={close} about={at}>
        {(to) => {
          const [x, y] = to(at);
          return (
            <>
              <circle cx={x} cy={y} r="56" fill="none" stroke="var(--sheet)" strokeWidth="8" />
              <circle cx={x} cy={y} r="56" fill="none" stroke="var(--metal)" strokeWidth="4" />
            </>
          );
        }}
      </DrawnBoard>
      <div className="mt-3 max-sm:hidden">
        <DrawnBoard board={board} side={spot.side} size={[210, 148]}>
          {(to) => {
            const [x, y] = to(at);
            return <circle cx={x} cy={y} r="9" fill="none" stroke="var(--metal)" strokeWidth="3" />;
          }}
        </DrawnBoard>
      </div>
    </div>
  );
}

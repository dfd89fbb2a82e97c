import {
  isolationText,
  type LoadSaid,
  loadOf,
  loadText,
  loadWords,
  type OutputLoad,
  ratingsText,
  readIsolation,
  readLoad,
  readRatings,
  type TestItem,
  USUAL_SHARE,
  unratedOf,
} from "@kobbin/core";
import { Kept } from "../../../ui/Kept.tsx";
import { said, typedNumber, written } from "../../../ui/text/format.ts";
import { PathRatings } from "./PathRatings.tsx";

/** With the shop's decimal mark in what has a unit; a pin keeps its point. */
const marked = (text: string): string => text.replace(/\d+\.\d+(?= k?[VA]\b)/g, written);

/** What an output is to drive and what is in its path: typed as people say it, with what follows from it below. */
export function LoadFields({
  item: t,
  isLocked,
  onSet,
  refuse,
}: {
  item: TestItem;
  isLocked: boolean;
  onSet: (load: OutputLoad | undefined, what: string) => void;
  refuse: (text: string) => void;
}) {
  const { load } = t;
  const off = isLocked || load === undefined;
  /** Keeps what reads; says why where it does not. */
  const take = <T,>(
    read: { readonly kind: "read"; readonly value: T } | { readonly kind: "wrong"; readonly because: string },
    keep: (value: T) => void,
  ) => (read.kind === "read" ? keep(read.value) : refuse(`${t.name}: ${read.because}`));
  return (
    <div>
      <div className="grid grid-cols-4 items-end gap-x-3 gap-y-2 max-lg:grid-cols-2">
        <Kept
          label="As an output it drives"
          placeholder="24 V DC, 2 A"
          disabled={isLocked}
          isMono
          maxLength={60}
          value={load ? marked(loadText(load)) : ""}
          onSave={(v) =>
            v === ""
              ? onSet(undefined, "no load")
              : take(readLoad(v), (value) => onSet({ ratings: [], ...load, ...value }, `drives ${v}`))
          }
        />
        <Kept
          label="In its path, and what each carries"
          placeholder="U3: 3 A; J3: 2.5 A"
          disabled={off}
          className="col-span-2"
          isMono
          maxLength={400}
          value={load ? marked(ratingsText(load.ratings)) : ""}
          onSave={(v) =>
            take(readRatings(v), (ratings) =>
              onSet({ ...load!, ratings }, v === "" ? "nothing in its path" : v),
            )
          }
        />
        <Kept
          label="Share of it used, %"
          disabled={off}
          isMono
          maxLength={6}
          value={load ? written(String(Math.round((load.share ?? USUAL_SHARE) * 1000) / 10)) : ""}
          onSave={(v) => {
            const share = Number(typedNumber(v)) / 100;
            if (!(share >= 0.05 && share <= 1))
              return refuse(`${t.name}: “${v}” is no share from 5 to 100 %.`);
            onSet({ ...load!, share }, `${v} % of a rating`);
          }}
        />
        <Kept
          label="Kept apart from the rest by"
          placeholder="U2: 5 kV"
          disabled={off}
          className="col-span-2"
          isMono
          maxLength={80}
          value={load ? marked(isolationText(load.isolation)) : ""}
          onSave={(v) =>
            take(readIsolation(v), (isolation) => {
              const { isolation: _, ...rest } = load!;
              onSet(isolation ? { ...rest, isolation } : rest, v === "" ? "nothing keeps it apart" : v);
            })
          }
        />
      </div>
      {load && !isLocked && (
        <PathRatings item={t} onTake={(ratings, what) => onSet({ ...load, ratings }, what)} />
      )}
      {load && <LoadBar load={load} unrated={unratedOf(t.through, load.ratings)} />}
    </div>
  );
}

const STAND: Readonly<Record<LoadSaid["stand"], readonly [string, string]>> = {
  fits: ["It carries what is planned.", "text-fine"],
  tight: ["More is planned than is to be used.", "text-look"],
  over: ["More is planned than it carries.", "text-stop"],
  "not known": ["Nobody says what its path carries: no label may state a load.", "text-look"],
};

/** Planned load, what is allowed and every rating on one bar from nothing; below it the test load and the words for a label. */
function LoadBar({ load, unrated }: { load: OutputLoad; unrated: readonly string[] }) {
  const l = loadOf(load);
  const all = [Number(load.amps), ...load.ratings.map((r) => Number(r.amps))];
  const top = Math.max(...all) * 1.08;
  const at = (amps: string | number) => `${(100 * Number(amps)) / top}%`;
  const [words, look] = STAND[l.stand];
  return (
    <div className="mt-2 max-w-[640px]">
      <div aria-hidden="true" className="relative h-7 border-b border-ink-2">
        <span
          className={`absolute bottom-0 left-0 h-3 ${l.stand === "over" ? "bg-stop" : l.stand === "fits" ? "bg-metal" : "bg-look"}`}
          style={{ width: at(load.amps) }}
        />
        {l.allowed !== undefined && (
          <span
            className="absolute bottom-0 h-5 border-l-2 border-dashed border-ink"
            style={{ left: at(l.allowed) }}
          />
        )}
        {load.ratings.map((r) => (
          <span
            key={r.what}
            // written to the side on which there is room
            className={`num absolute bottom-0 h-7 border-ink text-[12.5px] leading-4 whitespace-nowrap text-ink-2 ${Number(r.amps) > 0.6 * top ? "-translate-x-full border-r pr-1" : "border-l pl-1"}`}
            style={{ left: at(r.amps) }}
          >
            {r.what}
          </span>
        ))}
      </div>
      <p className="mt-1 text-[14px]">
        <span className={look}>{words}</span>{" "}
        {l.weakest && (
          <span className="num">
            {said(
              `Allowed ${l.allowed} A: ${Math.round((load.share ?? USUAL_SHARE) * 1000) / 10} % of ${l.weakest.what}’s ${l.weakest.amps} A, ${Number(l.margin!.toPrecision(3))} × what is planned.`,
            )}
          </span>
        )}
      </p>
      <p className="text-[14px]">At the bench: {said(loadWords(load))}.</p>
      {l.label && (
        <p className="text-[14px]">
          For a label: <b className="num">{said(l.label)}</b>
          {unrated.length > 0 && (
            <span className="text-look">
              , as far as is known: nobody says what {unrated.join(", ")} carries
            </span>
          )}
        </p>
      )}
      {l.isDangerous && (
        <p className="text-[14px] text-stop">
          At these volts it can injure or kill: covered, by somebody competent, as local codes have it.
        </p>
      )}
    </div>
  );
}

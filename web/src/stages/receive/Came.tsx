import { useState } from "react";
import { Button } from "../../ui/Button.tsx";
import { Field } from "../../ui/Field.tsx";
import type { Counted } from "./counted.ts";

/** What came of one line: how many, where they go, or why they are set apart. */
export function Came({
  left,
  isStored,
  onCame,
}: {
  left: number;
  /** Parts get a place on the shelf; boards do not. */
  isStored: boolean;
  onCame: (c: Omit<Counted, "item">) => void;
}) {
  const [qty, setQty] = useState(String(left || ""));
  const [place, setPlace] = useState("");
  const [because, setBecause] = useState("");
  const [isApart, setApart] = useState(false);
  /** The count that was said to be right although it is more than is to come. */
  const [meant, setMeant] = useState<string>();
  const n = Number(qty);
  const isCount = /^\d{1,7}$/.test(qty) && n > 0;
  const more = isCount ? n - left : 0;
  const isReady = isCount && (more <= 0 || meant === qty);
  return (
    <form
      className="my-2 flex flex-wrap items-end gap-3 border-l-[3px] border-metal bg-metal-soft px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (isReady)
          onCame({
            qty: n,
            isApart,
            because: because.trim(),
            place: place.trim(),
            ...(more > 0 ? { isMeant: true } : {}),
          });
      }}
    >
      <Field
        label="Counted"
        className="w-24 [&_input]:min-h-11 [&_input]:text-[19px]"
        isNumber
        inputMode="numeric"
        autoFocus
        value={qty}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setQty(e.target.value.trim())}
      />
      {isStored && !isApart && (
        <Field
          label="Place on the shelf"
          className="w-44"
          value={place}
          onChange={(e) => setPlace(e.target.value)}
        />
      )}
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5 shrink-0"
          checked={isApart}
          onChange={(e) => setApart(e.target.checked)}
        />
        set apart
      </label>
      {isApart && (
        <Field
          label="Because"
          className="w-56"
          placeholder="bent, wrong part, scratched"
          value={because}
          onChange={(e) => setBecause(e.target.value)}
        />
      )}
      {more > 0 && (
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5 shrink-0"
            checked={meant === qty}
            onChange={(e) => setMeant(e.target.checked ? qty : undefined)}
          />
          <span className="text-look">
            {n} is right:{" "}
            {left === 0
              ? "more than was ordered"
              : `${more} more than ${left === 1 ? "the one" : `the ${left}`} to come`}
          </span>
        </label>
      )}
      <Button type="submit" look="main" className="min-h-11" disabled={!isReady}>
        {isApart ? "Set apart" : "It came"}
      </Button>
    </form>
  );
}

import type { MarkReading } from "@kobbin/core";

/** A price that can be read two ways, asked once; the answer can be changed. */
export function PriceDoubt({
  doubt,
  unit,
  reading,
  onRead,
}: {
  doubt: { readonly text: string; readonly decimal: string; readonly grouped: string };
  /** The currency, behind the numbers; empty where several are meant. */
  unit: string;
  reading: MarkReading | undefined;
  onRead: (reading: MarkReading) => void;
}) {
  const ways = [
    ["decimal", `${doubt.decimal} ${unit}`.trim(), "the mark before decimals"],
    ["grouped", `${doubt.grouped} ${unit}`.trim(), "the mark between thousands"],
  ] as const;
  return (
    <fieldset role="alert" className="mb-2 border-l-[3px] border-look pl-3 text-[14px]">
      <legend className="sr-only">How the prices are meant</legend>
      <p>“{doubt.text}” can be read two ways, and no other price tells. Which is meant?</p>
      {ways.map(([value, number, words]) => (
        <label key={value} className="flex min-h-6 items-center gap-2">
          <input
            type="radio"
            className="size-6"
            name="reading"
            checked={reading === value}
            onChange={() => onRead(value)}
          />
          {number}, {words}
        </label>
      ))}
    </fieldset>
  );
}

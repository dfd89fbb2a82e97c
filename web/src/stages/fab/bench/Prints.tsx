import { printWay, type Resist, testPatch } from "@kobbin/core";
import { useEffect, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { fileWord, saveFile } from "../../../ui/saveFile.ts";
import type { BoardConnection } from "../../../workers/board.ts";

const save = (svg: string, name: string) => saveFile(svg, `${name}.svg`, "image/svg+xml");

/** The copper one to one, side by side as it has to be printed, with what to look at before anything is wasted. */
export function Prints({
  board,
  sides,
  resist,
}: {
  board: BoardConnection;
  sides: readonly ("top" | "bottom")[];
  resist: Resist;
}) {
  const { doc } = useRun();
  const [prints, setPrints] = useState<Readonly<Partial<Record<string, string>>>>({});
  useEffect(() => {
    let isCurrent = true;
    Promise.all(sides.map(async (side) => [side, await board.print(side, resist)] as const)).then(
      (list) => isCurrent && setPrints(Object.fromEntries(list)),
      () => isCurrent && setPrints({}),
    );
    return () => {
      isCurrent = false;
    };
  }, [board, sides, resist]);
  return (
    <div className="grid grid-cols-2 gap-6 max-md:grid-cols-1">
      {sides.map((side) => {
        const svg = prints[side];
        const way = printWay(resist, side);
        return (
          <figure key={side}>
            <div className="border border-rule bg-white p-2">
              {svg ? (
                <img
                  alt={`The copper of the ${side} as it is printed${way.isMirrored ? ", mirrored" : ""}${way.isNegative ? ", negative" : ""}`}
                  src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`}
                  className="mx-auto max-h-[300px] w-full object-contain"
                />
              ) : (
                <div className="skeleton h-[200px]" />
              )}
            </div>
            <figcaption className="mt-1 text-[14px]">
              <b>{side}</b>, {way.isMirrored ? "mirrored" : "as in the files"},{" "}
              {way.isNegative ? "negative" : "positive"}: {way.check}.{" "}
              {svg && (
                <button
                  type="button"
                  className="quiet-link"
                  onClick={() => save(svg, `${fileWord(doc.product)}-${side}-${resist}`)}
                >
                  save the {side}
                </button>
              )}
            </figcaption>
          </figure>
        );
      })}
      <p className="text-[14px] text-ink-2 md:col-span-2">
        Print at 100 % and measure the bar: 50 mm. If it is not, set the printer’s size and print again.{" "}
        <button
          type="button"
          className="quiet-link"
          onClick={() => save(testPatch(resist), `test-patch-${resist}`)}
        >
          save a test patch
        </button>
      </p>
    </div>
  );
}

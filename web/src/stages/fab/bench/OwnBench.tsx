import { RESISTS, type Recipe, type Resist } from "@kobbin/core";
import { useEffect, useState } from "react";
import { useBoardWorker } from "../../../proof/useBoardWorker.ts";
import { useRun } from "../../../run/runState.ts";
import { useParam } from "../../../ui/params.ts";
import { Skeleton } from "../../../ui/States.tsx";
import { Tab } from "../../../ui/Tab.tsx";
import { useFormats } from "../../../ui/text/format.ts";
import { AgainstOrdering } from "./AgainstOrdering.tsx";
import { Learnt } from "./Learnt.tsx";
import { Prints } from "./Prints.tsx";
import { Steps } from "./Steps.tsx";

/** A board made at the shop's own bench: held against ordering it, its prints, its recipe, what the bench can do. */
export function OwnBench() {
  useFormats();
  const { answer, doc, result: r } = useRun();
  const [params, set] = useParam();
  const { board } = useBoardWorker(answer.boardIds[0] ?? "", "own bench");
  const measure = doc.boards[0]?.measure;
  const resist: Resist =
    (Object.keys(RESISTS) as Resist[]).find((k) => k === params.get("resist")) ?? "transfer";
  const copperUm = Number.parseFloat(r.options?.copper ?? "35");
  const [recipe, setRecipe] = useState<Recipe | "none">();
  useEffect(() => {
    let isCurrent = true;
    if (board && measure)
      board.recipe(measure, copperUm).then(
        (x) => isCurrent && setRecipe(x ?? "none"),
        () => isCurrent && setRecipe("none"),
      );
    return () => {
      isCurrent = false;
    };
  }, [board, measure, copperUm]);
  return (
    <>
      <AgainstOrdering />
      <div className="mt-5 mb-2 flex flex-wrap gap-x-5 gap-y-1 text-[14px]">
        {(Object.entries(RESISTS) as [Resist, string][]).map(([key, words]) => (
          <Tab key={key} isOn={key === resist} onClick={() => set("resist", key === "transfer" ? "" : key)}>
            {words}
          </Tab>
        ))}
      </div>
      {!recipe || !board ? (
        <Skeleton rows={6} label="The prints are being drawn" />
      ) : recipe === "none" || recipe.sides.length === 0 ? (
        <p className="text-ink-2">The files have no outer copper to be etched.</p>
      ) : (
        <>
          <Prints board={board} sides={recipe.sides} resist={resist} />
          <Steps recipe={recipe} resist={resist} />
        </>
      )}
      <Learnt />
    </>
  );
}

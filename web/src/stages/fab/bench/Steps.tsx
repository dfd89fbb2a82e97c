import { BENCH_CAUTIONS, bathMl, type Recipe, type Resist } from "@kobbin/core";
import { type ReactNode, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { Field } from "../../../ui/Field.tsx";
import { count, fixed, mm, typedNumber } from "../../../ui/text/format.ts";

/** Wires that are listed at once. */
const SHOWN = 24;

/** The recipe card: what is done in which order, with numbers of this board and the caution of each step. */
export function Steps({ recipe, resist }: { recipe: Recipe; resist: Resist }) {
  const { doc, result: r } = useRun();
  const [litre, setLitre] = useState("");
  const own = r.house?.bench ? r.orders[0]?.quote.pieces : undefined;
  const boards = own ?? r.start;
  const gramsALitre = Number(typedNumber(litre.trim()));
  const bath = recipe.etchedG === undefined ? undefined : bathMl(recipe.etchedG, boards, gramsALitre);
  return (
    <section aria-labelledby="recipe" className="mt-6">
      <h2 id="recipe" className="mb-1">
        Recipe for {count(boards, "board")}
      </h2>
      <ol className="text-[14px]">
        <Step
          n={1}
          title="Test patch first"
          caution={resist === "laser" ? BENCH_CAUTIONS.laser : BENCH_CAUTIONS.print}
        >
          Make the patch the same way as the board. What comes out whole and apart is your limit; write it
          down below.
        </Step>
        <Step n={2} title="Bring the picture on">
          {recipe.sides.length > 1
            ? "Two sides: drill two holes of the pattern first and line both prints up on pins in them."
            : "One side."}{" "}
          Look at the print’s words and at the bar before you use it.
        </Step>
        <Step n={3} title="Etch and rinse" caution={BENCH_CAUTIONS.etch}>
          {recipe.etchedG === undefined ? (
            "The board’s area is not known, so neither is the copper that goes into the bath."
          ) : (
            <>
              <span className="num">{fixed(recipe.etchedG, 2)} g</span> of copper go into the bath from a
              board, <span className="num">{fixed(recipe.etchedG * boards, 1)} g</span> from {boards}.
              <span className="mt-1 flex items-end gap-3">
                <Field
                  label="A litre takes up, g (its maker’s sheet)"
                  isNumber
                  inputMode="decimal"
                  value={litre}
                  onChange={(e) => setLitre(e.target.value)}
                  className="w-64"
                />
                <span className="pb-1">
                  {bath !== undefined && Number.isFinite(bath) ? (
                    <>
                      at least <span className="num">{fixed(bath, 0)} ml</span>, and enough to cover the board
                    </>
                  ) : (
                    "not known until you say it"
                  )}
                </span>
              </span>
            </>
          )}
        </Step>
        <Step n={4} title="Drill" caution={BENCH_CAUTIONS.drill}>
          {recipe.drills.length === 0
            ? "No holes."
            : recipe.drills.map((d) => `${d.count} × ${mm(d.diameterMm)} mm`).join(", ")}
        </Step>
        <Step n={5} title="Join the sides">
          {recipe.links.length === 0 && recipe.pinHoles === 0 && "Nothing to join."}
          {recipe.pinHoles > 0 &&
            `${count(recipe.pinHoles, "hole")} with a pin: solder it on both sides where tracks meet it. `}
          {recipe.links.length > 0 && (
            <>
              {count(recipe.links.length, "hole")} without a pin: a wire through each, soldered on both sides.
              <span className="num mt-1 grid grid-cols-4 gap-x-4 text-[13px] max-md:grid-cols-2">
                {recipe.links.slice(0, SHOWN).map((l) => (
                  <span key={`${l.x} ${l.y}`}>
                    {mm(l.x)}, {mm(l.y)} {l.net ?? ""}
                  </span>
                ))}
              </span>
              {recipe.links.length > SHOWN && ` and ${recipe.links.length - SHOWN} more`}
            </>
          )}
        </Step>
        <Step n={6} title="Try it, then solder" caution={BENCH_CAUTIONS.done}>
          Every board with a meter before parts go on: the list is in Board, “try it bare”.
        </Step>
      </ol>
      <p className="text-[13px] text-ink-3">{doc.product}: makers’ sheets and local rules come first.</p>
    </section>
  );
}

function Step({
  n,
  title,
  caution,
  children,
}: {
  n: number;
  title: string;
  caution?: string;
  children: ReactNode;
}) {
  return (
    <li className="grid grid-cols-[28px_1fr] border-t border-rule py-2">
      <span className="num text-ink-3">{n}</span>
      <div>
        <b>{title}.</b> {children}
        {caution && <span className="block text-look">{caution}</span>}
      </div>
    </li>
  );
}

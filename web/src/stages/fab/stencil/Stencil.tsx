import {
  BEAD_G,
  chosenFoil,
  coverPlan,
  type FoilPlace,
  type FoilSide,
  type FoilWork,
  type Measure,
  type OffPaste,
  POWDERS,
  panelOf,
  pasteNeed,
  WIPED,
} from "@kobbin/core";
import { useMemo, useState } from "react";
import { useRun } from "../../../run/runState.ts";
import { useParam } from "../../../ui/params.ts";
import { Skeleton } from "../../../ui/States.tsx";
import { Sum } from "../../../ui/Sum.tsx";
import { fileWord, saveFile } from "../../../ui/saveFile.ts";
import { Tab } from "../../../ui/Tab.tsx";
import { count, fixed, mm, said, useFormats, written } from "../../../ui/text/format.ts";
import { FoilPicture } from "./FoilPicture.tsx";
import { Foils } from "./Foils.tsx";
import { Needed } from "./Needed.tsx";
import { useFoil } from "./useFoil.ts";

/** The foil: whether one is needed, how thick, what is cut into it, which one, and the paste it takes. */
export function Stencil() {
  useFormats();
  const { doc } = useRun();
  const [params, set] = useParam();
  const boardIndex = Math.min(doc.boards.length - 1, Math.max(0, Number(params.get("board") ?? 1) - 1));
  const board = doc.boards[boardIndex];
  const sides = (["top", "bottom"] as const).filter((s) => (board?.measure.paste[s]?.count ?? 0) > 0);
  const side: FoilSide =
    params.get("side") === "bottom" && sides.includes("bottom") ? "bottom" : (sides[0] ?? "top");
  const { work, foilMm, without, leftOff, measure } = useFoil(boardIndex, side);
  const [picked, setPicked] = useState<FoilPlace>();
  if (sides.length === 0)
    return (
      <p className="mt-4 text-ink-2">
        The files have no paste layer: no foil can be cut. Export it from your layout program and drop the
        files again, or solder by iron.
      </p>
    );
  return (
    <>
      {panelOf(doc) && (
        <p className="mt-3 text-[14px] text-look">
          The boards lie on sheets: what is worked out here is for one board, and a foil of the sheet is cut
          from the paste layer among the sheet's files, with the openings chosen here.
        </p>
      )}
      <div className="my-3 flex flex-wrap gap-x-5 gap-y-1 text-[14px]">
        {doc.boards.length > 1 &&
          doc.boards.map((b, i) => (
            <Tab
              key={b.name}
              isOn={i === boardIndex}
              onClick={() => set("board", i === 0 ? "" : String(i + 1), true)}
            >
              {b.name}
            </Tab>
          ))}
        {sides.map((s) => (
          <Tab key={s} isOn={s === side} onClick={() => set("side", s === "top" ? "" : s, true)}>
            {s}, {count(board!.measure.paste[s]!.count, "opening")}
          </Tab>
        ))}
      </div>
      {!work || work === "none" || !measure ? (
        <Skeleton rows={6} label="The foil is being worked out" />
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)_320px] gap-6 max-md:grid-cols-1">
          <div>
            <FoilPicture
              measure={measure}
              side={side}
              openings={work.openings}
              picked={picked}
              onPick={setPicked}
            />
            <p className="mt-1 min-h-10 text-[13.5px] text-ink-2" aria-live="polite">
              {picked
                ? placeWords(picked)
                : "Press an opening to see what is cut there. A circle stays in the foil, a square floods its pad; what is dashed is left out."}
            </p>
          </div>
          <div className="text-[14px]">
            <Thickness work={work} foilMm={foilMm} />
            <Openings />
            <Cut work={work} side={side} onPick={setPicked} />
            {without.length === 0 && (
              <Cover name={board!.name} measure={measure} side={side} work={work} leftOff={leftOff} />
            )}
            <Paste work={work} perProduct={board!.perProduct} />
          </div>
        </div>
      )}
      <Needed />
      <Foils boardIndex={boardIndex} foilMm={foilMm} without={without.map((w) => w.ref)} />
    </>
  );
}

const placeWords = (o: FoilPlace): string =>
  said(
    [
      `${o.pin ?? "pad not told"}: ${mm(o.widthMm)} × ${mm(o.lengthMm)} mm`,
      `area ratio ${o.areaRatio.toFixed(2)}`,
      o.pitchMm === undefined ? undefined : `nearest ${mm(o.pitchMm)} mm away`,
      o.fault,
      o.cut.kind === "as drawn" ? undefined : o.cut.kind,
      o.cut.because,
    ]
      .filter(Boolean)
      .join("; "),
  );

/** Each thickness with what stays in it and what floods; a press takes it. */
function Thickness({ work, foilMm }: { work: FoilWork; foilMm: number }) {
  const { doc, change, isLocked } = useRun();
  const again = chosenFoil(doc);
  const isAgain = again !== undefined && !again.cannot && again.foil.foilMm === foilMm;
  return (
    <fieldset className="mb-4">
      <legend className="mb-1 font-semibold">Thickness of the foil</legend>
      {isAgain && (
        <p className="text-ink-2">
          The foil {again.foil.name} is used again; it is {written(String(foilMm))} mm thick.
        </p>
      )}
      {work.foils.map((f) => (
        <label key={f.foilMm} className="flex items-baseline gap-2 border-t border-rule py-1">
          <input
            type="radio"
            name="foil-mm"
            disabled={isLocked || isAgain}
            checked={Math.abs(f.foilMm - foilMm) < 1e-9}
            onChange={() => change({ assembly: { foilMm: f.foilMm } } as never, `Foil of ${f.foilMm} mm`)}
          />
          <span className="num whitespace-nowrap">{written(f.foilMm.toFixed(2))} mm</span>
          <span className={f.stay + f.flood > 0 ? "text-look" : "text-ink-2"}>
            {f.stay + f.flood === 0
              ? "every opening releases, none floods"
              : [f.stay > 0 && `${f.stay} stay in the foil`, f.flood > 0 && `${f.flood} flood`]
                  .filter(Boolean)
                  .join(", ")}
            {f.isBest && <b className="font-semibold text-fine"> best</b>}
          </span>
        </label>
      ))}
    </fieldset>
  );
}

/** How openings are cut, each with what it does. */
const CUTS = [
  ["drawn", "as drawn", "the layer as it is in the files"],
  ["corrected", "corrected", "narrower where pads are close, heat pads in panes"],
  ["narrowed", "only narrowed", "less paste between close pads"],
  ["paned", "only panes", "heat pads do not float"],
] as const;

/** Whether the foil is cut as drawn: a decision of the run, which sheets and the package follow. */
function Openings() {
  const { doc, change, isLocked } = useRun();
  const now = doc.assembly.openings ?? "drawn";
  return (
    <fieldset className="mb-4">
      <legend className="mb-1 font-semibold">Openings</legend>
      {CUTS.map(([key, label, does]) => (
        <label key={key} className="flex items-baseline gap-2 border-t border-rule py-1">
          <input
            type="radio"
            name="foil-openings"
            disabled={isLocked}
            checked={now === key}
            onChange={() => change({ assembly: { openings: key } } as never, `Openings ${label}`)}
          />
          <span className="whitespace-nowrap">{label}</span>
          <span className="text-ink-2">{does}</span>
        </label>
      ))}
      {now !== "drawn" && (
        <p className="text-ink-2">
          Those of parts that are not fitted are left out. The layer goes into the package as{" "}
          <span className="num">stencil/</span>, on sheets into the sheet's files.
        </p>
      )}
    </fieldset>
  );
}

/** What is cut otherwise than drawn, the file of it, and whether our reader measures in it what was meant. */
function Cut({ work, side, onPick }: { work: FoilWork; side: FoilSide; onPick: (o: FoilPlace) => void }) {
  const { doc } = useRun();
  const by = (kind: FoilPlace["cut"]["kind"]) => work.openings.filter((o) => o.cut.kind === kind);
  const faults = work.openings.filter((o) => o.fault);
  const rows: readonly (readonly [string, readonly FoilPlace[]])[] = [
    ["narrowed", by("narrowed")],
    ["heat pads in panes", by("panes")],
    ["left out", by("left out")],
    ["at fault", faults],
  ];
  const save = () =>
    saveFile(work.file, `${fileWord(doc.product)}-${fileWord(doc.revision)}-paste-${side}-corrected.gbr`);
  return (
    <section className="mb-4" aria-labelledby="cut">
      <h2 id="cut" className="mb-1 text-[15px]">
        Openings as cut
      </h2>
      {rows.map(([label, list]) =>
        list.length === 0 ? null : (
          <p key={label} className="border-t border-rule py-1">
            <span className="num">{list.length}</span> {label}:{" "}
            <button type="button" className="why" onClick={() => onPick(list[0]!)}>
              {list[0]!.pin ?? `at ${mm(list[0]!.x)}, ${mm(list[0]!.y)}`}
            </button>
            {list.length > 1 && " and others"}
          </p>
        ),
      )}
      {work.unknown > 0 && (
        <p className="border-t border-rule py-1 text-look">
          Of {work.unknown} the files do not tell the part: they are never left out, nor paned.
        </p>
      )}
      <p className="border-t border-rule py-1">
        {work.again.agrees ? (
          <>
            Written and measured again: {count(work.again.count, "opening")}, {fixed(work.again.areaMm2, 2)}{" "}
            mm².{" "}
            {(doc.assembly.openings ?? "drawn") !== "drawn" && (
              <button type="button" className="quiet-link" onClick={save}>
                save the corrected layer
              </button>
            )}
          </>
        ) : (
          <span className="text-stop">
            The written layer does not measure as meant: {count(work.again.count, "opening")}. It is not
            offered; use the layer as drawn.
          </span>
        )}
      </p>
    </section>
  );
}

/** A foil as drawn prints on parts that are not fitted: which openings to tape over, as a page one to one. */
function Cover({
  name,
  measure,
  side,
  work,
  leftOff,
}: {
  name: string;
  measure: Measure;
  side: FoilSide;
  work: FoilWork;
  leftOff: readonly OffPaste[];
}) {
  const { doc } = useRun();
  const rings = measure.outline?.rings ?? [];
  const plan = useMemo(
    () => coverPlan(name, side, work.openings, leftOff, rings, measure.extentMm ?? [0, 0, 0, 0]),
    [name, side, work, leftOff, rings, measure],
  );
  if (!plan || rings.length === 0) return null;
  const print = async () => {
    const { writePlan } = await import("@kobbin/formats");
    const bytes = await writePlan(plan, new Date(doc.today), true);
    saveFile(
      new Blob([bytes as Uint8Array<ArrayBuffer>], { type: "application/pdf" }),
      `${fileWord(name)}-cover-${side}.pdf`,
    );
  };
  return (
    <p className="mb-4">
      Cut as drawn, it prints where nothing is fitted ({plan.subtitle}):{" "}
      <button type="button" className="quiet-link" onClick={print}>
        print a map of what to tape over
      </button>
    </p>
  );
}

/** The paste of the run and its powder, and what to buy. */
function Paste({ work, perProduct }: { work: FoilWork; perProduct: number }) {
  const { result: r } = useRun();
  // of each side by itself: it has a foil, and what stays on it, of its own
  const boards = r.start * perProduct;
  const need = pasteNeed(work.grams.cut, boards, 1, work.narrowestMm ?? 1);
  const ball = POWDERS.find((p) => p.type === need.powder)?.ballMm;
  return (
    <section aria-labelledby="paste">
      <h2 id="paste" className="mb-1 text-[15px]">
        Paste of this side
      </h2>
      <p className="border-t border-rule py-1">
        <span className="num">{fixed(need.perBoardG, 3)} g</span> a board,{" "}
        <Sum
          title="Paste for the run, g"
          terms={[
            {
              label: `printed, ${count(boards, "board")} of ${fixed(need.perBoardG, 3)} g`,
              value: fixed(boards * need.perBoardG, 2),
            },
            {
              label: "wiped off and misprinted",
              value: fixed(boards * need.perBoardG * WIPED, 2),
              note: `${Math.round(100 * WIPED)} % of it, a placeholder`,
            },
            { label: "stays on the foil", value: fixed(BEAD_G, 2), note: "a placeholder" },
          ]}
          result={fixed(need.runG, 2)}
        >
          <span className="num">{fixed(need.runG, 1)} g</span>
        </Sum>{" "}
        for {r.start * perProduct} boards with what is wiped off and stays on the foil (a placeholder: 30 %
        and 15 g).
      </p>
      <p className="border-t border-rule py-1">
        {need.powder === undefined
          ? "The narrowest opening is too fine for any usual powder."
          : `Powder of type ${need.powder}: its largest ball of ${mm(ball! * 1000)} µm goes five times into ${mm(work.narrowestMm!)} mm.`}
      </p>
      {need.packs.length > 0 && (
        <p className="border-t border-rule py-1">
          Buy {need.packs.map((p) => `${p.count} × ${p.label}`).join(" and ")}, unless another run shares it.
        </p>
      )}
      <p className="border-t border-rule py-1 text-ink-2">
        Keep it cold, warm it closed for four hours, off the foil after eight; the maker’s sheet comes first.
        Gloves, no food at the bench.
      </p>
    </section>
  );
}

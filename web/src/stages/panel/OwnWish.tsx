import {
  ALL_TURNS,
  DEFAULT_SPEC,
  isRefusal,
  type PanelDesign,
  type PanelProposal,
  type PanelRefusal,
  type PanelSpec,
  panelThickness,
  REACHES,
  type Separation,
  SIDES,
  sheetBoards,
  wantedOf,
} from "@kobbin/core";
import { type RefObject, useState } from "react";
import { useRun } from "../../run/runState.ts";
import { Button } from "../../ui/Button.tsx";
import { DaysDelta, Delta } from "../../ui/ChoiceRow.tsx";
import { Field, Pick } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { typedNumber } from "../../ui/text/format.ts";
import type { PanelConnection } from "../../workers/panel.ts";
import { sheetWords } from "./Proposals.tsx";
import { SmallSheet } from "./SmallSheet.tsx";

const RAILS = {
  auto: "as the boards want",
  long: "top and bottom",
  all: "all four sides",
  none: "none",
} as const;
type Rails = keyof typeof RAILS;
const SIZES = [
  ["plate", `hot plate, ${REACHES.plate.mm.join(" × ")}`],
  ["printer", `hand printer, ${REACHES.printer.mm.join(" × ")}`],
  ["oven", `oven, ${REACHES.oven.mm.join(" × ")}`],
  ["line", `placing line, ${REACHES.line.mm.join(" × ")}`],
] as const;

interface Typed {
  readonly count: string;
  readonly size: string;
  readonly separation: Separation | "auto" | "columns" | "rows";
  readonly gap: string;
  readonly rails: Rails;
  readonly rail: string;
  readonly tab: string;
  readonly turns: "all" | "none" | "half";
}

const railsOf: Readonly<Record<Rails, PanelSpec["rails"]>> = {
  auto: "auto",
  long: ["top", "bottom"],
  all: [...SIDES],
  none: [],
};
/** How the boards come off, as a spec says it. */
const partedBy = (s: Typed["separation"]): Pick<PanelSpec, "separation" | "scored"> =>
  s === "columns" || s === "rows" ? { separation: "mixed", scored: s } : { separation: s };
const TURNS = { all: [...ALL_TURNS], half: [0, 180], none: [0] };

/** A sheet by a wish of one's own: worked out at once, with what it would change, before it is taken. */
export function OwnWish({
  worker,
  designs,
}: {
  worker: RefObject<PanelConnection | undefined>;
  designs: readonly PanelDesign[];
}) {
  const { doc, result, change } = useRun();
  const [typed, setTyped] = useState<Typed>({
    count: String(doc.choices.panel?.places.length ?? 6),
    size: "plate",
    separation: "auto",
    gap: "2",
    rails: "auto",
    rail: "7",
    tab: "5",
    turns: "all",
  });
  const [made, setMade] = useState<PanelProposal | PanelRefusal>();
  const [isBusy, setBusy] = useState(false);
  const set = (part: Partial<Typed>) => {
    setTyped({ ...typed, ...part });
    setMade(undefined);
  };
  const number = (text: string, least: number, most: number): number | undefined => {
    const clean = typedNumber(text.trim());
    const v = Number(clean);
    return clean !== "" && Number.isFinite(v) && v >= least && v <= most ? v : undefined;
  };
  const count = typed.count.trim() === "" ? ("fill" as const) : number(typed.count, 1, 400);
  const [gap, rail, tab] = [number(typed.gap, 0.5, 20), number(typed.rail, 3, 60), number(typed.tab, 2, 20)];
  const isWrong = count === undefined || gap === undefined || rail === undefined || tab === undefined;
  const solve = async () => {
    if (isWrong || !worker.current) return;
    setBusy(true);
    const [w, h] = REACHES[typed.size as keyof typeof REACHES].mm;
    // of several boards each as often as a product has it; guests in proportion to what is wanted of them
    const all = sheetBoards(doc);
    const n = count === "fill" || count === undefined ? 1 : Math.max(1, Math.round(count));
    const share = (key: string) => Math.max(1, Math.round((n * wantedOf(doc, key)) / result.start));
    const counts = all.map((b, i): number | "fill" =>
      count === "fill" && i === 0 ? "fill" : b.guest ? share(b.key) : all.length === 1 ? n : n * b.perProduct,
    );
    const found = await worker.current.wish(doc, {
      ...DEFAULT_SPEC,
      counts,
      turns: all.map(() => TURNS[typed.turns]),
      maxWidthMm: Math.max(w, h),
      maxHeightMm: Math.min(w, h),
      ...partedBy(typed.separation),
      gapMm: gap!,
      rails: railsOf[typed.rails],
      railMm: rail!,
      tabMm: tab!,
      thicknessMm: panelThickness(doc),
    });
    setMade(found);
    setBusy(false);
  };
  return (
    <Fold id="own-wish" title="Another sheet" verdict="by your own numbers">
      <WishForm
        typed={typed}
        numbers={{ count, gap, rail, tab }}
        isSeveral={sheetBoards(doc).length > 1}
        onSet={set}
      />
      <div className="mt-3 flex items-center gap-3">
        <Button onClick={solve} disabled={isWrong || isBusy}>
          {isBusy ? "working it out …" : "Work it out"}
        </Button>
        <span className="text-[13px] text-ink-3">Nothing is changed yet.</span>
      </div>
      {made &&
        (isRefusal(made as never) ? (
          <Refused
            refusal={made as PanelRefusal}
            onTry={(n) => set({ count: String(n) })}
            onTabs={() => set({ separation: "tabs" })}
          />
        ) : (
          <div className="mt-3 flex items-center gap-3 border-t border-rule pt-3">
            <SmallSheet layout={(made as PanelProposal).layout} designs={designs} />
            <p className="min-w-0 flex-1 text-[14px]">
              <span className="block font-semibold">{sheetWords(made as PanelProposal)}</span>
              <Delta value={(made as PanelProposal).perGood} /> a good board,{" "}
              <DaysDelta value={(made as PanelProposal).days} />
            </p>
            <Button
              look="main"
              onClick={() =>
                change(
                  { panel: (made as PanelProposal).choice } as never,
                  `Sheet: ${sheetWords(made as PanelProposal)}`,
                )
              }
            >
              Take it
            </Button>
          </div>
        ))}
    </Fold>
  );
}

function WishForm({
  typed,
  numbers,
  isSeveral,
  onSet,
}: {
  typed: Typed;
  numbers: Readonly<Record<"count" | "gap" | "rail" | "tab", number | "fill" | undefined>>;
  isSeveral: boolean;
  onSet: (part: Partial<Typed>) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2">
      <Field
        label={isSeveral ? "Products on the sheet" : "Boards on the sheet"}
        hint="empty: as many as go on it"
        value={typed.count}
        inputMode="numeric"
        error={numbers.count === undefined ? "1 to 400" : undefined}
        onChange={(e) => onSet({ count: e.target.value })}
        isNumber
      />
      <Pick
        label="Largest sheet, mm"
        value={typed.size}
        options={SIZES}
        onChange={(size) => onSet({ size })}
      />
      <Pick
        label="Parted by"
        value={typed.separation}
        options={[
          ["auto", "whatever suits the edges"],
          ["score", "scores"],
          ["tabs", "tabs"],
          ["mixed", "scores and tabs, whichever suits"],
          ["columns", "scores between columns, tabs between rows"],
          ["rows", "scores between rows, tabs between columns"],
        ]}
        onChange={(v) => onSet({ separation: v as Typed["separation"] })}
      />
      <Field
        label="Gap, mm"
        value={typed.gap}
        inputMode="decimal"
        error={numbers.gap === undefined ? "0.5 to 20" : undefined}
        onChange={(e) => onSet({ gap: e.target.value })}
        isNumber
      />
      <Pick
        label="Rails"
        value={typed.rails}
        options={Object.entries(RAILS) as [Rails, string][]}
        onChange={(v) => onSet({ rails: v as Rails })}
      />
      <Field
        label="Rail, mm"
        value={typed.rail}
        inputMode="decimal"
        error={numbers.rail === undefined ? "3 to 60" : undefined}
        onChange={(e) => onSet({ rail: e.target.value })}
        isNumber
      />
      <Pick
        label="Boards may lie"
        value={typed.turns}
        options={[
          ["all", "any way round"],
          ["half", "as drawn or turned by half"],
          ["none", "as drawn only"],
        ]}
        onChange={(v) => onSet({ turns: v as Typed["turns"] })}
      />
      <Field
        label="Tab, mm"
        value={typed.tab}
        inputMode="decimal"
        error={numbers.tab === undefined ? "2 to 20" : undefined}
        onChange={(e) => onSet({ tab: e.target.value })}
        isNumber
      />
    </div>
  );
}

function Refused({
  refusal,
  onTry,
  onTabs,
}: {
  refusal: PanelRefusal;
  onTry: (n: number) => void;
  onTabs: () => void;
}) {
  const mends = [
    "score-refused",
    "edges-not-straight",
    "score-thickness",
    "score-through-board",
    "several-by-tabs",
  ];
  return (
    <div role="alert" className="mt-3 border-l-[3px] border-stop bg-stop-soft px-3 py-2 text-[14px]">
      <p className="font-semibold">{refusal.reason}</p>
      {refusal.do && <p>{refusal.do}</p>}
      {refusal.nearest.map((n) => (
        <button key={n} type="button" className="quiet-link mr-3" onClick={() => onTry(n)}>
          {n} on the sheet
        </button>
      ))}
      {mends.includes(refusal.tag) && (
        <button type="button" className="quiet-link" onClick={onTabs}>
          part them by tabs
        </button>
      )}
    </div>
  );
}

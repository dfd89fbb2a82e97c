import {
  type PanelChoice,
  type PanelDesign,
  type PanelLayout,
  panelThickness,
  REACHES,
  type Reach,
  type SheetSide,
  SIDES,
  sagMm,
} from "@kobbin/core";
import { useRun } from "../../run/runState.ts";
import { Sum } from "../../ui/Sum.tsx";
import { fixed, mm } from "../../ui/text/format.ts";

/** Figures of the sheet at hand, each opening to its sum. */
export function ThisSheet({
  layout: l,
  choice,
  designs,
  boardKeys,
  onMoved,
}: {
  layout: PanelLayout;
  choice: PanelChoice;
  designs: readonly PanelDesign[];
  boardKeys: readonly string[];
  /** A change of the sheet, worked out anew before it is kept. */
  onMoved: (next: PanelChoice, words: string) => void;
}) {
  const { doc, isLocked } = useRun();
  const t = panelThickness(doc);
  const span = Math.min(l.widthMm, l.heightMm);
  const hot = sagMm(span, t, "hot");
  const used = `${fixed(l.utilisation * 100, 1)} %`;
  const lies = (k: Reach) => {
    const [a, b] = REACHES[k].mm;
    return (
      Math.max(l.widthMm, l.heightMm) <= Math.max(a, b) && Math.min(l.widthMm, l.heightMm) <= Math.min(a, b)
    );
  };
  const rails = Object.entries(l.rails).filter(([, w]) => w > 0);
  const waste = choice.waste ?? [];
  const put = (kind: (typeof waste)[number], words: string) => (
    <Tick
      words={words}
      isOn={waste.includes(kind)}
      isLocked={isLocked}
      onTick={(isOn) =>
        onMoved(
          { ...choice, waste: [...waste.filter((w) => w !== kind), ...(isOn ? [kind] : [])] },
          `${words} ${isOn ? "on" : "off"}`,
        )
      }
    />
  );
  const set = (key: "fiducials" | "toolingHoles" | "badMarks" | "copperBalance", words: string) => (
    <Tick
      words={words}
      isOn={choice[key]}
      isLocked={isLocked}
      onTick={(isOn) => onMoved({ ...choice, [key]: isOn }, `${words} ${isOn ? "on" : "off"}`)}
    />
  );
  return (
    <section aria-labelledby="this-sheet" className="mt-6">
      <h2 id="this-sheet" className="mb-1 text-[15px] font-semibold">
        This sheet
      </h2>
      <table className="rows w-full text-[14px]">
        <tbody>
          <tr>
            <td>size</td>
            <td className="num text-right">
              {mm(l.widthMm)} × {mm(l.heightMm)} mm
            </td>
          </tr>
          <tr>
            <td>used</td>
            <td className="num text-right">
              <Sum
                title="Share of the sheet that is board"
                formula="area of the outlines over that of the sheet"
                terms={[
                  { label: "boards", value: String(l.places.length) },
                  { label: "sheet", value: `${fixed((l.widthMm * l.heightMm) / 100, 1)} cm²` },
                  {
                    label: "outlines",
                    value: `${fixed((l.utilisation * l.widthMm * l.heightMm) / 100, 1)} cm²`,
                  },
                ]}
                result={used}
              >
                {used}
              </Sum>
            </td>
          </tr>
          <tr>
            <td>
              {l.tabs.length > 0 ? `tabs of ${mm(choice.tabMm)} mm, gap ${mm(l.gapMm)} mm` : "tabs"}
              {choice.tabs && (
                <span className="block text-[13px] text-ink-2">
                  put by hand{" "}
                  {!isLocked && (
                    <button
                      type="button"
                      className="quiet-link ml-2"
                      onClick={() => {
                        const { tabs: _, ...rest } = choice;
                        onMoved(rest, "Tabs found anew");
                      }}
                    >
                      find them anew
                    </button>
                  )}
                </span>
              )}
            </td>
            <td className="num text-right">{l.tabs.length === 0 ? "none" : l.tabs.length}</td>
          </tr>
          <tr>
            <td>scores, edge to edge</td>
            <td className="num text-right">{l.scores.length === 0 ? "none" : l.scores.length}</td>
          </tr>
          <tr>
            <td>rails</td>
            <td className="num text-right">
              {rails.length === 0 ? "none" : rails.map(([s, w]) => `${s} ${mm(w)}`).join(", ")}
            </td>
          </tr>
          <tr>
            <td>sag when hot</td>
            <td className="num text-right">
              <Sum
                title="Sag of the sheet when hot"
                formula="5·ρ·t·g·L⁴ / (384·E·t³/12), held on two sides"
                terms={[
                  { label: "span", value: `${mm(span)} mm` },
                  { label: "thickness", value: `${mm(t)} mm` },
                  { label: "cold", value: `${fixed(sagMm(span, t, "cold"), 2)} mm`, from: "20 GPa" },
                ]}
                result={`${fixed(hot, 2)} mm`}
              >
                {fixed(hot, 2)} mm
              </Sum>
            </td>
          </tr>
          <tr>
            <td>goes into</td>
            <td className="text-right">
              {(Object.keys(REACHES) as Reach[])
                .filter(lies)
                .map((k) => REACHES[k].words)
                .join(", ") || "none of the usual"}
            </td>
          </tr>
        </tbody>
      </table>
      <fieldset className="mt-2">
        <legend className="sr-only">What stands on the rails</legend>
        {set("fiducials", "fiducials")}
        {set("toolingHoles", "tooling holes")}
        {set("badMarks", "bad-board marks")}
        {set("copperBalance", "balancing copper")}
        {put("gauge", "slot gauge in the waste")}
        {put("practice", "practice pads in the waste")}
        {put("paste-test", "paste test in the waste")}
      </fieldset>
      {l.separation !== "score" &&
        designs.map((d, i) => (
          <FreeSides
            key={d.name}
            name={designs.length > 1 ? d.name : undefined}
            free={choice.free?.[boardKeys[i]!] ?? []}
            isLocked={isLocked}
            onSet={(free, words) => {
              const all = { ...choice.free, [boardKeys[i]!]: free };
              onMoved({ ...choice, free: all }, words);
            }}
          />
        ))}
    </section>
  );
}

function Tick({
  words,
  isOn,
  isLocked,
  onTick,
}: {
  words: string;
  isOn: boolean;
  isLocked: boolean;
  onTick: (isOn: boolean) => void;
}) {
  return (
    <label className="mr-4 inline-flex items-baseline gap-2 text-[14px]">
      <input type="checkbox" checked={isOn} disabled={isLocked} onChange={(e) => onTick(e.target.checked)} />
      {words}
    </label>
  );
}

/** Edges of a board that get no tab: one that slides into a case, or is looked at. */
function FreeSides({
  name,
  free,
  isLocked,
  onSet,
}: {
  name: string | undefined;
  free: readonly SheetSide[];
  isLocked: boolean;
  onSet: (free: readonly SheetSide[], words: string) => void;
}) {
  return (
    <fieldset className="mt-2">
      <legend className="text-[13.5px] text-ink-2">
        edges without tabs{name ? `, ${name}` : ""}, as the board is drawn
      </legend>
      {SIDES.map((s) => (
        <Tick
          key={s}
          words={s}
          isOn={free.includes(s)}
          isLocked={isLocked}
          onTick={(isOn) =>
            onSet(
              SIDES.filter((k) => (k === s ? isOn : free.includes(k))),
              `${s} edge ${isOn ? "without" : "with"} tabs`,
            )
          }
        />
      ))}
    </fieldset>
  );
}

import { compareRefs, type RunDocument, routesOf, unitOf } from "@kobbin/core";
import { KIND_WORDS } from "../../run/kindWords.ts";
import { Quantity } from "../../run/Quantity.tsx";
import { useEffects, useRun } from "../../run/runState.ts";
import { ChoiceRow } from "../../ui/ChoiceRow.tsx";
import { Field } from "../../ui/Field.tsx";
import { Fold } from "../../ui/Fold.tsx";
import { useParam } from "../../ui/params.ts";
import { Skeleton } from "../../ui/States.tsx";
import { Sum } from "../../ui/Sum.tsx";
import { Tab } from "../../ui/Tab.tsx";
import { count, fixed, signed, typedNumber } from "../../ui/text/format.ts";
import { AtTheHouse } from "./AtTheHouse.tsx";
import { AtZero } from "./AtZero.tsx";
import { Directions } from "./Directions.tsx";
import { FirstArticle } from "./FirstArticle.tsx";
import { OwnWork } from "./OwnWork.tsx";
import { OrderFace } from "./order/OrderFace.tsx";
import { PowerFace } from "./power/PowerFace.tsx";
import { Hardest, Routes } from "./Routes.tsx";
import { SecondOrder } from "./SecondOrder.tsx";
import { startSum } from "./startSum.ts";
import { TestsFace } from "./tests/TestsFace.tsx";
import { WaysFace } from "./ways/WaysFace.tsx";

/** Who solders what and how many to start; and in which order it is done. */
export function AssemblePage() {
  const [params, set] = useParam();
  const of = params.get("of");
  const face = of === "order" || of === "parts" || of === "tests" || of === "power" ? of : "";
  return (
    <section>
      <h1>Assemble</h1>
      <p className="mb-2 text-ink-2">{ABOUT[face]}</p>
      <div className="mb-4 flex gap-x-5 text-[14px]">
        <Tab isOn={face === ""} onClick={() => set("of", "", true)}>
          who solders
        </Tab>
        <Tab isOn={face === "parts"} onClick={() => set("of", "parts", true)}>
          part by part
        </Tab>
        <Tab isOn={face === "order"} onClick={() => set("of", "order", true)}>
          order of work
        </Tab>
        <Tab isOn={face === "tests"} onClick={() => set("of", "tests", true)}>
          test plan
        </Tab>
        <Tab isOn={face === "power"} onClick={() => set("of", "power", true)}>
          first power
        </Tab>
      </div>
      {FACES[face]}
    </section>
  );
}

const FACES = {
  "": <WhoSolders />,
  parts: <WaysFace />,
  order: <OrderFace />,
  tests: <TestsFace />,
  power: <PowerFace />,
} as const;

const ABOUT = {
  "": "Own hands or a house; how many to start, and what it takes.",
  parts:
    "Who puts on each part, side by side: what a house is worth for, what goes on paste, what the iron does.",
  tests: "What is tried on every one, and what a pass of it says of each joint.",
  power: "What is unplugged, measured and set before a board is first powered, and where to stop.",
  order: "What is done after what, so that nothing falls, melts or is closed too early.",
} as const;

/** What of a first article a reader looks for before it is opened. */
const firstVerdict = ({ choices, first }: RunDocument): string =>
  !choices.first
    ? "none: what is dear could be tried in sockets first"
    : first && first.good > 0
      ? "came good"
      : "this run waits for it";

/** Who solders what, how many to start for the number wanted, and what it takes in hours or money. */
function WhoSolders() {
  const { doc, result: r, change, isLocked } = useRun();
  const effects = useEffects("assemble");
  const spare = r.start - doc.goodBoards;
  const unit = unitOf(doc);
  return (
    <>
      <div className="mb-5 grid grid-cols-[auto_1fr] items-end gap-8 max-md:grid-cols-1">
        <div>
          <p className="text-[13.5px] text-ink-2">{unit}s to start</p>
          <p className="num text-[34px] leading-none font-bold">
            <Sum {...startSum(doc, r)}>{r.start}</Sum>
          </p>
          <p className="text-[13.5px] text-ink-2">
            {spare === 0 ? "no spare one" : count(spare, "spare one")}, {fixed(r.chance * 100, 1)} % sure
          </p>
        </div>
        <Quantity />
      </div>
      {!effects ? (
        <Skeleton rows={3} label="Effects are being computed" />
      ) : (
        <div>
          <ChoiceRow
            decision="Who solders"
            why="time, money and defects are counted; what to mind for your health is in the margin"
            alternatives={effects.methods}
            disabled={isLocked}
            onChoose={(v) =>
              change(
                { assembly: routesOf(doc, r).find((x) => x.key === v)!.change } as never,
                `Soldered: ${effects.methods.find((m) => m.value === v)?.label}`,
              )
            }
          />
          <ChoiceRow
            decision="How sure"
            showsSaving={false}
            why={`to end with enough good ${unit}s without a second order`}
            alternatives={effects.confidence.map((e) => ({
              ...e,
              why: `${e.isChosen ? "" : `the run ${signed(e.run ?? 0)}, cash ${signed(e.cash)}; `}about ${fixed(e.spares ?? 0, 1)} good ${unit}s to spare`,
            }))}
            disabled={isLocked}
            onChoose={(v) =>
              change({ confidence: Number(v) }, `${Math.round(Number(v) * 100)} % sure of enough`)
            }
          />
          <SecondOrder />
          <Fold
            id="routes"
            title="Side by side, and from how many on"
            verdict="every way at this quantity, and over quantity"
          >
            <Routes />
          </Fold>
          <Fold
            id="first-article"
            title="First article"
            verdict={firstVerdict(doc)}
            isOpen={doc.choices.first !== undefined}
          >
            <FirstArticle />
          </Fold>
          <AtZero />
          <div className="border-t border-rule" />
        </div>
      )}
      <div className="mt-6 grid grid-cols-2 gap-8 max-md:grid-cols-1">
        <div>
          <AtTheHouse />
          <section aria-labelledby="work">
            <h2 id="work" className="mb-1">
              Own work
            </h2>
            <OwnWork />
            <Numbers />
          </section>
        </div>
        <ToSolder />
      </div>
    </>
  );
}

/** What there is to solder, by kind, and the hardest of it. */
function ToSolder() {
  const { result: r } = useRun();
  const onBoard = r.parts.filter((p) => p.kind !== "loose");
  const kinds = [...new Set(onBoard.map((p) => p.kind))].map((kind) => {
    const of = onBoard.filter((p) => p.kind === kind);
    return {
      kind,
      lines: of.map((p) => p.line.id).join(" "),
      pieces: of.reduce((n, p) => n + p.count, 0),
      joints: of.reduce((n, p) => n + p.count * p.joints, 0),
      methods: [...new Set(of.map((p) => p.method))],
    };
  });
  const lost = r.needs.reduce((n, x) => n + x.lost, 0);
  const byHand = r.parts.filter((p) => p.method === "iron" && p.kind !== "loose");
  return (
    <section aria-labelledby="kinds">
      <h2 id="kinds" className="mb-1">
        What there is to solder
      </h2>
      <table className="rows w-full">
        <thead>
          <tr>
            <th>Kind</th>
            <th className="text-right">Pieces</th>
            <th className="text-right">Joints</th>
            <th>By</th>
          </tr>
        </thead>
        <tbody>
          {kinds.map((k) => (
            <tr key={k.kind} data-lines={k.lines}>
              <td>{KIND_WORDS[k.kind]}</td>
              <td className="num text-right">{k.pieces}</td>
              <td className="num text-right">{k.joints}</td>
              <td className="text-[14px] text-ink-2">
                {k.methods.map((m) => ({ iron: "iron", stencil: "paste", house: "house" })[m]).join(", ")}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-[14px] text-ink-2">
        Bought over for what gets lost: <span className="num">{lost}</span> pieces. By hand:{" "}
        {byHand.length === 0
          ? "nothing"
          : byHand
              .flatMap((p) => p.line.refs)
              .sort(compareRefs)
              .join(" ")}
        .
      </p>
      <Hardest />
      <Directions />
    </section>
  );
}

function Numbers() {
  const { doc, result: r, change, isLocked } = useRun();
  if (isLocked) return null;
  const unit = unitOf(doc);
  const save = (key: string, text: string, isMoney: boolean) => {
    const clean = typedNumber(text.trim());
    if (
      clean === "" ||
      !Number.isFinite(Number(clean)) ||
      Number(clean) < 0 ||
      String(doc.assembly[key as keyof typeof doc.assembly] ?? 0) === clean
    )
      return;
    change({ assembly: { [key]: isMoney ? clean : Number(clean) } } as never, "Figures of the work changed");
  };
  const rows = [
    ...(r.goes.has("stencil")
      ? ([
          ["perLoad", "Boards a load", false],
          ["stencilPrice", `Stencil, ${doc.workshop.currency}`, true],
        ] as const)
      : []),
    ...(r.goes.size === 1 && r.goes.has("house")
      ? []
      : ([["consumables", `Paste, flux, ${doc.workshop.currency}`, true]] as const)),
    ["reworkReserve", "Parts for rework, %", false] as const,
    ["testMinutes", `Test, min a ${unit}`, false] as const,
    ["packMinutes", `Packing, min a ${unit}`, false] as const,
  ];
  return (
    <div className="mt-3 grid grid-cols-3 gap-3 max-sm:grid-cols-2">
      {rows.map(([key, label, isMoney]) => (
        <Field
          key={`${key} ${doc.assembly[key]}`}
          label={label}
          inputMode="decimal"
          defaultValue={String(doc.assembly[key] ?? 0)}
          onBlur={(e) => save(key, e.target.value, isMoney)}
          onKeyDown={(e) => e.key === "Enter" && save(key, e.currentTarget.value, isMoney)}
          isNumber
        />
      ))}
    </div>
  );
}

import {
  isNoPiece,
  lotsOf,
  mayChange,
  minutesOf,
  type PlanOfRun,
  photosOfUnit,
  type RunSitting,
  slug,
  standsOfUnit,
  type TestTry,
  unitOf,
  unitOfStep,
  verdictOfUnit,
} from "@kobbin/core";
import { useMemo, useRef } from "react";
import { Link } from "react-router";
import { Photos } from "../../../photos/Photos.tsx";
import { useLearned } from "../../../resources/learned.ts";
import { useLots } from "../../../resources/library.ts";
import { useOuts } from "../../../resources/owners.ts";
import { effectiveRevision } from "../../../run/learn/effectiveRevision.ts";
import { useRun } from "../../../run/runState.ts";
import { useOrders } from "../../../run/useOrders.ts";
import { useSerial } from "../../../run/useSerial.ts";
import { Button } from "../../../ui/Button.tsx";
import { Code } from "../../../ui/Code.tsx";
import { printAlone } from "../../../ui/printed.ts";
import { saveFile } from "../../../ui/saveFile.ts";
import { day, said, written } from "../../../ui/text/format.ts";
import { hours } from "../Boards.tsx";
import { ByEye, useByEye, useRefsOf } from "../eye/ByEye.tsx";
import { Suspects } from "../hands/Suspects.tsx";
import { Loaded } from "../images/Loaded.tsx";
import { mustBe } from "../lines/lineModel.ts";
import { UnitLines } from "../lines/UnitLines.tsx";
import { OwnersSay } from "../owners/OwnersSay.tsx";
import { WhereItWent } from "../owners/WhereItWent.tsx";
import { BesideTests } from "../tests/BesideTests.tsx";
import { FaultFinder } from "../tests/FaultFinder.tsx";
import { Faults } from "../tests/Faults.tsx";
import { heatWords } from "./heatWords.ts";
import { KnownWrong, useKnownWrong } from "./KnownWrong.tsx";
import { bagWords, type CameFor, passportRows } from "./passportRows.ts";

type Used = NonNullable<RunSitting["used"]>;

const VERDICT = {
  pass: ["passes its tests", "text-fine"],
  fail: ["fails its tests", "text-stop"],
  open: ["not tried to the end", "text-ink-2"],
} as const;

/** Everything that is known of one board: its number, what was done to it by whom, what it read, what it is made of. */
export function Passport({
  mayNote,
  plan,
  unit,
  onSit,
}: {
  mayNote: boolean;
  plan: PlanOfRun;
  unit: number;
  onSit: (() => void) | undefined;
}) {
  const { id, doc, record, life, role } = useRun();
  const serial = useSerial()(unit);
  const errata = useKnownWrong();
  const revision = effectiveRevision(doc.revision, errata, id, unit);
  const paper = useRef<HTMLElement>(null);
  const tests = doc.assembly.tests ?? [];
  const stands = standsOfUnit(tests, record.tries ?? [], unit);
  const verdict = verdictOfUnit(stands);
  const [words, look] = VERDICT[verdict];
  const variant = doc.variants?.find((v) => v.id === doc.choices.variant)?.name;
  return (
    <section ref={paper} aria-label={`Passport of ${unitOf(doc)} ${unit}`} className="mt-4 max-w-[900px]">
      <div className="mb-4 flex flex-wrap items-start gap-5">
        {serial && <Code text={serial.replaceAll("-", "")} mm={22} label={`Code of ${serial}`} />}
        <div className="min-w-0 flex-1 basis-[18rem]">
          <p className="num text-[28px] leading-tight font-bold break-all">
            {serial ?? `${unitOf(doc)} ${unit}`}
          </p>
          <p className="text-[15px]">
            {doc.product} {revision}
            {variant ? `, ${variant}` : ""}; {unitOf(doc)} {unit} of “{doc.name}”
          </p>
          {tests.length > 0 && <p className={`text-[17px] font-semibold ${look}`}>{words}</p>}
          <ByEye plan={plan} unit={unit} tests={tests.length > 0 ? verdict : "none"} />
        </div>
        <span className="flex flex-wrap items-center gap-3 print:hidden">
          {onSit && (
            <Button look="main" onClick={onSit}>
              to the bench
            </Button>
          )}
          <Button onClick={() => paper.current && printAlone(paper.current)}>Print it</Button>
          <KeepFile plan={plan} unit={unit} revision={revision} />
          <Link to={`/runs/${id}/build?view=tests`} className="quiet-link">
            all of them
          </Link>
        </span>
      </div>
      <Photos
        of={{ unit }}
        what={serial ?? `${unitOf(doc)} ${unit}`}
        list={photosOfUnit(record, unit).filter((p) => p.defect === undefined)}
        mayAdd={mayChange("photo", life, role)}
      />
      {tests.length > 0 && <Read unit={unit} />}
      <UnitLines unit={unit} />
      <BesideTests only={unit} onTry={undefined} />
      <Loaded unit={unit} mayNote={mayChange("image_load", life, role)} />
      <KnownWrong unit={unit} mayWrite={mayNote} />
      <Faults mayWrite={mayNote} only={unit} />
      <Suspects unit={unit} />
      <FaultFinder plan={plan} unit={unit} mayNote={mayNote && life === "released"} />
      <WhereItWent unit={unit} />
      <OwnersSay unit={unit} />
      <Heats plan={plan} unit={unit} />
      <Done plan={plan} unit={unit} />
      <MadeOf />
    </section>
  );
}

const CAME_TO = { pass: "text-fine", fail: "text-stop", error: "text-look" } as const;
const words = (t: TestTry) =>
  t.value === undefined
    ? { pass: "yes", fail: "no", error: "not read" }[t.verdict]
    : `${t.bound ?? ""}${written(t.value)} ${t.limits.unit ?? ""}${t.verdict === "fail" ? " fails" : ""}`;

/** Every item with every try, the oldest first. */
function Read({ unit }: { unit: number }) {
  const { doc, record } = useRun();
  const stands = standsOfUnit(doc.assembly.tests ?? [], record.tries ?? [], unit);
  return (
    <>
      <h2 className="mt-4 mb-1 text-[16px]">What it read</h2>
      <table className="rows w-full text-[14.5px]" aria-label="What it read">
        <tbody>
          {stands
            .filter(({ item, tries }) => !item.besides || tries.length > 0)
            .map(({ item, tries, because }) => (
              <tr key={item.id}>
                <td>
                  <b>{item.name}</b>
                </td>
                <td className="num text-[13.5px] text-ink-2">{said(mustBe(item))}</td>
                <td>
                  {tries.length === 0 && <span className="text-ink-2">not tried</span>}
                  {tries.map((t, i) => (
                    <span key={t.id} className={CAME_TO[t.verdict]}>
                      {i > 0 ? " → " : ""}
                      <b className="num">{words(t)}</b>
                    </span>
                  ))}
                  {because && <span className="block text-[13.5px] text-stop">{said(because)}</span>}
                </td>
                <td className="text-right text-[13.5px] text-ink-2">
                  {tries.length > 0 && `${day(tries.at(-1)!.on)}, ${tries.at(-1)!.person}`}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
    </>
  );
}

const withWords = (used: Used = {}) =>
  Object.keys(used).length > 0 && <span className="text-ink-2"> with {Object.values(used).join(", ")}</span>;

/** How often it went through the heat, and by what: joints and parts stand so many times and no more. */
function Heats({ plan, unit }: { plan: PlanOfRun; unit: number }) {
  const { record } = useRun();
  const words = heatWords(plan.sheet.steps, record, unit);
  return words === "" ? null : (
    <p className="mt-5 text-[14.5px]">
      <b>Went through the heat</b> {words}
    </p>
  );
}

/** Each step of it: by whom, how long, what was in doubt. */
function Done({ plan, unit }: { plan: PlanOfRun; unit: number }) {
  const { record } = useRun();
  const rows = plan.sheet.steps.flatMap((s) => {
    const sat = (record.sittings ?? []).find((x) => x.step === s.n && x.unit === unitOfStep(s.kind, unit));
    if (!sat) return [];
    const doubts = Object.entries(sat.marks).flatMap(([name, m]) =>
      m === "doubt" && !isNoPiece(name) ? [name] : [],
    );
    return [{ s, sat, doubts }];
  });
  if (rows.length === 0)
    return <p className="mt-4 text-[14.5px] text-ink-2">Nothing of it was written down at the bench.</p>;
  return (
    <>
      <h2 className="mt-5 mb-1 text-[16px]">What was done</h2>
      <table className="rows w-full text-[14.5px]" aria-label="What was done">
        <tbody>
          {rows.map(({ s, sat, doubts }) => (
            <tr key={s.n}>
              <td className="num w-[2.5em] text-ink-2">{s.n}</td>
              <td>
                {s.words}
                {s.side ? `, ${s.side}` : ""}
                {withWords(sat.used)}
                {doubts.length > 0 && <span className="text-look"> in doubt: {doubts.join(" ")}</span>}
              </td>
              <td className="text-ink-2">{sat.isDone ? "done" : "begun"}</td>
              <td className="num text-right">{sat.unit === 0 ? "for all" : hours(minutesOf([sat]))}</td>
              <td className="text-right text-[13.5px] text-ink-2">{sat.person}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The passport as a table: what a program reads. Who has the board is not in it. */
function KeepFile({ plan, unit, revision }: { plan: PlanOfRun; unit: number; revision: string }) {
  const { id, doc, record } = useRun();
  const serial = useSerial()(unit) ?? "";
  const errata = useKnownWrong();
  const came = useCame();
  const eye = useByEye(plan)(unit);
  const refsOf = useRefsOf();
  const out = useOuts(id).data?.find((o) => o.unit === unit);
  const reports = useLearned().data?.reports.filter((r) => r.runId === id && r.unit === unit) ?? [];
  return (
    <button
      type="button"
      className="quiet-link"
      onClick={async () => {
        const { writeCsv } = await import("@kobbin/formats");
        const rows = passportRows({
          doc,
          record,
          plan,
          run: id,
          unit,
          serial,
          revision,
          errata,
          eye: eye && { stand: eye.stand, refs: refsOf(eye.doubts) },
          out,
          reports,
          came,
        });
        saveFile(new Blob([writeCsv(rows)]), `${serial || slug(`${doc.product} ${doc.name} ${unit}`)}.csv`);
      }}
    >
      keep as CSV
    </button>
  );
}

/** Deliveries of the run that may be used, and bags of the shelf it takes from beside them. */
function useCame(): readonly CameFor[] {
  const { doc, record, result: r } = useRun();
  const orders = useOrders();
  const { data: lots } = useLots();
  return useMemo(() => {
    const byId = new Map((lots ?? []).map((l) => [l.id, l]));
    const bagOf = (id: string | undefined) => {
      const l = id === undefined ? undefined : byId.get(id);
      return l ? { bag: l.number, ...(l.made === undefined ? {} : { made: l.made }) } : {};
    };
    const came = record.receipts.flatMap((x) => {
      const order = orders.find((o) => o.key === x.order);
      const item = order?.items.find((i) => i.key === x.item);
      if (!order || !item || x.isApart) return [];
      return [
        { key: x.id, what: item.label, from: order.name, qty: x.qty, on: x.arrivedOn, ...bagOf(x.lot) },
      ];
    });
    const ofParcels = new Set(record.receipts.map((x) => x.lot));
    // a closed run says what it took; before that it is what is kept for it
    const taken = record.taken
      ? Object.keys(record.taken)
      : r.needs.flatMap((n) => lotsOf(doc, n, record.receipts).map((l) => l.id));
    const shelf = [...new Set(taken)].flatMap((id) => {
      const l = byId.get(id);
      if (!l || ofParcels.has(id)) return [];
      return [{ key: id, what: l.mpn, from: "the shelf", on: l.receivedOn, ...bagOf(id) }];
    });
    return [...came, ...shelf];
  }, [doc, record, r.needs, orders, lots]);
}

/** What came for its run or lay there for it, by delivery and bag: any of it may be on this board. */
function MadeOf() {
  const came = useCame();
  if (came.length === 0)
    return <p className="mt-4 text-[14.5px] text-ink-2">Nothing is written down of what came for it.</p>;
  return (
    <>
      <h2 className="mt-5 mb-1 text-[16px]">What it may be made of: deliveries and bags of its run</h2>
      <table className="rows w-full text-[14.5px]" aria-label="What it may be made of">
        <tbody>
          {came.map((c) => (
            <tr key={c.key}>
              <td>
                <b>{c.what}</b>
              </td>
              <td className="text-ink-2">{c.from}</td>
              <td className="num text-[13.5px]">{bagWords(c)}</td>
              <td className="num text-right">{c.qty}</td>
              <td className="text-right text-[13.5px] text-ink-2">{c.on && day(c.on)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

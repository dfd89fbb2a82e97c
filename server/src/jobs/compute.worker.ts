import type { RunSummary } from "@kobbin/contract";
import {
  AppError,
  briefOf,
  diffBoards,
  type FabRequest,
  fabRequest,
  factorsAtClosing,
  isComplete,
  isMixed,
  judgeLessons,
  lotsOf,
  measureBoard,
  measureToKeep,
  microsToNumber,
  openLessons,
  placeReader,
  plannedOrders,
  type RunDocument,
  type RunRecord,
  rollUp,
  saysUnpriced,
  seenFaults,
  shapes,
  toWire,
} from "@kobbin/core";
import { type PackedBoard, packRun, readAsBoard } from "@kobbin/packing";
import { openBackup } from "../backup/open.ts";
import { OutsideError, readAnswer } from "../outside/index.ts";
import type { Answer, Ended, Summarised, Task } from "./messages.ts";
import { rollUpNearly, rollUpProven } from "./proven.ts";

/** One task of the pool: data in, data out. */
export default async function compute(task: Task): Promise<Answer> {
  try {
    if (task.kind === "measure") return await measure(task);
    if (task.kind === "backup") return { kind: "backup", backup: await openBackup(task.archive, task.own) };
    if (task.kind === "summary") return { kind: "summary", ...(await summarise(task.document)) };
    if (task.kind === "answer") return answered(task);
    if (task.kind === "places") return await placesOf(task);
    if (task.kind === "difference") return await differenceOf(task);
    if (task.kind === "request") return { kind: "request", request: requestOf(task) };
    if (task.kind === "outcome") return { kind: "outcome", ...outcomeOf(task.document, task.record) };
    return await pack(task);
  } catch (error) {
    const wire = toWire(error);
    if (wire) return wire;
    throw error;
  }
}

const PLACES = shapes.list(shapes.placementShape, shapes.MOST.placements);

async function measure(task: Extract<Task, { kind: "measure" }>): Promise<Answer> {
  const { set, corrections, rejected } = await readAsBoard(task.files, {
    corrections: task.corrections,
    ...(task.memory ? { memory: task.memory } : {}),
  });
  if (rejected)
    throw new AppError("ARCHIVE_INVALID", rejected, "Pack the files again and drop the new archive.");
  const m = measureBoard(set);
  if (m.outcome === "reject") {
    const why = m.findings.find((f) => f.text === m.reason);
    throw new AppError(
      why?.tag === "budget-reached" ? "TOO_MUCH_WORK" : "NO_BOARD_FILE",
      m.reason ?? "Nothing in the drop has a role on a board.",
      why?.do ?? "Drop the layers and drills your layout program wrote.",
      { details: m.layers },
    );
  }
  const kept = measureToKeep(m);
  const placements = set.placements?.parts ?? [];
  // what is kept is read back from backups for years: it has the shape they read
  const wrong = shapes.measureShape(kept, "its measures") ?? PLACES(placements, "its places");
  if (wrong)
    throw new AppError(
      "TOO_MUCH_WORK",
      `The board holds more than is kept: ${wrong}.`,
      "Drop only the board's own files; if they are all it is, report it.",
    );
  return {
    kind: "measured",
    measure: JSON.stringify(kept),
    corrections,
    lines: set.bom?.lines ?? [],
    placements,
  };
}

function answered({ answer, as }: Extract<Task, { kind: "answer" }>): Answer {
  try {
    return { kind: "answer", value: readAnswer(answer, as) };
  } catch (error) {
    if (error instanceof OutsideError) return { kind: "answer", refused: error.message };
    throw error;
  }
}

async function placesOf(task: Extract<Task, { kind: "places" }>): Promise<Answer> {
  const { set } = await readAsBoard(task.files, { corrections: task.corrections });
  const read = placeReader(set);
  return {
    kind: "places",
    readings: Object.fromEntries(
      Object.entries(task.places).map(([id, { at, diameterMm }]) => [
        id,
        read({ x: at[0], y: at[1] }, diameterMm),
      ]),
    ),
  };
}

async function differenceOf({ boards }: Extract<Task, { kind: "difference" }>): Promise<Answer> {
  const [now, against] = await Promise.all(
    boards.map(({ files, corrections }) => readAsBoard(files, { corrections })),
  );
  for (const { rejected } of [now!, against!])
    if (rejected)
      throw new AppError(
        "ARCHIVE_INVALID",
        rejected,
        "Download the files from the bench and drop them again.",
      );
  return { kind: "difference", difference: diffBoards(now!.set, against!.set) };
}

function requestOf({ document, houseId }: Extract<Task, { kind: "request" }>): FabRequest {
  const house = document.houses?.find((h) => h.id === houseId);
  if (!house) throw new AppError("NOT_FOUND", "The run was released without that house.", "Reload the page.");
  return fabRequest(document, house, rollUp(document).start);
}

/** What the next run of the product begins with, and the lots this one counted on or was sent. */
export function outcomeOf(document: RunDocument, record: RunRecord): Omit<Ended, "kind"> {
  const r = rollUp(document, { scope: "the best", record });
  const { tally, minutes } = r.actual!;
  const faults = seenFaults(document, r.parts, record);
  const lots = r.needs.map((n) => ({
    lines: n.lines,
    lots: lotsOf(document, n, record.receipts).map((l) => l.id),
  }));
  return {
    outcome: {
      method: document.assembly.method,
      ...(isMixed(document) ? { isMixed: true } : {}),
      good: tally.good,
      scrapped: tally.scrapped,
      minutes: tally.minutes,
      // as the model alone has it, whatever record this run began with
      modelMinutes: minutes.planned / (r.yield.record?.timeFactor ?? 1),
      ...(faults ? { faults } : {}),
    },
    factors: factorsAtClosing(document, r.parts, record, lots),
    lots: lots.flatMap((l) => l.lots),
  };
}

/** The test plan, where some of it is tried besides the bench: whoever waits for nothing else waits for that. */
function testsBesides({ assembly: { tests = [] } }: RunDocument): Pick<RunSummary, "tests"> {
  return tests.some((t) => t.besides)
    ? {
        tests: tests.map(({ id, name, besides, unit, point }) => ({
          id,
          name,
          ...(besides ? { besides } : {}),
          ...(point && unit ? { unit, point } : {}),
        })),
      }
    : {};
}

/** The figures a list shows of a run. */
export async function summarise(document: RunDocument): Promise<Omit<Summarised, "kind">> {
  const r = await rollUpNearly(document);
  const open = r.notes.filter((n) => !n.acceptedBecause && n.level !== "remark");
  const shelf = r.needs.flatMap((n) => n.shelf);
  const next = r.blockers[0] ?? open[0];
  const judged = judgeLessons({ doc: document, ...r });
  const broken = judged.filter((s) => s.verdict === "broken" && s.lesson.relaxedBecause === undefined);
  const summary: RunSummary = {
    perGood: microsToNumber(r.perGood),
    cashNeeded: microsToNumber(r.cashNeeded),
    start: r.start,
    readyFrom: r.ready.p10,
    readyTo: r.ready.p90,
    blockers: r.blockers.length,
    cautions: open.filter((n) => n.level === "warning").length,
    ...(isComplete(r.unpriced) ? {} : { unpriced: saysUnpriced(r.unpriced) }),
    ...(shelf.length > 0 ? { shelf: Object.fromEntries(shelf.map((t) => [t.lot.id, t.qty])) } : {}),
    lessons: openLessons(document, judged, r.notes),
    ...testsBesides(document),
    orders: plannedOrders({ doc: document, ...r, plan: r.assembly }).map((o) => briefOf(document, o)),
    ...(next ? { next: { stage: next.stage, text: next.text, ...(next.do ? { do: next.do } : {}) } } : {}),
  };
  return { summary, broken: Object.fromEntries(broken.map((s) => [s.lesson.id, s.found])) };
}

async function pack(task: Extract<Task, { kind: "package" }>): Promise<Answer> {
  // what is released is read back from backups and by the command line for years: it has the shape they read
  const wrong = shapes.runShape(task.document, "");
  if (wrong)
    throw new AppError(
      "DOCUMENT_INVALID",
      `The run holds what no released run can: ${wrong}.`,
      "Correct it, or remove what is too much of it, and release it again.",
    );
  const result = await rollUpProven(task.document);
  const boards: PackedBoard[] = [];
  for (const b of task.boards)
    boards.push({ name: b.name, ...(await readAsBoard(b.files, { corrections: b.corrections })) });
  const built = await packRun(task.document, result, boards, task.createdAt);
  return { kind: "package", zip: built.zip, manifest: built.manifest };
}

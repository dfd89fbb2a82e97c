import type { LotRow, RunAnswer } from "@kobbin/contract";
import {
  type Defect,
  leftOnShelf,
  microsToNumber,
  microsToText,
  type PlannedItem,
  type PlannedOrder,
  type PlanOfRun,
  plannedOrders,
  planOfRun,
  type RunDocument,
  type RunResult,
  rollUp,
  unitOfStep,
} from "@kobbin/core";
import type { Door } from "./door.ts";

/** A fault that was found on one board. */
export interface ToldFault {
  readonly unit: number;
  readonly at: string;
  readonly code: Defect["code"];
  readonly minutes?: number;
  readonly note?: string;
  readonly isOpen?: boolean;
}

type Became = readonly [state: string, days: number];
/** What suppliers do: they confirm, and send. */
const CONFIRMED: readonly Became[] = [["accepted", 0]];

const DAY = 86_400_000;
/** So many days after another, ISO dates. */
export const plus = (day: string, days: number): string =>
  new Date(Date.parse(day) + days * DAY).toISOString().slice(0, 10);

/** A run of the demo shop as it goes on: what is told of it is asked of the routes that its people would use. */
export class ToldRun {
  private readonly door: Door;
  readonly id: string;
  private readonly doc: RunDocument;
  private readonly result: RunResult;
  readonly orders: readonly PlannedOrder[];
  private plan: PlanOfRun | undefined;

  private constructor(door: Door, id: string, doc: RunDocument) {
    this.door = door;
    this.id = id;
    this.doc = doc;
    this.result = rollUp(doc, { scope: "the best" });
    this.orders = plannedOrders({ doc, ...this.result, plan: this.result.assembly });
  }

  /**
   * What nobody has in full somebody promises by telephone, whatever else stands against it is accepted with a reason, then
   * it is released.
   */
  static async released(door: Door, id: string, on: string, because: string): Promise<ToldRun> {
    await door.on(on);
    const read = () => door.ask<RunAnswer>("GET", `/api/runs/${id}`);
    const planned = async () => {
      const run = await read();
      return { ...run, result: rollUp(run.document, { scope: "the best" }) };
    };
    let run = await planned();
    const short = run.result.basket.lines.filter((l) => l.missing > 0);
    const [supplier] = run.document.suppliers;
    for (const { line, missing } of short)
      await door.ask("POST", `/api/lines/${line}/offers`, {
        supplierId: supplier!.id,
        stock: 2 * missing + 100,
        currency: supplier!.currency,
        leadDays: 5,
        validUntil: plus(on, 3),
        breaks: [{ qty: 1, price: "0.62" }],
      });
    for (let tries = 1; ; tries++) {
      run = await planned();
      const open = run.result.notes.filter((n) => n.level !== "remark" && !n.acceptedBecause);
      await door.ask("PATCH", `/api/runs/${id}`, {
        version: run.version,
        accepted: {
          ...run.document.choices.accepted,
          ...Object.fromEntries(open.map((n) => [n.key, because])),
        },
      });
      try {
        await door.ask("POST", `/api/runs/${id}/release`);
        return new ToldRun(door, id, (await read()).document);
      } catch (error) {
        // a lesson that was just written down may be held against the boards meanwhile
        if (tries === 5 || !String(error).includes(" 409")) throw error;
      }
    }
  }

  /** The products it was planned to start. */
  get start(): number {
    return this.result.start;
  }

  private async post<T = unknown>(what: string, on: string, body: object): Promise<T> {
    await this.door.on(on);
    return this.door.ask<T>("POST", `/api/runs/${this.id}/${what}`, body);
  }

  private only = (kind: PlannedOrder["kind"]) => this.orders.filter((o) => o.kind === kind);

  /**
   * Everything is ordered; the boards' house says in order what became of it.
   * @param dearer what invoices came to, of what was planned
   */
  async isOrdered(
    on: string,
    { dearer = 1, boards = [] }: { dearer?: number; boards?: readonly Became[] } = {},
  ): Promise<void> {
    for (const o of this.orders) {
      await this.post("order-steps", on, { order: o.key, state: "sent", on });
      for (const [state, days] of o.kind === "parts" ? CONFIRMED : boards)
        await this.post("order-steps", on, { order: o.key, state, on: plus(on, days) });
      const sum = (i: PlannedItem) => microsToText(Math.round((i.total * dearer) / 10_000) * 10_000);
      await this.door.ask("PUT", `/api/runs/${this.id}/purchases`, {
        order: o.key,
        currency: o.currency,
        promisedOn: plus(on, o.days[1]),
        freight: microsToText(Math.round(o.beside / 10_000) * 10_000),
        paid: Object.fromEntries(o.items.map((i) => [i.key, sum(i)])),
        pieces: Object.fromEntries(o.items.map((i) => [i.key, i.qty])),
      });
    }
  }

  /** What came of the orders of a kind, in one parcel each. @param how what is otherwise than ordered, by label */
  async cameFrom(
    kind: PlannedOrder["kind"],
    on: string,
    how: (
      i: PlannedItem,
      o: PlannedOrder,
    ) => { qty?: number; isApart?: boolean; because?: string } | undefined = () => ({}),
  ): Promise<{ order: PlannedOrder; item: PlannedItem; id: string }[]> {
    const all = [];
    let box = 0;
    for (const order of this.only(kind)) {
      const came = order.items.flatMap((item) => {
        const said = how(item, order);
        return said ? [{ item, said }] : [];
      });
      if (came.length === 0) continue;
      box++;
      const { ids } = await this.post<{ ids: string[] }>("receipts", on, {
        order: order.key,
        arrivedOn: on,
        items: came.map(({ item, said }) => ({
          item: item.key,
          qty: said.qty ?? item.qty,
          ...(said.isApart ? { isApart: true } : {}),
          because: said.because ?? "",
          ...(kind === "parts"
            ? { unitCost: (microsToNumber(item.total) / item.qty).toFixed(6), place: `drawer ${8 + box}` }
            : {}),
        })),
      });
      all.push(...came.map(({ item }, i) => ({ order, item, id: ids[i]! })));
    }
    return all;
  }

  /** Something is claimed of the boards' order, and what became of it. */
  async claims(
    on: string,
    c: { pieces: number; because: string; letter: string },
    end: { state: string; answer: string; credit?: string },
  ): Promise<void> {
    const [order] = this.only("boards");
    if (!order) return;
    const { id } = await this.post<{ id: string }>("claims", on, {
      order: order.key,
      item: order.items[0]!.key,
      on,
      ...c,
    });
    await this.door.ask("PATCH", `/api/claims/${id}`, end);
  }

  /** Bare boards of the first delivery measured: what the calliper showed. */
  async measures(on: string, labels: readonly string[], thickness: readonly number[]): Promise<void> {
    const [order] = this.only("boards");
    for (const [i, label] of labels.entries())
      await this.post("measured", on, {
        item: order!.items[0]!.key,
        label,
        on,
        readings: { thickness: [thickness[i % thickness.length]] },
        looks: {},
      });
  }

  works = (
    on: string,
    w: {
      started?: number;
      good?: number;
      reworked?: number;
      scrapped?: number;
      minutes?: number;
      note?: string;
    },
  ) => this.post("work", on, { on, ...w });

  async faults(on: string, list: readonly ToldFault[]): Promise<void> {
    for (const { isOpen, ...f } of list)
      await this.post("defects", on, { on, isMended: !isOpen, note: "", ...f });
  }

  /** A board goes through the steps that lead up to one, everything put on; what is walked takes its minutes. */
  async sits(on: string, units: readonly number[], upTo = Number.POSITIVE_INFINITY): Promise<void> {
    await this.door.on(on);
    this.plan ??= planOfRun(this.doc, this.result);
    const started = Math.max(1, this.start);
    for (const s of this.plan.sheet.steps) {
      if (s.n > upTo) break;
      const minutes = this.plan.order.steps.find((x) => x.n === s.n)!.minutes / started;
      const names = s.lines.flatMap((l) => l.refs);
      for (const unit of new Set(units.map((u) => unitOfStep(s.kind, u))))
        await this.door.ask("PUT", `/api/runs/${this.id}/sittings`, {
          unit,
          step: s.n,
          marks: Object.fromEntries(names.map((n) => [n, "done"])),
          lost: {},
          minutes: { benchone: Math.round(10 * minutes) / 10 },
          isDone: true,
        });
    }
  }

  /** A board in the middle of a step: the first of its parts are on, one was lost. */
  async isAmid(on: string, unit: number): Promise<void> {
    this.plan ??= planOfRun(this.doc, this.result);
    const walked = this.plan.sheet.steps.filter((s) => s.lines.some((l) => l.refs.length > 0));
    const s = walked.find((x) => x.kind === "iron") ?? walked[0];
    if (!s) return;
    await this.sits(on, [unit], s.n - 1);
    const names = s.lines.flatMap((l) => l.refs);
    const half = names.slice(0, Math.max(1, Math.floor(names.length / 2)));
    await this.door.ask("PUT", `/api/runs/${this.id}/sittings`, {
      unit,
      step: s.n,
      marks: Object.fromEntries(half.map((n) => [n, "done"])),
      lost: { [s.lines[0]!.line]: 1 },
      minutes: { benchone: 4.5 },
      isDone: false,
    });
  }

  /** A reading of an item of the test plan on one board. */
  reads = (on: string, unit: number, item: string, value: string, unitWords: string) =>
    this.post("tries", on, { unit, item, on, value, words: `${value} ${unitWords}` });

  loads = (on: string, unit: number, image: string, given: Readonly<Record<string, string>>) =>
    this.post("loads", on, { unit, image, on, isRight: true, said: "verified", given });

  /** Boards that went out; who has them only where it is said. */
  async wentOut(
    on: string,
    units: readonly number[],
    towards: string,
    who: { holder?: string; reach?: string } = {},
  ) {
    await this.door.on(on);
    await this.door.ask("PUT", `/api/runs/${this.id}/outs`, { units, on, towards, ...who });
  }

  /** What the owner of a board said, and what came of it. */
  async isTold(
    on: string,
    unit: number,
    r: { says: string; conditions?: string; workaround?: string },
    then: { answer?: string; erratumId?: string } = {},
  ): Promise<void> {
    await this.door.on(on);
    const { productId } = await this.door.ask<RunAnswer>("GET", `/api/runs/${this.id}`);
    const about = { productId, runId: this.id, unit };
    const { id } = await this.door.ask<{ id: string }>("POST", "/api/reports", { ...about, on, ...r });
    if (Object.keys(then).length > 0) await this.door.ask("PATCH", `/api/reports/${id}`, then);
  }

  /** It is closed: what stays on the shelf is worked out as the page does. */
  async isClosed(on: string, lesson: string): Promise<void> {
    await this.door.on(on);
    const [{ record }, lots] = await Promise.all([
      this.door.ask<RunAnswer>("GET", `/api/runs/${this.id}`),
      this.door.ask<LotRow[]>("GET", "/api/lots"),
    ]);
    const left = leftOnShelf(this.doc, this.result, record!, lots);
    await this.door.ask("PUT", `/api/runs/${this.id}/closing`, {
      lesson,
      stays: Object.fromEntries(left.map((l) => [l.lot, l.stays])),
    });
  }
}

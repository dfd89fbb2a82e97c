import type { LotRow, RunAnswer } from "@kobbin/contract";
import {
  type AirStep,
  bareLeft,
  type Defect,
  type Equipment,
  judgeLot,
  leftOnShelf,
  microsToText,
  NO_RECORD,
  type OrderState,
  type PlannedItem,
  type PlannedOrder,
  type PlanOfRun,
  PURPOSES,
  plannedOrders,
  planOfRun,
  type RunDocument,
  type RunResult,
  rollUp,
  toolAtHand,
  toolsAt,
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

/** What is written beside a state that is nothing without words. */
const WORDS: Readonly<Partial<Record<OrderState, string>>> = {
  asked: "Is the slot at the left plated?",
  answered: "No, plain.",
};
/** Of a euro, micros. */
const CENT = 10_000;

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
  private dearer = 1;

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

  private ordersOf = (kind: PlannedOrder["kind"]) => this.orders.filter((o) => o.kind === kind);

  /** What a line comes to by its invoice, in whole cents. */
  private paid = (i: PlannedItem): number => Math.round((i.total * this.dearer) / CENT) * CENT;

  /**
   * Everything is ordered; suppliers confirm at once, and every invoice is written down.
   * @param dearer what invoices came to, of what was planned
   */
  async isOrdered(on: string, dearer = 1): Promise<void> {
    this.dearer = dearer;
    for (const o of this.orders) {
      await this.post("order-steps", on, { order: o.key, state: "sent", on });
      if (o.kind === "parts") await this.post("order-steps", on, { order: o.key, state: "accepted", on });
      await this.door.ask("PUT", `/api/runs/${this.id}/purchases`, {
        order: o.key,
        currency: o.currency,
        promisedOn: plus(on, o.days[1]),
        freight: microsToText(Math.round(o.beside / CENT) * CENT),
        paid: Object.fromEntries(o.items.map((i) => [i.key, microsToText(this.paid(i))])),
        pieces: Object.fromEntries(o.items.map((i) => [i.key, i.qty])),
      });
    }
  }

  /** What became of the bare boards at their house on a day, in this order. */
  async boardsAre(on: string, ...states: readonly OrderState[]): Promise<void> {
    for (const o of this.ordersOf("boards"))
      for (const state of states)
        await this.post("order-steps", on, { order: o.key, state, on, words: WORDS[state] ?? "" });
  }

  /**
   * What came of the orders of a kind, in one parcel each.
   *
   * @param how what is otherwise than ordered; nothing of it came where it gives nothing
   * @returns pieces that are missing of what came
   */
  async cameFrom(
    kind: PlannedOrder["kind"],
    on: string,
    how: (i: PlannedItem, o: PlannedOrder) => { qty?: number; because?: string } | undefined = () => ({}),
  ): Promise<number> {
    let [box, missing] = [0, 0];
    for (const order of this.ordersOf(kind)) {
      const came = order.items.flatMap((item) => {
        const said = how(item, order);
        return said ? [{ item, qty: said.qty ?? item.qty, because: said.because ?? "" }] : [];
      });
      if (came.length === 0) continue;
      box++;
      missing += came.reduce((n, c) => n + c.item.qty - c.qty, 0);
      await this.post("receipts", on, {
        order: order.key,
        arrivedOn: on,
        items: came.map(({ item, qty, because }) => ({
          item: item.key,
          qty,
          because,
          ...(kind === "parts"
            ? { unitCost: microsToText(Math.round(this.paid(item) / item.qty)), place: `drawer ${8 + box}` }
            : {}),
        })),
      });
    }
    return missing;
  }

  /** What happened to the dry bag of a part that came for the run, at hours of the day before half past nine. */
  async bagged(
    on: string,
    mpn: string,
    steps: readonly (readonly [at: string, is: AirStep])[],
  ): Promise<void> {
    await this.door.on(on);
    const lots = await this.door.ask<LotRow[]>("GET", "/api/lots");
    const [lot] = lots.filter((l) => l.mpn === mpn && l.reserved.some((r) => r.runId === this.id));
    if (!lot) throw new Error(`nothing of ${mpn} came for this run`);
    for (const [at, is] of steps)
      await this.door.ask("POST", `/api/lots/${lot.id}/air`, { is, at: `${on}T${at}:00Z` });
  }

  /** Bare boards are missing: it is claimed, and settled for what they cost. */
  async claimsMissing(on: string, pieces: number, answer: string): Promise<void> {
    const [order] = this.ordersOf("boards");
    const [item] = order!.items;
    const { id } = await this.post<{ id: string }>("claims", on, {
      order: order!.key,
      item: item!.key,
      on,
      pieces,
      because: `${pieces} boards are missing`,
      letter: `Of the ${item!.qty} boards we ordered ${pieces} did not come.`,
    });
    await this.door.ask("PATCH", `/api/claims/${id}`, {
      state: "settled",
      answer,
      credit: (((this.paid(item!) / item!.qty) * pieces) / 1e6).toFixed(2),
    });
  }

  /**
   * Bare boards are measured, one a reading: how thick the calliper showed each, and how much wider its holes came than drawn.
   */
  async measures(on: string, thickness: readonly number[], widerMm: number): Promise<void> {
    const [order] = this.ordersOf("boards");
    const holes = judgeLot(this.doc, this.result, NO_RECORD, 0).points.filter((p) =>
      p.key.startsWith("hole"),
    );
    const read = (mm: number) => Math.round((mm + widerMm) * 100) / 100;
    for (const [i, mm] of thickness.entries())
      await this.post("measured", on, {
        item: order!.items[0]!.key,
        label: String(i + 1),
        on,
        readings: { thickness: [mm], ...Object.fromEntries(holes.map((h) => [h.key, [read(h.mm)]])) },
        looks: {},
      });
  }

  /** Bare boards that are left are put by as it is usual, as far as they reach. */
  async putsBy(on: string, place: string): Promise<void> {
    const { record } = await this.door.ask<RunAnswer>("GET", `/api/runs/${this.id}`);
    const { item, proposed } = bareLeft(this.doc, this.result, record!, 0);
    const boards = PURPOSES.flatMap((purpose) =>
      proposed[purpose] ? [{ purpose, pieces: proposed[purpose] }] : [],
    );
    if (boards.length > 0) await this.post("kept", on, { item, boards, place, on });
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
    const { equipment } = await this.door.ask<{ equipment: readonly Equipment[] }>("GET", "/api/equipment");
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
          used: this.usedAt(s.kind, equipment),
        });
    }
  }

  /** What the bench writes down with a step that is done: the shop has one of each, or nothing is said. */
  private usedAt(kind: string, list: readonly Equipment[]): Record<string, string> {
    return Object.fromEntries(
      toolsAt(kind).flatMap((t) => {
        const { name } = toolAtHand(t, list, 1, undefined, []);
        return name === undefined ? [] : [[t, name]];
      }),
    );
  }

  /** Boards go through the heat in a heater; nothing else of them is pressed. */
  async isHeated(on: string, heater: string, from: number, to: number): Promise<void> {
    await this.door.on(on);
    this.plan ??= planOfRun(this.doc, this.result);
    for (const s of this.plan.sheet.steps.filter((x) => x.kind === "heat"))
      for (let unit = from; unit <= to; unit++)
        await this.door.ask("PUT", `/api/runs/${this.id}/sittings`, {
          unit,
          step: s.n,
          marks: {},
          lost: {},
          minutes: {},
          isDone: true,
          used: { heater },
        });
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

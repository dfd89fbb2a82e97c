import type { LearnedAnswer, RevisionPlan } from "@kobbin/contract";
import { standOf } from "./lessonWords.ts";

/** Something that speaks for a next revision of a product. */
export interface Speaks {
  readonly kind: "fault" | "lesson" | "owner";
  readonly id: string;
  readonly words: string;
  /** ISO date since which it is known. */
  readonly since: string;
  /** Own minutes it has taken so far on boards; none where nothing was worked around. */
  readonly minutes: number;
  /** When it is to be mended, as far as that was said. */
  readonly planned: string;
}

/** A product with what speaks for a next revision of it, and what was decided. */
export interface NextRevision {
  readonly productId: string;
  readonly product: string;
  /** Its newest revision. */
  readonly newest: string;
  readonly speaks: readonly Speaks[];
  readonly plan: RevisionPlan | undefined;
  /** What came to be known after the decision. */
  readonly after: readonly Speaks[];
}

type Data = Pick<LearnedAnswer, "products" | "errata" | "lessons" | "reports" | "plans">;

/**
 * What speaks for a next revision of each product (needs N138): faults its newest has still or nobody has decided on,
 * lessons that do not hold in an open run of it, what owners say that is no known fault; beside the decision, and what came after.
 */
export function nextRevisions(d: Data): NextRevision[] {
  return d.products.flatMap((p): NextRevision[] => {
    const newest = p.revisions.at(-1);
    if (!newest) return [];
    const faults = d.errata
      .filter((e) => e.productId === p.id)
      .filter((e) => {
        const is = e.decisions[newest.id]?.is;
        return e.revisionId === newest.id || is === undefined || is === "stays";
      })
      .map(
        (e): Speaks => ({
          kind: "fault",
          id: e.id,
          words: e.title,
          since: e.foundOn,
          minutes: e.reworks.flatMap((r) => r.units).reduce((n, u) => n + (u.minutes ?? 0), 0),
          planned: e.planned,
        }),
      );
    const lessons = d.lessons
      .filter((l) => l.clearedOn === undefined)
      .flatMap((l): Speaks[] => {
        const runs = l.runs.filter((r) => r.product === p.name && r.revision === newest.label);
        if (standOf({ runs }) !== "broken") return [];
        const caught = l.caught.find((c) => c.product === p.name && c.revision === newest.label);
        return [
          { kind: "lesson", id: l.id, words: l.title, since: caught?.on ?? l.since, minutes: 0, planned: "" },
        ];
      });
    const owners = d.reports
      .filter((r) => r.productId === p.id && r.erratumId === undefined)
      .map((r): Speaks => ({ kind: "owner", id: r.id, words: r.says, since: r.on, minutes: 0, planned: "" }));
    const speaks = [...faults, ...lessons, ...owners];
    const plan = d.plans.find((x) => x.productId === p.id);
    return [
      {
        productId: p.id,
        product: p.name,
        newest: newest.label,
        speaks,
        plan,
        after: plan ? speaks.filter((s) => s.since > plan.on) : [],
      },
    ];
  });
}

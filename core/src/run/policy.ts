/** A run's state: decided upon still, or released. */
export type RunState = "open" | "released";
/** What a member may do: all, or build, receive and note. */
export type MemberRole = "owner" | "bench";

/**
 * The two lives of a run. What is decided is frozen at the release; what happens goes on after it.
 * Tables as the server records them; a new one is a line here.
 */
const LIVES = {
  run: "decided",
  fork: "decided",
  quotation: "decided",
  bom_line: "decided",
  offer: "decided",
  offer_break: "decided",
  line_sum: "decided",
  variant: "decided",
  reservation: "happens",
  remark: "happens",
} as const;
/** A recorded table that belongs to a run. */
export type RunTable = keyof typeof LIVES;

/** Whether a recorded table holds what is decided, which a release freezes. */
export const isDecided = (table: string): boolean =>
  Object.hasOwn(LIVES, table) && LIVES[table as RunTable] === "decided";

/** Who may write what happens: a remark is anybody's, pieces are an owner's to give away. */
const WHO: Readonly<Record<string, readonly MemberRole[]>> = { remark: ["owner", "bench"] };

/** Tables of what happens to a run, whatever its state. */
export const HAPPENS: readonly RunTable[] = (Object.keys(LIVES) as RunTable[]).filter(
  (t) => LIVES[t] === "happens",
);

/**
 * Whether a row of a run may be written or taken back: the one policy of routes, undo and page.
 *
 * @param table one of a run's; others belong to the shop and are never asked here
 */
export const mayChange = (table: RunTable, state: RunState, role: MemberRole): boolean =>
  (LIVES[table] === "happens" || state === "open") && (WHO[table] ?? ["owner"]).includes(role);

/** A run's state: decided upon still, released, or closed when all of it was built and counted. */
export type RunState = "open" | "released" | "closed";
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
  purchase: "happens",
  order_step: "happens",
  receipt: "happens",
  bare_test: "happens",
  board_measured: "happens",
  bare_kept: "happens",
  claim: "happens",
  photo: "happens",
  sitting: "happens",
  test_try: "happens",
  image_load: "happens",
  defect: "happens",
  rework: "happens",
  unit_out: "happens",
  work: "happens",
  closing: "happens",
} as const;
/** A recorded table that belongs to a run. */
export type RunTable = keyof typeof LIVES;

/** Whether a recorded table belongs to a run. */
export const isOfRun = (table: string): table is RunTable => Object.hasOwn(LIVES, table);

/** Whether a recorded table holds what is decided, which a release freezes. */
export const isDecided = (table: string): boolean =>
  Object.hasOwn(LIVES, table) && LIVES[table as RunTable] === "decided";

/** Who may write what happens: what is noted, received and built is anybody's; pieces are an owner's to give away. */
const WHO: Readonly<Record<string, readonly MemberRole[]>> = {
  remark: ["owner", "bench"],
  receipt: ["owner", "bench"],
  bare_test: ["owner", "bench"],
  board_measured: ["owner", "bench"],
  bare_kept: ["owner", "bench"],
  photo: ["owner", "bench"],
  sitting: ["owner", "bench"],
  test_try: ["owner", "bench"],
  image_load: ["owner", "bench"],
  defect: ["owner", "bench"],
  rework: ["owner", "bench"],
  unit_out: ["owner", "bench"],
  work: ["owner", "bench"],
};

/** What of a run may only be written once it is released. */
const AFTER_RELEASE: readonly RunTable[] = [
  "purchase",
  "order_step",
  "receipt",
  "bare_test",
  "board_measured",
  "bare_kept",
  "claim",
  "photo",
  "sitting",
  "test_try",
  "image_load",
  "defect",
  "rework",
  "unit_out",
  "work",
  "closing",
];
/**
 * What a closed run still takes: words, photos, what bare boards that are left are for, what becomes of a claim, boards of it that are mended, loaded anew or wiped
 * before they are shipped, where they went, and being opened again.
 */
const AFTER_CLOSING: readonly RunTable[] = [
  "remark",
  "photo",
  "bare_kept",
  "image_load",
  "closing",
  "claim",
  "rework",
  "unit_out",
];

/**
 * Whether a row of a run may be written or taken back: the one policy of routes, undo and page.
 *
 * @param table one of a run's; others belong to the shop and are never asked here
 */
export const mayChange = (table: RunTable, state: RunState, role: MemberRole): boolean =>
  isTime(table, state) && (WHO[table] ?? ["owner"]).includes(role);

/** Whether a table of a run is written at all while the run is in a state, whoever asks. */
export function isTime(table: RunTable, state: RunState): boolean {
  if (LIVES[table] === "decided") return state === "open";
  if (state === "open") return !AFTER_RELEASE.includes(table);
  return state === "released" || AFTER_CLOSING.includes(table);
}

/** Tables whose rows come and go with what somebody at the bench wrote: the lot of a receipt, and for which run it is. */
const WITH_IT: readonly string[] = ["lot", "reservation"];

/** Tables of the shop in which anybody writes down what was learned. */
const ANYBODYS: readonly string[] = ["lesson", "erratum", "owner_report"];

/**
 * Whether a change may be taken back or brought again, by the tables it wrote: an owner may, while the run's state lets each
 * be written; at the bench one takes back what the bench writes.
 *
 * @param tables of the change's rows; those that are no run's belong to the shop
 */
export function mayTakeBack(
  tables: readonly string[],
  state: RunState | undefined,
  role: MemberRole,
): boolean {
  const ofRun = tables.filter(isOfRun);
  // what closes a run or opens it again is of the time before
  const at = state === "closed" && tables.includes("closing") ? "released" : state;
  if (at && !ofRun.every((t) => isTime(t, at))) return false;
  if (role === "owner") return true;
  const own = [
    ...ofRun.filter((t) => WHO[t]?.includes("bench")),
    ...tables.filter((t) => ANYBODYS.includes(t)),
  ];
  return own.length > 0 && tables.every((t) => own.includes(t) || WITH_IT.includes(t));
}

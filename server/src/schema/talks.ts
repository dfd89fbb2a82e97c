/** What a worker is told that takes up a question of any list: who asked, of which run, the how-manieth try it is. */
const ANY = {
  id: "id",
  runId: "run_id",
  accountId: "account_id",
  person: "person",
  page: "page",
  tries: "tries",
} as const;

/** The lists of questions to somebody outside, with the list of what is due of each, and what a worker is told: name → column. */
export const TALKS = {
  feed_ask: { due: "feed_due", told: { ...ANY, supplierId: "supplier_id", notListed: "not_listed" } },
  house_ask: { due: "house_due", told: { ...ANY, houseId: "house_id", start: "start" } },
  order_ask: {
    due: "order_due",
    told: { ...ANY, order: "order_key", houseId: "house_id", number: "number" },
  },
} as const;
export type TalkTable = keyof typeof TALKS;

/** @throws Error where the name is no such list: it came from data */
function talkOf(table: TalkTable): (typeof TALKS)[TalkTable] {
  if (!Object.hasOwn(TALKS, table)) throw new Error(`no list of questions: ${String(table).slice(0, 60)}`);
  return TALKS[table];
}

/** Name of a list of questions for a statement; of what is due of it. */
export function talkIdent(table: TalkTable, isDue = false): string {
  const { due } = talkOf(table);
  return `"${isDue ? due : table}"`;
}

/** What a worker is told of a question, as a list for a statement. */
export const talkColumns = (table: TalkTable): string =>
  Object.entries(talkOf(table).told)
    .map(([name, column]) => `"${column}" as "${name}"`)
    .join(", ");

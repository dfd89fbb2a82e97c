import { AppError } from "../../errors.ts";

/** What an order is of: parts of a supplier, boards of a house, or the placing of parts at one. */
export const ORDER_KINDS = ["parts", "boards", "assembly"] as const;
export type OrderKind = (typeof ORDER_KINDS)[number];

declare const made: unique symbol;
/** Key of an order as it stands in records, addresses and the database: "parts a1b2", "parts a1b2 USD", "boards far". */
export type OrderKey = string & { readonly [made]: "order key" };

/** An order by what its key says. */
export interface OrderPlace {
  readonly kind: OrderKind;
  /** Supplier or house of the document. */
  readonly party: string;
  /** Where it is another than the supplier's own: what is bought there in a second currency is an order of its own. */
  readonly currency?: string;
}

/** How a key is written: requests and what is restored are held to it. */
export const ORDER_KEY = new RegExp(`^(${ORDER_KINDS.join("|")}) ([\\w-]{1,80})(?: ([A-Z]{3}))?$`);

/** The key of an order. */
export const orderKey = ({ kind, party, currency }: OrderPlace): OrderKey =>
  `${kind} ${party}${currency === undefined ? "" : ` ${currency}`}` as OrderKey;

/** What a key says; undefined where it is none. */
export function findOrder(key: string): OrderPlace | undefined {
  const [, kind, party, currency] = ORDER_KEY.exec(key) ?? [];
  return kind === undefined
    ? undefined
    : { kind: kind as OrderKind, party: party!, ...(currency === undefined ? {} : { currency }) };
}

/** What a key says. @throws AppError NOT_FOUND where it is none */
export function orderOf(key: string): OrderPlace {
  const found = findOrder(key);
  if (!found)
    throw new AppError(
      "NOT_FOUND",
      "That is none of the run's orders.",
      "Look at the run's Order stage again.",
    );
  return found;
}

/** Whether a key is of an order of a kind. */
export const isOrderOf = (kind: OrderKind, key: string): boolean => findOrder(key)?.kind === kind;

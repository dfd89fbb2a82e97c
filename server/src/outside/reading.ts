import {
  readFeed,
  readFound,
  readHouses,
  readMeter,
  readOrder,
  readQuote,
  readSuppliers,
} from "./answers.ts";
import { OutsideError } from "./partners.ts";
import type { Incoming } from "./request.ts";
import { plainWords } from "./words.ts";

/** Every kind of answer, and what it is read by. */
const READERS = {
  feed: readFeed,
  found: readFound,
  suppliers: readSuppliers,
  houses: readHouses,
  quote: readQuote,
  order: readOrder,
  meter: readMeter,
} as const;
export type AnswerKind = keyof typeof READERS;
export type AnswerOf<K extends AnswerKind> = ReturnType<(typeof READERS)[K]>;

/** Reads an answer as one of the kinds. @throws OutsideError in words: its own where it refused, else what is wrong with what came */
export type Reader = <K extends AnswerKind>(answer: Incoming, as: K) => Promise<AnswerOf<K>>;

/** Letters of an answer that are read on the spot; as many as take a few milliseconds, whatever they are. */
const SMALL = 32_000;

/** What an answer holds, read here and now. @throws OutsideError as {@link Reader} */
export function readAnswer<K extends AnswerKind>({ status, text }: Incoming, as: K): AnswerOf<K> {
  let value: unknown;
  try {
    value = text === "" ? undefined : JSON.parse(text);
  } catch {
    // an error page is no JSON, and its number says enough
    if (status < 400) throw new OutsideError("Its answer cannot be read.");
  }
  if (status < 400) return READERS[as](value) as AnswerOf<K>;
  const said =
    typeof value === "object" && value !== null ? (value as { message?: unknown }).message : undefined;
  throw new OutsideError(plainWords(said) || `It answered ${status}.`);
}

/** Reads on the spot. */
export const readHere: Reader = async (answer, as) => readAnswer(answer, as);

/** What a thread made of an answer: what it holds, or why it cannot be used. */
export interface ReadElsewhere {
  readonly value?: unknown;
  readonly refused?: string;
}

/**
 * Reads what is short on the spot, and what is long elsewhere, where it keeps nobody waiting.
 * @param elsewhere reads it by {@link readAnswer} in a thread
 */
export const readApart =
  (elsewhere: (answer: Incoming, as: AnswerKind) => Promise<ReadElsewhere>): Reader =>
  async (answer, as) => {
    if (answer.text.length <= SMALL) return readAnswer(answer, as);
    // of a refusal this long nobody wants the words
    if (answer.status >= 400) throw new OutsideError(`It answered ${answer.status}.`);
    const { value, refused } = await elsewhere(answer, as);
    if (refused !== undefined) throw new OutsideError(refused);
    return value as never;
  };

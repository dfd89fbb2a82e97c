/** What leaves the server for somebody outside, and what of their answers is taken. */
export { readFeed, readFound, readHouses, readOrder, readQuote, readSuppliers } from "./answers.ts";
export { answerIn, askOutside, type Incoming, isInner, type Outgoing, OutsideError } from "./request.ts";
export { plainWords } from "./words.ts";

export { createPartners, InTurnError, OutsideError, type Partners, SilentError } from "./partners.ts";
export {
  type AnswerKind,
  type ReadElsewhere,
  type Reader,
  readAnswer,
  readApart,
  readHere,
} from "./reading.ts";
export { askOutside, type Incoming, isInner, type Outgoing } from "./request.ts";
export { plainWords } from "./words.ts";

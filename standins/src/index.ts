/** The one door of the stand-ins. */
export { createStandIns, type StandInOptions } from "./app.ts";
export { HOUSES } from "./houses/index.ts";
export { SUPPLIERS } from "./suppliers.ts";
